/** The lines of an answer that tells line by line how far it is. */
export async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<unknown> {
  const decoder = new TextDecoder()
  const reader = body.getReader()
  let rest = ''
  for (;;) {
    const { value, done } = await reader.read()
    rest += decoder.decode(value, { stream: !done })
    const lines = rest.split('\n')
    rest = lines.pop()!
    for (const line of lines) if (line !== '') yield JSON.parse(line)
    if (done) return
  }
}
