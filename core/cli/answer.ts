import { NEAR_WRITTEN } from '../chart/beats'
import { z } from 'zod'
import { analyse } from '../analysis/analyse'
import { availableTensions } from '../analysis/tensions'
import { skeletonOf } from '../analysis/skeleton'
import { formInWords, formSentence } from '../analysis/formWords'
import { meterName, slotsOf, type Chart } from '../chart/chart'
import { playOrder } from '../chart/form'
import { parseChart } from '../chart/parse'
import { printChart } from '../chart/print'
import { parseChord, parseSymbol } from '../chord/parse'
import { arrange, melodyNoteAt } from '../leading/arrange'
import type { Constraint } from '../leading/constraints'
import { styledLines, whyLikeSmooth, type StyledProblem } from '../leading/inStyle'
import { pulled } from '../leading/pull'
import { leastClassMotion, leastMotion, voiceSteps } from '../pitch/motion'
import { fingeringsOf } from '../neck/fingering'
import { soundAt, STANDARD_GUITAR, type Frets } from '../neck/instrument'
import { keyName } from '../pitch/key'
import { midiOf, noteName, parseNote, parsePitch, pitchClass, plainPitchName } from '../pitch/note'
import { applyChanges } from '../reharm/apply'
import { COLOURS } from '../reharm/catalogue'
import type { MelodyNote } from '../reharm/melodyFit'
import { optionsAt } from '../reharm/options'
import { reharmonise } from '../reharm/reharmonise'
import { RULES } from '../reharm/rules'
import { bad, good, type Fault, type Result } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { usualFirst } from '../voicing/idiom'
import { namesOf } from '../voicing/name'
import type { Voicing } from '../voicing/voicing'
import { whyNone } from '../voicing/whyNone'
import { limitsFrom } from './limits'
import { FILE_ANSWERS } from './fileAnswers'
import { MELODY_ANSWERS } from './melodyAnswers'
import { PRACTICE_ANSWERS } from './practiceAnswers'
import { RHYTHM_ANSWERS } from './rhythmAnswers'
import {
  chordsOf,
  chordsOfChart,
  fingeringAnswer,
  NO_CHORDS,
  lineAnswer,
  placeOf,
  tidy,
  voicingAnswer,
  wrongStrings,
} from './parts'
import { requestSchemas } from './requests'

type CommandAnswer = Record<string, unknown>
export type Reply =
  ({ ok: true } & CommandAnswer) | { ok: false; error: { code: string; message: string; where: unknown } }
type RequestOf<Name extends keyof typeof requestSchemas> = z.output<(typeof requestSchemas)[Name]>

/** One line of input to one line of output. Never throws on what a player sends. */
export function answerLine(line: string): Reply {
  let request: unknown
  try {
    request = JSON.parse(line)
  } catch (error) {
    return refuse('bad-json', `This line is not JSON: ${(error as Error).message}`, 'line')
  }
  return answer(request)
}

const refuse = (code: string, message: string, where: unknown): Reply => ({
  ok: false,
  error: { code, message, where },
})

export function answer(request: unknown): Reply {
  const wanted = typeof request === 'object' && request !== null && 'do' in request ? request.do : undefined
  if (typeof wanted !== 'string')
    return refuse('bad-request', 'A request is a JSON object with a "do".', 'do')
  if (!Object.hasOwn(HANDLERS, wanted))
    return refuse('unknown-do', `There is no "${wanted}". Known: ${Object.keys(HANDLERS).join(', ')}.`, 'do')
  const name = wanted as keyof typeof HANDLERS
  const checked = requestSchemas[name].safeParse(request)
  if (!checked.success) return refuseIssue(checked.error.issues[0]!)
  const result = (HANDLERS[name] as (request: never) => Result<CommandAnswer>)(checked.data as never)
  return result.ok
    ? { ok: true, ...result.value }
    : refuse(result.fault.code, messageOf(result.fault), whereOf(result.fault))
}

const messageOf = (fault: Fault) =>
  fault.accepted ? `${fault.message} Accepted: ${fault.accepted}.` : fault.message
/** A place in a text as offset and text; a place in the request as the path of the field. */
const whereOf = ({ at, text }: Fault) => (at === undefined ? (text ?? null) : { at, text })

