import { firstOf } from '../../lists'
import { z } from 'zod'
import { analyse } from '../../analysis/analyse'
import { slotsOf } from '../../chart/chart'
import { parseChart } from '../../chart/parseChart'
import {
  choice,
  colourSchema,
  MOST_WHY,
  versionName,
  type Choice,
  type TuneDocument,
  type VersionKept,
} from '../document'
import { decisionsOf, type Decision } from '../decisions'
import { homeIndexAt } from '../following'
import { did, place } from '../slotPlaces'
import { area } from './area'

/** Chords of the new line, and versions of it. */
export const colourEdits = area(
  [
    z.strictObject({ kind: z.literal('colour'), colour: colourSchema }),
    z.strictObject({ kind: z.literal('choose'), slot: place, choice: choice.nullable() }),
    /** Several places at once, as one step: a stretch changed, or its plain chords put back. */
    z.strictObject({ kind: z.literal('choose-many'), choices: z.record(place, choice.nullable()), did }),
    /**
     * A way through the whole tune takes the place of the one before; chords and grips chosen by
     * hand stay.
     */
    z.strictObject({ kind: z.literal('way'), choices: z.record(place, choice), did }),
    /** Keeps what is made now under a name; one of the same name is replaced. */
    z.strictObject({ kind: z.literal('version-keep'), name: versionName, at: z.int().min(0) }),
    /** A kept version becomes what is worked on. */
    z.strictObject({ kind: z.literal('version-take'), name: versionName }),
    /**
     * Some bars of a kept version, by the chords of the home line from first to last; the rest
     * stays as it is.
     */
    z.strictObject({
      kind: z.literal('version-bars'),
      name: versionName,
      from: z.int().min(0),
      to: z.int().min(0),
      at: z.int().min(0),
      did,
    }),
    z.strictObject({ kind: z.literal('version-remove'), name: versionName }),
  ],
  {
    colour: (document, edit) =>
      edit.colour === document.colour
        ? document
        : { ...withChordsOfGrips(document), colour: edit.colour, line: 0 },
    choose: (document, edit) => withChoice(document, edit.slot, edit.choice),
    'choose-many': (document, edit) =>
      Object.entries(edit.choices).reduce((now, [at, made]) => withChoice(now, at, made), document),
    way: (document, edit) => withWay(document, edit.choices),
    'version-keep': (document, edit) => withVersionKept(document, edit.name, edit.at),
    'version-take': (document, edit) => {
      const {
        name: _,
        at: __,
        ...made
      } = document.versions.find((one) => one.name === edit.name) ?? { name: '', at: 0 }
      return { ...document, ...made }
    },
    'version-bars': (document, edit) => withBarsOf(document, edit),
    'version-remove': (document, edit) => ({
      ...document,
      versions: document.versions.filter((one) => one.name !== edit.name),
    }),
  },
  {
    colour: () => 'colour of the whole tune',
    choose: (edit) =>
      edit.choice
        ? `${edit.choice.chords.map((one) => one.symbol).join(' ')} in bar ${firstOf(edit.slot.split(':'))}`
        : `plain chord back in bar ${firstOf(edit.slot.split(':'))}`,
    'choose-many': (edit) => edit.did,
    way: (edit) => edit.did,
    'version-keep': (edit) => `kept as ${edit.name}`,
    'version-take': (edit) => `back to version ${edit.name}`,
    'version-bars': (edit) => edit.did,
    'version-remove': (edit) => `version ${edit.name} deleted`,
  },
)

/** Chords of the home line, by index, where the player decided something: a choice or a grip. */
export function decidedByHand({
  text,
  choices,
  fixed,
}: Pick<TuneDocument, 'text' | 'choices' | 'fixed'>): Set<number> {
  const slots = slotsOf(parseChart(text))
  const choicesByHand = Object.entries(choices)
    .filter(([, one]) => one.by !== 'tune')
    .flatMap(([place, one]) => {
      const from = homeIndexAt(slots, place)
      return Array.from({ length: one.span }, (_, at) => from + at)
    })
  return new Set(
    [...choicesByHand, ...Object.keys(fixed).map((place) => homeIndexAt(slots, place))].filter(
      (index) => index >= 0,
    ),
  )
}

/**
 * A choice put in, or taken out; others that stood on the same chords give way, and so do grips
 * fixed in their time.
 */
