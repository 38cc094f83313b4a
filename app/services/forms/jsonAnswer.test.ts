import { jsonAnswer } from './jsonAnswer'

const answer = (body: string, type: string, status = 200) =>
  new Response(body, { status, headers: { 'Content-Type': type } })

describe('what an answer says', () => {
  test('JSON as it is', async () => {
    expect(await jsonAnswer(answer('{"tune":"a"}', 'application/json'))).toEqual({ tune: 'a' })
    expect(await jsonAnswer(answer('{"message":"No."}', 'application/json', 400))).toEqual({ message: 'No.' })
  })
  test('a refusal in plain text is its message', async () => {
    const refused = answer('A form has at most 2 MB.\n', 'text/plain; charset=utf-8', 413)
    expect(await jsonAnswer(refused)).toEqual({ message: 'A form has at most 2 MB.' })
  })
  test.each([
    ['a page', '<!doctype html><p>Sign in</p>', 'text/html', 401],
    ['nothing', '', 'text/plain', 502],
  ])('%s is named by its number, and never shown as it is', async (_, body, type, status) => {
    expect(await jsonAnswer(answer(body, type, status))).toEqual({
      message: `The server refused this (${status}).`,
    })
  })
})
