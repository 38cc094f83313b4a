import { entryOf } from '../core/lists'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { XMLParser } from 'fast-xml-parser'
import { midiOf } from '../core/pitch/note'

/**
 * What our files are to a general renderer of notation (verovio 6, RISM Digital Center): it reads
 * them into MEI (Music Encoding Initiative, 5.1).
 */
export interface Rendered {
  measures: number
  /** Of the first staff's first layer, tied notes once. */
  pitches: number[]
  /** Lengths in quarters, tied notes together. */
  lengths: number[]
  harms: string[]
  words: string[]
  repeats: string[]
  endings: string[]
  /** Staves, with the sign of their clef. */
  clefs: string[]
}

type Node = Record<string, unknown>
const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ':@') ?? ''
const inside = (node: Node): Node[] => {
  const children = node[nameOf(node)]
  return Array.isArray(children) ? (children as Node[]) : []
}
const at = (node: Node, name: string): string | undefined =>
  (node[':@'] as Record<string, string> | undefined)?.[name]
const every = (node: Node, name: string): Node[] =>
  inside(node).flatMap((one) => [...(nameOf(one) === name ? [one] : []), ...every(one, name)])
const textOf = (node: Node): string =>
  nameOf(node) === '#text' ? String(node['#text']) : inside(node).map(textOf).join('')

const ALTER: Readonly<Record<string, number>> = { s: 1, f: -1, ss: 2, x: 2, ff: -2, n: 0 }

/**
 * Files as the renderer reads them; null for one it cannot.
 * @param staves of each file the staff, from 1, whose notes are wanted; the first where none is
 *   said
 */
export function rendered(files: readonly string[], staves: readonly number[] = []): (Rendered | null)[] {
  const file = join(mkdtempSync(join(tmpdir(), 'render-')), 'files.json')
  writeFileSync(file, JSON.stringify(files))
  const script = `
    import { readFileSync } from 'node:fs'
    import createModule from 'verovio/wasm'
    import { VerovioToolkit } from 'verovio/esm'
    const module = await createModule()
    const all = JSON.parse(readFileSync(process.argv[1], 'utf8')).map((content) => {
      try {
        // A new one for each: what a file sets stays.
        const toolkit = new VerovioToolkit(module)
        return toolkit.loadData(content) ? toolkit.getMEI({ removeIds: false }) : null
      } catch {
        return null
      }
    })
    process.stdout.write(JSON.stringify(all))`
  const told = execFileSync(process.execPath, ['--input-type=module', '-e', script, file], {
    encoding: 'utf8',
    maxBuffer: 1e9,
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  return (JSON.parse(told) as (string | null)[]).map((one, index) =>
    one === null ? null : readMei(one, String(staves[index] ?? 1)),
  )
}

function readMei(mei: string, wanted: string): Rendered {
  const root: Node = {
    root: new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '' }).parse(
      mei,
    ) as Node[],
  }
  const measures = every(root, 'measure')
  const tiedOn = new Map(
    every(root, 'tie').map((tie) => [
      at(tie, 'endid')?.replace(/^#/, ''),
      at(tie, 'startid')?.replace(/^#/, ''),
    ]),
  )
  const notes = new Map<string, { pitch: number; length: number }>()
  const quarters = (node: Node): number => {
    const dots = Number(at(node, 'dots') ?? 0)
    return (4 / Number(at(node, 'dur'))) * (2 - 1 / 2 ** dots)
  }
  const walk = (node: Node, share: number): void => {
    for (const one of inside(node)) {
      if (at(one, 'grace') !== undefined || nameOf(one) === 'graceGrp') continue
      if (nameOf(one) === 'note') {
        const sign = every(one, 'accid')[0]
        const alter =
          at(one, 'accid.ges') ??
          (sign && (at(sign, 'accid') ?? at(sign, 'accid.ges'))) ??
          at(one, 'accid') ??
          'n'
        const pitch = midiOf({
          letter: 'cdefgab'.indexOf(at(one, 'pname')!),
          alter: ALTER[alter]!,
          octave: Number(at(one, 'oct')),
        })
        const id = at(one, 'xml:id')!
        const from = tiedOn.get(id)
        const before = from === undefined ? undefined : notes.get(from)
        if (before) {
          before.length += quarters(one) * share
          notes.set(id, before)
        } else notes.set(id, { pitch, length: quarters(one) * share })
      } else if (nameOf(one) === 'chord') {
        // A chord's notes have its length; the highest of them is meant.
        const length = quarters(one) * share
        walk(one, share)
        const ids = every(one, 'note').map((each) => at(each, 'xml:id')!)
        const [highest] = ids
          .filter((id) => notes.has(id))
          .sort((a, b) => entryOf(notes, b).pitch - entryOf(notes, a).pitch)
        for (const id of ids) if (id !== highest) notes.delete(id)
        const kept = highest === undefined ? undefined : notes.get(highest)
        if (kept && Number.isNaN(kept.length)) kept.length = length
      } else if (nameOf(one) === 'tuplet')
        walk(one, (share * Number(at(one, 'numbase'))) / Number(at(one, 'num')))
      else walk(one, share)
    }
  }
  for (const measure of measures) {
    const [staff] = every(measure, 'staff').filter((one) => at(one, 'n') === wanted)
    const [layer] = staff ? every(staff, 'layer') : []
    if (layer) walk(layer, 1)
  }
  const sung = [...new Set(notes.values())]
  return {
    measures: measures.length,
    pitches: sung.map(({ pitch }) => pitch),
    lengths: sung.map(({ length }) => Math.round(length * 1000) / 1000),
    harms: every(root, 'harm').map(textOf),
    words: every(root, 'syl')
      .map(textOf)
      .filter((word) => word.trim() !== ''),
    repeats: measures.flatMap(
      (one) => [at(one, 'left'), at(one, 'right')].filter((line) => line?.startsWith('rpt')) as string[],
    ),
    endings: every(root, 'ending').map((one) => at(one, 'n') ?? ''),
    clefs: every(root, 'staffDef').map(
      (one) =>
        at(one, 'clef.shape') ??
        every(one, 'clef')
          .map((clef) => at(clef, 'shape'))
          .join(),
    ),
  }
}
