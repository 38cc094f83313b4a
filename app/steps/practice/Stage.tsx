import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { GRADES, type Grade } from '../../../core/practice/grade'
import { gradeOf, gradesOf, type Round } from '../../../core/practice/round'
import { ChordName } from '../../services/notation/ChordName'
import { engravedWords } from '../../../core/chord/engraved'
import { GripDiagram } from '../../services/notation/GripDiagram'
import type { StageChord } from './stagedGrips'

export interface StageShown {
  /** What is practised, in words. */
  title: string
  /** What stands under the title: why, or what to do. */
  says: string
  now: StageChord | null
  next: StageChord | null
  /** Grips are not shown until they are asked for. */
  hidden: boolean
  /** Beats a minute now, and wanted; null where there is no time. */
  tempo: { now: number; goal: number } | null
  /** Passes of this visit, the latest last. */
  marks: readonly Grade[]
  round: Round
  capo: number
}

const GRADE_WORDS: Readonly<Record<Grade, string>> = { clean: 'Clean', nearly: 'Nearly', failed: 'Failed' }
/** A pass as a mark: a whole stroke, a broken one, a low one. */
const MARKS: Readonly<Record<Grade, string>> = { clean: 'clean', nearly: 'nearly', failed: 'failed' }
/** Marks that are shown: the latest. */
const MOST_MARKS = 24

/**
 * The passage large: the chord and its grip, what comes next, the tempo, the passes, and what the
 * one key does now.
 */
export function Stage({
  shown: { title, says, now, next, hidden, tempo, marks, round, capo },
  walk = null,
  onPress,
  onGrade,
  onHurt,
  children,
}: {
  shown: StageShown
  /** What the one key does on a walk without time. */
  walk?: string | null
  onPress: () => void
  onGrade: (grade: Grade) => void
  onHurt: () => void
  children?: ReactNode
}) {
  return (
    <section className="stage" aria-label="What is practised">
      <div className="stage-words">
        <h2>{engravedWords(title)}</h2>
        <p>{engravedWords(says)}</p>
        {tempo && (
          <p className="stage-tempo">
            <b>{Math.round(tempo.now)}</b> <span>goal {Math.round(tempo.goal)}</span>
          </p>
        )}
        <p className="stage-marks">
          <span className="visually-hidden">
            {marks.length === 0 ? 'No pass yet' : `Passes: ${marks.join(', ')}`}
          </span>
          {marks.slice(-MOST_MARKS).map((grade, at) => (
            <i key={at} className={MARKS[grade]} aria-hidden />
          ))}
        </p>
      </div>
      <StageGrip label={walk ? 'Stay on' : 'Now'} shown={now} hidden={hidden} capo={capo} />
      <StageGrip label="Next" shown={next} hidden={hidden} capo={capo} />
      <div className="stage-key">
        <div className="stage-small">
          {children}
          <Button size="small" color="error" onClick={onHurt}>
            It hurts
          </Button>
        </div>
        <Button variant="contained" color="primary" className="one-key" onClick={onPress}>
          {walk && round.at === 'ready' ? walk : oneKey(round)}
        </Button>
        <div role="group" aria-label="How it was" className="stage-small grades">
          {GRADES.map((grade, at) => (
            <Button
              key={grade}
              size="small"
              disabled={!gradesOf(round).includes(grade)}
              onClick={() => onGrade(grade)}
              title={`Key ${at + 1}`}
            >
              {GRADE_WORDS[grade]}
            </Button>
          ))}
        </div>
        <p className="quiet" role="status">
          {round.at === 'asked' && round.cut && CUT_SAYS}
          {!(round.at === 'asked' && round.cut) && (walk ? WALK_SAYS[round.at] : SAYS[round.at])}
        </p>
      </div>
    </section>
  )
}

/** What the one key does, or has said so far. */
function oneKey(round: Round): string {
  if (round.at === 'ready') return 'Begin'
  if (round.at === 'playing') return 'End it here'
  const grade = gradeOf(round)
  return grade ? GRADE_WORDS[grade] : 'How was it?'
}
const WALK_SAYS: Readonly<Record<Round['at'], string>> = {
  ready: 'Space goes on; D marks a doubtful chord.',
  playing: '',
  asked: 'How was the walk? Space once: clean, twice: nearly, three times: failed.',
}
const CUT_SAYS =
  'It ended before its last beat: clean is for a whole pass. Space once: nearly, twice: failed.'
const SAYS: Readonly<Record<Round['at'], string>> = {
  ready: 'Space or a foot switch begins.',
  playing: 'It ends by itself; Space ends it early.',
  asked: 'Space once: clean, twice: nearly, three times: failed.',
}

/** A chord and its grip, large. */
export function StageGrip({
  label,
  shown,
  hidden,
  capo,
}: {
  label: string
  shown: StageChord | null
  hidden: boolean
  capo: number
}) {
  return (
    <figure className="stage-grip" aria-label={label}>
      <figcaption>{label}</figcaption>
      {shown && (
        <>
          <ChordName chord={shown.chord} />
          {shown.voicing && !hidden && <GripDiagram voicing={shown.voicing} scale={1.25} capo={capo} />}
          {hidden && <p className="quiet">from memory</p>}
          {!shown.voicing && !hidden && <p className="quiet">no grip yet</p>}
        </>
      )}
    </figure>
  )
}
