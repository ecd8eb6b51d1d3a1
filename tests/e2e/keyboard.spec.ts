import type { Page } from '@playwright/test'
import { expect, test } from './fixtures'

/** Tabs on until the element with this accessible name has the focus. */
async function tabTo(page: Page, name: string | RegExp) {
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab')
    const focused = await page.evaluate(() => {
      const el = document.activeElement as HTMLElement | null
      const labelledBy = document.getElementById(el?.getAttribute('aria-labelledby') ?? '')?.innerText
      const label = (el as HTMLInputElement | null)?.labels?.[0]?.innerText
      return (labelledBy ?? el?.getAttribute('aria-label') ?? label ?? el?.innerText ?? '').trim()
    })
    if (typeof name === 'string' ? focused === name : name.test(focused)) return
  }
  throw new Error(`no way by keyboard to ${String(name)}`)
}

test('a pour planned and run without touching mouse or screen', async ({ page, open }) => {
  await open(page, '/')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('The bench is clear')
  await tabTo(page, 'Plan a pour')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/plan/)
  await tabTo(page, /^A mould of/)
  await page.keyboard.press('Enter')
  await tabTo(page, 'What will it be?')
  await page.keyboard.type('By keyboard')
  await tabTo(page, 'Cylinder')
  await page.keyboard.press('Space')
  await tabTo(page, 'Across inside')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('8 in')
  await page.keyboard.press('Escape')
  await tabTo(page, /to 100/)
  await page.keyboard.press('Space')
  await tabTo(page, 'Which plaster')
  await tabTo(page, 'Consistency')
  const slider = page.getByRole('slider', { name: 'Consistency' })
  const before = Number(await slider.getAttribute('aria-valuenow'))
  const water = await page.getByTestId('water').innerText()
  await page.keyboard.press('ArrowRight')
  await expect(slider).toHaveAttribute('aria-valuenow', String(before + 1))
  await expect(page.getByTestId('water')).not.toHaveText(water)
  await page.keyboard.press('Escape')
  await tabTo(page, 'Take it to the bench')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/pour\//)

  const head = page.getByRole('heading', { level: 1 })
  await expect(head).toHaveText('Get the mould ready')
  const knock = async (key: string, then: string) => {
    await expect(async () => {
      await page.keyboard.press(key)
      await expect(head).toHaveText(then, { timeout: 300 })
    }).toPass()
  }
  await knock('k', 'Weigh the water')
  // Two keys of one knock are one step.
  await page.keyboard.press('k')
  await expect(head).toHaveText('Weigh the water')
  await knock('Enter', 'Weigh the plaster')
  await knock('Backspace', 'Weigh the water')
  await tabTo(page, 'Note')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.type('by keyboard too')
  await tabTo(page, 'Keep it')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeHidden()
  await expect(head).toHaveText('Weigh the water')
})
