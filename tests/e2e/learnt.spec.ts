import sharp from 'sharp'
import type { Page } from '@playwright/test'
import { scaleStandIn } from '../../devices/standIns'
import { expect, own, part, pourIdOf, storedEvents, test } from './fixtures'

test.use({ demo: true })

const to = (page: Page, piece: string) => page.getByRole('link', { name: piece }).first().click()

test('from demoulding to a cast that is explained, and a next plan that is better for it', async ({
  page,
  open,
  workshop,
}) => {
  await open(page, '/')
  await to(page, 'Seal’s jaw')
  await expect(page).toHaveURL(/\/pour\//)
  const id = pourIdOf(page)
  await page.getByRole('button', { name: 'Whole', exact: true }).click()
  // Out of the mould it dries: dates for every use, and what is to be done while it is soft.
  await expect(page.getByRole('table', { name: 'When it will do for what' })).toBeVisible()
  const bumps = page.getByRole('checkbox', { name: /Knock surface bumps off/ })
  await bumps.click()
  await expect(bumps).toHaveAttribute('aria-checked', 'true')
  await page.getByRole('link', { name: 'Its record' }).click()

  // What is wrong with it, by the keyboard alone: a kind, a spot, a size.
  await page.getByRole('button', { name: 'Pinholes', exact: true }).press('Space')
  const board = page.getByRole('group', { name: /Where it is/ })
  await board.focus()
  for (const key of ['ArrowLeft', 'ArrowLeft', 'ArrowUp']) await board.press(key)
  await expect(page.getByText('Marked on the picture.')).toBeVisible()
  await page.getByLabel('Size, if it matters').fill('2 mm')
  await page.getByRole('button', { name: 'Note it' }).press('Enter')
  await expect(page.getByRole('list', { name: 'Noted faults' })).toContainText('Pinholes')

  // A photograph straight from the camera's file goes without the camera's data.
  const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#cfc8b8' } })
    .withExif({ IFD0: { Copyright: 'somebody' } })
    .jpeg()
    .toBuffer()
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'jaw.jpg', mimeType: 'image/jpeg', buffer: picture })
  await expect(page.getByRole('img', { name: 'The piece as it was photographed' })).toBeVisible()
  await expect
    .poll(
      async () =>
        (await workshop.db.selectFrom('photo').select('id').where('pour_id', '=', id).execute()).length,
    )
    .toBe(1)

  // Two layers, the second long after the first: its own record says what it was not, and what stays open.
  await expect(page.getByRole('heading', { name: 'Why' })).toBeVisible()
  await expect(page.locator('[data-cause]').first()).toBeVisible()
  // What nobody recorded is asked for: one press says it, another takes it back.
  const why = page.getByRole('region', { name: 'Why' })
  const high = why.getByRole('button', { name: 'From high, or fast' })
  await high.click()
  await expect(page.locator('[data-cause="poured_high"]')).toContainText('For: Poured from high, or fast')
  await high.click()
  await expect(why).not.toContainText('For: Poured from high')
  await open(page, '/casts')
  await page.getByLabel('Search').fill('A2, the sluice')
  await to(page, 'Chart tile A2, the sluice')
  const causes = page.locator('[data-cause]')
  await expect(causes.nth(0)).toContainText('Not tapped')
  await expect(causes.nth(0)).toContainText('Tapping was left out')
  await expect(causes.nth(1)).toContainText('Soaked 18 s')
  await page.getByRole('button', { name: 'Keep it in mind from now on' }).click()
  await expect(page.getByTestId('kept')).toContainText('It stays with')
  // Taken before what was learnt of the bag has come, the plan waits for it.
  let letCome = () => {}
  const may = new Promise<void>((resolve) => (letCome = resolve))
  await page.route('**/api/learning**', async (route) => {
    await may
    await route.continue()
  })
  await page.getByRole('link', { name: 'Plan it again' }).click()
  await expect(page.getByRole('heading', { name: 'From last time' })).toBeVisible()
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  letCome()
  await expect(page).toHaveURL(/\/pour\//)
  const next = await workshop.db
    .selectFrom('pour')
    .select('plan')
    .where('id', '=', pourIdOf(page))
    .executeTakeFirstOrThrow()
  expect(next.plan).toMatchObject({ heed: ['no_tap', 'soak_short'], soakS: 120 })
  // The bag's five tiles have taught it: the plan goes by them.
  expect((next.plan as { plaster: { bag: { setFactor: number }; origins: object } }).plaster).toMatchObject({
    origins: { setTime: { kind: 'calibrated', pours: 5 } },
  })
})

test('a bag and a place have learnt: said, drawn, switched off and set back; the plan follows', async ({
  page,
  open,
}) => {
  await open(page, '/plasters')
  const learnt = page.locator('.learnt[data-factor="set_time"]')
  await expect(learnt).toContainText(/Bag by the door sets \d+ % slower than its card: 5 pours/)
  await learnt.getByText('How fast it sets: the pours').click()
  await expect(learnt.getByRole('link', { name: /Chart tile A3/ })).toBeVisible()
  await learnt.getByText('Plans go by it').click()
  await expect(learnt).toContainText('not learnt from its pours')
  await learnt.getByText('Plans go by it').click()
  await expect(learnt).toContainText('5 pours')
  await learnt.getByRole('button', { name: 'Begin anew' }).click()
  await expect(learnt).toContainText('set back')

  await open(page, '/settings')
  const rack = page.locator('li', { hasText: 'Rack by the window' })
  await expect(rack).toContainText(/dries \d+ % slower than its air would: \d+ pours/)
  await open(page, '/plan')
  await part(page, 'drying')
  await page.getByLabel('Where it dries').click()
  await page.getByRole('option', { name: 'Rack by the window' }).click()
  await expect(page.getByTestId('place-learnt')).toContainText(/dries \d+ % slower/)
})

