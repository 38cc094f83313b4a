/** Letters of a remark. */
export const MOST_REMARK = 80

/**
 * Words to the players as a chart can hold them: on one line, without quotes and bar lines. Null
 * where nothing is left.
 */
export function remarkOf(words: string): string | null {
  const plain = words
    .replace(/["“”„]/g, "'")
    .replace(/[\s\p{C}|]+/gu, ' ')
    .trim()
  return plain.slice(0, MOST_REMARK).trim() || null
}

/** As it stands in a chart text. */
export const printRemark = (remark: string): string => `"${remark}"`
