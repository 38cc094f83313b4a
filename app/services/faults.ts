/** Faults of one page that are told; one that fails in a circle says the same. */
const MOST_TOLD = 5

/**
 * Tells the server of faults nobody caught, for its log: their kind and their places in the
 * program, not their words.
 */
export function tellFaultsOfPage(): void {
  let reported = 0
  const tell = (error: unknown) => {
    if (!(error instanceof Error) || reported >= MOST_TOLD) return
    reported += 1
    const places = (error.stack ?? '').split('\n').filter((line) => /^\s*at /.test(line))
    const body = {
      name: error.name.slice(0, 60),
      stack: places.join('\n').slice(0, 8_000),
      page: location.pathname.slice(0, 200),
    }
    void fetch('/faults', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      keepalive: true,
    }).catch(() => undefined)
  }
  window.addEventListener('error', ({ error }) => tell(error))
  window.addEventListener('unhandledrejection', ({ reason }) => tell(reason))
}