function refuseIssue(issue: z.core.$ZodIssue): Reply {
  const path = issue.path.join('.')
  if (issue.code === 'unrecognized_keys') {
    const where = [...issue.path, issue.keys[0]!].join('.')
    return refuse(
      'unknown-field',
      `Unknown field ${issue.keys.map((field) => `"${field}"`).join(', ')}.`,
      where,
    )
  }
  return refuse('bad-field', path ? `${path}: ${issue.message}` : issue.message, path || 'request')
}

const HANDLERS: {
  [Name in keyof typeof requestSchemas]: (request: RequestOf<Name>) => Result<CommandAnswer>
} = {
  ...FILE_ANSWERS,
  ...MELODY_ANSWERS,
  ...RHYTHM_ANSWERS,
  ...PRACTICE_ANSWERS,

  parse({ symbol }) {
    const parsed = parseSymbol(symbol)
    if (!parsed.ok) return parsed
    if (parsed.value.kind === 'silence') return good({ root: null, bass: null, canonical: 'N.C.', tones: [] })
    const { root, bass, canonical, tones } = parsed.value.chord
    return good({
      root: noteName(root),
      bass: bass && noteName(bass),
      canonical,
      tones: tones.map(({ degree, note }) => ({ degree, note: noteName(note) })),
    })
  },

  chart({ text }) {
    const chart = parseChart(text)
    return good({
      title: chart.title,
      key: chart.key && keyName(chart.key),
      meter: meterName(chart.meter),
      tempo: chart.tempo,
      capo: chart.capo,
      pickup: chart.pickup,
      bars: chart.bars.map((bar) => ({
        section: bar.section,
        number: bar.number,
        meter: meterName(bar.meter),
        beats: tidy(bar.beats),
        key: bar.newKey && keyName(bar.newKey),
        opensRepeat: bar.opensRepeat,
        played: bar.played,
        ending: bar.ending,
        marks: bar.marks,
        remarks: bar.remarks,
        chords: bar.slots.map((slot) => ({ symbol: slot.text, ...placeOf(slot), beats: tidy(slot.beats) })),
      })),
      order: playOrder(chart),
      text: printChart(chart),
      problems: chart.problems,
    })
  },

  analyse({ text, numerals }) {
    const chart = parseChart(text)
    const analysis = analyse(chart, numerals)
    const { key, readings, groups, keyGuessed, confidence, otherKeys, regions } = analysis
    const form = formInWords(chart, analysis)
    return good({
      key: keyName(key),
      keyGuessed,
      confidence: tidy(confidence),
      otherKeys: otherKeys.map((other) => ({ key: keyName(other.key), confidence: tidy(other.confidence) })),
      regions: regions.map((region) => ({ ...region, key: keyName(region.key) })),
      form: formSentence(form),
      formWhy: form,
      chords: readings.map(
        ({ slot, roman, key: local, diatonic, function: fn, role, reason, scale, why, alternatives }) => ({
          bar: slot.bar,
          ...placeOf(slot),
          symbol: slot.text,
          roman,
          key: keyName(local),
          diatonic,
          function: fn,
          role,
          reason,
          alternatives,
          scale: scale && { name: scale.name, degrees: scale.degrees, notes: scale.notes.map(noteName) },
          why,
          ...(slot.symbol?.kind === 'chord' ? { tensions: availableTensions(slot.symbol.chord, role) } : {}),
        }),
      ),
      groups: groups.map((group) => ({ ...group, key: keyName(group.key) })),
      problems: chart.problems,
    })
  },

  skeleton({ text, level }) {
    const chart = parseChart(text)
    return good({ text: printChart(skeletonOf(chart, level)), problems: chart.problems })
  },

  name({ frets, notes, tuning, over, key }) {
    const instrument = tuning ? { ...STANDARD_GUITAR, tuning } : STANDARD_GUITAR
    if (frets && frets.length !== instrument.tuning.length)
      return wrongStrings(frets, instrument.tuning.length, 'frets')
    const midis = frets
      ? frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(instrument, string, fret)]))
      : notes!
    if (midis.length === 0)
      return bad({
        code: 'bad-field',
        message: 'No string sounds.',
        accepted: 'at least one fret that is not null',
        text: 'frets',
      })
    return good({
      names: namesOf(midis, { over, key }).map(({ chord, ...name }) => ({
        symbol: chord.canonical,
        ...name,
      })),
    })
  },

  finger({ frets, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const { instrument, hand } = limits.value
    if (frets.length !== instrument.tuning.length)
      return wrongStrings(frets, instrument.tuning.length, 'frets')
    const found = fingeringsOf(frets, instrument, hand)
    if (!found.playable) return good({ playable: false, fingerings: [], why: found.why })
    return good({ playable: true, fingerings: found.fingerings.map(fingeringAnswer) })
  },

  voicings({ symbol, limits: input, count, sort = 'easy' }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chord = parseChord(symbol)
    if (!chord.ok) return chord
    const voicings = voicingsOf(chord.value, limits.value)
    if (voicings.length === 0) {
      const tight = whyNone(chord.value, limits.value)
      return good({
        total: 0,
        voicings: [],
        tooTight: tight,
        why:
          tight.length > 0
            ? `Nothing is left by limits.${tight.map(({ limit }) => limit).join(' and limits.')}: ${tight.map(({ loosen }) => loosen).join('; or ')}.`
            : `No grip of ${chord.value.canonical} can be held on this instrument.`,
      })
    }
    const inOrder =
      sort === 'low' || sort === 'high'
        ? voicings.sort(ORDERS[sort])
        : usualFirst(voicings, chord.value, limits.value.instrument)
    return good({ total: voicings.length, voicings: inOrder.slice(0, count).map(voicingAnswer) })
  },

  options({ text, bar, beat, melody, rules, depth }) {
    const chart = parseChart(text)
    const slots = slotsOf(chart)
    const index = slots.findIndex((slot) => slot.bar === bar && Math.abs(slot.beat - beat) < NEAR_WRITTEN)
    const unknown = rules?.find((rule) => !KNOWN_RULES.some((known) => known.startsWith(rule)))
    if (unknown !== undefined)
      return bad({
        code: 'bad-field',
        message: `There is no rule "${unknown}".`,
        accepted: `${[...new Set(KNOWN_RULES)].join(', ')}, or a letter for all of its kind`,
        text: 'rules',
      })
    if (index < 0)
      return bad({
        code: 'no-chord',
        message: `No chord begins on bar ${bar}, beat ${beat}.`,
        accepted:
          slots
            .slice(0, 8)
            .map((slot) => `bar ${slot.bar}, beat ${tidy(slot.beat)}`)
            .join('; ') || 'a chart with a chord',
        text: 'bar, beat',
      })
    if (slots[index]!.symbol?.kind !== 'chord')
      return bad({
        code: 'no-chord',
        message: `"${slots[index]!.text}" on bar ${bar}, beat ${beat} is no chord that could be changed.`,
        accepted: 'the place of a chord',
        text: 'bar, beat',
      })
    const options = optionsAt(text, index, {
      rules,
      ...(depth ? { depth } : {}),
      ...(melody ? { melody } : {}),
    })
    return good({
      options: options.map(
        ({
          rule,
          name,
          intent,
          puts,
          why,
          distance,
          reach,
          mood,
          school,
          melody: fit,
          kept,
          lost,
          added,
          into,
          out,
          basses,
          also,
          depth: deep,
          ...change
        }) => ({
          rule,
          name,
          intent,
          symbols: puts.map((put) => put.chord.canonical),
          beats: puts.map((put) => tidy(put.beats)),
          text: applyChanges(text, [{ rule, name, intent, puts, why, mood, school, depth: deep, ...change }]),
          why,
          distance: tidy(distance.total),
          distanceParts: { tones: tidy(distance.tones), root: tidy(distance.root) },
          reach: tidy(reach),
          mood,
          school,
          melody: fit,
          kept,
          lost,
          added,
          into,
          out,
          basses,
          also,
        }),
      ),
      problems: chart.problems,
    })
  },

  reharmonise({ text, distance, count = 1, melody, seed = 1, guards }) {
    const slots = slotsOf(parseChart(text))
    if (!slots.some(({ symbol }) => symbol?.kind === 'chord')) return bad(NO_CHORDS)
    const results = reharmonise(text, {
      distance,
      count,
      seed,
      ...(melody ? { melody } : {}),
      ...(guards ? { guards } : {}),
    })
    return good({
      results: results.map((result) => ({
        text: result.text,
        distance: tidy(result.distance),
        reached: result.reached,
        says: result.says,
        choices: result.changes.map((change) => ({
          bar: slots[change.index]!.bar,
          ...placeOf(slots[change.index]!),
          rule: change.rule,
          name: change.name,
          why: change.why,
          symbols: change.puts.map((put) => put.chord.canonical),
        })),
      })),
    })
  },

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
    const nameIn = (notes: NamedNote[], at: number) => notes.find((note) => note.at === at)!.name
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

  lead({
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
  }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chart = text === undefined ? null : parseChart(text)
    const chords = chart ? chordsOfChart(chart) : chordsOf(symbols!)
    if (!chords.ok) return chords
    if (melody && !chart)
      return bad({
        code: 'bad-field',
        message: 'A melody needs a chart with bars.',
        accepted: 'text instead of symbols',
        text: 'melody',
      })
    const strings = limits.value.instrument.tuning.length
    const grips = new Map<number, Frets>()
    for (const [index, frets] of Object.entries(fixed)) {
      if (frets.length !== strings) return wrongStrings(frets, strings, `fixed.${index}`)
      if (Number(index) >= chords.value.length)
        return bad({
          code: 'bad-field',
          message: `There is no chord ${index}; the last is ${chords.value.length - 1}.`,
          text: `fixed.${index}`,
        })
      grips.set(Number(index), frets)
    }
    if (drone && 'string' in drone && drone.string > strings)
      return bad({
        code: 'bad-field',
        message: `There is no string ${drone.string} on ${strings} strings.`,
        accepted: `1 to ${strings}, or a pitch`,
        text: 'drone',
      })
    const readings = chart
      ? analyse(chart).readings.filter(({ slot }) => slot.symbol?.kind === 'chord')
      : null
    const problem: StyledProblem = {
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
      ...(texture ? { texture } : {}),
      ...(colour === undefined ? {} : { colour }),
      ...(readings ? { roles: readings.map(({ role }) => role) } : {}),
    }
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
    if (wrong >= 0) return wrongStrings(voicings[wrong]!, tuning.length, `voicings.${wrong}`)
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
    const open = tuning[at]! + capo
    const fretOf = (sound: number) => (sound === open ? 0 : sound - tuning[at]!)
    const fret = 'fret' in to ? to.fret : fretOf(to.midi)
    if (fret < 0 || (fret > 0 && fret <= capo) || fret > 36)
      return bad({
        code: 'bad-field',
        message: `That note is not on string ${string}.`,
        accepted: `from ${plainPitchName(open)} up`,
        text: 'to',
      })
    const result = pulled(frets, at, fret, chords.value[index]!, limits.value, key)
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

  arrange({ text, melody, distance, style = 'smooth', limits: input, count = 1, guards, texture, colour }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const found = arrange({
      text,
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
          text: applyChanges(text, changes),
          places: placed.map(({ bar, beat, beats }) => ({ bar, beat: tidy(beat), beats: tidy(beats) })),
          choices: changes.map((change) => ({
            bar: slots[change.index]!.bar,
            ...placeOf(slots[change.index]!),
            rule: change.rule,
            name: change.name,
            why: change.why,
            symbols: change.puts.map((put) => put.chord.canonical),
          })),
        }),
      ),
    })
  },
}

