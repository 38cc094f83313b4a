import { itemAt, theOne } from '../../../core/lists'
import { NEAR } from '../../../core/chart/beats'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { barName, slotsOf, type Chart } from '../../../core/chart/chart'
import {
  barsAsText,
  insertBars,
  joinBars,
  moveBars,
  removeBars,
  splitBar,
  transposeBars,
  withBeat,
} from '../../../core/chart/editBars'
import { parseChart } from '../../../core/chart/parseChart'
import { beatWords } from '../../../core/chart/print'
import { withCapitals } from '../../../core/chord/near'
import { importChart } from '../../../core/formats/importChart'
import type { Key } from '../../../core/pitch/key'
import type { Editing } from '../../services/notation/BeatInput'
import { useLatest } from '../../services/words/stable'

/** What can be done to the selected bars. */
export type BarAct =
  | 'before'
  | 'after'
  | 'split'
  | 'join'
  | 'earlier'
  | 'later'
  | 'down'
  | 'up'
  | 'copy'
  | 'cut'
  | 'paste'
  | 'remove'

interface EditingOf {
  /** False on the other steps, and while only the skeleton is shown. */
  can: boolean
  text: string
  chart: Chart
  keyNow: Key
  /** Index of the first and the last selected chord, over all slots. */
  range: readonly [number, number]
  onText: (text: string, did: string) => void
  onSelect: (from: number, to: number) => void
}

export interface ChartEditing {
  editing: Editing | null
  openAt: (bar: number, beat: number, word?: string) => void
  act: (act: BarAct) => void
  /** Bars selected, as indexes into the chart; null where nothing is selected. */
  bars: readonly [number, number] | null
  canPaste: boolean
  /** What was done last, for those who listen. */
  says: string
}

/**
 * What is done to whole bars: the text after it, the bars that are selected then, and what is said.
 */
interface BarsChanged {
  text: string
  from: number
  to: number
  says: string
}
interface BarsAsked {
  text: string
  /** First and last of the bars, as indexes. */
  from: number
  to: number
  named: string
  keyNow: Key
}
const BAR_ACTS: Readonly<Record<Exclude<BarAct, 'copy' | 'cut' | 'paste'>, (of: BarsAsked) => BarsChanged>> =
  {
    before: ({ text, from }) => ({
      text: insertBars(text, from),
      from,
      to: from,
      says: 'bar put in before',
    }),
    after: ({ text, to }) => ({
      text: insertBars(text, to + 1),
      from: to + 1,
      to: to + 1,
      says: 'bar put in behind',
    }),
    split: ({ text, from, named }) => ({
      text: splitBar(text, from),
      from,
      to: from + 1,
      says: `${named} split into two`,
    }),
    join: ({ text, from, named }) => ({
      text: joinBars(text, from),
      from,
      to: from,
      says: `${named} joined with the next`,
    }),
    earlier: ({ text, from, to, named }) => ({
      text: moveBars(text, from, to, -1),
      from: from - 1,
      to: to - 1,
      says: `${named} moved a bar earlier`,
    }),
    later: ({ text, from, to, named }) => ({
      text: moveBars(text, from, to, 1),
      from: from + 1,
      to: to + 1,
      says: `${named} moved a bar later`,
    }),
    down: ({ text, from, to, named, keyNow }) => ({
      text: transposeBars(text, from, to, -1, keyNow),
      from,
      to,
      says: `${named} a half step down`,
    }),
    up: ({ text, from, to, named, keyNow }) => ({
      text: transposeBars(text, from, to, 1, keyNow),
      from,
      to,
      says: `${named} a half step up`,
    }),
    remove: ({ text, from, to, named }) => ({
      text: removeBars(text, from, to),
      from: Math.max(0, from - 1),
      to: Math.max(0, from - 1),
      says: `${named} taken out`,
    }),
  }

/** A word as it is meant: chords in small letters get their capitals. */
const asTyped = (typed: string): string =>
  typed
    .split(/([_\s])/)
    .map(withCapitals)
    .join('')

