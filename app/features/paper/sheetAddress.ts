import { isTemplate, layoutFrom, TEMPLATES, type SheetLayout } from '../../../core/sheet/sheetLayout'
import type { KeptLayout } from '../../../db/layouts'

/** The layout a sheet begins from where its address names none. */
export const FIRST_LAYOUT = 'comping'

/** The layout an address asks for, and the name or id it begins from. */
export function layoutAsked(
  asked: URLSearchParams,
  kept: readonly KeptLayout[],
): { from: string; layout: SheetLayout } {
  const name = asked.get('layout') ?? FIRST_LAYOUT
  const own = kept.find(({ id, name: called }) => id === name || called === name)
  const from = own?.id ?? (isTemplate(name) ? name : FIRST_LAYOUT)
  const begun = own?.layout ?? TEMPLATES[isTemplate(from) ? from : FIRST_LAYOUT].layout
  return { from, layout: layoutFrom(asked, begun) }
}
