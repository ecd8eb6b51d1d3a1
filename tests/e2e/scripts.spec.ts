import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { BENCH_SCALE } from '../../devices/scaleModel'
import { buttonStandIn, probeStandIn, scaleStandIn, type StandIn } from '../../devices/standIns'
import { stepTitle } from '../../app/parts/words/stepTitles'
import { plasterProperties } from '../../core/plaster'
import { FILLING_WAYS, outlookFrom, keepPlan, type PourPlan } from '../../core/pour'
import { getReadable } from '../../server/services/pours/pourRecords'
import { testPlan } from '../unit/plans'
import { expect, own, storedEvents } from './fixtures'

const standIns: StandIn[] = []
own.afterAll(() => standIns.splice(0).forEach((s) => s.stop()))
function standIn<T extends StandIn>(made: T): T {
  standIns.push(made)
  return made
}
const head = (page: Page) => page.getByRole('heading', { level: 1 })
const gauge = (page: Page) => page.getByTestId('gauge')

const inLayers: PourPlan['batching'] = {
  split: { by: 'layers', layers: ['First', 'Second'].map((name) => ({ name, sharePct: 50 })) },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: null,
}
const LAYERED: (string | undefined)[] = ['slush', 'hand_built', 'reinforced', 'two_stage']
const small = (change: Partial<PourPlan>): PourPlan => {
  const plan = testPlan('pottery')
  const layers = LAYERED.includes(change.filling) ? { batching: inLayers } : {}
  return { ...plan, mould: { ...plan.mould, cavityMl: 300 }, ...layers, ...change }
}
const investment = plasterProperties('investment')
const SCHOOLS: Record<string, PourPlan> = {
  ...Object.fromEntries(FILLING_WAYS.map((filling) => [filling, small({ filling })])),
  'tipped in and slaked': small({
    addingWay: 'tipped_in',
    soakS: 180,
    plaster: { name: 'Shell mix', properties: investment },
    consistency: investment.useConsistency,
  }),
  'kneaded in a bag': small({ addingWay: 'kneaded' }),
  'with a step of one’s own': small({
    script: {
      order: [
        {
          own: {
            id: '0e000000-0000-4000-8000-000000000001',
            name: 'Wet the face',
            stage: 'mould',
            timeS: null,
            eachBowl: false,
          },
        },
      ],
      leftOut: ['soak', 'tap'],
    },
  }),
}

/** What a caster is led through; a school of which every step is another's as well is walked with that one. */
const stepsOf = (plan: PourPlan) => outlookFrom(keepPlan(plan), []).steps.map((s) => stepTitle(s, plan))
const WALKED = Object.entries(SCHOOLS).filter(([school, plan]) => {
  const these = new Set(stepsOf(plan))
  return !Object.entries(SCHOOLS).some(([other, its]) => {
    const theirs = new Set(stepsOf(its))
    return other !== school && theirs.size > these.size && [...these].every((step) => theirs.has(step))
  })
})

/** Benches beside each other, each with a browser and devices of its own: most of a weighing is waiting for a scale to rest. */
const BENCHES = 3

