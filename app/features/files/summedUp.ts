/** Something that is to be known, and of what. */
export interface SummedUp {
  message: string
  of: string[]
}

/** Equal messages once, with everything they are said of, in the order in which they came. */
export function summedUp(all: readonly { of: string; messages: readonly string[] }[]): SummedUp[] {
  const byMessage = new Map<string, string[]>()
  for (const { of, messages } of all)
    for (const message of new Set(messages)) byMessage.set(message, [...(byMessage.get(message) ?? []), of])
  return [...byMessage].map(([message, of]) => ({ message, of }))
}
