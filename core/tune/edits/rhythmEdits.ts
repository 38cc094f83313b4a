import { z } from 'zod'
import { barName } from '../../chart/chart'
import { parseChart } from '../../chart/parseChart'
import { did, place } from '../slotPlaces'
import { handHit, rhythmSchema, type Rhythm } from '../rhythmSchema'
import { area } from './area'

/** Null gives the place back to what stands around it; `silent` where the guitar rests. */
const otherFigure = z.union([rhythmSchema.shape.figure.unwrap(), z.literal('silent')]).nullable()
const barNumber = z.int().min(0).max(9_999)

/** What a tune is accompanied with. */
export const rhythmEdits = area(
  [
    /** Settings of the accompaniment; those not named stay. */
    z.strictObject({
      kind: z.literal('rhythm'),
      set: rhythmSchema.omit({ byHand: true, sections: true, bars: true }).partial(),
      did,
    }),
    /**
     * Another figure for a section; null for the tune's own again, `silent` where the guitar rests.
     */
    z.strictObject({
      kind: z.literal('rhythm-section'),
      section: z.string().max(40),
      figure: otherFigure,
    }),
    /** The same for some bars in a row. */
    z.strictObject({
      kind: z.literal('rhythm-bars'),
      from: barNumber,
      to: barNumber,
      figure: otherFigure,
    }),
    /**
     * Hits by hand: put in, changed, or (null) left out; `free` gives places back to the figure.
     */
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
    'rhythm-bars': (document, edit) => {
      const inside = (bar: number) => bar >= edit.from && bar <= edit.to
      const others = Object.entries(document.rhythm.bars).filter(([bar]) => !inside(Number(bar)))
      const figure = edit.figure === 'silent' ? null : edit.figure
      const made =
        edit.figure === null
          ? []
          : parseChart(document.text)
              .bars.filter(({ number }) => inside(number))
              .map(({ number }) => [String(number), figure] as const)
      return { ...document, rhythm: { ...document.rhythm, bars: Object.fromEntries([...others, ...made]) } }
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
    'rhythm-bars': (edit) =>
      `${edit.from === edit.to ? barName(edit.from) : `bars ${edit.from} to ${edit.to}`} ${edit.figure === null ? 'as the rest' : 'with another figure'}`,
    'rhythm-hits': (edit) => edit.did,
  },
)
