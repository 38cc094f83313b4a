/** What a form is told when the server does not answer. */
export const UNREACHABLE =
  'The server does not answer, so nothing was changed. What you typed is still here: try again when it is back.'

/**
 * Sends a form by its route's action; where no answer comes the form is told so and stays as it is,
 * instead of giving way to a page about the fault. An answer the server did give, a redirect or a
 * refusal, passes through.
 */
export async function unlessUnreachable<T>(send: () => Promise<T>): Promise<T | { message: string }> {
  try {
    return await send()
  } catch (error) {
    // Browsers throw a TypeError for a request that got no answer; answers are thrown as responses.
    if (error instanceof TypeError || (error instanceof DOMException && error.name === 'AbortError'))
      return { message: UNREACHABLE }
    throw error
  }
}

/**
 * After a form that got no answer nothing is asked anew: that would get none either, and take what
 * was typed away.
 */
export const wasUnreachable = (actionResult: unknown): boolean =>
  typeof actionResult === 'object' &&
  actionResult !== null &&
  'message' in actionResult &&
  actionResult.message === UNREACHABLE

/** For routes whose forms use `unlessUnreachable`. */
export const revalidatesWhenAnswered = ({
  actionResult,
  defaultShouldRevalidate,
}: {
  actionResult?: unknown
  defaultShouldRevalidate: boolean
}): boolean => !wasUnreachable(actionResult) && defaultShouldRevalidate
