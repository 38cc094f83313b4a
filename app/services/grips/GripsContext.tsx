import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import type { LineChord } from '../../../core/tune/decisions'
import { keptVoicings, standsAsKept } from '../../../core/tune/keptGrips'
import type { LinesQuestion } from '../../../core/tune/linesQuestion'
import { newQuestion, plainQuestion } from '../../../core/tune/questions'
import { madeChord, plainChord, type TuneChord } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'
import { useKnownTune } from '../tune/TuneContext'
import { useLines, type LinesAsked } from '../workers/useLines'
import { useKeepLine } from './useKeepLine'
import { useEver } from '../words/stable'

/** The grips of both lines: those that are kept, and the search for more. */
export interface KnownGrips {
  /** Chords that sound, of the new line and of the home line. */
  sounding: LineChord[]
  soundingHome: TuneChord[]
  /**
   * The search for the new line's grips, which begins when they are wanted, missing, or something
   * changes; and for plain ones to hear.
   */
  search: LinesAsked
  plain: LinesAsked
  /** Which of the lines found is taken. */
  chosen: number
  /** The grip of each chord of the new line, by its key. */
  voicings: ReadonlyMap<string, Voicing>
  /** Sounds of the plain version, by the key of the home line's chord. */
  plainSounds: ReadonlyMap<string, readonly number[]>
  /** The best line is wanted at once, before the others. */
  hurry: (wanted: boolean) => void
}

/** Searches wait until typing has paused this long, and less after any other change. */
const TYPING_PAUSE_MS = 600
const CHANGE_PAUSE_MS = 120

const GripsContext = createContext<KnownGrips | null>(null)

export function GripsProvider({ children }: { children: ReactNode }) {
  const {
    document,
    settled,
    reading: { chart, chords, line },
    body,
    stringing,
    edit,
  } = useKnownTune()
  const [hurried, hurry] = useState(false)
  const sounding = useMemo(() => line.filter((chord) => madeChord(chord)), [line])
  const soundingHome = useMemo(() => chords.filter((chord) => plainChord(chord)), [chords])
  const pause = useLastChange(document.text) === 'text' ? TYPING_PAUSE_MS : CHANGE_PAUSE_MS
  const kept = useMemo(() => keptVoicings(settled, line, chart.capo, body), [settled, line, chart.capo, body])
  const question = useMemo(
    () => newQuestion(sounding, settled, chart, body),
    [sounding, settled, chart, body],
  )
  const changed = useChanged(question)
  const missing = !standsAsKept(settled, sounding, kept, stringing)
  const wanted = useEver(hurried || changed || missing)
  const atOnce = changed || missing ? 'at once' : 'later'
  const search = useLines(wanted ? question : null, { pauseMs: pause, first: hurried ? atOnce : 'not' })
  // One after the other in the same worker: it has read its code by then, and the page is left the
  // other half of a small machine.
  const plain = useLines(
    useMemo(() => plainQuestion(soundingHome, chart.capo, body), [soundingHome, chart.capo, body]),
    { pauseMs: pause, turn: search.state.kind !== 'searching' },
  )
  const { lines: found, current } = search
  const chosen = Math.max(0, Math.min(document.line, found.length - 1))
  // Where a grip by hand cannot be had on these strings, what the search plays in its place is
  // shown while it is theirs; it is not kept over the player's own.
  const voicings = useMemo(() => {
    const stand = current ? found[chosen]?.voicings : undefined
    const elsewhere = stand
      ? sounding.flatMap((one, at) => (one.elsewhere && stand[at] ? [[one.key, stand[at]] as const] : []))
      : []
    return elsewhere.length > 0 ? new Map([...kept, ...elsewhere]) : kept
  }, [kept, current, found, chosen, sounding])
  useKeepLine(search, chosen, sounding, settled, stringing, (grips) => edit({ kind: 'grips', grips }))
  const plainSounds = useMemo(
    () =>
      new Map(
        plain.lines[0]?.voicings.map(
          (voicing, at) => [soundingHome[at]?.key ?? '', voicing.midis] as const,
        ) ?? [],
      ),
    [plain.lines, soundingHome],
  )
  const known = useMemo(
    () => ({ sounding, soundingHome, search, plain, chosen, voicings, plainSounds, hurry }),
    [sounding, soundingHome, search, plain, chosen, voicings, plainSounds],
  )
  return <GripsContext.Provider value={known}>{children}</GripsContext.Provider>
}

/**
 * Whether a question is another than it was at first. Where nothing has changed, what is kept
 * stands, and nothing is looked for.
 */
function useChanged(question: LinesQuestion | null): boolean {
  const asked = useMemo(() => JSON.stringify(question), [question])
  const [atFirst] = useState(asked)
  return useEver(asked !== atFirst)
}

/** Whether the text was what changed last: more letters may be coming. */
function useLastChange(text: string): 'text' | 'other' {
  const before = useRef(text)
  // oxlint-disable-next-line react/refs -- it asks what was drawn before, which is no state of its own
  const changed = before.current !== text
  useEffect(() => {
    before.current = text
  }, [text])
  return changed ? 'text' : 'other'
}

export function useGrips(): KnownGrips {
  const grips = useContext(GripsContext)
  if (!grips) throw new Error('There are no grips around this part of the page.')
  return grips
}
