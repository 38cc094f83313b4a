import { itemAt } from '../core/lists'
import fc from 'fast-check'
import { hostileRoute, sendHostile, STACK } from '../e2e/hostileRoutes'
import { Server } from '../e2e/server'

/**
 * `npm run fuzz:routes 24000 7`: so many hostile requests to the built server; which were answered
 * 500, showed a stack, or took over 2 s.
 */
const [count, seed] = [Number(process.argv[3] ?? 2_000), Number(process.argv[4] ?? 1)]
const AT_ONCE = 500
const MOST_MS = 2_000
const server = new Server()
await server.start()
const tuneNow = async () => {
  const page = await (await fetch(server.url)).text()
  const id = itemAt(/\/tunes\/([0-9a-f-]{36})/.exec(page)!, 1)
  const { revision } = (await (await fetch(`${server.url}/tunes/${id}/edits`)).json()) as { revision: string }
  return { id, revision }
}
const said = {
  asked: 0,
  over500: 0,
  stacks: 0,
  slow: 0,
  slowestMs: 0,
  byStatus: {} as Record<string, number>,
}
try {
  for (let done = 0; done < count; done += AT_ONCE) {
    let tune = await tuneNow()
    for (const request of fc.sample(hostileRoute, {
      seed: seed + done,
      numRuns: Math.min(AT_ONCE, count - done),
    })) {
      if (request.path.includes('edits')) tune = await tuneNow()
      const { status, text, ms } = await sendHostile(server.url, request, tune)
      said.asked += 1
      said.byStatus[status] = (said.byStatus[status] ?? 0) + 1
      said.slowestMs = Math.max(said.slowestMs, Math.round(ms))
      const [broken, shown, slow] = [status >= 500, STACK.test(text), ms > MOST_MS]
      said.over500 += Number(broken)
      said.stacks += Number(shown)
      said.slow += Number(slow)
      if (broken || shown || slow)
        console.log(
          status,
          Math.round(ms),
          request.method,
          request.path,
          request.type,
          JSON.stringify(request.body.slice(0, 160)),
        )
    }
  }
} finally {
  await server.end()
}
console.log(JSON.stringify(said))
process.exitCode = said.over500 + said.stacks > 0 ? 1 : 0
