import { outlookFrom } from '../../core/pour'
import { getReadable } from '../../server/services/pours/pourRecords'
import { controlClock } from './controlledClock'
import { expect, part, pool, pourIdOf, storedEvents, test } from './fixtures'

const DAY_S = 86_400

test('the whole job by hand: plan, weigh, sift, soak, stir, pour, set, demould, dry, finished', async ({
  page,
  open,
  workshop,
}) => {
  const clock = await controlClock(page, Date.now() - 12 * DAY_S * 1000)
  await open(page, '/plan')

  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Tide gauge plinth')
  await page.getByRole('button', { name: 'Box' }).click()
  await page.getByLabel('Length inside').fill('20 cm')
  await page.getByLabel('Width inside').fill('100')
  await page.getByLabel('Depth to the fill').fill('5 cm')
  await expect(page.getByTestId('holds')).toHaveText('1.00 l')
  await page.getByLabel('Spare').fill('10')
  await expect(page.getByTestId('powder')).toHaveText('1009 g')
  await expect(page.getByTestId('water')).toHaveText('706 g')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()

  await page.waitForURL(/\/pour\//)
  const pourId = pourIdOf(page)
  const head = page.getByRole('heading', { level: 1 })
  // One knock, then a moment, as an elbow has it: a second knock at once would be the same one.
  const knock = async (then: string, seconds: number) => {
    await pool(page).click()
    await expect(head).toHaveText(then)
    await clock.pass(seconds)
  }
  await expect(head).toHaveText('Get the mould ready')
  await knock('Weigh the water', 60)
  await page.getByLabel('On the scale').fill('710')
  await knock('Weigh the plaster', 60)
  await expect(page.getByText('1015 g')).toBeVisible()
  await knock('Ready to sift', 30)
  await expect(page.getByText('Fitted dust respirator on')).toBeVisible()
  await knock('Sift the plaster in', 60)
  await expect(page.getByRole('timer')).toContainText(/\+?0:0\d/)
  await knock('Leave it to soak', 75)
  await expect(page.getByRole('timer')).toContainText(/0:4\d/)
  await clock.pass(45)
  await knock('Stir under the surface', 120)
  await knock('Pour', 60)
  await knock('Tap the air out', 60)
  await knock('Leave it alone', 5 * 60)

  // A knock while it sets takes nothing out.
  await page.keyboard.press('x')
  await page.getByRole('button', { name: /^Gloss gone/ }).click()
  await expect(page.getByRole('button', { name: /^Gloss gone/ })).toBeDisabled()
  await clock.pass(90 * 60)
  await expect(head).toHaveText('Take it out')
  // Nor does one that finds it ready: how it came out is asked.
  await page.keyboard.press('x')
  await page.getByRole('button', { name: 'Whole', exact: true }).click()
  await expect(head).toHaveText('Let it dry')
  await clock.pass(60)

  for (const [mass, wait] of [
    ['1575', 1],
    ['1470', 1],
    ['1360', 4],
  ] as const) {
    await page.getByLabel('It weighs now').fill(mass)
    await page.getByRole('button', { name: 'Record this weighing' }).click()
    await expect(page.getByLabel('It weighs now')).toHaveValue('')
    await clock.pass(wait * DAY_S)
  }
  await expect(page.getByText('Learnt from 3 weighings')).toBeVisible()
  await page.getByRole('button', { name: 'It is finished' }).click()
  await page.getByRole('button', { name: 'Usable' }).click()
  await page.getByRole('button', { name: 'Pinholes' }).click()
  await page.getByLabel('In a few words').fill('Two small holes on the back.')
  await page.getByRole('button', { name: 'Close this pour' }).click()
  await expect(head).toHaveText('Usable')

  await page.getByRole('link', { name: 'See its record' }).click()
  await expect(page.getByRole('cell', { name: '710 g' })).toBeVisible()
  await expect(page.getByText('Two small holes on the back.').first()).toBeVisible()
  await expect(page.locator('canvas')).toBeVisible()

  await page.getByRole('link', { name: 'Casts', exact: true }).click()
  await page.getByLabel('Search').fill('plinth')
  await expect(page.getByRole('link', { name: 'Tide gauge plinth' })).toBeVisible()

  // What the database holds tells the same story.
  await expect.poll(async () => (await storedEvents(workshop, pourId)).length).toBe(16)
  const { plan, events } = await getReadable(workshop.db, pourId)
  const facts = outlookFrom(plan, events)
  expect(facts.actual).toMatchObject({ waterG: 710, powderG: 1015 })
  expect(facts.verdict).toMatchObject({ verdict: 'usable' })
  // By the page’s own clock, which goes on while it is pressed.
  expect(Math.abs(facts.settingInput.stirS - 120)).toBeLessThan(3)
})

test('undo, and the plan stays open until the weighing', async ({ page, open }) => {
  await controlClock(page, Date.now() - DAY_S * 1000)
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Door stop')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  const head = page.getByRole('heading', { level: 1 })
  await expect(head).toHaveText('Get the mould ready')
  await page.getByRole('button', { name: 'Undo' }).isDisabled()
  await page.getByRole('link', { name: 'Change the plan' }).click()
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('2 l')
  await page.getByRole('button', { name: 'Keep this plan' }).click()
  await expect(head).toHaveText('Get the mould ready')
  await pool(page).click()
  await expect(page.locator('.mass')).toContainText('1412 g')
  await page.keyboard.press('Backspace')
  await expect(head).toHaveText('Get the mould ready')
})
