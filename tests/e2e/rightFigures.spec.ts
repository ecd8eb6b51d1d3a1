import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { foldPour, keepPlan } from '../../core/pour'
import { testPlan } from '../unit/plans'
import { controlClock } from './controlledClock'
import { getReadable, poursById } from '../../server/services/pours/pourRecords'
import { rebuildSummaries } from '../../server/services/pours/summaries'
import { expect, part, pool, pourIdOf, storedEvents, test } from './fixtures'

const head = (page: Page) => page.getByRole('heading', { level: 1 })
const MIN_S = 60

async function choose(page: Page, label: string, option: string | RegExp) {
  await page.getByRole('combobox', { name: label }).click()
  await page.getByRole('option', { name: option, exact: true }).click()
}

test('a label that can mean two things is asked about, and neither is taken by itself', async ({
  page,
  open,
  workshop,
}) => {
  await open(page, '/plasters')
  await page.getByRole('button', { name: 'A plaster, from its bag' }).first().click()
  await page.getByLabel('What you call it').fill('Sack without a leaflet')
  await page.getByLabel('Ratio, as printed').fill('2 : 1')
  await expect(page.getByText('This can be read in two ways')).toBeVisible()
  await expect(page.getByText('Use consistency 70 of water to 100, the class’s own')).toBeVisible()
  const keep = page.getByRole('button', { name: 'Keep the card' })
  await expect(keep).toBeDisabled()
  await expect(page.getByRole('button', { name: /^50 of water to 100 by weight/ })).toBeVisible()
  await page.getByRole('button', { name: /^2 scoops of powder to 1 of water/ }).click()
  await expect(page.getByText('Use consistency 58.7 of water to 100, from the label')).toBeVisible()
  await keep.click()
  await expect(page.getByRole('dialog')).toBeHidden()
  const card = await workshop.db.selectFrom('plaster').selectAll().executeTakeFirstOrThrow()
  expect(card).toMatchObject({ printed_ratio: '2 : 1', label_consistency: 58.7 })
  // What is far from its class is kept, and said for as long as it stands.
  await page.getByRole('button', { name: 'Change the card of Sack without a leaflet' }).click()
  await page.getByLabel('Ratio, as printed').fill('28–30 parts')
  await expect(page.getByText('which prints 28 to 30')).toBeVisible()
  await expect(page.getByText('far outside what this plaster is mixed at')).toBeVisible()
})

test('a figure that could be two is asked about until the workshop says how it writes', async ({
  page,
  open,
}) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('1.500 l')
  await expect(page.getByRole('button', { name: 'Take it to the bench' })).toBeDisabled()
  await page.getByRole('button', { name: '1.5 l', exact: true }).click()
  await expect(page.getByText('for a mould of 1.50 l')).toBeVisible()
  await page.getByRole('link', { name: 'Settings' }).first().click()
  await page.getByRole('button', { name: '1.500,5', exact: true }).click()
  await page.getByRole('button', { name: 'Keep these' }).click()
  await expect(page.getByText('Kept.')).toBeVisible()
  await page.getByRole('link', { name: 'Plan', exact: true }).click()
  await part(page, 'mould')
  // A page that has just come may still take the focus to itself.
  await expect(async () => {
    await page.getByLabel('It holds').fill('1.500 ml')
    await expect(page.getByText('Read as 1500 ml')).toBeVisible({ timeout: 500 })
  }).toPass()
  // And the workshop writes it so itself.
  await expect(page.getByText('for a mould of 1,50 l')).toBeVisible()
})

test('a plan that leaves no time to pour says so, and one press takes what would help', async ({
  page,
  open,
}) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('400 ml')
  await part(page, 'plaster')
  await choose(page, 'Which plaster', 'Dental stone')
  await part(page, 'mixing')
  await page.getByLabel('Stir', { exact: true }).fill('5')
  await expect(page.getByText('Hardly any time would be left to pour')).toBeVisible()
  // The same figure wherever it stands.
  await part(page, 'times')
  await expect(page.getByText('Hardly any time to pour, perhaps')).toBeVisible()
  await part(page, 'water')
  await expect(page.getByText('Cold buys time: hardly any time to pour')).toBeVisible()
  await part(page, 'plaster')
  await expect(page.locator('.offs .row').first()).toContainText('hardly any')
  await part(page, 'remedies')
  const remedies = page.getByRole('region', { name: 'What gives time to pour' })
  await expect(remedies.getByRole('button', { name: /^Water at/ })).toBeVisible()
  await expect(remedies.getByRole('listitem').filter({ hasText: 'Stir for' })).toContainText(
    'More lumps may stay',
  )
  await remedies.getByRole('button', { name: /^Stir for/ }).click()
  await expect(page.locator('[data-part=mixing]')).toContainText('stirred 2.5 min')
})

