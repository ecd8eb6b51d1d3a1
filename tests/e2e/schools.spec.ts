import type { Page } from '@playwright/test'
import type { EventBody } from '../../core/pour'
import { expect, knock, part, pourIdOf, storedEvents, test } from './fixtures'

// Each looks at its own pour alone.
test.use({ shared: true })

const figures = async (page: Page) => [
  await page.getByTestId('water').textContent(),
  await page.getByTestId('powder').textContent(),
]

test('one job through each school of ratio is the same mix', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('2 l')
  await part(page, 'plaster')
  const consistency = page.getByRole('textbox', { name: 'Consistency' })
  await consistency.fill('70')
  await consistency.blur()
  // Worked example: 2 l of pottery plaster at 70 with 10 % spare, water at the tap's 15 °C.
  const weighed = await figures(page)
  expect(weighed).toEqual(['1412 g', '2018 g'])

  await page.getByRole('button', { name: 'By scoop' }).click()
  await expect(page.getByRole('textbox', { name: 'Powder by scoop' })).toHaveValue('1.68')
  await expect(page.getByTestId('scoops')).toContainText('9½ of plaster to 5¾ of water, of 250 ml each')
  await expect(page.getByText('it comes to 59–83')).toBeVisible()
  expect(await figures(page)).toEqual(weighed)
  // The same count of scoops of a heavier powder is a stiffer mix; and its ratio is now known better.
  await page.getByLabel('One weighed scoop').fill('240 g')
  await expect(consistency).toHaveValue('62')
  await expect(page.getByText('it comes to 58–66')).toBeVisible()

  await consistency.fill('70')
  await consistency.blur()
  await page.getByRole('button', { name: 'By eye' }).click()
  await expect(page.getByRole('radio', { name: 'Dry lake bed' })).toBeChecked()
  expect(await figures(page)).toEqual(weighed)
  await page.getByRole('radio', { name: 'Mountain' }).click()
  await expect(consistency).toHaveValue('58')

  const printed = page.getByLabel('As printed on the bag')
  await printed.fill('70 ml per scoopful of it')
  await expect(page.getByText('I read “70 ml”')).toBeVisible()
  await expect(consistency).toHaveValue('58')
  await printed.fill('100 : 70')
  await expect(page.getByText('Read as 70 of water to 100 by weight.')).toBeVisible()
  expect(await figures(page)).toEqual(weighed)

  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  // The school is part of the plan: changing it later starts from what was chosen.
  await page.getByRole('link', { name: 'Change the plan' }).click()
  await part(page, 'plaster')
  await expect(page.getByRole('radio', { name: 'Mountain' })).toBeChecked()
  await expect(consistency).toHaveValue('70')
})

test('cups only: a plan met by scoop is run, recorded and carded in scoops', async ({
  page,
  open,
  workshop,
}) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('2 l')
  await part(page, 'plaster')
  await page.getByRole('button', { name: 'By scoop' }).click()
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toHaveText('Get the mould ready')
  await page.getByRole('link', { name: 'Weigh-out card' }).click()
  await expect(page.getByTestId('scoops')).toContainText('of water, of 250 ml')
  await page.goBack()
  await knock(page)
  await expect(heading).toHaveText('Measure the water')
  await expect(page.locator('.mass')).toContainText(/^\s*[\d¼½¾]+ scoops/)
  const count = await page.getByLabel('Scoops in it').inputValue()
  await knock(page)
  await expect(heading).toHaveText('Scoop the plaster')
  await page.getByLabel('Scoops in it').fill('9')
  await knock(page)
  await expect(heading).toHaveText('Ready to sift')
  await expect(page.getByTestId('last-done')).toContainText('9 × 250 ml of plaster')
  const measured = async () =>
    (await storedEvents(workshop, pourIdOf(page)))
      .map(({ body }) => body as EventBody)
      .filter((body) => body.type === 'weighed')
  await expect
    .poll(async () => (await measured()).map((m) => m.scoops))
    .toEqual([
      { count: Number(count), measureMl: 250 },
      { count: 9, measureMl: 250 },
    ])
  // What is in the bowl by it stays a mass: the forecast goes by it.
  expect((await measured())[0]!.massG).toBeGreaterThan(1000)
})
