import { z } from 'zod'

/** Sizes of paper in points (1/72 inch), upright: ISO 216 and ANSI/ASME Y14.1. */
export const PAPERS = {
  a4: { label: 'A4', width: 595.28, height: 841.89 },
  letter: { label: 'Letter', width: 612, height: 792 },
} as const
export type PaperName = keyof typeof PAPERS

/** For whom a part is written. */
export const SHEET_PARTS = {
  concert: 'Concert pitch',
  'b-flat': 'B♭ instruments',
  'e-flat': 'E♭ instruments',
  bass: 'Bass clef',
} as const
export type PartName = keyof typeof SHEET_PARTS

const names = <Name extends string>(table: Readonly<Record<Name, unknown>>) =>
  Object.keys(table) as [Name, ...Name[]]

/** Bars that can stand in a line when their number is given. */
export const BARS_A_LINE_RANGE = [1, 8] as const

/** What a sheet carries and how it stands on the paper. */
export const sheetLayout = z.strictObject({
  /** Whose chords: those the guitar plays, the plain ones of the band, or both. */
  symbols: z.enum(['new', 'plain', 'both']),
  /** A grip at each change, each grip once in a legend, or none. */
  grips: z.enum(['none', 'each', 'legend']),
  tab: z.enum(['none', 'comping', 'chord-melody']),
  numerals: z.boolean(),
  /** A staff with the melody. */
  staff: z.boolean(),
  /** Words under their beats. */
  lyrics: z.boolean().default(false),
  rhythm: z.boolean(),
  bass: z.boolean(),
  /** Why each changed chord was changed, as footnotes. */
  reasons: z.boolean(),
  /** Four bars to a line, fewer where they need more room; or a number. */
  bars: z.union([z.literal('width'), z.int().min(BARS_A_LINE_RANGE[0]).max(BARS_A_LINE_RANGE[1])]),
  /** A section begins a new line. */
  sections: z.boolean(),
  columns: z.union([z.literal(1), z.literal(2)]),
  paper: z.enum(names(PAPERS)),
  /** Black alone, for printers and copies. */
  black: z.boolean(),
  large: z.boolean(),
  part: z.enum(names(SHEET_PARTS)),
})
export type SheetLayout = z.infer<typeof sheetLayout>

const PLAIN: SheetLayout = {
  symbols: 'new',
  grips: 'none',
  tab: 'none',
  numerals: false,
  staff: false,
  lyrics: false,
  rhythm: false,
  bass: false,
  reasons: false,
  bars: 'width',
  sections: true,
  columns: 1,
  paper: 'a4',
  black: false,
  large: false,
  part: 'concert',
}

/** A layout that shows grips, whichever way. */
export const showsGrips = ({ grips, tab, part }: SheetLayout): boolean =>
  part === 'concert' && (grips !== 'none' || tab === 'comping')

/** Layouts that every tune has. */
export const TEMPLATES = {
  comping: {
    label: 'Comping sheet',
    layout: { ...PLAIN, symbols: 'both', grips: 'each', numerals: true, lyrics: true, rhythm: true },
  },
  lead: { label: 'Lead sheet', layout: { ...PLAIN, staff: true, lyrics: true } },
  'chord-melody': {
    label: 'Chord melody',
    layout: { ...PLAIN, staff: true, tab: 'chord-melody' },
  },
  teaching: {
    label: 'Teaching page',
    layout: {
      ...PLAIN,
      symbols: 'both',
      grips: 'each',
      numerals: true,
      rhythm: true,
      staff: true,
      lyrics: true,
      reasons: true,
    },
  },
  'part-b-flat': { label: 'B♭ part', layout: { ...PLAIN, staff: true, part: 'b-flat' } },
  'part-e-flat': { label: 'E♭ part', layout: { ...PLAIN, staff: true, part: 'e-flat' } },
  'part-bass': { label: 'Bass part', layout: { ...PLAIN, bass: true, part: 'bass' } },
} as const satisfies Readonly<Record<string, { label: string; layout: SheetLayout }>>
export type TemplateName = keyof typeof TEMPLATES
export const TEMPLATE_NAMES = names(TEMPLATES)
export const isTemplate = (name: string): name is TemplateName => Object.hasOwn(TEMPLATES, name)

export const layoutName = z
  .string()
  .trim()
  .min(1, 'a name of 1 to 40 letters')
  .max(40, 'a name of 1 to 40 letters')
/** Layouts of its own a tune can keep. */
export const MOST_LAYOUTS = 20

const SWITCHES = [
  'numerals',
  'staff',
  'lyrics',
  'rhythm',
  'bass',
  'reasons',
  'sections',
  'black',
  'large',
] as const
export type SheetSwitch = (typeof SWITCHES)[number]

/**
 * A layout out of an address: `with` names every switch that is on. An address without `with`
 * changes nothing of the layout it begins from.
 * @returns the layout it begins from, wherever the address says something that is not understood
 */
export function layoutFrom(asked: URLSearchParams, from: SheetLayout): SheetLayout {
  const on = asked.has('with') ? new Set(asked.getAll('with').flatMap((one) => one.split(','))) : null
  const bars = asked.get('bars')
  const given: Record<string, unknown> = {
    symbols: asked.get('symbols'),
    grips: asked.get('grips'),
    tab: asked.get('tab'),
    bars: bars === null || bars === 'width' ? bars : Number(bars),
    columns: asked.has('columns') ? Number(asked.get('columns')) : null,
    paper: asked.get('paper'),
    part: asked.get('part'),
    ...(on ? Object.fromEntries(SWITCHES.map((name) => [name, on.has(name)])) : {}),
  }
  const shape = sheetLayout.shape as Readonly<Record<string, z.ZodType>>
  const understood = Object.entries(given).flatMap(([name, value]) => {
    const read = shape[name]!.safeParse(value)
    return read.success ? [[name, read.data]] : []
  })
  return { ...from, ...(Object.fromEntries(understood) as Partial<SheetLayout>) }
}

/** The address that gives a layout whole. */
export function layoutAddress(layout: SheetLayout): URLSearchParams {
  const { symbols, grips, tab, bars, columns, paper, part } = layout
  return new URLSearchParams({
    symbols,
    grips,
    tab,
    bars: String(bars),
    columns: String(columns),
    paper,
    part,
    with: SWITCHES.filter((name) => layout[name]).join(),
  })
}
