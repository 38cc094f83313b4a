import { z } from 'zod'
import { did, place } from '../places'
import { handHit, rhythm, type Rhythm } from '../rhythmSchema'
import { area } from './area'

/** What a tune is accompanied with. */
export const rhythmEdits = area(
  [
    /** Settings of the accompaniment; those not named stay. */
    z.strictObject({
      kind: z.literal('rhythm'),
      set: rhythm.omit({ byHand: true, sections: true }).partial(),
      did,
    }),
    /** Another figure for a section; null for the tune's own again, `silent` where the guitar rests. */
    z.strictObject({
      kind: z.literal('rhythm-section'),
      section: z.string().max(40),
      figure: z.union([rhythm.shape.figure.unwrap(), z.literal('silent')]).nullable(),
    }),
    /** Hits by hand: put in, changed, or (null) left out; `free` gives places back to the figure. */
    z.strictObject({
      kind: z.literal('rhythm-hits'),
      hits: z.record(place, handHit.nullable()),
      free: z.array(place).max(4_000),
      did,
    }),
  ],
  {
    rhythm: (document, edit) => ({
      ...document,
      rhythm: { ...document.rhythm, ...(edit.set as Partial<Rhythm>) },
    }),
    'rhythm-section': (document, edit) => {
      const { [edit.section]: _, ...others } = document.rhythm.sections
      const figure = edit.figure === 'silent' ? null : edit.figure
      return {
        ...document,
        rhythm: {
          ...document.rhythm,
          sections: edit.figure === null ? others : { ...others, [edit.section]: figure },
        },
      }
    },
    'rhythm-hits': (document, edit) => {
      const free = new Set(edit.free)
      const kept = Object.entries(document.rhythm.byHand).filter(([at]) => !free.has(at))
      return {
        ...document,
        rhythm: { ...document.rhythm, byHand: { ...Object.fromEntries(kept), ...edit.hits } },
      }
    },
  },
  {
    rhythm: (edit) => edit.did,
    'rhythm-section': (edit) =>
      edit.figure === null
        ? `section ${edit.section} with the tune's figure`
        : `figure of section ${edit.section}`,
    'rhythm-hits': (edit) => edit.did,
  },
)