test('the log answers, what it says leads to its pours, and two casts lie side by side', async ({
  page,
  open,
}) => {
  await open(page, '/casts/figures')
  await page
    .getByRole('region', { name: 'Why they failed' })
    .getByRole('link', { name: /Not tapped/ })
    .click()
  await expect(page.getByRole('status')).toHaveText('1 found')
  await page.getByRole('button', { name: 'No longer only: Not tapped' }).click()
  await page.getByLabel('Search').fill('Chart tile A')
  await page.getByRole('checkbox', { name: /Compare Chart tile A3/ }).click()
  await page.getByRole('checkbox', { name: /Compare Chart tile A2/ }).click()
  await page.getByRole('link', { name: 'Lay the two side by side' }).click()
  await expect(page.getByRole('row', { name: /Soak .*differs/ })).toContainText('18 s')
  await expect(page.getByRole('row', { name: /Ended/ })).toContainText('Failed')
  // One that never got into its mould is explained from its own record as well.
  await open(page, '/casts/figures')
  await page
    .getByRole('region', { name: 'Why they failed' })
    .getByRole('link', { name: /Stirred too long/ })
    .click()
  await page.getByRole('link', { name: /Shell for the glass urchin, first try/ }).click()
  await expect(page.locator('[data-cause]').first()).toContainText(/Stirred too long[^]*working time/)
  await expect(page.getByTestId('besides')).toContainText('Stirred too hard')
})

own(
  'carried elsewhere the forecast follows, a scale weighs it, and the whole workshop goes out and comes in again',
  async ({ page, open, workshop }) => {
    await open(page, '/')
    // A mould in use has drawn enough water: said before anybody opens its page.
    const inUse = page.getByRole('region', { name: 'In use' })
    await expect(inUse).toContainText(/Lamp-oil jug, first half\s*Dry it out/)
    await inUse.getByRole('button', { name: 'Dried out: Lamp-oil jug, first half' }).click()
    await expect(inUse).toHaveCount(0)
    await page.getByRole('link', { name: /Tide-clock/ }).click()
    await page.getByText('It is carried elsewhere').click()
    const paint = page.getByRole('row', { name: /take water-based paint/ })
    const before = await paint.innerText()
    await page.getByLabel('Now at').click()
    await page.getByRole('option', { name: 'Shelf over the stove' }).click()
    await page.getByRole('button', { name: 'It is there now' }).click()
    await expect(paint).not.toHaveText(before)
    const scale = scaleStandIn(workshop.devicePort, 'rack-scale', 'Rack scale')
    scale.act({ do: 'add', massG: 1893 })
    await page.getByRole('button', { name: /Rack scale shows 1893 g: take it/ }).click()
    await expect(page.getByText('Weighed 1893 g')).toBeVisible()
    scale.stop()
    // It counts on screen before it is sent.
    await expect
      .poll(
        async () =>
          (await storedEvents(workshop, pourIdOf(page))).findLast((e) => e.type === 'weighing')!.body,
      )
      .toMatchObject({ massG: 1893, reading: { device: 'rack-scale', channel: 'mass' } })

    await open(page, '/settings')
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'The whole workshop, as a file' }).click(),
    ])
    const path = await download.path()
    // Left and found again.
    await page.reload()
    await expect(page.getByText('It is written.')).toBeVisible()
    await page.getByRole('button', { name: 'Done with it' }).click()
    await page.getByLabel('Workshop file').setInputFiles(path)
    // Everything is here already: nothing to read in.
    await expect(page.getByRole('button', { name: 'Read it in' })).toBeDisabled()
    await expect(page.getByRole('row', { name: /^Pours 0/ })).toBeVisible()
  },
)

test('on a phone: photographed while the workshop is away, it is kept and goes by itself', async ({
  page,
  context,
  open,
  workshop,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open(page, '/casts')
  await page.getByLabel('Search').fill('Tide-clock')
  await to(page, 'Tide-clock face')
  await expect(page.getByRole('heading', { name: 'How it came out' })).toBeVisible()
  await context.setOffline(true)
  const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#345' } })
    .jpeg()
    .toBuffer()
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'face.jpg', mimeType: 'image/jpeg', buffer: picture })
  await expect(page.getByText('On its way: 1')).toBeVisible()
  await expect(page.getByRole('img', { name: 'The piece as it was photographed' })).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('On its way')).toHaveCount(0, { timeout: 30_000 })
  const rows = await workshop.db
    .selectFrom('photo')
    .select('pour_id')
    .where('pour_id', 'is not', null)
    .execute()
  expect(rows).toHaveLength(2)
})
