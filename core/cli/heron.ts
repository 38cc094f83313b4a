import { createInterface } from 'node:readline'
import { isMainThread } from 'node:worker_threads'
import { answerLine } from './answerRequest'
import { answerApart, Apart, readsForeign } from './apart'
import type { OnProgress } from './answersTo'

/** What is answered sooner shows nothing, in ms. */
const SHOWN_AFTER_MS = 500

/**
 * How far an answer is, for who waits at a terminal; what reads the output of a pipe is told
 * nothing. Ctrl C stops it.
 */
function progressShown(): { show: OnProgress; end: () => void } {
  const begun = performance.now()
  let shown = false
  const say = (words: string) => process.stderr.write(`\r${words}\u001b[K`)
  return {
    show: (done, of) => {
      if (process.stderr.isTTY && performance.now() - begun > SHOWN_AFTER_MS) {
        shown = true
        say(`${Math.round((100 * done) / Math.max(1, of))}% (Ctrl C stops)`)
      }
      return true
    },
    end: () => shown && say(''),
  }
}

/**
 * The core's command line: one JSON object a line in, one a line out, in the same order
 * (docs/architecture.md).
 */
async function main(): Promise<void> {
  const given = process.argv.slice(2)
  let failed = false
  const apart = new Apart(new URL(import.meta.url))
  const serve = async (line: string) => {
    const { show, end } = progressShown()
    const reply = readsForeign(line) ? await apart.answer(line) : answerLine(line, show)
    end()
    failed ||= !reply.ok
    process.stdout.write(`${JSON.stringify(reply)}\n`)
  }
  if (given.length > 0) for (const line of given) await serve(line)
  else
    for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity }))
      if (line.trim() !== '') await serve(line)
  apart.end()
  process.exitCode = failed ? 1 : 0
}

if (isMainThread) void main()
else answerApart()
