import fc from 'fast-check'
import { importFile } from '../formats/importFile'
import { applyEdit } from '../tune/tuneEdit'
import { newDocument, tuneDocument } from '../tune/document'
import { answer } from './answerRequest'
import { builtFile } from './builtFile'
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
  test.each(SEEDS)('in a file becomes a tune that can be kept, or is refused in words (seed %i)', (seed) => {
    fc.assert(
      fc.property(builtFile, ({ name, bytes }) => {
        const read = importFile(name, bytes)
        if (!read.ok) return expect(read.fault.message).not.toMatch(/undefined|\bNaN\b|is not a function/)
        for (const { title, text, melody, lyrics, grips = [], warnings } of read.value.tunes) {
          expect(warnings.join(' ')).not.toMatch(/undefined|\bNaN\b/)
          const document = applyEdit(newDocument(title, text), {
            kind: 'bring-in',
            text,
            melody,
            lyrics,
            drawn: grips,
            did: 'brought in',
          })
          expect(tuneDocument.safeParse(document).error).toBeUndefined()
        }
      }),
      { seed, numRuns: RUNS },
    )
  })
})
