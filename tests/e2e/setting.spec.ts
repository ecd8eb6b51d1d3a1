import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { probeStandIn } from '../../devices/standIns'
import type { MouldKind } from '../../core/mould'
import type { PourPlan } from '../../core/pour'
import { keepReadings, meetDevice, putDevice } from '../../server/services/devices'
import { testPlan } from '../unit/plans'
import { controlClock } from './controlledClock'
import { expect, go, own, storedEvents, test } from './fixtures'
import { asPlanned, sendPour, type Server, type Told } from './sentPour'

const MIN = 60_000

/** A pour that was poured so long ago, as a plan says it and with what has happened since, sent as a bench would. */
async function poured(
  page: Page,
  workshop: Server,
  plan: PourPlan,
  agoMin: number,
  more: Told[] = [],
  nowMs = Date.now(),
) {
  const zeroMs = nowMs - agoMin * MIN
  return { ...(await sendPour(page, workshop, plan, [...asPlanned(plan), ...more], zeroMs)), zeroMs }
}

const mouldOf = (kind: MouldKind, thicknessMm = 30): PourPlan['mould'] => ({
  ...testPlan().mould,
  kind,
  thicknessMm,
})

/** What each mould says of the way out, in part. */
const WAY_OUT: Partial<Record<MouldKind, RegExp>> = {
  silicone: /Peel back from the base/,
  waste_clay: /Peel the clay from the rim/,
  latex: /talc/,
  alginate: /between the fingers/,
  impression_tray: /warm water for seconds/,
  shell: /Dig the clay out/,
  ground: /Lift with both hands/,
}

/** Moulds that keep the heat, and moulds that lead it off: a thermometer is tried in one of each. */
const WITH_PROBE: Partial<Record<MouldKind, true>> = { silicone: true, ground: true }

own(
  'every mould at sixty times its pace: curve, chance, what to look at, the way out; a look and a thermometer sharpen it',
  async ({ page, open, workshop }) => {
    test.setTimeout(300_000)
    const { address } = workshop
    const probe = probeStandIn(workshop.devicePort, 'probe', 'Thermometer', 1, 20)
    // In the past, so that an hour can go by in half a minute without reaching the future.
    const clock = await controlClock(page, Date.now() - 20 * 60 * MIN)
    for (const [kind, way] of Object.entries(WAY_OUT) as [MouldKind, RegExp][])
      await test.step(kind, async () => {
        const plan = testPlan('hsgc', { piece: `A ${kind}`, mould: mouldOf(kind) })
        const { id, outlook } = await poured(page, workshop, plan, 6, [], clock.nowMs())
        await (page.url() === 'about:blank' ? open(page, `/pour/${id}`) : go(page, `/pour/${id}`))
        await expect(page.getByRole('heading', { level: 1 })).toHaveText('Leave it alone')
        await expect(page.getByTestId('ready')).toContainText('sure that it is hard enough')
        await expect(page.getByRole('img', { name: /Inside at most/ })).toBeVisible()
        await expect(page.getByRole('region', { name: 'Taking it out' })).toContainText(way)
        const wide = await page.locator('.range').first().textContent()

        // One look, found sooner than the bag says.
        await expect(page.getByTestId('look')).toBeVisible()
        await page.getByRole('button', { name: /^Gloss gone/ }).click()
        await expect(page.getByTestId('just-recorded')).toContainText('Gloss gone: just now')
        await expect(page.getByTestId('moved')).toContainText(
          /Gloss gone at \d+ min: \d+ % faster than the bag; out at/,
        )
        const byLook = await page.locator('.range').first().textContent()
        expect(byLook).not.toBe(wide)

        if (!(kind in WITH_PROBE)) return
        // The thermometer sits in a bucket that sets a good deal sooner than its class.
        const since = (clock.nowMs() - outlook.settingStartMs!) / 1000
        const putIn = (ageS: number) =>
          probe.act({
            do: 'into_plaster',
            channel: 1,
            classId: 'hsgc',
            consistency: 32,
            tempC: 20,
            ageS,
            pace: 0.7,
          })
        putIn(since)
        await expect
          .poll(async () => {
            const data = { channel: 't1', to: { pourId: id, batch: 0 } }
            return (await page.request.put(`${address}/api/devices/probe/use`, { data })).status()
          })
          .toBe(200)
        for (let step = 1; step <= 4; step++) {
          putIn(since + 120 * step)
          // Two minutes go by; it is silent for as long, and then says what it is now.
          await clock.pass(120)
          await expect(page.getByTestId('thermometer').locator('.figure')).toHaveText(/°C/)
        }
        await expect(page.locator('.range').first()).not.toHaveText(byLook!)
        await expect(page.getByTestId('moved')).toContainText(/faster than the bag/)
        await expect(page.getByTestId('thermometer').locator('.figure')).toHaveText(/°C/)
      })
    probe.stop()
  },
)

