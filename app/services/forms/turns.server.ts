/** Others are answered before long work goes on. @throws where nobody waits for it any more */
export async function othersHaveTheirTurn(signal?: AbortSignal): Promise<void> {
  await new Promise<void>((go) => setImmediate(go))
  signal?.throwIfAborted()
}
