import type { Page } from '@playwright/test'
import { sql } from 'kysely'
import { buttonStandIn, scaleStandIn, type StandIn } from '../../devices/standIns'
import { expect, knock, own, part, pool, pourIdOf, storedEvents, test } from './fixtures'

const standIns: StandIn[] = []
test.afterEach(() => standIns.splice(0).forEach((s) => s.stop()))
function standIn<T extends StandIn>(made: T): T {
  standIns.push(made)
  return made
}
const head = (page: Page) => page.getByRole('heading', { level: 1 })
const gauge = (page: Page) => page.getByTestId('gauge')
const knockTo = async (page: Page, then: string | RegExp) => {
  await knock(page)
  await expect(head(page)).toHaveText(then)
}

test('a script of one’s own: another way of filling, a step left out and one added, a leak, and what is left over', async ({
  page,
  open,
  workshop,
}) => {
  const spill = await page.request.put(
    `${workshop.address}/api/moulds/0a000000-0000-4000-8000-000000000001`,
    {
      data: {
        revision: null,
        mould: {
          name: 'Limpet',
          note: '',
          thicknessMm: 12,
          purpose: 'figure',
          isSpill: true,
          lifeCasts: null,
          castsBefore: 0,
          usualPlasterId: null,
          facts: {
            material: 'silicone',
            flex: 'flexible',
            build: 'one_piece',
            oneTime: false,
            support: 'none',
            opening: 'wide',
            undercut: 'none',
            airTraps: [],
          },
          volume: {
            parts: [{ role: 'add', count: 1, method: { by: 'known', volumeMl: 60, plusMinusPct: 5 } }],
            cavities: 1,
            check: null,
            trust: 'parts',
          },
        },
      },
    },
  )
  expect(await spill.text()).not.toContain('error')
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Mermaid, latex')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('1 l')
  await page.getByLabel('It holds').blur()
  await part(page, 'filling')
  await page.getByRole('button', { name: 'Squeezed, then filled' }).click()
  await page.getByText(/The \d+ steps/).click()
  const steps = page.getByRole('listitem')
  await page.getByRole('button', { name: 'Leave out: Leave it to soak' }).click()
  await expect(page.getByRole('button', { name: 'Leave it to soak: put back' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Leave out: Weigh the water' })).toBeDisabled()
  await page.getByRole('button', { name: 'Add a step of your own' }).click()
  await page.getByLabel('What is done').fill('Hang it by its flange')
  await page.getByLabel('Rings after').fill('2')
  await page.getByRole('button', { name: 'Before the water' }).click()
  await page.getByRole('button', { name: 'Add it' }).click()
  await page.getByRole('button', { name: 'Earlier: Hang it by its flange' }).click()
  await expect(steps.filter({ hasText: 'your own, 2 min' })).toHaveCount(1)

  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  const pourId = pourIdOf(page)
  await expect(head(page)).toHaveText('Hang it by its flange')
  await knockTo(page, 'Get the mould ready')
  // Held down, the target takes the last thing back, and the finger lifted is no knock.
  await pool(page).click({ delay: 1200 })
  await expect(head(page)).toHaveText('Hang it by its flange')
  await knockTo(page, 'Get the mould ready')
  await knockTo(page, 'Weigh the water')
  await knockTo(page, 'Weigh the plaster')
  await knockTo(page, 'Ready to sift')
  await knockTo(page, 'Sift the plaster in')
  await knockTo(page, 'Stir under the surface')
  await expect(page.getByTestId('stirring')).toContainText(/Stopped now, it pours for at least [\d½]+ min/)
  await knockTo(page, 'A little in, and squeeze')
  await knockTo(page, 'Pour')
  // Another window knows who did it.
  const other = await page.context().newPage()
  await open(other, `/pour/${pourId}`)
  await expect(other.getByTestId('last-done')).toContainText('Squeezed over every face')

  await page.getByRole('button', { name: 'Put right' }).click()
  await expect(page.getByTestId('leak')).toContainText('Still enough: about 100 ml over')
  await page.getByLabel('About this much ran out').fill('30 ml')
  await page.getByLabel('About this much ran out').blur()
  await expect(page.getByTestId('leak')).toContainText('Still enough: about 70 ml over')
  await page.getByRole('button', { name: 'Tape' }).click()
  await page.getByRole('button', { name: 'It is stopped' }).click()
  await knockTo(page, 'Tap the air out')
  await expect(page.getByText('120 taps a minute')).toBeVisible()
  await knockTo(page, 'Leave it alone')

  // The rest of the bowl: a small pour of its own, in the log at once.
  await page.getByRole('button', { name: /Poured into Limpet \(60 ml\)/ }).click()
  await expect(page.getByRole('button', { name: /Poured into Limpet/ })).toHaveCount(0)
  await page.getByText('Clean up').click()
  await page.getByRole('checkbox', { name: /Tools wiped/ }).click()
  await expect(page.getByRole('checkbox', { name: /Tools wiped/ })).toBeChecked()
  await expect
    .poll(async () => (await storedEvents(workshop, pourId)).map((e) => e.type))
    .toEqual(expect.arrayContaining(['own_done', 'squeezed', 'leaked', 'leftover_poured', 'cleaned_up']))
  expect((await storedEvents(workshop, pourId)).find((e) => e.type === 'leaked')?.body).toMatchObject({
    plug: 'tape',
    lostMl: 30,
  })
  await open(page, '/')
  await page
    .getByRole('link', { name: /Limpet, from Mermaid/ })
    .first()
    .click()
  await expect(head(page)).toHaveText('Tap the air out')
})

test('a loud noise is a knock where that was switched on', async ({ page, open }) => {
  await open(page, '/plan')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await expect(head(page)).toHaveText('Get the mould ready')
  // The microphone hears a beep each second; switched off, nothing listens.
  await page.getByRole('switch', { name: /A loud noise/ }).click()
  await expect(head(page)).toHaveText('Weigh the water')
  // A noise weighs nothing: with two more beeps it stands where it stood.
  await expect(page.getByRole('switch', { name: /A loud noise/ })).toHaveCount(0)
  await page.waitForFunction(
    (from) => performance.now() > from + 2500,
    await page.evaluate(() => performance.now()),
  )
  await expect(head(page)).toHaveText('Weigh the water')
})

own(
  'scale, button, server and database fall away in the middle of a step: nothing is lost, nothing counts twice',
  async ({ page, open, workshop }) => {
    const scale = standIn(scaleStandIn(workshop.devicePort, 'bench-scale', 'Bench scale'))
    const button = standIn(buttonStandIn(workshop.devicePort, 'elbow', 'Elbow button'))
    await open(page, '/plan')
    await part(page, 'mould')
    await page.getByRole('button', { name: 'Known' }).click()
    await page.getByLabel('It holds').fill('1 l')
    await page.getByLabel('It holds').blur()
    await page.getByRole('button', { name: 'Take it to the bench' }).click()
    await page.waitForURL(/\/pour\//)
    const pourId = pourIdOf(page)
    await knockTo(page, 'Weigh the water')
    await page.getByRole('button', { name: 'Use Bench scale' }).click()
    await expect(page.getByRole('button', { name: 'Take it off' })).toBeVisible()
    await page.getByRole('button', { name: 'Knock with Elbow button' }).click()
    await expect(page.getByRole('button', { name: /Elbow button knocks here/ })).toBeVisible()
    scale.act({ do: 'add', massG: 236 })
    await expect(gauge(page)).toContainText('stand the bowl on it, then zero')
    button.act({ do: 'press' })
    await expect(gauge(page)).toHaveText('Nothing in it yet')
    scale.act({ do: 'add', massG: 400, overS: 1 })
    await expect(gauge(page)).toHaveText('Go on')

    // The server is killed while the water runs in; what stands on the scale is still what went in.
    await workshop.restart('SIGKILL')
    scale.act({ do: 'add', massG: 306, overS: 1 })
    await expect(gauge(page)).toHaveText(/^Right/, { timeout: 30_000 })
    button.act({ do: 'press' })
    await expect(head(page)).toHaveText('Weigh the plaster')

    // Both devices are pulled out and put back in the middle of the next one: another zero, for nobody knows what happened.
    scale.act({ do: 'clear' })
    scale.act({ do: 'pull' })
    button.act({ do: 'pull' })
    await expect(page.getByRole('alert').filter({ hasText: 'Bench scale says nothing' })).toBeVisible()
    scale.act({ do: 'plug_in' })
    button.act({ do: 'plug_in' })
    scale.act({ do: 'add', massG: 118 })
    await expect(gauge(page)).toContainText('stand the bowl on it, then zero', { timeout: 20_000 })
    await page.getByRole('button', { name: 'Zero it' }).click()
    await expect(gauge(page)).toHaveText('Nothing in it yet')
    scale.act({ do: 'add', massG: 1009, overS: 1 })
    await expect(gauge(page)).toHaveText(/^Right/)
    button.act({ do: 'press' })
    await expect(head(page)).toHaveText('Ready to sift')

    // The database lets nobody in any more, with everybody thrown out; the steps go on here and are sent later.
    const database = sql.id(new URL(workshop.databaseUrl).pathname.slice(1))
    const { owner } = workshop
    await sql`alter database ${database} connection limit 0`.execute(owner)
    await sql`select pg_terminate_backend(pid) from pg_stat_activity
    where datname = current_database() and pid <> pg_backend_pid() and usename = 'ripples_app'`.execute(owner)
    await knockTo(page, 'Sift the plaster in')
    await knockTo(page, 'Leave it to soak')
    await sql`alter database ${database} connection limit -1`.execute(owner)
    await knockTo(page, 'Stir under the surface')

    const types = ['mould_ready', 'weighed', 'weighed', 'sift_started', 'sifted', 'soaked']
    await expect
      .poll(async () => (await storedEvents(workshop, pourId)).map((e) => e.type), { timeout: 40_000 })
      .toEqual(types)
    const masses = (await storedEvents(workshop, pourId)).flatMap((e) =>
      e.type === 'weighed' ? [(e.body as { massG: number }).massG] : [],
    )
    expect(Math.abs(masses[0]! - 706)).toBeLessThanOrEqual(3)
    expect(Math.abs(masses[1]! - 1009)).toBeLessThanOrEqual(4)
  },
)
