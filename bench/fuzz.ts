import fc from 'fast-check'
import { answer } from '../core/cli/answerRequest'
import { hostileRequest } from '../core/cli/hostile'

/**
 * `npm run fuzz 1000000 7`: so many hostile requests from a seed; what threw, the slowest, and the
 * memory at the beginning and the end.
 */
const [count, seed] = [Number(process.argv[3] ?? 10_000), Number(process.argv[4] ?? Date.now() % 1e9)]
const AT_ONCE = 1_000
const MOST_SECONDS = 2
const MOST_SHOWN = 4_000
const bad: string[] = []
let slowest = { seconds: 0, request: '' }
const heapMb = (): number => {
  globalThis.gc?.()
  return Math.round(process.memoryUsage().heapUsed / 1e6)
}
let begun = 0
for (let done = 0; done < count; done += AT_ONCE) {
  for (const request of fc.sample(hostileRequest, { seed: seed + done, numRuns: AT_ONCE })) {
    const from = performance.now()
    try {
      answer(request)
    } catch (error) {
      bad.push(`${String(error)}   ${JSON.stringify(request).slice(0, 400)}`)
    }
    const seconds = (performance.now() - from) / 1000
    if (seconds > slowest.seconds) slowest = { seconds, request: JSON.stringify(request) ?? '' }
  }
  if (done === 0) begun = heapMb()
  if (done % (AT_ONCE * 10) === 0) process.stderr.write(`\r${done + AT_ONCE} of ${count}`)
}
console.log(
  `\n${count} requests from seed ${seed}: ${bad.length} threw; slowest ${slowest.seconds.toFixed(2)} s${slowest.seconds > MOST_SECONDS ? ' (OVER 2 s)' : ''}; memory ${begun} MB, then ${heapMb()} MB`,
)
console.log(slowest.request.slice(0, MOST_SHOWN))
for (const one of bad.slice(0, 20)) console.log(one)
process.exitCode = bad.length > 0 ? 1 : 0
