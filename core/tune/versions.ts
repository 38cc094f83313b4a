import type { TuneDocument } from './document'

/** The tune as a version kept it; null where there is none of that name. */
export function asVersion(document: TuneDocument, name: string): TuneDocument | null {
  const kept = document.versions.find((one) => one.name === name)
  if (!kept) return null
  const { name: _, at: __, ...made } = kept
  return { ...document, ...made }
}