test('frozen ground has no forecast, with what to do', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'water')
  await page.getByRole('textbox', { name: 'Mould', exact: true }).fill('-2')
  await expect(page.getByText('the water freezes before it can set. Thaw it')).toBeVisible()
  await expect(page.getByTestId('water')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Take it to the bench' })).toBeDisabled()
})

test('a slurry read late moves no start; what falls due rings wherever one is, and says whose it is', async ({
  page,
  open,
  workshop,
}) => {
  const clock = await controlClock(page, Date.now() - 86_400_000)
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Gull on a post')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  for (const [then, seconds] of [
    ['Weigh the water', 30],
    ['Weigh the plaster', 30],
    ['Ready to sift', 10],
    ['Sift the plaster in', 60],
    ['Leave it to soak', 30],
  ] as const) {
    await pool(page).click()
    await expect(head(page)).toHaveText(then)
    await clock.pass(seconds)
  }
  // Away from the run when the soak is over.
  await page.getByRole('link', { name: 'Moulds', exact: true }).click()
  await expect(head(page)).toHaveText('Moulds')
  const rung = page.getByRole('alert').filter({ hasText: 'Gull on a post' })
  await expect(rung).toHaveCount(0)
  await clock.pass(2 * MIN_S)
  await expect(rung).toContainText('Start stirring')
  await rung.getByRole('link').click()
  // A mix of 68 °C there is not: asked about, and put right by one press.
  await page.getByRole('button', { name: 'Temperature' }).click()
  await page.getByLabel('It reads').fill('68')
  await page.getByRole('button', { name: 'It was °F: 20 °C' }).click()
  await expect(page.getByLabel('It reads')).toHaveValue('20 °C')
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeEnabled()
  await page.getByLabel('It reads').fill('68')
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeDisabled()
  await page.keyboard.press('Escape')
  for (const [then, seconds] of [
    ['Stir under the surface', 120],
    ['Pour', 30],
    ['Tap the air out', 30],
    ['Leave it alone', 35 * MIN_S],
  ] as const) {
    await pool(page).click()
    await expect(head(page)).toHaveText(then)
    await clock.pass(seconds)
  }
  const range = page.locator('.clocks .range')
  const before = await range.innerText()
  await page.getByRole('button', { name: 'Temperature' }).click()
  await page.getByLabel('It reads').fill('38')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect
    .poll(async () => (await storedEvents(workshop, pourIdOf(page))).at(-1)?.type)
    .toBe('temperature')
  // It is of the piece by now: the forecast learns from it, but neither the mix nor its start was ever otherwise.
  await expect(range).not.toHaveText(before)
  const { plan, events } = await getReadable(workshop.db, pourIdOf(page))
  const [read, unread] = [events, events.filter((e) => e.body.type !== 'temperature')].map((of) =>
    foldPour(plan, of),
  )
  expect(read!.settingInput).toEqual(unread!.settingInput)
  expect(read!.settingStartMs).toBe(unread!.settingStartMs)
})