test('still dents at ninety minutes: not ready, out later, and what bag and mix have to answer for; a thermometer in °F counts for nothing until it is read as such', async ({
  page,
  open,
  workshop,
}) => {
  const plan = testPlan('pop', { piece: 'A slow one', mould: mouldOf('silicone', 25) })
  const dents: Told = [90, { type: 'touch', cue: 'thumbnail_no_dent', seen: false }]
  const { id, zeroMs } = await poured(page, workshop, plan, 90.1, [dents])
  await open(page, `/pour/${id}`)
  await expect(page.getByTestId('held')).toContainText('not out before')
  await expect(page.getByTestId('far-off')).toContainText('times as slow as the bag')
  const farOff = page.getByTestId('far-off')
  await expect(farOff).toContainText(/by what you saw, at .* by bag and mix/)
  await expect(page.getByTestId('contradicting')).toHaveCount(0)
  const sure = page.getByRole('meter', { name: 'Sure that it is hard enough now' })
  expect(Number(await sure.getAttribute('aria-valuenow'))).toBeLessThanOrEqual(33)
  // Mixed with melt water it would be less odd; of stone it would not be odd at all.
  await expect(farOff).toContainText('3.3 times')
  await farOff.getByRole('button', { name: 'How warm it was' }).click()
  await page.getByLabel('The mix, while it was poured').fill('4 °C')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(farOff).toContainText('2.6 times')
  await farOff.getByRole('button', { name: 'Another plaster' }).click()
  await page.getByRole('button', { name: 'Dental stone' }).first().click()
  await expect(farOff).toHaveCount(0)

  // Read off and typed in every three minutes, in the wrong unit.
  const { id: other, zeroMs: otherZeroMs } = await poured(page, workshop, plan, 30, [
    ...[6, 9, 12, 15, 18, 21, 24, 27].map((min): Told => {
      const tempC = 32 + 1.8 * (21 + 0.7 * Math.max(0, min - 12))
      return [min, { type: 'temperature', place: 'slurry', tempC }]
    }),
  ])
  await go(page, `/pour/${other}`)
  const doubt = page.getByTestId('probe-doubt')
  await expect(doubt).toContainText('What was typed seems to speak °F')
  await expect(farOff).toHaveCount(0)
  await expect(page.getByTestId('moved')).toHaveCount(0)
  await doubt.getByRole('button', { name: 'It was °F' }).click()
  await expect(doubt).toHaveCount(0)
  await expect(page.getByTestId('moved')).toContainText('By the thermometer')
  expect(zeroMs).toBeLessThan(Date.now())

  // One on a line that lies beside the piece, as it says when it is asked.
  const beside = (minutes: number[]) =>
    keepReadings(
      workshop.db,
      minutes.map((min) => ({
        device: 'beside',
        channel: 't1',
        atMs: otherZeroMs + min * MIN,
        value: 18 + 0.2 * (min % 2),
        stable: true,
      })),
    )
  await meetDevice(workshop.db, 'beside', 'Shed thermometer')
  await putDevice(workshop.db, 'beside', 't1', { pourId: other, batch: 0 })
  await beside(Array.from({ length: 25 }, (_, i) => 5 + i))
  await open(page, `/pour/${other}`)
  await expect(doubt).toContainText('Shed thermometer, 1,')
  await doubt.getByRole('button', { name: 'It is in the air' }).click()
  await expect(doubt).toHaveCount(0)
  await expect(page.getByTestId('moved')).toContainText('By the thermometer')
  const told = async () =>
    (await storedEvents(workshop, other)).filter((e) => e.type === 'thermometer_told').map((e) => e.body)
  await expect.poll(told).toMatchObject([{ device: 'beside', channel: 't1', is: 'in_air' }])
})

