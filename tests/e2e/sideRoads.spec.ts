import type { Page } from '@playwright/test'
import { controlClock } from './controlledClock'
import { expect, part, pool, pourIdOf, storedEvents, test } from './fixtures'

test.use({ demo: true })

const head = (page: Page) => page.getByRole('heading', { level: 1 })
const goTo = (page: Page, piece: RegExp) => page.getByRole('link', { name: piece }).first().click()

test('a slurry thermometer moves the forecast, and undo moves it back', async ({ page, open }) => {
  await open(page, '/')
  await goTo(page, /Chart tile B4/)
  const thick = page.locator('.others li', { hasText: 'Too thick to pour' }).locator('b')
  const minutes = async () => Number((await thick.innerText()).match(/(\d+):/)![1])
  const before = await minutes()
  await page.getByRole('button', { name: 'Temperature' }).click()
  await page.getByLabel('It reads').fill('41 F')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect.poll(minutes).toBeGreaterThan(before + 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(minutes).toBeLessThanOrEqual(before)
})

test('a piece that comes out damaged is dried all the same, and the record says so', async ({
  page,
  open,
  workshop,
}) => {
  await open(page, '/')
  await goTo(page, /Seal’s jaw/)
  await page.getByRole('button', { name: 'Damaged' }).click()
  await expect(head(page)).toHaveText('Let it dry')
  await page.getByRole('link', { name: 'Its record' }).click()
  await expect(page.getByText('Out of the mould, damaged')).toBeVisible()
  await expect
    .poll(async () => (await storedEvents(workshop, pourIdOf(page))).at(-1)?.body)
    .toEqual({ type: 'demoulded', outcome: 'damaged' })
})

test('a pour given up leaves the bench and stands in the log with its reason', async ({ page, open }) => {
  await open(page, '/')
  await expect(page.getByText('11 on the go')).toBeVisible()
  await goTo(page, /Sea urchin, hand piece 7/)
  await page.getByRole('button', { name: 'Give up' }).click()
  // Nothing is chosen for one: what is recorded is what was meant.
  await expect(page.getByRole('button', { name: 'Close this pour' })).toBeDisabled()
  await page.getByRole('button', { name: 'Failed', exact: true }).click()
  await page.getByRole('button', { name: 'Short, not full' }).click()
  await page.getByLabel('In a few words').fill('The seam opened.')
  await page.getByRole('button', { name: 'Close this pour' }).click()
  await expect(head(page)).toHaveText('Failed')
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await expect(page.getByText('10 on the go')).toBeVisible()
  await page.getByRole('link', { name: 'Casts', exact: true }).click()
  await expect(page.getByText('The seam opened.')).toBeVisible()
})

test('while the mould fills past its working time, the clock turns to harm and then asks what happened', async ({
  page,
  open,
}) => {
  const clock = await controlClock(page, Date.now())
  await open(page, '/')
  await goTo(page, /Sea urchin, hand piece 7/)
  await expect(head(page)).toHaveText('Pour')
  await clock.pass(5 * 60)
  await expect(page.locator('.main.harmful')).toBeVisible()
  await clock.pass(3 * 3600)
  await expect(head(page)).toHaveText('It should have set by now')
})

test('the filled mix weighs its silica and keeps its own caution', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('combobox', { name: 'Which mould' }).click()
  await page.getByRole('option', { name: /Urchin shell/ }).click()
  await expect(page.getByRole('note')).toContainText(['Silica flour', 'It burns'])
  await expect(page.getByText('Silica flour', { exact: true })).toBeVisible()
  await part(page, 'plaster')
  await page.getByText('What is assumed of').click()
  await expect(page.getByText('from memory').first()).toBeVisible()
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await expect(head(page)).toHaveText('Get the mould ready')
  // A shell of 65 mm in layers of 22: three bowls, each weighed before any is wet.
  const weighed = ['Weigh the water', 'Weigh the plaster', 'Weigh what goes in dry']
  // Silica is in it: the extraction is looked at before any powder is open.
  let knockedAt = 0
  for (const next of ['Is the extraction on?', ...weighed, ...weighed, ...weighed, 'Ready to tip it in']) {
    // One knock right after another is the same one; held down for long it would take back.
    await page.waitForFunction((since) => performance.now() - since > 900, knockedAt)
    await pool(page).click()
    await expect(head(page)).toHaveText(next)
    knockedAt = await page.evaluate(() => performance.now())
  }
  await expect(page.getByTestId('bowl')).toHaveText('Bowl 1 of 3: Face coat')
})

test('a half-filled worksheet outlives a reload, also without a name', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Describe it' }).click()
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('3.25 l')
  await page.getByLabel('Spare').fill('7.5')
  await page.getByLabel('Spare').blur()
  await page.reload()
  await part(page, 'mould')
  await expect(page.getByLabel('It holds')).toHaveValue('3.25 l')
  await expect(page.getByLabel('Spare')).toHaveValue('7.5')
})