own(
  'every school from the mould to the setting piece by scale, button and thermometer alone',
  async ({ browser, open, workshop }) => {
    const { address } = workshop
    const waiting = [...WALKED]

    async function work(bench: number) {
      const context = await browser.newContext()
      const page = await context.newPage()
      const [scaleId, buttonId, probeId] = [`scale-${bench}`, `elbow-${bench}`, `probe-${bench}`]
      const who = `Elbow button ${bench}`
      const scale = standIn(
        // Quick to come to rest: sixty weighings are waited for.
        scaleStandIn(workshop.devicePort, scaleId, `Bench scale ${bench}`, { ...BENCH_SCALE, settleS: 0.2 }),
      )
      const button = standIn(buttonStandIn(workshop.devicePort, buttonId, who))
      const probe = standIn(probeStandIn(workshop.devicePort, probeId, `Thermometer ${bench}`, 1, 20))
      const put = async (device: string, channel: string, pourId: string) => {
        const to = { pourId, batch: 0 }
        await expect
          .poll(async () =>
            (
              await page.request.put(`${address}/api/devices/${device}/use`, { data: { channel, to } })
            ).status(),
          )
          .toBe(200)
      }
      const press = () => button.act({ do: 'press' })
      let bowlG = 236
      async function weigh(massG: number) {
        scale.act({ do: 'clear' })
        // Another bowl than the last: it stands at nothing once it was zeroed with this one, and not before.
        bowlG = bowlG === 236 ? 251 : 236
        scale.act({ do: 'add', massG: bowlG })
        await expect(gauge(page)).toContainText('stand the bowl on it, then zero')
        press()
        await expect(gauge(page)).toHaveText('Nothing in it yet')
        scale.act({ do: 'add', massG, overS: 0.2 })
        await expect(gauge(page)).toHaveText(/^Right/)
        press()
      }

      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const [school, plan] = next
        await own.step(school, async () => {
          const kept = keepPlan(plan)
          const { steps, batches } = outlookFrom(kept, [])
          const id = randomUUID()
          const made = await page.request.post(`${address}/api/pours`, { data: { id, plan: kept } })
          expect(made.ok()).toBe(true)
          await put(scaleId, 'mass', id)
          await put(buttonId, 'button', id)
          await put(probeId, 't1', id)
          // A press is heard once the window follows the stream and knows what is put where.
          const heard = ['/api/devices', '/api/changes'].map((path) =>
            page.waitForResponse((r) => new URL(r.url()).pathname === path && r.ok()),
          )
          await open(page, `/pour/${id}`)
          await Promise.all(heard)
          const handled = steps.filter((s) => s.id !== 'demould' && s.id !== 'dry')
          let waterOff = 1
          for (const step of handled) {
            await expect(head(page)).toHaveText(stepTitle(step, plan))
            const { planned } = batches[step.batch]!
            if (step.id === 'weigh_water') await weigh(planned.waterG)
            else if (step.id === 'weigh_powder' || step.id === 'weigh_filler') {
              const shown = await page.locator('.mass').textContent()
              const massG = Number(/([\d.]+)\s*g/.exec(shown ?? '')![1])
              waterOff = massG / (step.id === 'weigh_powder' ? planned.powderG : planned.fillerG)
              await weigh(massG)
            } else press()
            if (step.id === 'stir')
              probe.act({
                do: 'into_plaster',
                channel: 1,
                classId: plan.plaster.properties.classId,
                consistency: plan.consistency,
                tempC: 22,
              })
          }
          await expect(head(page)).toHaveText('Leave it alone')
          // What follows the water is off from the plan by no more than the scale and the hand are.
          expect(Math.abs(waterOff - 1)).toBeLessThan(0.03)

          // It counts on screen before it is sent.
          await expect.poll(async () => (await storedEvents(workshop, id)).length).toBe(handled.length)
          const events = await storedEvents(workshop, id)
          const { plan: stored, events: told } = await getReadable(workshop.db, id)
          const facts = outlookFrom(stored, told)
          expect(facts.step).toBe('demould')
          expect(facts.stepsDone.filter(Boolean)).toHaveLength(handled.length)
          // All of it was pressed, and every mass came off the scale.
          expect(new Set(events.filter((e) => e.type !== 'mould_ready').map((e) => e.who))).toEqual(
            new Set([who]),
          )
          for (const e of events.filter((e) => e.type === 'weighed'))
            expect(e.body).toMatchObject({ reading: { device: scaleId, channel: 'mass' } })
          // The thermometer in the piece is read along.
          await expect
            .poll(async () => {
              const rows = await workshop.db
                .selectFrom('reading')
                .select('value')
                .where('pour_id', '=', id)
                .where('channel', '=', 't1')
                .execute()
              return Math.max(0, ...rows.map((r) => r.value))
            })
            .toBeGreaterThan(19)
        })
      }
      await context.close()
    }

    await Promise.all(Array.from({ length: BENCHES }, (_, bench) => work(bench)))
  },
)
