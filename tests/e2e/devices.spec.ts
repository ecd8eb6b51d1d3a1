import type { Page } from '@playwright/test'
import { buttonStandIn, probeStandIn, scaleStandIn, type StandIn } from '../../devices/standIns'
import { expect, own, part, pool, pourIdOf, storedEvents } from './fixtures'

const standIns: StandIn[] = []
own.afterEach(() => standIns.splice(0).forEach((s) => s.stop()))
function standIn<T extends StandIn>(made: T): T {
  standIns.push(made)
  return made
}
const head = (page: Page) => page.getByRole('heading', { level: 1 })
const gauge = (page: Page) => page.getByTestId('gauge')

/** A litre of pottery plaster, on the bench and at its first weighing. */
async function toTheFirstWeighing(page: Page) {
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  await page.getByLabel('It holds').fill('1 l')
  await page.getByLabel('It holds').blur()
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  await pool(page).click()
  await expect(head(page)).toHaveText('Weigh the water')
}

own(
  'a pour from tare to tapping by scale, button and thermometer alone; two browsers hear it, and each step counts once',
  async ({ page, open, browser, workshop }) => {
    const scale = standIn(scaleStandIn(workshop.devicePort, 'bench-scale', 'Bench scale'))
    const button = standIn(buttonStandIn(workshop.devicePort, 'elbow', 'Elbow button'))
    const probe = standIn(probeStandIn(workshop.devicePort, 'probe', 'Thermometer', 1, 20))
    await open(page, '/plan')
    await toTheFirstWeighing(page)
    await page.getByRole('button', { name: 'Use Bench scale' }).click()
    // Put there, its own buttons stand in the place of that one.
    await expect(page.getByRole('button', { name: 'Take it off' })).toBeVisible()
    await page.getByRole('button', { name: 'Knock with Elbow button' }).click()
    await expect(page.getByRole('button', { name: /Elbow button knocks here/ })).toBeVisible()
    const pourId = pourIdOf(page)
    const other = await (await browser.newContext()).newPage()
    const twin = await page.context().newPage()
    const path = `/pour/${pourId}`
    await open(other, path)
    await expect(head(other)).toHaveText('Weigh the water')

    // From here on no hand touches a screen.
    const press = () => button.act({ do: 'press' })
    const weigh = async (bowlG: number, massG: number, meanwhile = async () => {}) => {
      scale.act({ do: 'clear' })
      scale.act({ do: 'add', massG: bowlG })
      await expect(gauge(page)).toContainText('stand the bowl on it, then zero')
      press()
      await expect(gauge(page)).toHaveText('Nothing in it yet')
      scale.act({ do: 'add', massG: massG * 0.95, overS: 2 })
      await expect(gauge(page)).toHaveText('Slowly now')
      await meanwhile()
      // Pressed too early it does nothing, neither here nor in a window that saw no bowl stand at nothing.
      press()
      scale.act({ do: 'add', massG: massG * 0.05, overS: 1 })
      await expect(gauge(page)).toHaveText('Right. Go on')
      await expect(gauge(other)).toHaveText('Right. Go on')
      press()
    }
    await weigh(236, 706, async () => {
      await open(twin, path)
      await expect(gauge(twin)).toHaveText('Slowly now')
    })
    await expect(head(page)).toHaveText('Weigh the plaster')
    await expect(head(other)).toHaveText('Weigh the plaster')
    await weigh(118, 1009)
    for (const then of [
      'Ready to sift',
      'Sift the plaster in',
      'Leave it to soak',
      'Stir under the surface',
      'Pour',
      'Tap the air out',
    ]) {
      await expect(head(page)).toHaveText(then)
      await expect(head(other)).toHaveText(then)
      press()
    }
    await expect(head(page)).toHaveText('Leave it alone')

    await page.getByRole('button', { name: 'Use Thermometer, 1' }).click()
    probe.act({ do: 'into_plaster', channel: 1, classId: 'pottery', consistency: 70, tempC: 30 })
    await expect(page.getByTestId('thermometer').locator('.figure')).toHaveText(/2[4-9] °C|30 °C/)
    await page.getByRole('button', { name: 'Keep this' }).click()
    await expect.poll(async () => (await storedEvents(workshop, pourId)).at(-1)?.type).toBe('temperature')

    const events = await storedEvents(workshop, pourId)
    expect(events.map((e) => e.type)).toEqual([
      'mould_ready',
      'weighed',
      'weighed',
      'sift_started',
      'sifted',
      'soaked',
      'stirred',
      'poured',
      'tapped',
      'temperature',
    ])
    expect(events[1]!.body).toMatchObject({
      what: 'water',
      reading: { device: 'bench-scale', channel: 'mass' },
    })
    const massOf = (i: number) => (events[i]!.body as { massG: number }).massG
    expect(Math.abs(massOf(1) - 706)).toBeLessThanOrEqual(2)
    expect(Math.abs(massOf(2) - 1009)).toBeLessThanOrEqual(2)
    expect(events.slice(1, 9).map((e) => e.who)).toEqual(Array(8).fill('Elbow button'))
    expect(events[9]!.body).toMatchObject({ reading: { device: 'probe', channel: 't1' } })
    // Nobody was told that a press could not be kept.
    for (const window of [page, twin, other])
      await expect(window.getByText(/could not be kept|refused/i)).toHaveCount(0)
    await other.context().close()
  },
)

