import { TEMPLATES, type SheetLayout } from '../../../core/sheet/sheetLayout'

/** What the stand shows of a tune. */
export const SHOWN_ON_STAND = ['grips', 'symbols', 'both', 'melody', 'chord-melody'] as const
export type Shown = (typeof SHOWN_ON_STAND)[number]

const PLAIN: SheetLayout = { ...TEMPLATES.lead.layout, staff: false, sections: true }

export const STAND_LAYOUTS: Readonly<Record<Shown, { label: string; layout: SheetLayout }>> = {
  grips: { label: 'Chords and grips', layout: { ...PLAIN, grips: 'each' } },
  symbols: { label: 'Chords', layout: PLAIN },
  both: { label: 'New and plain chords', layout: { ...PLAIN, symbols: 'both', numerals: true } },
  melody: { label: 'Melody', layout: { ...PLAIN, staff: true } },
  'chord-melody': { label: 'Chord melody', layout: { ...PLAIN, staff: true, tab: 'chord-melody' } },
}

export const isShown = (name: string): name is Shown => (SHOWN_ON_STAND as readonly string[]).includes(name)

/** A layout as it stands in a window: one column, and as large as the stand is set. */
export const layoutOnStand = (layout: SheetLayout): SheetLayout => ({ ...layout, columns: 1, large: false })
