import { chromium, type Page } from '@playwright/test'
import { go } from '../tests/e2e/fixtures'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'
import { rank, type Measured } from './measured'

const SLOWER = 4
const KEYSTROKES = 40
/** Figures and curves that come after it are drawn before the next. */
const BETWEEN_MS = 350

/** From the bench, whose scripts are there, to the plan's figures on the screen, ms. */
async function opened(page: Page): Promise<number> {
  const fromMs = performance.now()
  await go(page, '/plan')
  await page.getByTestId('water').waitFor()
  return performance.now() - fromMs
}

/** From a key in the field of the ratio to the frame that shows what it comes to, by the browser's own event timing, ms. */
async function keystrokes(page: Page): Promise<number[]> {
  const field = page.locator('#plan-panel').getByRole('textbox', { name: 'Consistency' })
  await field.click()
  await field.press('End')
  const heard = await page.evaluateHandle(() => {
    const byStart = new Map<number, number>()
    new PerformanceObserver((list) => {
      for (const { startTime, duration, name } of list.getEntries())
        if (name === 'keypress' || name === 'keydown')
          byStart.set(Math.round(startTime), Math.max(duration, byStart.get(Math.round(startTime)) ?? 0))
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit)
    return byStart
  })
  for (let i = 0; i < KEYSTROKES; i++) {
    await page.keyboard.press(i % 2 ? '5' : 'Backspace')
    await page.waitForTimeout(BETWEEN_MS)
  }
  return heard.evaluate((byStart) => [...byStart.values()])
}

/** The plan on this processor and on one four times slower. @param address of a server with the demo. */
export async function benchPlan(address: string): Promise<Measured[]> {
  const rows: Measured[] = []
  const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
  for (const [slower, keyMs] of [
    [1, 32],
    [SLOWER, 100],
  ] as const) {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    await page.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
    await page.goto(address)
    await page.locator('.hero').waitFor()
    const session = await page.context().newCDPSession(page)
    await session.send('Emulation.setCPUThrottlingRate', { rate: slower })
    const on = slower === 1 ? '' : `, ${slower} × slower`
    rows.push({ what: `plan opened to its figures${on}`, value: await opened(page), unit: 'ms', most: 3000 })
    await page.locator('[data-part=plaster]').click()
    const times = await keystrokes(page)
    rows.push(
      { what: `keystroke to figure${on}, median`, value: rank(times, 0.5), unit: 'ms', most: keyMs },
      { what: `keystroke to figure${on}, p95`, value: rank(times, 0.95), unit: 'ms', most: keyMs },
    )
  }
  await browser.close()
  return rows
}
