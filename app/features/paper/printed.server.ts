/** PDFs that were made while the page watched, until they are fetched. */
const kept = new Map<string, { pdf: Uint8Array; name: string }>()
const MOST_KEPT = 4

/** @returns the word by which it is fetched */
export function keepPrinted(printed: { pdf: Uint8Array; name: string }): string {
  const id = crypto.randomUUID()
  kept.set(id, printed)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return id
}

export const printedLately = (id: string) => kept.get(id) ?? null
