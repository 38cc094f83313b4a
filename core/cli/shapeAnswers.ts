import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { STOPPED } from '../leading/lead'
import { ringingStrings, type Ringing } from '../leading/letRing'
import { firstOf } from '../lists'
import { stringNumber } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import { pitchClass, plainSpelling, type Note } from '../pitch/note'
import { scaleOfKey } from '../pitch/scale'
import { bad, good } from '../result'
import { capoPlaces } from '../voicing/capoShapes'
import {
  rootOfGrip,
  walkByInversions,
  walkByRoots,
  walkByScale,
  type ShapeWalk,
  type Walk,
} from '../voicing/shapeWalk'
import type { AnswersTo } from './answersTo'
import { chordsOfChart, wrongStrings } from './parts'
import { limitsFrom } from './requestLimits'

/** The highest fret of a neck where nothing is said: grips beyond it are said to be off it. */
const NECK_ENDS = 22

/** Answers about a shape that is led along, strings that ring on, and the capo. */
export const SHAPE_ANSWERS: AnswersTo<'walk' | 'ring' | 'capo'> = {
  walk({ frets, by, scale, key, roots, steps, ringing = [], over, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const { instrument, hand } = limits.value
    const strings = instrument.tuning.length
    if (frets.length !== strings) return wrongStrings(frets, strings, 'frets')
    const walk: ShapeWalk = {
      frets,
      instrument,
      hand,
      highest: Math.max(NECK_ENDS, input?.frets?.[1] ?? 0),
      ...(key ? { key } : {}),
      ...(over ? { over } : {}),
    }
    if (by === 'inversions') return walkAnswer(walkByInversions(walk, steps))
    const through = scale ?? (key ? scaleOfKey(key) : null)
    if (by === 'scale')
      return through
        ? walkAnswer(
            walkByScale(
              walk,
              through,
              steps,
              ringing.map((string) => strings - string),
            ),
          )
        : bad({
            code: 'bad-field',
            message: 'A walk by scale needs a scale or a key.',
            accepted: 'scale, such as "D dorian", or key',
            text: 'scale',
          })
    const root = rootOfGrip(walk)
    return walkAnswer(walkByRoots(walk, roots ?? through?.notes ?? chromaticFrom(root, steps), root))
  },

  ring({ text, string, limits: input }, onProgress) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const strings = limits.value.instrument.tuning.length
    if (string !== undefined && string > strings)
      return bad({
        code: 'bad-field',
        message: `There is no string ${string} on ${strings} strings.`,
        accepted: `1 to ${strings}`,
        text: 'string',
      })
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const roles = analyse(chart)
      .readings.filter(({ slot }) => slot.symbol?.kind === 'chord')
      .map(({ role }) => role)
    const only = string === undefined ? null : strings - string
    const find = (size: 1 | 2) => ringingStrings(chords.value, roles, limits.value, size, only, onProgress)
    const [single, pairs] = [find(1), find(2)]
    if (!single || !pairs) return bad({ code: STOPPED, message: 'The search was stopped.' })
    return good({
      strings: single.map((one) => ({
        string: stringNumber(firstOf(one.strings), strings),
        ...ringingAnswer(one, (degrees) => firstOf(degrees)),
      })),
      pairs: pairs.map((one) => ({
        strings: one.strings.map((at) => stringNumber(at, strings)),
        ...ringingAnswer(one, (degrees) => degrees),
      })),
    })
  },

  capo({ text }) {
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const places = capoPlaces(chords.value, analyse(chart).key)
    return good({
      frets: places.map(({ capo, open, shapes }) => ({
        capo,
        open,
        of: chords.value.length,
        shapes: shapes.map(({ shape }) => shape.canonical),
        chords: shapes.map(({ chord, shape, open: isOpen }) => ({
          symbol: chord.canonical,
          shape: shape.canonical,
          open: isOpen,
        })),
      })),
    })
  },
}

const walkAnswer = ({ steps, ends }: Walk) =>
  good({
    steps: steps.map(({ names, ...step }) => ({
      ...step,
      names: names.map(({ chord, ...name }) => ({ symbol: chord.canonical, ...name })),
    })),
    ends,
  })

/** Roots a half step apart, an octave where nothing is said. */
const chromaticFrom = (root: Note, steps = OCTAVE - 1): Note[] =>
  Array.from({ length: Math.abs(steps) + 1 }, (_, at) =>
    at === 0 ? root : plainSpelling(pitchClass(root) + (steps < 0 ? -at : at)),
  )
const OCTAVE = 12

const ringingAnswer = <Said>({ cost, chords }: Ringing, say: (degrees: readonly Degree[]) => Said) => ({
  cost,
  chords: chords.map(({ index, chord, degrees, becomes, heard, grip, says }) => ({
    index,
    symbol: chord.canonical,
    degree: say(degrees),
    becomes: becomes.canonical,
    heard,
    frets: grip?.frets ?? null,
    says,
  })),
})
