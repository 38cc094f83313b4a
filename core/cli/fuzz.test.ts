import fc from 'fast-check'
import { answer } from './answer'
import { hostileRequest } from './hostile'

/** Fixed, so that a run says the same twice; `npm run fuzz` goes on from others by hand. */
const SEEDS = [1, 20, 300]
const RUNS = 400

describe('what nobody means well', () => {
  test.each(SEEDS)('is answered or refused in words, and nothing throws (seed %i)', (seed) => {
    fc.assert(
      fc.property(hostileRequest, (request) => {
        const reply = answer(request)
        expect(JSON.parse(JSON.stringify(reply))).toEqual(reply)
        if (reply.ok) return
        expect(reply.error.code).toMatch(/^[a-z-]+$/)
        expect(reply.error.message.length).toBeGreaterThan(10)
        // No inner word of the language, no place in the program.
        expect(reply.error.message).not.toMatch(/undefined|\bNaN\b|is not a function|\bat .*:\d+:\d+/)
      }),
      { seed, numRuns: RUNS },
    )
  })
})
