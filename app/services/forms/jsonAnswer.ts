/**
 * What an answer says, where it was asked for as JSON: the server refuses in plain text what no
 * route answers (too large a form, a device that was signed out).
 */
export async function jsonAnswer<Told>(answer: Response): Promise<Told | { message: string }> {
  const words = await answer.text()
  try {
    return JSON.parse(words) as Told
  } catch {
    const isPlain = answer.headers.get('content-type')?.startsWith('text/plain')
    return { message: (isPlain && words.trim()) || `The server refused this (${answer.status}).` }
  }
}