/**
 * Editing the chart where it stands: a word on a beat, and whole bars put in, moved, split, copied,
 * transposed and taken out.
 */
export function useChartEditing(given: EditingOf): ChartEditing {
  // The callbacks stay the same from one key press to the next, so that the systems need not be
  // drawn again for them.
  const latest = useLatest(given)
  const [open, setOpen] = useState<Pick<Editing, 'bar' | 'beat' | 'word' | 'marked'> | null>(null)
  const [copied, setCopied] = useState<readonly string[]>([])
  const [says, setSays] = useState('')
  const { can, chart, range } = given
  const bars = useMemo(() => selectedBars(chart, range), [chart, range])

  const openAt = useCallback(
    (bar: number, beat: number, word?: string) => {
      if (!latest.current.can) return
      const there = parseChart(latest.current.text).bars.find((one) => one.number === bar)
      if (!there || beat < there.from || beat >= there.from + there.beats) return
      const now = itemAt(beatWords(there), beat - there.from)
      setOpen({ bar, beat, word: word ?? (now === '.' ? '' : now), marked: word === undefined })
    },
    [latest],
  )

  const onTake = useCallback(
    (typed: string, move: -1 | 0 | 1) => {
      if (!open) return
      const word = asTyped(typed)
      const { text, onText, onSelect } = latest.current
      const before = parseChart(text)
      const index = before.bars.findIndex((bar) => bar.number === open.bar)
      const bar = before.bars[index]
      if (!bar) return setOpen(null)
      const was = beatWords(bar)[open.beat - bar.from] ?? '.'
      const next = (word.trim() || '.') === was ? text : withBeat(text, index, open.beat, word)
      if (next !== text) onText(next, `${word.trim() || 'hold'} in ${barName(open.bar)}`)
      const after = parseChart(next)
      const there = placeAfter(after, index, open.beat, move)
      const slots = slotsOf(after)
      const chosen = slots.findIndex(
        (slot) =>
          slot.bar === open.bar &&
          slot.beat <= open.beat + 0.999 &&
          slot.beat + slot.beats > open.beat + NEAR,
      )
      if (chosen >= 0) onSelect(chosen, chosen)
      setOpen(there && { ...there, word: wordAt(after, there), marked: true })
    },
    [open, latest],
  )
  const onLeave = useCallback(() => setOpen(null), [])
  const editing = useMemo(
    () => (open && can ? { ...open, onTake, onLeave } : null),
    [open, can, onTake, onLeave],
  )

  const act = useCallback(
    (what: BarAct) => {
      const {
        text,
        chart: shown,
        keyNow,
        range: [first, last],
        onText,
        onSelect,
        can: allowed,
      } = latest.current
      if (!allowed) return
      const now = parseChart(text)
      const chosen = selectedBars(now, [first, last])
      if (!chosen && what !== 'paste' && what !== 'after') return
      const [from, to] = chosen ?? [0, now.bars.length - 1]
      const words = barsAsText(now, from, to)
      const put = (done: BarsChanged) => {
        if (done.text === text) return
        onText(done.text, done.says)
        const after = parseChart(done.text)
        onSelect(firstSlotOf(after, done.from), lastSlotOf(after, done.to))
        setSays(done.says)
      }
      const count = to - from + 1
      const named = count === 1 ? barName(now.bars[from]?.number ?? 1) : `${count} bars`
      switch (what) {
        case 'copy':
        case 'cut':
          setCopied(words)
          // The copy works inside the page in any case; elsewhere only where the browser lets it.
          void navigator.clipboard?.writeText(`| ${words.join(' | ')} |`).catch(() => undefined)
          setSays(`${named} copied`)
          if (what === 'cut')
            put({ ...BAR_ACTS.remove({ text, from, to, named, keyNow }), says: `${named} cut` })
          return
        case 'paste':
          if (copied.length > 0 && shown)
            put({
              text: insertBars(text, to + 1, copied),
              from: to + 1,
              to: to + copied.length,
              says: `${copied.length} bars pasted`,
            })
          return
        default:
          return put(BAR_ACTS[what]({ text, from, to, named, keyNow }))
      }
    },
    [copied, latest],
  )

  useClipboard(can, latest, setCopied, setSays)
  return { editing, openAt, act, bars, canPaste: copied.length > 0, says }
}

