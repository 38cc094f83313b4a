import { createInterface } from 'node:readline'
import { answerLine } from './answer'

/** The core's command line: one JSON object a line in, one a line out, in the same order (docs/architecture.md). */
async function main(): Promise<void> {
  const given = process.argv.slice(2)
  let failed = false
  const serve = (line: string) => {
    const reply = answerLine(line)
    failed ||= !reply.ok
    process.stdout.write(`${JSON.stringify(reply)}\n`)
  }
  if (given.length > 0) given.forEach(serve)
  else
    for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity }))
      if (line.trim() !== '') serve(line)
  process.exitCode = failed ? 1 : 0
}

void main()
