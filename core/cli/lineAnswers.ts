import type { z } from 'zod'
import { itemAt, theOne } from '../lists'
import { analyse } from '../analysis/analyse'
import { slotsOf, type Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { arrange, melodyNoteAt } from '../leading/arrange'
import type { Constraint } from '../leading/constraints'
import { styledLines, whyLikeSmooth, type StyledProblem } from '../leading/inStyle'
import { pulled } from '../leading/pull'
import { leastClassMotion, leastMotion, voiceSteps } from '../pitch/motion'
import type { Frets } from '../neck/instrument'
import { midiOf, parseNote, parsePitch, pitchClass, plainPitchName } from '../pitch/note'
import { applyChanges } from '../reharm/apply'
import type { MelodyNote } from '../reharm/melodyFit'
import { bad, good, must, type Result } from '../result'
import { timesAsked } from './figureAsked'
import { heldAnswer, withHoldFrets } from './holdAnswer'
import { knownAnswer } from './knownAnswer'
import { limitsFrom, MELODY_FRETS } from './requestLimits'
import {
  choicesAnswer,
  chordsOf,
  chordsOfChart,
  fingeringAnswer,
  lineAnswer,
  tidy,
  wrongStrings,
  inIdiom,
} from './parts'
import type { AnswersTo } from './answersTo'
import type { requestSchemas } from './requests'

/** Answers about lines of grips, and motion between sounds. */
export const LINE_ANSWERS: AnswersTo<'motion' | 'lead' | 'pull' | 'arrange'> = {
  motion({ from, to }) {
    const octaves = [...from, ...to].map((text) => parsePitch(text).ok)
    const withoutOctaves = octaves.some(Boolean) ? null : readSounds
    const read = octaves.every(Boolean) ? readPitches : withoutOctaves
    if (!read)
      return bad({
        code: 'bad-field',
        message: 'Some notes have an octave and some do not.',
        accepted: 'pitches (G3) or sounds (G), all of one sort',
        text: 'from, to',
      })
    const [a, b] = [read(from), read(to)]
    if (!a.ok) return a
    if (!b.ok) return b
    const steps =
      read === readPitches
        ? voiceSteps(
            a.value.map((note) => note.at),
            b.value.map((note) => note.at),
          )
        : leastClassMotion(
            a.value.map((note) => note.at),
            b.value.map((note) => note.at),
          )
    const nameIn = (notes: NamedNote[], at: number) => theOne(notes, (note) => note.at === at).name
    const pairs = steps.map(
      (step) => [nameIn(a.value, step.from), nameIn(b.value, step.to), step.semitones] as const,
    )
    return good({
      total:
        read === readPitches
          ? leastMotion(
              a.value.map((n) => n.at),
              b.value.map((n) => n.at),
            )
          : steps.reduce((sum, step) => sum + Math.abs(step.semitones), 0),
      pairs,
      held: pairs.filter(([, , semitones]) => semitones === 0).length,
    })
  },

  lead(request, onProgress) {
    const {
      text,
      symbols,
      style = 'smooth',
      limits: input,
      weights,
      count = 1,
      melody,
      loop = false,
      window,
      drone,
      contour,
      fixed = {},
      texture,
      colour,
      near = false,
      times,
      hold,
      only,
      new: more = 0,
    } = request
    const limits = limitsFrom(hold ? withHoldFrets(input) : input)
    if (!limits.ok) return limits
    const chart = text === undefined ? null : parseChart(text)
    const chords = chart ? chordsOfChart(chart) : chordsOf(symbols!)
    if (!chords.ok) return chords
    const strings = limits.value.instrument.tuning.length
    const amiss = melodyOrDroneAmiss(request, strings)
    if (amiss) return amiss
    const held = gripsAt(fixed, chords.value.length, strings)
    if (!held.ok) return held
    const grips = held.value
    const readings = chart
      ? analyse(chart).readings.filter(({ slot }) => slot.symbol?.kind === 'chord')
      : null
    // Chords without a chart stand for a bar of four each.
    const inTime = times && timesAsked(chart ?? parseChart(`| ${symbols!.join(' | ')} |`), times)
    if (inTime && !inTime.ok) return inTime
    const problem: StyledProblem = {
      onProgress,
      chords: chords.value,
      limits: limits.value,
      style,
      count,
      fixed: grips,
      loop,
      window: window ?? null,
      constraints: chart && melody ? topsOf(chart, melody) : [],
      drone: drone && 'string' in drone ? { string: strings - drone.string } : (drone ?? null),
      contour: contour ?? null,
      different: !near && count > 1,
      ...(weights ? { weights } : {}),
      ...(inTime ? { times: inTime.value } : {}),
      ...(texture ? { texture } : {}),
      ...(colour === undefined ? {} : { colour }),
      ...(readings ? { roles: readings.map(({ role }) => role) } : {}),
    }
    if (only) return knownAnswer(request, { only, more }, problem)
    if (hold) return heldAnswer(chart ?? parseChart(`| ${symbols!.join(' | ')} |`), hold, problem)
    const found = styledLines(problem)
    if (!found.ok) return found
    const { lines, texture: taken, says } = found.value
    const alike = lines[0] && grips.size === 0 ? whyLikeSmooth(problem, lines[0]) : null
    return good({
      texture: taken,
      says: alike ? [...says, alike] : says,
      lines: lines.map((line) => lineAnswer(line, chords.value)),
    })
  },

  pull({ symbols, voicings, index, string, to, limits: input, key }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chords = chordsOf(symbols)
    if (!chords.ok) return chords
    const { tuning, capo } = limits.value.instrument
    if (voicings.length !== symbols.length)
      return bad({
        code: 'bad-field',
        message: `${voicings.length} voicings were given for ${symbols.length} symbols.`,
        accepted: 'one grip for each symbol',
        text: 'voicings',
      })
    const wrong = voicings.findIndex((frets) => frets.length !== tuning.length)
    if (wrong >= 0) return wrongStrings(itemAt(voicings, wrong), tuning.length, `voicings.${wrong}`)
    const frets = voicings[index]
    if (!frets)
      return bad({
        code: 'bad-field',
        message: `There is no chord ${index}; the last is ${voicings.length - 1}.`,
        text: 'index',
      })
    const at = tuning.length - string
    if (at < 0 || frets[at] === null || frets[at] === undefined)
      return bad({
        code: 'bad-field',
        message: `String ${string} does not sound in chord ${index}.`,
        accepted: `a sounding string: ${frets.flatMap((fret, from) => (fret === null ? [] : [tuning.length - from])).join(', ')}`,
        text: 'string',
      })
    const open = itemAt(tuning, at) + capo
    const fretOf = (sound: number) => (sound === open ? 0 : sound - itemAt(tuning, at))
    const fret = 'fret' in to ? to.fret : fretOf(to.midi)
    if (fret < 0 || (fret > 0 && fret <= capo) || fret > 36)
      return bad({
        code: 'bad-field',
        message: `That note is not on string ${string}.`,
        accepted: `from ${plainPitchName(open)} up`,
        text: 'to',
      })
    const result = pulled(frets, at, fret, itemAt(chords.value, index), limits.value, key)
    const held = result.moved ? 'Held with the other notes on other strings.' : 'A hand holds it as it is.'
    return good({
      frets: result.frets,
      playable: result.playable,
      moved: result.moved,
      lost: result.lost,
      sour: result.sour.length,
      names: result.names.map(({ chord, ...name }) => ({ symbol: chord.canonical, ...name })),
      fingerings: result.fingering.playable ? result.fingering.fingerings.map(fingeringAnswer) : [],
      why: result.fingering.playable ? held : result.fingering.why,
    })
  },

  arrange(
    {
      text,
      melody,
      distance,
      style = 'smooth',
      limits: input,
      count = 1,
      guards,
      texture,
      colour,
      idiom,
      times,
    },
    onProgress,
  ) {
    // A melody sets the range of frets, unless the player does.
    const limits = limitsFrom(
      melody && !input?.frets ? { ...input, frets: [0, MELODY_FRETS], open: input?.open ?? true } : input,
    )
    if (!limits.ok) return limits
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const styled = inIdiom(text, idiom)
    const asked = times && timesAsked(chart, times)
    if (asked && !asked.ok) return asked
    const found = arrange({
      onProgress,
      ...(times ? { timesOf: (text) => must(timesAsked(parseChart(text), times)) } : {}),
      text: styled.text,
      distance,
      limits: limits.value,
      style,
      count,
      ...(melody ? { melody } : {}),
      ...(guards ? { guards } : {}),
      ...(texture ? { texture } : {}),
      ...(colour === undefined ? {} : { colour }),
    })
    if (!found.ok) return found
    const slots = slotsOf(chart)
    return good({
      lines: found.value.map(
        ({ line, chords: placed, changes, distance: far, reached, texture: kind, says }) => ({
          ...lineAnswer(
            line,
            placed.map(({ chord }) => chord),
          ),
          distance: tidy(far),
          reached,
          texture: kind,
          says,
          text: styled.back(applyChanges(styled.text, changes)),
          places: placed.map(({ bar, beat, beats }) => ({ bar, beat: tidy(beat), beats: tidy(beats) })),
          choices: choicesAnswer(changes, slots),
        }),
      ),
    })
  },
}

/** A melody has bars to lie in, and a drone a string of the instrument. */
function melodyOrDroneAmiss(
  { text, melody, drone }: Pick<z.output<(typeof requestSchemas)['lead']>, 'text' | 'melody' | 'drone'>,
  strings: number,
) {
  if (melody && text === undefined)
    return bad({
      code: 'bad-field',
      message: 'A melody needs a chart with bars.',
      accepted: 'text instead of symbols',
      text: 'melody',
    })
  return drone && 'string' in drone && drone.string > strings
    ? bad({
        code: 'bad-field',
        message: `There is no string ${drone.string} on ${strings} strings.`,
        accepted: `1 to ${strings}, or a pitch`,
        text: 'drone',
      })
    : null
}

/** For each chord of a chart the melody note that sounds when it comes: it has to be on top. */
const topsOf = (chart: Chart, melody: readonly MelodyNote[]): Constraint[] =>
  slotsOf(chart)
    .filter((slot) => slot.symbol?.kind === 'chord')
    .flatMap((slot, at): Constraint[] => {
      const midi = melodyNoteAt(melody, slot)
      return midi === null ? [] : [{ from: at, to: at, kind: 'top', midi }]
    })

interface NamedNote {
  name: string
  at: number
}

function readAll(texts: readonly string[], read: (text: string) => Result<number>): Result<NamedNote[]> {
  const notes: NamedNote[] = []
  for (const text of texts) {
    const at = read(text)
    if (!at.ok) return at
    notes.push({ name: text, at: at.value })
  }
  return good(notes.sort((a, b) => a.at - b.at))
}
const readPitches = (texts: readonly string[]) =>
  readAll(texts, (text) => {
    const p = parsePitch(text)
    return p.ok ? good(midiOf(p.value)) : p
  })

/** Sounds are a set: a doubled one counts once. */
function readSounds(texts: readonly string[]): Result<NamedNote[]> {
  const notes = readAll(texts, (text) => {
    const n = parseNote(text)
    return n.ok ? good(pitchClass(n.value)) : n
  })
  return notes.ok
    ? good(notes.value.filter((note, index, all) => index === 0 || itemAt(all, index - 1).at !== note.at))
    : notes
}

/** Grips by the index of their chord. */
function gripsAt(
  fixed: Readonly<Record<string, Frets>>,
  chords: number,
  strings: number,
): Result<Map<number, Frets>> {
  const grips = new Map<number, Frets>()
  for (const [index, frets] of Object.entries(fixed)) {
    if (frets.length !== strings) return wrongStrings(frets, strings, `fixed.${index}`)
    if (Number(index) >= chords)
      return bad({
        code: 'bad-field',
        message: `There is no chord ${index}; the last is ${chords - 1}.`,
        text: `fixed.${index}`,
      })
    grips.set(Number(index), frets)
  }
  return good(grips)
}
