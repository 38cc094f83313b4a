/** A title as a file name that every system takes. */
export const fileNameFrom = (title: string): string =>
  title.replace(/[^\p{L}\p{N} ,'-]+/gu, ' ').trim() || 'tune'