test('weighed for a plan that was changed meanwhile: shown with what differs, and asked', async ({
  page,
  open,
  workshop,
}) => {
  const id = randomUUID()
  const { mould } = testPlan()
  const was = keepPlan(testPlan('pottery', { piece: 'Harbour tile' }))
  const now = keepPlan(testPlan('pottery', { piece: 'Harbour tile', consistency: 80, mould }))
  const send = (method: string, path: string, body: object) =>
    fetch(`${workshop.address}${path}`, {
      method,
      headers: { ...workshop.headers, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  expect((await send('POST', '/api/pours', { id, plan: was })).status).toBe(200)
  expect((await send('PUT', `/api/pours/${id}/plan`, { revision: 1, plan: now })).status).toBe(200)
  // A tablet that was away weighs for the plan it knew.
  const event = { occurredAtMs: Date.now() - 5000, who: 'Ines', planRevision: 1 }
  for (const body of [{ type: 'mould_ready' }, { type: 'weighed', what: 'water', massG: 706 }])
    expect((await send('POST', `/api/pours/${id}/events`, { ...event, id: randomUUID(), body })).status).toBe(
      200,
    )
  // It has not locked the plan in silence.
  expect((await send('PUT', `/api/pours/${id}/plan`, { revision: 2, plan: now })).status).toBe(200)

  await open(page, `/pour/${id}`)
  const question = page.getByRole('region', { name: /The plan was changed after this was recorded/ })
  await expect(question).toContainText('Weighed 706 g of water')
  await expect(question.getByRole('row', { name: /Ratio/ })).toContainText('70')
  await page.getByRole('button', { name: 'It holds for this plan' }).click()
  await expect(head(page)).toHaveText('Weigh the plaster')
  await expect.poll(async () => (await storedEvents(workshop, id)).at(-1)?.type).toBe('plan_holds')
  expect((await send('PUT', `/api/pours/${id}/plan`, { revision: 3, plan: was })).status).toBe(409)
})

test.describe('with the demo workshop', () => {
  test.use({ demo: true })

  test('a record that cannot be read is shown as itself, and everything else goes on', async ({
    page,
    open,
    workshop,
  }) => {
    const broken = randomUUID()
    await workshop.db
      .insertInto('pour')
      .values({ id: broken, plan: JSON.stringify({ schemaVersion: 9, piece: 'Bell buoy', mould: 'gone' }) })
      .execute()
    await rebuildSummaries(workshop.db, 'missing', poursById)
    await open(page, '/')
    await expect(page.getByText('11 on the go')).toBeVisible()
    await page.getByRole('link', { name: /Bell buoy cannot be read/ }).click()
    await expect(head(page)).toHaveText('Bell buoy')
    await expect(page.getByText('This record cannot be read.')).toBeVisible()
    await expect(page.locator('pre')).toContainText('"mould": "gone"')
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save it as a file' }).click(),
    ])
    const saved = JSON.parse(readFileSync(await download.path(), 'utf8')) as { id: string; plan: object }
    expect(saved).toMatchObject({ id: broken, plan: { piece: 'Bell buoy' }, events: [] })
    await page.getByRole('link', { name: 'Casts', exact: true }).click()
    await expect(page.getByRole('row', { name: /Bell buoy/ })).toContainText('Cannot be read')
    await expect(page.getByRole('row', { name: /Ammonite/ }).first()).toBeVisible()
  })

  test('on a phone every tool of the run is in reach without scrolling, and keys can be left alone', async ({
    page,
    open,
  }) => {
    await page.setViewportSize({ width: 390, height: 844 })
    await open(page, '/')
    for (const piece of [
      /Chart tile B4/,
      /Lamp-oil jug/,
      /Sea urchin, hand piece 7/,
      /Ammonite/,
      /Tide-clock/,
    ]) {
      await page.getByRole('link', { name: piece }).first().click()
      for (const tool of ['Undo', 'More']) {
        const button = page.getByRole('button', { name: tool, exact: true })
        await expect(button).toBeInViewport({ ratio: 1 })
        // Nothing lies over it.
        await button.click({ trial: true })
      }
      await page.getByRole('button', { name: 'More', exact: true }).click()
      for (const tool of ['Temperature', /Sound/])
        await expect(page.getByRole('menuitem', { name: tool })).toBeInViewport({ ratio: 1 })
      await page.keyboard.press('Escape')
      await page.getByRole('link', { name: 'Bench', exact: true }).click()
    }
    await page.getByRole('link', { name: 'Settings', exact: true }).click()
    await page.getByRole('button', { name: 'Only the large button' }).click()
    await page.getByRole('link', { name: 'Bench', exact: true }).click()
    await page
      .getByRole('link', { name: /Chart tile B4/ })
      .first()
      .click()
    const before = 'Leave it to soak'
    await expect(head(page)).toHaveText(before)
    await page.keyboard.press('k')
    await page.keyboard.press('Backspace')
    await expect(pool(page)).not.toContainText('any key')
    await expect(head(page)).toHaveText(before)
    await pool(page).click()
    await expect(head(page)).not.toHaveText(before)
  })
})
