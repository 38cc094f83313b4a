import { useMemo, useState } from 'react'
import { parseChord } from '../../../core/chord/parseChord'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { fingeringsOf, type FingeringAnswer } from '../../../core/neck/fingering'
import { soundAt, type Frets } from '../../../core/neck/instrument'
import { parseKey, type Key } from '../../../core/pitch/key'
import { parseNote, type Note } from '../../../core/pitch/note'
import { wholeNeck } from '../../../core/player/playerLimits'
import { namesOf } from '../../../core/voicing/possibleNames'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { excerptOf } from '../../services/sound/schedule'
import { SOUND } from '../../services/sound/soundStore'

/** What is typed beside the neck to read a grip by; empty where it is left to the reading. */
export interface ReadBy {
  symbol: string
  key: string
  over: string
}

/** The grip on the neck, and what it is read as. */
export interface GripRead {
  frets: Frets
  /** The pitches that sound, from the lowest string. */
  midis: readonly number[]
  by: ReadBy
  /** Which of the typed words cannot be read. */
  wrong: Record<keyof ReadBy, boolean>
  songKey: Key | undefined
  over: Note | undefined
  /** The likeliest name of what sounds. */
  likeliest: ChordSymbol | null
  /** The chord that is typed, else the likeliest name. */
  chord: ChordSymbol | null
  fingerings: FingeringAnswer | null
  /** Null where no hand holds it, or it has no name. */
  voicing: Voicing | null
  readBy: (by: Partial<ReadBy>) => void
  /** Takes a grip and lets it sound. */
  take: (frets: Frets, symbol?: string) => void
  clear: () => void
  strum: () => void
  noteByNote: () => void
}

/** Beats a minute at which the notes of a grip are heard one by one. */
const NOTE_BY_NOTE_TEMPO = 120
const NOTHING: ReadBy = { symbol: '', key: '', over: '' }
const inOrder = (midis: readonly number[]) => [...midis].sort((a, b) => a - b)

/** A grip that is put together on the neck, and its reading. */
export function useGripRead(): GripRead {
  const { settings } = usePlayerSettings()
  const strings = settings.instrument.tuning.length
  const none = (): Frets => Array<null>(strings).fill(null)
  const [held, setHeld] = useState<Frets>(none)
  const [by, setBy] = useState(NOTHING)
  const limits = useMemo(() => wholeNeck(settings), [settings])
  // Held on an instrument of other strings it is let go.
  const frets = held.length === strings ? held : none()
  const soundsOf = (of: Frets) =>
    of.flatMap((fret, string) => (fret === null ? [] : [soundAt(limits.instrument, string, fret)]))
  const midis = soundsOf(frets)
  const [symbol, key, over] = [
    by.symbol ? parseChord(by.symbol) : null,
    by.key ? parseKey(by.key) : null,
    by.over ? parseNote(by.over) : null,
  ]
  const songKey = key?.ok ? key.value : undefined
  const root = over?.ok ? over.value : undefined
  const names =
    midis.length > 0
      ? namesOf(midis, { ...(root ? { over: root } : {}), ...(songKey ? { key: songKey } : {}) })
      : []
  const likeliest = names[0]?.chord ?? null
  const chord = symbol?.ok ? symbol.value : likeliest
  const fingerings = midis.length > 0 ? fingeringsOf(frets, limits.instrument, limits.hand) : null
  return {
    frets,
    midis,
    by,
    wrong: {
      symbol: symbol !== null && !symbol.ok,
      key: key !== null && !key.ok,
      over: over !== null && !over.ok,
    },
    songKey,
    over: root,
    likeliest,
    chord,
    fingerings,
    voicing: chord && fingerings?.playable ? voicingOf(frets, chord, limits) : null,
    readBy: (more) => setBy({ ...by, ...more }),
    take: (next, name) => {
      setHeld(next)
      if (name !== undefined) setBy({ ...by, symbol: name })
      void SOUND.strumNow(inOrder(soundsOf(next)))
    },
    clear: () => {
      setHeld(none())
      setBy({ ...by, symbol: '' })
    },
    strum: () => void SOUND.strumNow(inOrder(midis)),
    noteByNote: () =>
      void SOUND.play(
        excerptOf(inOrder(midis).map((midi) => ({ beats: 1, midis: [midi] }))),
        NOTE_BY_NOTE_TEMPO,
      ),
  }
}
