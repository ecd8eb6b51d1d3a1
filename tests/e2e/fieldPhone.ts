import type { Browser, Page } from '@playwright/test'
import type { Pixel } from '../../core/field'
import type { Camera } from '../support/camera'
import { expect, type Workshop } from './fixtures'

/** A telephone of its own, with the application on it and the workshop copied. */
export async function phone(
  browser: Browser,
  workshop: Pick<Workshop, 'address'>,
  who: string,
): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    serviceWorkers: 'allow',
    reducedMotion: 'reduce',
  })
  await context.addInitScript((name) => {
    localStorage.setItem('nine-ripples.who', name)
    localStorage.setItem('nine-ripples.caution-read', 'true')
    localStorage.setItem('nine-ripples.sound', 'false')
  }, who)
  const page = await context.newPage()
  await page.goto(`${workshop.address}/field`)
  await page.locator('html[data-mounted]').waitFor()
  return page
}
/** One button, before one leaves. */
export async function fetchAll(page: Page): Promise<void> {
  await expect(page.getByText('Opens without a network')).toBeVisible()
  await page.getByRole('button', { name: /Fetch/ }).click()
  await expect(page.getByText(/Fetched/)).toBeVisible()
}
export const opened = async (page: Page, address: string) => {
  await page.goto(address)
  await page.locator('html[data-mounted]').waitFor()
}
export const head = (page: Page) => page.getByRole('heading', { level: 1 })

/** As a telephone sees it from a hand's height, leaning. */
export const CAMERA: Camera = {
  widthPx: 2400,
  heightPx: 1800,
  focalPx: 1900,
  distanceMm: 480,
  tiltDeg: 18,
  towardsDeg: 70,
  rollDeg: 8,
  at: { xMm: 0, yMm: 0 },
  lens: 0.004,
}

const board = (page: Page) => page.getByRole('group', { name: /Photograph of the print/ })
/** Where a place of the photograph is on the screen, wherever the page has it just now. */
async function onScreen(page: Page) {
  await board(page).evaluate((e) => e.scrollIntoView({ block: 'center' }))
  const box = (await board(page).boundingBox())!
  return ({ x, y }: Pixel) =>
    [box.x + (x / CAMERA.widthPx) * box.width, box.y + (y / CAMERA.heightPx) * box.height] as const
}
/** Taps a place of the photograph. */
export async function tap(page: Page, at: Pixel) {
  const place = await onScreen(page)
  await page.mouse.click(...place(at))
}
/** Draws a point of it somewhere else. */
export async function drag(page: Page, from: Pixel, to: Pixel) {
  const place = await onScreen(page)
  await page.mouse.move(...place(from))
  await page.mouse.down()
  await page.mouse.move(...place(to), { steps: 4 })
  await page.mouse.up()
}