/**
 * The system's own copy, cut and paste on bars: plain chart text goes out, and chords as players
 * have them come in.
 */
function useClipboard(
  can: boolean,
  latest: { current: EditingOf },
  keep: (bars: readonly string[]) => void,
  say: (words: string) => void,
): void {
  useEffect(() => {
    if (!can) return
    const isField = (target: EventTarget | null) =>
      target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement
    const take = (event: ClipboardEvent) => {
      const { text, range, onText } = latest.current
      const chart = parseChart(text)
      const chosen = selectedBars(chart, range)
      if (isField(event.target) || String(getSelection()) !== '' || !chosen) return
      const words = barsAsText(chart, ...chosen)
      event.clipboardData?.setData('text/plain', `| ${words.join(' | ')} |`)
      event.preventDefault()
      keep(words)
      say(`${words.length} ${words.length === 1 ? 'bar' : 'bars'} copied`)
      if (event.type === 'cut') onText(removeBars(text, ...chosen), 'bars cut')
    }
    const put = (event: ClipboardEvent) => {
      const { text, range, onText, onSelect } = latest.current
      if (isField(event.target)) return
      const pasted = parseChart(importChart(event.clipboardData?.getData('text/plain') ?? '', 'text').text)
      if (pasted.bars.length === 0) return say('Nothing was pasted: there are no chords in it.')
      event.preventDefault()
      const chart = parseChart(text)
      const at = (selectedBars(chart, range)?.[1] ?? chart.bars.length - 1) + 1
      const next = insertBars(text, at, barsAsText(pasted, 0, pasted.bars.length - 1))
      onText(next, 'bars pasted')
      onSelect(firstSlotOf(parseChart(next), at), lastSlotOf(parseChart(next), at + pasted.bars.length - 1))
      say(`${pasted.bars.length} ${pasted.bars.length === 1 ? 'bar' : 'bars'} pasted`)
    }
    document.addEventListener('copy', take)
    document.addEventListener('cut', take)
    document.addEventListener('paste', put)
    return () => {
      document.removeEventListener('copy', take)
      document.removeEventListener('cut', take)
      document.removeEventListener('paste', put)
    }
  }, [can, latest, keep, say])
}

function selectedBars(chart: Chart, [from, to]: readonly [number, number]): readonly [number, number] | null {
  const slots = slotsOf(chart)
  const last = Math.min(to, slots.length - 1)
  if (last < 0) return null
  const index = (number: number) => chart.bars.findIndex((bar) => bar.number === number)
  return [index(itemAt(slots, Math.min(from, last)).bar), index(itemAt(slots, last).bar)]
}

const firstSlotOf = (chart: Chart, index: number): number =>
  chart.bars.slice(0, index).reduce((sum, bar) => sum + bar.slots.length, 0)
const lastSlotOf = (chart: Chart, index: number): number => Math.max(0, firstSlotOf(chart, index + 1) - 1)

/** The beat a step away, over the bar line if need be; null where the tune ends. */
function placeAfter(
  chart: Chart,
  index: number,
  beat: number,
  move: -1 | 0 | 1,
): { bar: number; beat: number } | null {
  const bar = chart.bars[index]
  if (move === 0 || !bar) return null
  const next = beat + move
  if (next >= bar.from && next < bar.from + bar.beats) return { bar: bar.number, beat: next }
  const other = chart.bars[index + move]
  return other ? { bar: other.number, beat: move > 0 ? other.from : other.from + other.beats - 1 } : null
}

function wordAt(chart: Chart, { bar, beat }: { bar: number; beat: number }): string {
  const there = theOne(chart.bars, (one) => one.number === bar)
  const word = beatWords(there)[beat - there.from] ?? ''
  return word === '.' ? '' : word
}
