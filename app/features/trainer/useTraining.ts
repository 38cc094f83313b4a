import { itemAt } from '../../../core/lists'
import { useEffect, useMemo, useRef, useState } from 'react'
import { chord } from '../../../core/chord/parseChord'
import type { Key } from '../../../core/pitch/key'
import { wholeNeck, type PlayerBody } from '../../../core/player/playerLimits'
import type { Grade } from '../../../core/practice/grade'
import { isRight, questionOf } from '../../../core/practice/questions/ask'
import type { Question, QuestionKind } from '../../../core/practice/questions/question'
import type { Frets } from '../../../core/neck/instrument'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import { useStableCallback } from '../../services/words/stable'

/** Chords with grips that are asked about, in the order in which they stand. */
export interface AskedAbout {
  symbols: readonly string[]
  frets: readonly (Frets | null)[]
  key: Key
}

/** A session in the trainer lasts so long, in ms. */
export const TRAINING_MS = 180_000

export interface Answered {
  given: string
  right: boolean
}

export interface Training {
  /** Stands there before the session begins too. */
  question: Question | null
  /** A session has begun. */
  begun: boolean
  /** What was answered; null while it is asked. */
  answered: Answered | null
  hinted: boolean
  /** Of this session. */
  right: number
  asked: number
  /** Seconds left; null before it begins. */
  left: number | null
  over: boolean
  answer: (given: string) => void
  next: () => void
  hint: () => void
  begin: () => void
}

const seedNow = (): number => Math.floor(Date.now() / 1000) % 1_000_000

/**
 * Questions one after the other for three minutes. A right answer is clean, one after a hint
 * nearly, a wrong one failed.
 */
export function useTraining(
  about: AskedAbout,
  kinds: readonly QuestionKind[],
  body: PlayerBody,
  onGrade: (question: Question, grade: Grade, seconds: number) => void,
): Training {
  const limits = useMemo(() => wholeNeck(body), [body])
  const material = useMemo(() => {
    const all = about.symbols.map((symbol, at) => {
      const one = chord(symbol)
      const frets = about.frets[at]
      return { chord: one, voicing: frets ? voicingOf(frets, one, limits) : null }
    })
    const held = all.filter(
      (one): one is { chord: typeof one.chord; voicing: Voicing } => one.voicing !== null,
    )
    return { chords: held.map((one) => one.chord), voicings: held.map(({ voicing }) => voicing) }
  }, [about, limits])
  const [seed, setSeed] = useState(1)
  // Another visit asks other things; the server and the first drawing know nothing of the clock.
  // oxlint-disable-next-line react/set-state-in-effect -- for that reason it can only follow the first drawing
  useEffect(() => setSeed(seedNow()), [])
  const [begun, setBegun] = useState<number | null>(null)
  const [now, setNow] = useState(0)
  const [answered, setAnswered] = useState<Answered | null>(null)
  const [hinted, setHinted] = useState(false)
  const [score, setScore] = useState({ right: 0, asked: 0 })
  const askedAt = useRef(0)
  const question = useMemo(() => {
    // The kind by turns; one that this material has nothing for is passed over.
    for (let turn = 0; turn < kinds.length; turn += 1) {
      const kind = itemAt(kinds, (seed + turn) % kinds.length)
      const found = questionOf(kind, { ...material, key: about.key, limits, seed })
      if (found.ok) return found.value
    }
    return null
  }, [kinds, seed, material, about.key, limits])
  useEffect(() => {
    askedAt.current = performance.now()
  }, [question])
  const left = begun === null ? null : Math.max(0, Math.ceil((TRAINING_MS - (now - begun)) / 1000))
  const running = left !== null && left > 0
  useEffect(() => {
    if (!running) return
    const clock = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(clock)
  }, [running])
  const answer = useStableCallback((given: string) => {
    if (!question || answered) return
    const right = isRight(question, given)
    setAnswered({ given, right })
    setScore({ right: score.right + (right ? 1 : 0), asked: score.asked + 1 })
    const gradeOfRight: Grade = hinted ? 'nearly' : 'clean'
    onGrade(
      question,
      right ? gradeOfRight : 'failed',
      Math.round((performance.now() - askedAt.current) / 1000),
    )
  })
  return {
    question,
    begun: begun !== null,
    answered,
    hinted,
    ...score,
    left,
    over: left === 0 && answered !== null,
    answer,
    next: () => {
      setAnswered(null)
      setHinted(false)
      setSeed(seed + 1)
    },
    hint: () => setHinted(true),
    begin: () => {
      // The first session begins with the question that stands there already.
      if (begun !== null) setSeed(seedNow())
      setAnswered(null)
      setHinted(false)
      setScore({ right: 0, asked: 0 })
      setBegun(Date.now())
      setNow(Date.now())
    },
  }
}
