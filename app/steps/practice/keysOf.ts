import type { Grade } from '../../../core/practice/grade'
import type { KeyRow } from '../../services/keys/keyTable'

/** Steps of the tempo by key, in beats a minute. */
const TEMPO_STEP = 2

interface Acts {
  press: () => void
  /** False where nothing asks for a grade. */
  grade: (grade: Grade) => boolean | void
  /** False where nothing is played from memory. */
  peek: () => boolean | void
  doubt: () => void
  shift: (by: number) => void
  /** To the part so many places on. */
  go: (by: 1 | -1) => boolean | void
  nextMode: () => void
}

/** The keys of the practice room. */
export const keysOf = ({ press, grade, peek, doubt, shift, go, nextMode }: Acts): KeyRow[] => [
  {
    on: ['Space', 'Enter', 'PageDown'],
    shown: 'Space',
    says: 'The one key: begins, ends, and says how it was (once clean, twice nearly, three times failed). Enter, Page Down and a foot switch that types one of them do the same',
    act: (_, event) => {
      if (!event.repeat) press()
    },
  },
  ...(['clean', 'nearly', 'failed'] as const).map((one, at): KeyRow => ({
    on: [String(at + 1)],
    shown: String(at + 1),
    says: `It was ${one}`,
    act: () => grade(one),
  })),
  { on: ['r'], shown: 'R', says: 'From memory: show the grips', act: peek },
  {
    on: ['d'],
    shown: 'D',
    says: 'Doubtful: the change into the selected chord becomes an exercise',
    act: doubt,
  },
  {
    on: ['-', '−', '+', '='],
    shown: '− +',
    says: 'Slower, faster',
    act: (pressed) => shift(pressed === '+' || pressed === '=' ? TEMPO_STEP : -TEMPO_STEP),
  },
  {
    on: ['ArrowUp', 'ArrowDown'],
    shown: '↑ ↓',
    says: 'What comes before and after in the plan; on a rubato walk the phrase before and after',
    act: (pressed) => go(pressed === 'ArrowDown' ? 1 : -1),
  },
  { on: ['m'], shown: 'M', says: 'The next mode', act: nextMode },
]
