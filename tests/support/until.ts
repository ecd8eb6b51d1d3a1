/**
 * Asks again until the answer will do: for what another process comes to in its own time and tells nobody of.
 * @throws after `withinMs`, with what it was waiting for.
 */
export async function until<T>(
  what: string,
  ask: () => Promise<T | undefined | false> | T | undefined | false,
  withinMs = 20_000,
): Promise<T> {
  const deadlineMs = Date.now() + withinMs
  for (;;) {
    const answer = await ask()
    if (answer !== undefined && answer !== false) return answer
    if (Date.now() > deadlineMs) throw new Error(`waited ${withinMs} ms for ${what}`)
    await new Promise((resolve) => setTimeout(resolve, 25))
  }
}
