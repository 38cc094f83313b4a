import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { WorkEnded, WorkPool } from './pool.server'

/** Workers that are slow, greedy or broken on purpose, beside the real jobs. */
const ON_PURPOSE = `
import { JOBS } from ${JSON.stringify(join(process.cwd(), 'workers/server/jobs.ts'))}
import work from ${JSON.stringify(join(process.cwd(), 'workers/server/work.ts'))}
Object.assign(JOBS, {
  forever: () => { for (;;); },
  greedy: () => { const all = []; for (;;) all.push(new Array(1e5).fill(Math.random())) },
  broken: () => { throw new RangeError('too deep') },
  counting: (to, tell) => { for (let at = 1; at <= to; at += 1) tell(at, to); return to },
})
export default work
`

let folder: string
let pool: WorkPool
const ask = (kind: string, question: unknown = null, how = {}): Promise<unknown> =>
  pool.ask(kind as never, question as never, how)

beforeAll(() => {
  folder = mkdtempSync(join(process.cwd(), 'build-pool-'))
  writeFileSync(join(folder, 'work.ts'), ON_PURPOSE)
  execFileSync('node_modules/.bin/esbuild', [
    join(folder, 'work.ts'),
    '--bundle',
    '--packages=external',
    '--platform=node',
    '--format=cjs',
    '--log-level=warning',
    `--outfile=${join(folder, 'work.cjs')}`,
  ])
  pool = new WorkPool(join(folder, 'work.cjs'), { mostMb: 64, waiting: 8 })
})
afterAll(async () => {
  await pool.end()
  rmSync(folder, { recursive: true, force: true })
})

const ABC = (title: string) => ({
  name: 'a.abc',
  bytes: new TextEncoder().encode(`X:1\nT:${title}\nK:C\n"C"CDEF|\n`),
})

test('an answer comes from another thread, with what was told on the way', async () => {
  const told: number[] = []
  expect(await ask('counting', 3, { onProgress: (done: number) => told.push(done) })).toBe(3)
  expect(await ask('tunesIn', ABC('Low Water'))).toMatchObject({
    ok: true,
    value: { tunes: [{ title: 'Low Water' }] },
  })
})

test('a reader that never ends is ended at its deadline, and others are answered meanwhile and after', async () => {
  const slow = ask('forever', null, { mostMs: 3_000 })
  const slowIs = slow.catch((error: unknown) => error)
  expect(await ask('tunesIn', ABC('Meanwhile'))).toMatchObject({ ok: true })
  expect(await slowIs).toBeInstanceOf(WorkEnded)
  expect(String(await slowIs)).toContain('longer than 3 seconds')
  expect(await ask('tunesIn', ABC('After'))).toMatchObject({ ok: true })
})

test('one that nobody waits for any more is ended', async () => {
  const gone = new AbortController()
  const slow = ask('forever', null, { signal: gone.signal }).catch((error: unknown) => error)
  gone.abort(new Error('went away'))
  expect(String(await slow)).toContain('went away')
  expect(await ask('counting', 2)).toBe(2)
})

test('one that takes all the memory it can get is ended, and only that one', async () => {
  const greedy = await ask('greedy').catch((error: unknown) => error)
  expect(greedy).toBeInstanceOf(WorkEnded)
  expect(String(greedy)).toContain('more memory')
  expect(await ask('counting', 2)).toBe(2)
})

test('what the work itself throws is thrown here', async () => {
  await expect(ask('broken')).rejects.toThrow('too deep')
})

test('more than may wait is refused in words', async () => {
  const gone = new AbortController()
  const all = Array.from({ length: 40 }, () =>
    ask('forever', null, { signal: gone.signal }).catch((error: unknown) => error),
  )
  const refused = await Promise.race(all)
  expect(refused).toBeInstanceOf(WorkEnded)
  expect(String(refused)).toContain('Try again')
  gone.abort()
  await Promise.all(all)
})
