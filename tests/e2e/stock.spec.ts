import type { Page } from '@playwright/test'
import { expect, part, pool, test } from './fixtures'

test.use({ demo: true })

const editCard = (page: Page) =>
  page.getByRole('button', { name: 'Change the card of Gypsum cement' }).click()

test('a card changed in two windows: the second is told, keeps what was typed, and may keep it after all', async ({
  context,
  page,
  open,
}) => {
  const other = await context.newPage()
  await open(page, '/plasters')
  await open(other, '/plasters')
  await editCard(page)
  await editCard(other)
  await page.getByLabel('Sets in').fill('28')
  await page.getByRole('button', { name: 'Keep the card' }).click()
  await expect(page.getByText('Sets in 28 min')).toBeVisible()
  await other.getByLabel('Sets in').fill('33')
  await other.getByRole('button', { name: 'Keep the card' }).click()
  await expect(other.getByRole('row', { name: 'Sets in 33 min 28 min' })).toBeVisible()
  await expect(other.getByLabel('Sets in')).toHaveValue('33')
  await other.getByRole('button', { name: 'Keep mine' }).click()
  await expect(page.getByText('Sets in 33 min')).toBeVisible()
})

test('what is weighed out of a bag at one bench shows in the other window, and is taken back there', async ({
  context,
  page,
  open,
}) => {
  const shelf = await context.newPage()
  await open(shelf, '/plasters')
  const sack = shelf.locator('.bag', { hasText: 'Sack of spring' })
  await expect(sack).toContainText('19.0 kg of 25.0 kg')
  await open(page, '/')
  await page.getByRole('link', { name: /Lamp-oil jug, second half/ }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Weigh the plaster')
  await page.getByLabel('On the scale').fill('3000')
  await pool(page).click()
  await expect(sack).toContainText('16.0 kg of 25.0 kg')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(sack).toContainText('19.0 kg of 25.0 kg')
})

test('what cannot be is said at its field, and nothing typed is lost', async ({ page, open }) => {
  await open(page, '/plasters')
  await page.getByRole('button', { name: 'Another bag of Dental stone' }).click()
  await page.getByLabel('It held').fill('2 kg')
  await page.getByLabel('Weighed now, it holds').fill('3 kg')
  await expect(page.getByText('At most 2000 g.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep the bag' })).toBeDisabled()
  await page.getByLabel('Weighed now, it holds').fill('')
  await page.getByLabel('It cost').fill('a fiver')
  await expect(page.getByText('I cannot read that as one quantity.')).toBeVisible()
  await expect(page.getByLabel('It cost')).toHaveValue('a fiver')
  await page.getByLabel('It cost').fill('')
  await page.getByRole('button', { name: 'Keep the bag' }).click()
  await expect(page.getByText('2.00 kg of 2.00 kg left')).toBeVisible()
  // A card with a bag is not thrown away: there is no button for it any more.
  await expect(page.getByRole('button', { name: 'Throw it away: Dental stone' })).toHaveCount(0)
})

test('the schools know how this mould was mixed last time', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'schools')
  await expect(page.getByRole('img', { name: /^Yours last time: full/ })).toBeVisible()
  await part(page, 'plaster')
  await page.getByRole('combobox', { name: 'Which plaster' }).click()
  await page.getByRole('option', { name: 'Dental plaster' }).click()
  await part(page, 'schools')
  await expect(page.getByRole('img', { name: /^This plan/ })).toBeVisible()
  await expect(page.getByRole('img', { name: /^Yours last time/ })).toHaveCount(0)
})

test('a set slightly larger than its bags says so; a small scale weighs in turns; other units say the same', async ({
  page,
  open,
}) => {
  await open(page, '/settings')
  await page.getByLabel('Most it takes').fill('1500 g')
  await page.getByRole('button', { name: 'Keep these' }).click()
  await expect(page.getByText('Kept.')).toBeVisible()
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Describe it' }).click()
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('2 l')
  await part(page, 'plaster')
  await page.getByRole('combobox', { name: 'Which plaster' }).click()
  await page.getByRole('option', { name: 'Pottery plaster', exact: true }).click()
  const turns = page.getByTestId('turns')
  await expect(turns).toContainText('The scale takes 1500 g')
  await expect(turns).toContainText(/the plaster in \d goes/)

  await part(page, 'bowls')
  await page.getByRole('button', { name: 'Whole bags' }).click()
  await page.getByLabel('A whole bag holds').fill('1 kg')
  await expect(page.getByText('slightly more than the 2000 g in whole bags')).toBeVisible()
  await expect(page.getByTestId('bowls')).toContainText('3 bags')
  await page.getByLabel('A whole bag holds').fill('1.5 kg')
  await expect(page.getByText('slightly more than')).toHaveCount(0)

  await page.getByRole('navigation').getByRole('link', { name: 'Settings' }).click()
  await page.getByRole('button', { name: 'US', exact: true }).click()
  await page.getByRole('button', { name: 'Keep these' }).click()
  await expect(page.getByText('Kept.')).toBeVisible()
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  // 1500 g a bag: 3 lb 4.9 oz.
  await expect(page.getByTestId('powder')).toHaveText('3 lb 4.9 oz')
})
