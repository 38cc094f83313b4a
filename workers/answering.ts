import { expose } from 'comlink'

/** How far a search is. */
export interface Progress {
  done: number
  of: number
}

/**
 * What a worker can be asked: each a question, which is plain data, and a way to tell what is known
 * before the whole answer is.
 */
// oxlint-disable-next-line typescript/no-explicit-any -- what is asked and told differs from question to question; `QuestionOf` and its like read it off
export type Answers = Record<string, (question: any, onProgress: (progress: any) => void) => any>

export type QuestionOf<All extends Answers, Kind extends keyof All> = Parameters<All[Kind]>[0]
export type AnswerOf<All extends Answers, Kind extends keyof All> = Awaited<ReturnType<All[Kind]>>
export type ProgressOf<All extends Answers, Kind extends keyof All> =
  Parameters<All[Kind]> extends [unknown, (progress: infer Interim) => void] ? Interim : never

/** At most this often is progress told, in ms. */
const PROGRESS_EVERY_MS = 60

/**
 * Tells progress, not oftener than a page can draw it; never asks the search to stop: a worker is
 * ended from outside.
 */
export function progressTo(onProgress: (progress: Progress) => void): (done: number, of: number) => true {
  let last = performance.now()
  return (done, of) => {
    const now = performance.now()
    if (now - last > PROGRESS_EVERY_MS) {
      last = now
      onProgress({ done, of })
    }
    return true
  }
}

/**
 * An answer, and how often something was told before it: what is told comes another way, and may
 * come later.
 */
export interface CountedAnswer<Answer> {
  answer: Answer
  sent: number
}

/** Answers that say how often they told something, and tell it through a port. */
export const countingProgress = (
  answers: Answers,
): Record<string, (question: unknown, port: MessagePort) => Promise<CountedAnswer<unknown>>> =>
  Object.fromEntries(
    Object.entries(answers).map(([kind, answer]) => [
      kind,
      async (question, port) => {
        let sent = 0
        const whole: unknown = await answer(question, (one: unknown) => {
          sent += 1
          port.postMessage(one)
        })
        return { answer: whole, sent }
      },
    ]),
  )

/** Lets a page ask. What an answer throws comes to the page as the reason why there is none. */
export const answerWith = (answers: Answers): void => expose(countingProgress(answers))