test('the set screen by keyboard: a look answered, a curve moved along, what if dragged, files out and in', async ({
  page,
  open,
  workshop,
}) => {
  const { id } = await poured(page, workshop, testPlan('gc', { mould: mouldOf('rigid_plastic', 40) }), 14)
  await open(page, `/pour/${id}`)
  const look = page.getByTestId('look')
  await expect(look).toBeVisible()
  await look.getByRole('button', { name: 'Not yet' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('moved')).toContainText('not yet')
  await expect
    .poll(async () => (await storedEvents(workshop, id)).at(-1)!.body)
    .toMatchObject({ type: 'touch', seen: false })

  const chart = page.getByRole('group', { name: /Chart; arrow keys/ })
  await chart.focus()
  await page.keyboard.press('+')
  await expect(page.getByRole('button', { name: 'Further' })).toBeEnabled()
  // Twice: the whole may have grown meanwhile.
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  await expect(page.getByRole('button', { name: 'Further' })).toBeDisabled()
  // The same figures for who cannot see it.
  await page.getByRole('button', { name: 'Table', exact: true }).click()
  await expect(page.getByRole('cell', { name: /^20$/ })).toBeVisible()
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  // One button for every way of taking it out.
  const save = async (as: RegExp) => {
    await page.getByRole('button', { name: 'Save the setting curve' }).click()
    await page.getByRole('menuitem', { name: as }).click()
  }

  const [file] = await Promise.all([page.waitForEvent('download'), save(/CSV/)])
  expect(file.suggestedFilename()).toMatch(/-setting\.csv$/)
  const csv = readFileSync(await file.path(), 'utf8')
  expect(csv).toMatch(/^minutes,inside_c,inside_low_c,inside_high_c,surface_c,set_pct,measured_c\n/)
  const [drawing] = await Promise.all([page.waitForEvent('download'), save(/SVG/)])
  // Letters and lines, not a picture of them.
  const svg = readFileSync(await drawing.path(), 'utf8')
  expect(svg).toMatch(/^<svg /)
  expect(svg).toContain('>Minutes since powder met water</text>')
  // Inside and surface, as lines of their own.
  expect(svg.match(/<path fill="none"[^>]* stroke-width="3"/g)?.length).toBe(2)
  const [picture] = await Promise.all([page.waitForEvent('download'), save(/PNG/)])
  expect(
    readFileSync(await picture.path())
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG')

  await page.getByRole('button', { name: 'What if' }).click()
  await expect(page.getByTestId('what-if')).toContainText('Drag one')
  await page.getByLabel(/^Water \d/).fill('5')
  await expect(page.getByTestId('what-if')).toContainText(/Out \d+ min later/)
  await page.getByRole('button', { name: 'Close', exact: true }).click()

  // What was just written is a logger's file like any other; one in °F with a clock is found out as well.
  await page.getByRole('button', { name: 'Logger', exact: true }).click()
  const rows = [
    'time (s);core °F',
    ...Array.from({ length: 12 }, (_, i) => `${i * 60};${(68 + 3 * i).toFixed(1).replace('.', ',')}`),
  ]
  await page
    .getByLabel('Logger’s file', { exact: true })
    .setInputFiles({ name: 'l.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) })
  await expect(page.getByTestId('logger-found')).toContainText('12 readings')
  await expect(page.getByTestId('logger-found')).toContainText('20 °C to at most 38 °C')
  await page.getByRole('button', { name: 'Take these readings' }).click()
  await expect(page.getByText('Taken: the forecast goes by them, too.')).toBeVisible()
  const kept = () => workshop.db.selectFrom('reading').select('value').where('pour_id', '=', id).execute()
  expect(await kept()).toHaveLength(12)
  await page.getByRole('button', { name: 'Take them out again' }).click()
  await expect.poll(kept).toHaveLength(0)
})

test('on the wall the whole shed is read from afar, and its calendar goes out', async ({
  page,
  open,
  workshop,
}) => {
  const setting = await poured(page, workshop, testPlan('pottery', { piece: 'Ripple tile' }), 10)
  await poured(page, workshop, testPlan('pop', { piece: 'Tide clock' }), 95)
  await page.setViewportSize({ width: 1920, height: 1080 })
  await open(page, '/wall')
  await expect(page.getByText('Tide clock')).toBeVisible()
  const time = page.locator('.time').first()
  // Seen from 4 m, a letter of 20 mm on a common screen of 0.28 mm a dot.
  expect(await time.evaluate((el) => parseFloat(getComputedStyle(el).fontSize))).toBeGreaterThan(70)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Calendar file' }).click(),
  ])
  const text = readFileSync(await file.path(), 'utf8')
  expect(text).toContain(`UID:${setting.id}-demould@nine-ripples`)
  expect(text).toContain('SUMMARY:Ripple tile: Take it out')
})
