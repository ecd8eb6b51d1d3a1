import type { Page } from '@playwright/test'
import { expect, go, part, test } from './fixtures'

// It is looked at and changed in the window alone: nothing goes to the workshop.
test.use({ demo: true, shared: true })

const sentence = (page: Page) => page.locator('.sentence')
const controls = (page: Page) =>
  page
    .locator('a, button, input, summary, [role=button], [role=combobox], [role=slider]')
    .filter({ visible: true })
const toTheBench = (page: Page) => page.getByRole('button', { name: 'Take it to the bench' })

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('a plan is a sentence: a part is touched, changed and closed by Back; what cannot be read stays typed', async ({
    page,
    open,
  }) => {
    await open(page, '/plan')
    await expect(sentence(page)).toHaveText(
      /^1 × Ammonite, silicone in Red tub, 32 to 100, by weight, sifted, .* with tap water at 16 °C, /,
    )
    expect(await controls(page).count()).toBeLessThanOrEqual(25)
    const tall = await page.evaluate(() => document.documentElement.scrollHeight)
    expect(tall).toBeLessThanOrEqual(2 * 844)

    const water = page.locator('[data-part=water]')
    await water.tap()
    const sheet = page.getByRole('dialog', { name: 'Water and how warm it is' })
    const field = sheet.getByRole('textbox', { name: 'Water' })
    await expect(sheet).toContainText('139 g water · 434 g plaster')
    await field.fill('quite cold')
    await page.goBack()
    await expect(sheet).toBeHidden()
    await expect(page).toHaveURL(/\/plan$/)
    await expect(water).toContainText('(cannot be read yet)')
    await expect(toTheBench(page)).toBeDisabled()
    // Another way of another part makes nothing of it readable.
    await page.locator('[data-part=plaster]').tap()
    await page.getByRole('button', { name: 'By eye', exact: true }).tap()
    await page.keyboard.press('Escape')
    await expect(page.locator('[data-part=plaster]')).toContainText('by eye')
    await expect(toTheBench(page)).toBeDisabled()
    await water.tap()
    await expect(field).toHaveValue('quite cold')
    await field.fill('8')
    await sheet.getByRole('button', { name: 'Close' }).tap()
    await expect(sheet).toBeHidden()
    // Not the tap's own sixteen: it stands out.
    await expect(water).toHaveText('tap water at 8 °C (not as usual)')
    await expect(toTheBench(page)).toBeEnabled()
  })
})

test('on a desk the parts stand beside the sentence, one at a time, and all of it goes by keyboard', async ({
  page,
  open,
}) => {
  await open(page, '/plan')
  const panel = page.locator('#plan-panel')
  const shows = (title: string) => expect(panel.getByRole('heading', { level: 2 })).toHaveText(title)
  await shows('When it sets')
  const there = () => toTheBench(page).evaluate((el) => el === document.activeElement)
  // Fifteen Tabs in all, seven of them over the places above; what falls due elsewhere adds its own, so they are skipped.
  await page.keyboard.press('Tab')
  await expect(page.getByRole('link', { name: 'Skip to content' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('main')).toBeFocused()
  for (let tabs = 0; tabs < 8 && !(await there()); tabs++) await page.keyboard.press('Tab')
  await expect(toTheBench(page)).toBeFocused()
  // Every part has its own editor, named as it is.
  for (const [of, title] of [
    ['mould', 'Mould'],
    ['plaster', 'Plaster and ratio'],
    ['mixing', 'Mixing'],
    ['filling', 'Filling, step by step'],
    ['bowls', 'Bowls'],
    ['water', 'Water and how warm it is'],
    ['drying', 'Drying'],
    ['becomes', 'What it becomes'],
  ] as const) {
    await part(page, of)
    await shows(title)
  }
  // The tide does not wait: the chance that it is strong enough by then.
  await part(page, 'times')
  await page.getByRole('button', { name: 'It must be out by…' }).click()
  const by = page.getByLabel('It must be out by')
  await by.fill('12')
  await expect(page.getByTestId('out-by')).toContainText(
    /(less than once|about [1-4] times) in 10.*Nine in ten have it after/,
  )
  await by.fill('180')
  await expect(page.getByTestId('out-by')).toHaveText(/more than 9 times in 10/)
  await by.fill('')
  await expect(page.getByTestId('out-by')).toBeHidden()
  const mixing = page.locator('[data-part=mixing]')
  await mixing.focus()
  await page.keyboard.press('Enter')
  await expect(panel).toBeFocused()
  await page.getByLabel('Stir', { exact: true }).fill('6')
  await page.keyboard.press('Escape')
  await expect(mixing).toBeFocused()
  // What is wrong comes first, with what would help, by one press.
  await shows('What gives time')
  await panel.getByRole('button', { name: /^Stir for/ }).click()
  await expect(mixing).not.toContainText('stirred 6 min')
  let tabs = 0
  for (await mixing.focus(); tabs < 15; tabs++) {
    await page.keyboard.press('Tab')
    if (await toTheBench(page).evaluate((el) => el === document.activeElement)) break
  }
  expect(tabs).toBeLessThan(15)
})

test('every kind of plan stands on one screen of a desk, and on two of a phone', async ({
  page,
  open,
  workshop,
}) => {
  const pours = await workshop.db.selectFrom('pour_summary').select(['pour_id', 'piece']).execute()
  const lowest = () =>
    page.evaluate(() =>
      Math.max(
        ...[...document.querySelectorAll('main .page > *, main .plan > *')].map(
          (el) => el.getBoundingClientRect().bottom + window.scrollY,
        ),
      ),
    )
  await open(page, '/')
  // What has fallen due elsewhere stands over it now and then.
  const noticePx = 48
  for (const piece of [
    'Corbel for the boathouse door',
    'Shell for the glass urchin',
    'Ripples, north flat, neap',
    'Ear for the listening post',
    'Chart tile A3, the weir',
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await go(page, `/plan?from=${pours.find((p) => p.piece === piece)!.pour_id}`)
    await expect(page.locator('.sentence')).toContainText(piece)
    await expect(page.getByTestId('leftover')).toBeVisible()
    const hasNotice = (await page.locator('.due').count()) > 0
    await expect.poll(lowest, piece).toBeLessThanOrEqual(800 - (hasNotice ? 0 : noticePx))
    await page.setViewportSize({ width: 390, height: 844 })
    // Which parts stand beside the others follows a moment after the window.
    await expect.poll(lowest, piece).toBeLessThanOrEqual(2 * 844)
    await go(page, '/')
  }
})