/** For each chord of a chart the melody note that sounds when it comes: it has to be on top. */
const topsOf = (chart: Chart, melody: readonly MelodyNote[]): Constraint[] =>
  slotsOf(chart)
    .filter((slot) => slot.symbol?.kind === 'chord')
    .flatMap((slot, at): Constraint[] => {
      const midi = melodyNoteAt(melody, slot)
      return midi === null ? [] : [{ from: at, to: at, kind: 'top', midi }]
    })

/** Every rule there is, colours among them. */
const KNOWN_RULES: readonly string[] = [
  ...Object.values(COLOURS)
    .flat()
    .map((colour) => colour.rule),
  ...RULES.map((rule) => rule.id),
]

const lowest = (voicing: Voicing) => voicing.midis[0]!
const highest = (voicing: Voicing) => voicing.midis.at(-1)!
const byEase = (a: Voicing, b: Voicing) => a.fingering.difficulty - b.fingering.difficulty
const ORDERS = {
  low: (a: Voicing, b: Voicing) => lowest(a) - lowest(b) || highest(a) - highest(b) || byEase(a, b),
  high: (a: Voicing, b: Voicing) => highest(b) - highest(a) || lowest(b) - lowest(a) || byEase(a, b),
}

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
    ? good(notes.value.filter((note, index, all) => index === 0 || all[index - 1]!.at !== note.at))
    : notes
}