own(
  'a scale that falls silent stops nothing: typed values go on, and stand when it comes back',
  async ({ page, open, workshop }) => {
    const scale = standIn(scaleStandIn(workshop.devicePort, 'bench-scale', 'Bench scale'))
    await open(page, '/plan')
    await toTheFirstWeighing(page)
    await page.getByRole('button', { name: 'Use Bench scale' }).click()
    const button = standIn(buttonStandIn(workshop.devicePort, 'elbow', 'Elbow button'))
    await page.getByRole('button', { name: 'Knock with Elbow button' }).click()
    // It stands at nothing, and yet is to be zeroed: a bowl that comes later would count as water.
    await expect(gauge(page)).toContainText('stand the bowl on it, then zero')
    scale.act({ do: 'add', massG: 236 })
    await page.getByRole('button', { name: 'Zero it' }).click()
    await expect(gauge(page)).toHaveText('Nothing in it yet')
    scale.act({ do: 'add', massG: 300 })
    await expect(gauge(page)).toHaveText('Go on')
    scale.act({ do: 'pull' })
    await expect(page.getByRole('alert').filter({ hasText: 'Bench scale says nothing' })).toBeVisible()
    // Nothing is known of what lies in the bowl: what was wanted does not count as weighed.
    await expect(pool(page)).toContainText('Type what it shows')
    await expect(page.getByLabel('On the scale')).toHaveValue('')
    await pool(page).click()
    await page.getByLabel('On the scale').fill('710 g')
    scale.act({ do: 'plug_in' })
    await expect(page.getByRole('button', { name: 'Take what it shows' })).toBeVisible()
    // It moves again; what was typed does not.
    scale.act({ do: 'add', massG: 100, overS: 1 })
    await expect(page.locator('.mass')).toContainText('706 g')
    await expect(page.getByLabel('On the scale')).toHaveValue('710 g')
    await page.getByLabel('On the scale').blur()
    // By a button that other windows hear as well, which know only the scale or the plan.
    const twin = await page.context().newPage()
    await open(twin, `/pour/${pourIdOf(page)}`)
    await expect(gauge(twin)).toHaveText('Go on')
    button.act({ do: 'press' })
    await expect(head(page)).toHaveText('Weigh the plaster')
    await expect(head(twin)).toHaveText('Weigh the plaster')
    await twin.close()
    await expect
      .poll(async () => (await storedEvents(workshop, pourIdOf(page))).at(-1)?.body)
      .toEqual({ type: 'weighed', what: 'water', massG: 710 })
    // Taken back, the weighing goes on where it was. Too much is said at once, and the plaster follows it where that is wanted.
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(head(page)).toHaveText('Weigh the water')
    scale.act({ do: 'add', massG: 400, overS: 1 })
    await expect(gauge(page)).toContainText('Too much')
    await expect(page.locator('.mass')).toContainText('94 g too much of 706 g')
    await pool(page).click()
    await expect(head(page)).toHaveText('Weigh the plaster')
    await page.getByRole('button', { name: /^Weigh 1143\sg of plaster to it/ }).click()
    await expect(page.locator('.mass')).toContainText('1143 g')
  },
)
