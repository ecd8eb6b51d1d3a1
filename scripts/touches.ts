import { chromium, type Locator, type Page } from '@playwright/test'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'

/**
 * How many touches, and how many seconds of a browser that does not think, lead from the bench to a pour on it: six plans
 * by three questions, on a phone and on a desk. Each leaves a pour behind: run it on a demo that is thrown away.
 * Usage: tsx scripts/touches.ts http://127.0.0.1:4310
 */
const address = process.argv[2] ?? 'http://127.0.0.1:4310'

interface Hand {
  touch: (what: Locator) => Promise<void>
  tile: (name: RegExp) => Promise<void>
  type: (name: string | RegExp, text: string) => Promise<void>
  page: Page
}

const PLANS: Record<string, (by: Hand) => Promise<void>> = {
  'a mould by water, to islands': async ({ tile, type }) => {
    await tile(/pour water into it/)
    await type('Water that went in', '3 l')
    await tile(/Bag by the door/)
    await tile(/By eye/)
    await tile(/Islands/)
  },
  '2 : 1 by cups, a bucket of 2 l': async ({ tile, type, touch, page }) => {
    await tile(/bucket of about/)
    await type('It holds', '2 l')
    await tile(/Bag by the door/)
    await type(/What its bag says/, '2 : 1')
    await touch(page.getByRole('button', { name: /scoops/ }).first())
    await tile(/By cups/)
    await type('Your cup holds', '300 ml')
  },
  '100 ml to 200 g, a tray': async ({ tile, type }) => {
    await tile(/box or tray/)
    await type('Length inside', '210')
    await type('Width inside', '160')
    await type('Depth to the fill', '35')
    await tile(/Bag by the door/)
    await type(/What its bag says/, '100 ml to 200 g')
    await tile(/On a scale/)
  },
  'a print in the ground, by cups': async ({ tile, type }) => {
    await tile(/print in the ground/)
    await type('Across the ring', '220')
    await type('Deepest of the print', '12')
    await tile(/Bag by the door/)
    await tile(/By cups/)
  },
  'a mould off the shelf, weighed': async ({ tile }) => {
    await tile(/off the shelf/)
    await tile(/Tub 2/)
    await tile(/On a scale/)
  },
  'something round, to a lake bed': async ({ tile, type }) => {
    await tile(/Something round/)
    await type('Across inside', '180')
    await type('Depth to the fill', '50')
    await tile(/Sack of spring/)
    await tile(/By eye/)
    await tile(/lake bed/)
  },
}
const SIZES = { phone: { width: 390, height: 844 }, desk: { width: 1280, height: 800 } }

const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
for (const [size, viewport] of Object.entries(SIZES))
  for (const [name, plan] of Object.entries(PLANS)) {
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
    await plan({ touch, type, page, tile: (label) => touch(page.getByRole('radio', { name: label })) })
    await touch(page.getByRole('button', { name: 'Take it to the bench' }))
    await page.locator('[data-pool]').waitFor()
    console.log(`| ${name} | ${size} | ${touches} | ${((Date.now() - startedMs) / 1000).toFixed(1)} s |`)
    await context.close()
  }
await browser.close()
