import { LRUCache } from 'lru-cache'

/**
 * Answers kept, at most: those of several visits to each step of a tune. One is some 10 to 100 kB.
 */
const MOST_ANSWERS = 40
/** Letters of all questions kept, at most: a file that is read in is part of its question. */
const MOST_LETTERS = 2_000_000

/**
 * Answers of workers, by what was asked: who goes back to a step, or undoes what was changed, has
 * them at once and no search begins. An answer is worked out from its question alone, so that it
 * stays true for as long as the page is open.
 */
export class AnswerCache {
  private readonly answers: LRUCache<string, { answer: unknown }>

  /**
   * @param most answers that are kept; beyond it the one that was not wanted for longest is let go
   */
  constructor(most = MOST_ANSWERS) {
    this.answers = new LRUCache({
      max: most,
      maxSize: MOST_LETTERS,
      sizeCalculation: (_, asked) => asked.length,
    })
  }

  /** The answer to this, in a box since it may be anything; undefined where there is none. */
  find(asked: string): { answer: unknown } | undefined {
    return this.answers.get(asked)
  }

  keep(asked: string, answer: unknown): void {
    this.answers.set(asked, { answer })
  }

  /** It is to be worked out again. */
  forget(asked: string): void {
    this.answers.delete(asked)
  }
}
