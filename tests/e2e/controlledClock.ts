import type { Page } from '@playwright/test'

/**
 * Puts a page's clock in the test's hands, and the workshop's clock with it: what the page asks the server for the
 * time is answered from the same hand. Starts in the past, so that days can go by without reaching the future.
 */
export async function controlClock(page: Page, startMs: number) {
  let nowMs = startMs
  await page.clock.install({ time: startMs })
  await page.route('**/api/time', async (route) => {
    try {
      const answer = (await (await route.fetch()).json()) as object
      // Between the test's own steps the page's time goes on as it always does, and so does the workshop's.
      const serverTimeMs = await page.evaluate(() => Date.now())
      await route.fulfill({ json: { ...answer, serverTimeMs } })
    } catch {
      // No server or no page any more, no time: as it would be without a test in between.
      await route.abort().catch(() => {})
    }
  })
  return {
    nowMs: () => nowMs,
    /** Lets time pass, timers included. */
    pass: async (seconds: number) => {
      nowMs += seconds * 1000
      await page.clock.fastForward(seconds * 1000)
    },
  }
}
