import { firstOf } from '../../../core/lists'
import { expose } from 'comlink'
import { countingProgress } from '../../../workers/answering'
import { WorkerPool, WorkerFault } from './workerPool'

/**
 * A worker on a message channel: what it is asked is answered on the same thread, by the same
 * library.
 */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = []
  ended = false
  private readonly near: MessagePort
  private readonly far: MessagePort
  constructor(answers: object) {
    super()
    const { port1, port2 } = new MessageChannel()
    this.near = port1
    this.far = port2
    expose(countingProgress(answers as never), port2 as never)
    port2.start()
    FakeWorker.made.push(this)
  }
  postMessage(message: unknown, transfer: Transferable[] = []) {
    this.near.postMessage(message, transfer)
  }
  override addEventListener(type: string, listener: never, options?: AddEventListenerOptions) {
    if (type === 'message') {
      this.near.addEventListener(type, listener, options)
      this.near.start()
    } else super.addEventListener(type, listener, options)
  }
  override removeEventListener(type: string, listener: never) {
    if (type === 'message') this.near.removeEventListener(type, listener)
    else super.removeEventListener(type, listener)
  }
  start() {
    this.near.start()
  }
  terminate() {
    this.ended = true
    this.near.close()
    this.far.close()
  }
}

const answers = {
  twice: (n: number) => 2 * n,
  never: (_: number) => new Promise<number>(() => undefined),
  counted: (to: number, onProgress: (progress: { done: number; of: number }) => void) => {
    for (let done = 1; done <= to; done += 1) onProgress({ done, of: to })
    return to
  },
  refused: (_: number): number => {
    throw new Error('There is no grip. Accepted: fewer notes.')
  },
}
const pool = (keeps = false) =>
  new WorkerPool<typeof answers>(() => new FakeWorker(answers) as unknown as Worker, 'The search', keeps)
beforeEach(() => {
  FakeWorker.made = []
})
afterEach(() =>
  FakeWorker.made.forEach((worker) => {
    if (!worker.ended) worker.terminate()
  }),
)

test('a question is answered, and the worker that has answered is asked the next one', async () => {
  const here = pool()
  expect(await here.ask('twice', 21)).toBe(42)
  expect(await here.ask('twice', 4)).toBe(8)
  expect(FakeWorker.made).toHaveLength(1)
})
test('two questions at a time have a worker each', async () => {
  const here = pool()
  expect(await Promise.all([here.ask('twice', 1), here.ask('twice', 2)])).toEqual([2, 4])
  expect(FakeWorker.made).toHaveLength(2)
})
test('what is known before the answer is told', async () => {
  const progress: number[] = []
  expect(await pool().ask('counted', 3, undefined, ({ done }) => progress.push(done))).toBe(3)
  // All of it, before the answer: it comes by a way of its own.
  expect(progress).toEqual([1, 2, 3])
})
test('what was told is heard before the answer, however late it comes', async () => {
  const progress: number[] = []
  const here = pool()
  await here.ask('twice', 1)
  const many = here.ask('counted', 200, undefined, ({ done }) => progress.push(done))
  expect(await many).toBe(200)
  expect(progress).toHaveLength(200)
})
test('a question that is stopped ends its worker at once', async () => {
  const here = pool()
  const stop = new AbortController()
  const asked = here.ask('never', 0, stop.signal)
  stop.abort()
  await expect(asked).rejects.toThrow(/abort/i)
  expect(firstOf(FakeWorker.made).ended).toBe(true)
  expect(await here.ask('twice', 3)).toBe(6)
  await expect(here.ask('twice', 3, AbortSignal.abort())).rejects.toThrow(/abort/i)
})
test('the reason why there is no answer comes to whoever asked, and the worker goes on', async () => {
  const here = pool()
  await expect(here.ask('refused', 0)).rejects.toThrow('There is no grip. Accepted: fewer notes.')
  expect(await here.ask('twice', 5)).toBe(10)
  expect(FakeWorker.made).toHaveLength(1)
})
test('a worker that breaks says so, and is not asked again', async () => {
  const here = pool()
  const asked = here.ask('never', 0)
  firstOf(FakeWorker.made).dispatchEvent(
    Object.assign(new Event('error'), { message: 'its code is not there' }),
  )
  await expect(asked).rejects.toThrow(WorkerFault)
  await expect(asked).rejects.toThrow('The search broke off: its code is not there.')
  expect(firstOf(FakeWorker.made).ended).toBe(true)
  expect(await here.ask('twice', 6)).toBe(12)
})
test('short questions asked aside share two workers, in turn; one that was stopped while it waited is not asked', async () => {
  const here = pool()
  const stop = new AbortController()
  const progress: number[] = []
  const asked = [1, 2, 3].map((n) => here.askInBackground('twice', n))
  const stopped = here.askInBackground('counted', 9, stop.signal, ({ done }) => progress.push(done))
  const refusal = expect(stopped).rejects.toThrow(/abort/i)
  stop.abort()
  expect(await Promise.all(asked)).toEqual([2, 4, 6])
  await refusal
  expect(progress).toEqual([])
  expect(FakeWorker.made).toHaveLength(2)
})
test('a long question does not wait for those asked aside; one that is stopped makes room for the next', async () => {
  const here = pool()
  const stop = new AbortController()
  const aside = [1, 2].map((n) => here.askInBackground('never', n, stop.signal))
  const refusals = aside.map((one) => expect(one).rejects.toThrow(/abort/i))
  const waiting = here.askInBackground('twice', 8)
  expect(await here.ask('twice', 7)).toBe(14)
  stop.abort()
  await Promise.all(refusals)
  expect(await waiting).toBe(16)
})
test('a short question that is stopped is refused at once, and its worker answers the next one', async () => {
  const here = pool()
  const stop = new AbortController()
  const asked = here.askInBackground('twice', 1, stop.signal)
  const refusal = expect(asked).rejects.toThrow(/abort/i)
  await Promise.resolve()
  stop.abort()
  await refusal
  expect(await here.askInBackground('twice', 2)).toBe(4)
  expect(firstOf(FakeWorker.made).ended).toBe(false)
  await expect(here.askInBackground('twice', 3, AbortSignal.abort())).rejects.toThrow(/abort/i)
})
test('what breaks or is refused aside says so as elsewhere, and makes room', async () => {
  const here = pool()
  for (let time = 0; time < 3; time += 1)
    await expect(here.askInBackground('refused', 0)).rejects.toThrow('There is no grip.')
  expect(await here.askInBackground('twice', 2)).toBe(4)
  expect(FakeWorker.made).toHaveLength(1)
})
test('where one worker keeps what it knows, stopping passes the answer over and does not end it', async () => {
  const here = pool(true)
  const stop = new AbortController()
  const asked = here.ask('twice', 1, stop.signal)
  stop.abort()
  await expect(asked).rejects.toThrow(/abort/i)
  expect(await here.ask('twice', 2)).toBe(4)
  expect(FakeWorker.made).toHaveLength(1)
  expect(firstOf(FakeWorker.made).ended).toBe(false)
})