export function withChoice(document: TuneDocument, place: string, made: Choice | null): TuneDocument {
  const slots = slotsOf(parseChart(document.text))
  const from = homeIndexAt(slots, place)
  const covers = (key: string, span: number, to: number) => {
    const at = homeIndexAt(slots, key)
    return at >= 0 && at < to && at + span > from
  }
  const span = made?.span ?? document.choices[place]?.span ?? 1
  const choices = Object.fromEntries(
    Object.entries(document.choices).filter(
      ([key, one]) => key !== place && !(made && covers(key, one.span, from + span)),
    ),
  )
  const fixed = Object.fromEntries(
    Object.entries(document.fixed).filter(([key]) => key !== place && !covers(key, 1, from + span)),
  )
  return { ...document, fixed, choices: made ? { ...choices, [place]: made } : choices }
}

function withWay(document: TuneDocument, way: TuneDocument['choices']): TuneDocument {
  const slots = slotsOf(parseChart(document.text))
  const byHand = decidedByHand(document)
  const isFree = ([place, one]: [string, Choice]) => {
    const from = homeIndexAt(slots, place)
    return !Array.from({ length: one.span }, (_, at) => from + at).some((index) => byHand.has(index))
  }
  const kept = Object.entries(document.choices).filter(([, one]) => one.by !== 'tune')
  const taken = Object.entries(way)
    .filter(isFree)
    .map(([place, one]) => [place, { ...one, by: 'tune' as const }] as const)
  return { ...document, choices: Object.fromEntries([...kept, ...taken]), line: 0 }
}

function withVersionKept(document: TuneDocument, name: string, at: number): TuneDocument {
  const {
    colour,
    bass,
    style,
    line,
    choices,
    fixed,
    grips,
    gripsOn,
    called,
    conditions,
    leading,
    chordMelody: under,
    rhythm,
    versions,
  } = document
  const kept: VersionKept = {
    name,
    at,
    colour,
    bass,
    style,
    line,
    choices,
    fixed,
    grips,
    gripsOn,
    called,
    conditions,
    leading,
    chordMelody: under,
    rhythm,
  }
  const others = versions.filter((one) => one.name !== name)
  return { ...document, versions: [...others, kept] }
}

/**
 * Chords of a version take the place of those that stand there now, decided by hand from then on;
 * its grips come along.
 */
function withBarsOf(
  document: TuneDocument,
  { name, from, to, at }: { name: string; from: number; to: number; at: number },
): TuneDocument {
  const version = document.versions.find((one) => one.name === name)
  if (!version) return document
  const chart = parseChart(document.text)
  const analysis = analyse(chart)
  const inside = ({ index, span }: Decision) => index <= to && index + span > from
  const theirs = decisionsOf(chart, analysis, version).filter(inside)
  const cleared = decisionsOf(chart, analysis, document)
    .filter((one) => inside(one) && one.by !== 'control')
    .reduce((now, { key }) => withChoice(now, key, null), document)
  const taken = theirs
    .filter((one) => one.by !== 'control' || document.colour !== version.colour)
    .reduce(
      (now, { key, puts, span, rule, because }) =>
        withChoice(now, key, {
          chords: puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })),
          span,
          rule,
          at,
          why: because.why.slice(0, MOST_WHY),
        }),
      cleared,
    )
  const slots = slotsOf(chart)
  const isInside = (place: string) => {
    const index = homeIndexAt(slots, place)
    return index >= from && index <= to
  }
  const grips = Object.entries(version.fixed).filter(([place]) => isInside(place))
  return { ...taken, fixed: { ...taken.fixed, ...Object.fromEntries(grips) }, line: 0 }
}

/**
 * A grip by hand stays with the chord it was chosen for: where the control gave that chord, it is
 * the player's own from now on.
 */
function withChordsOfGrips(document: TuneDocument): TuneDocument {
  const held = new Set(Object.keys(document.fixed))
  if (held.size === 0) return document
  const chart = parseChart(document.text)
  const kept = decisionsOf(chart, analyse(chart), document).filter(
    ({ key, by }) => by === 'control' && held.has(key),
  )
  const choices = Object.fromEntries(
    kept.map(({ key, puts, span, rule, because }): [string, Choice] => [
      key,
      {
        chords: puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })),
        span,
        rule,
        at: 0,
        why: because.why.slice(0, MOST_WHY),
      },
    ]),
  )
  return { ...document, choices: { ...document.choices, ...choices } }
}
