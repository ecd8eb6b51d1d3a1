import { chromium, type Locator } from '@playwright/test'
import { SIX_PLANS } from '../tests/e2e/sixPlans'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'

/**
 * How many touches, and how many seconds of a browser that does not think, lead from the bench to a pour on it: six plans
 * by three questions, on a phone and on a desk. Each leaves a pour behind: run it on a demo that is thrown away.
 * Usage: tsx scripts/touches.ts http://127.0.0.1:4310
 */
const address = process.argv[2] ?? 'http://127.0.0.1:4310'

const SIZES = { phone: { width: 390, height: 844 }, desk: { width: 1280, height: 800 } }

const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
for (const [size, viewport] of Object.entries(SIZES))
  for (const [name, { answer }] of Object.entries(SIX_PLANS)) {
    const hasTouch = size === 'phone'
    const context = await browser.newContext({ viewport, hasTouch, reducedMotion: 'reduce' })
    await context.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
    const page = await context.newPage()
    const startedMs = Date.now()
    await page.goto(address)
    let touches = 0
    const touch = async (what: Locator) => {
      touches += 1
      await (hasTouch ? what.tap() : what.click())
    }
    const type = async (field: string | RegExp, text: string) => {
      await touch(page.getByRole('textbox', { name: field }))
      await page.getByRole('textbox', { name: field }).fill(text)
    }
    await touch(page.getByRole('link', { name: 'Quick', exact: true }))
    await answer({ touch, type, page })
    await touch(page.getByRole('button', { name: 'Take it to the bench' }))
    await page.locator('[data-pool]').waitFor()
    console.log(`| ${name} | ${size} | ${touches} | ${((Date.now() - startedMs) / 1000).toFixed(1)} s |`)
    await context.close()
  }
await browser.close()
