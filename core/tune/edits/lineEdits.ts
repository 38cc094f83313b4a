import { firstOf } from '../../lists'
import { z } from 'zod'
import {
  bass,
  choice,
  condition,
  leading,
  lineSchema,
  MOST_CONDITIONS,
  STAYS,
  styleSchema,
  type TuneDocument,
} from '../document'
import { did, frets, place, stringing, symbol } from '../slotPlaces'
import { area } from './area'
import { withChoice } from './colourEdits'

/** Grips, what they keep to, and how they are led. */
export const lineEdits = area(
  [
    z.strictObject({ kind: z.literal('bass'), bass }),
    z.strictObject({ kind: z.literal('style'), style: styleSchema }),
    /** How the lines are led; with a style of the player's own its base becomes the style. */
    z.strictObject({ kind: z.literal('leading'), leading }),
    z.strictObject({ kind: z.literal('line'), line: lineSchema }),
    /**
     * A grip chosen by hand, or (null) left to the search again. The other grips stay unless `anew`
     * asks for the rest of the line to be led around it. `called` is what the player knowingly
     * calls a grip that sounds something else.
     */
    z.strictObject({
      kind: z.literal('fix'),
      slot: place,
      frets: frets.nullable(),
      on: stringing.optional(),
      called: symbol.nullable().optional(),
      anew: z.boolean().optional(),
    }),
    /** Several grips at once, as one step: a note pulled while the rest of the line stays. */
    z.strictObject({
      kind: z.literal('fix-many'),
      grips: z.record(place, frets),
      on: stringing.optional(),
      anew: z.boolean().optional(),
      did,
    }),
    /**
     * A beat between two chords gets a grip of its own: the choice it becomes part of, with the
     * grips of that choice.
     */
    z.strictObject({
      kind: z.literal('extra-beat'),
      slot: place,
      choice,
      grips: z.record(place, frets),
      on: stringing.optional(),
      did,
    }),
    z.strictObject({ kind: z.literal('condition-add'), condition }),
    /** By its place in the list. */
    z.strictObject({
      kind: z.literal('condition-remove'),
      at: z
        .int()
        .min(0)
        .max(MOST_CONDITIONS - 1),
    }),
    /**
     * What the search found for the present state. It is kept with that state and is no step of its
     * own for undo.
     */
    z.strictObject({ kind: z.literal('grips'), grips: z.record(place, frets), on: stringing.optional() }),
  ],
  {
    bass: (document, edit) => ({ ...document, bass: edit.bass, line: 0 }),
    style: (document, edit) => ({
      ...document,
      style: edit.style,
      leading: { ...document.leading, own: null },
      line: 0,
    }),
    leading: (document, edit) => ({
      ...document,
      style: edit.leading.own?.base ?? document.style,
      leading: edit.leading,
      line: 0,
    }),
    line: (document, edit) => ({ ...document, line: edit.line }),
    fix: (document, edit) => {
      if (edit.frets) {
        const fixed = withGripsFixed(document, {
          grips: { [edit.slot]: edit.frets },
          on: edit.on,
          anew: edit.anew,
        })
        return edit.called ? { ...fixed, called: { ...fixed.called, [edit.slot]: edit.called } } : fixed
      }
      const without = <T>(made: Record<string, T>) =>
        Object.fromEntries(Object.entries(made).filter(([at]) => at !== edit.slot))
      return {
        ...document,
        line: edit.anew ? 0 : STAYS,
        fixed: without(document.fixed),
        grips: without(document.grips),
        gripsOn: without(document.gripsOn),
        called: without(document.called),
      }
    },
    'fix-many': withGripsFixed,
    'extra-beat': (document, edit) => withGripsFixed(withChoice(document, edit.slot, edit.choice), edit),
    'condition-add': (document, edit) => ({
      ...document,
      line: 0,
      conditions: [...document.conditions, edit.condition],
    }),
    'condition-remove': (document, edit) => ({
      ...document,
      line: 0,
      conditions: document.conditions.filter((_, at) => at !== edit.at),
    }),
    // A grip by hand stays what the player made, also where the search had to move it or find
    // another for the instrument at hand.
    grips: (document, { grips, on }) => ({
      ...document,
      grips: { ...grips, ...document.fixed },
      gripsOn: on
        ? Object.fromEntries(
            Object.keys(grips).map((at) => [at, at in document.fixed ? (document.gripsOn[at] ?? on) : on]),
          )
        : document.gripsOn,
    }),
  },
  {
    bass: () => 'who plays the bass',
    style: () => 'style of the lines',
    leading: (edit) => (edit.leading.own ? `style ${edit.leading.own.name}` : 'how the lines are led'),
    line: (edit) => (edit.line === STAYS ? 'the line as it is' : `line ${edit.line + 1}`),
    fix: (edit) =>
      `${edit.frets ? 'grip' : 'grip left to the search'} in bar ${firstOf(edit.slot.split(':'))}`,
    'fix-many': (edit) => edit.did,
    'extra-beat': (edit) => edit.did,
    'condition-add': () => 'condition for the lines',
    'condition-remove': () => 'condition taken away',
    grips: () => 'grips',
  },
)

/**
 * Grips by hand put in; the rest of the line stays as it is unless it is to be led anew. What they
 * were called before is no longer said of them.
 */
function withGripsFixed(
  document: TuneDocument,
  {
    grips,
    on,
    anew = false,
  }: { grips: TuneDocument['grips']; on?: string | undefined; anew?: boolean | undefined },
): TuneDocument {
  const places = Object.keys(grips)
  const gripsOn = on
    ? { ...document.gripsOn, ...Object.fromEntries(places.map((place) => [place, on])) }
    : Object.fromEntries(Object.entries(document.gripsOn).filter(([place]) => !places.includes(place)))
  return {
    ...document,
    line: anew ? 0 : STAYS,
    fixed: { ...document.fixed, ...grips },
    grips: { ...document.grips, ...grips },
    gripsOn,
    called: Object.fromEntries(Object.entries(document.called).filter(([place]) => !places.includes(place))),
  }
}
