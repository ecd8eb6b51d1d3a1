import { createPinia, setActivePinia } from 'pinia'
import { expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { foldPour, keepPlan, type PourEvent } from '#core/pour'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { BENCH, benchOf } from './bench'
import { useForecasts } from './forecasts'

const MIN = 60_000
const kept = keepPlan(testPlan())
const wet = wholeRun().filter((e) => e.occurredAtMs <= 12 * MIN)
const facts = (...more: PourEvent[]) => foldPour(kept, [...wet, ...more])

function forecasts() {
  const pinia = createPinia()
  const clock = { nowMs: () => 20 * MIN }
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(clock, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
  return useForecasts()
}
/** Until what was asked of the worker is there. */
const until = (holds: () => boolean) => vi.waitFor(() => expect(holds()).toBe(true), { timeout: 5000 })

it('the last good forecast stands until the next is there, and then it is sharper', async () => {
  const store = forecasts()
  const plain = facts()
  expect(store.outlook('p1', plain).learnt).toBeUndefined()
  await until(() => store.outlook('p1', plain).learnt !== undefined)
  const before = store.outlook('p1', plain)
  // Nobody has seen anything: the same figures, and what to look at.
  expect(before.learnt!.next).toBeDefined()

  const felt = facts(eventAt(19 * MIN, { type: 'touch', cue: 'gloss_gone', seen: true }))
  const meanwhile = store.outlook('p1', felt)
  expect(meanwhile.demould).toEqual(before.demould)
  expect(meanwhile.live).toHaveLength(felt.live.length)
  await until(() => store.outlook('p1', felt).demould.recommendedS !== before.demould.recommendedS)
  const after = store.outlook('p1', felt)
  expect(after.sigmaLn).toBeLessThan(before.sigmaLn)

  // A note teaches nothing: at once, and the same.
  const noted = facts(
    eventAt(19 * MIN, { type: 'touch', cue: 'gloss_gone', seen: true }),
    eventAt(20 * MIN, { type: 'note', text: 'x' }),
  )
  // Records are made with ids of their own: what was seen is the same only with the same event.
  const same = { ...noted, live: [...felt.live, noted.live.at(-1)!] }
  expect(store.outlook('p1', same).demould).toEqual(after.demould)
  expect(store.outlook('p1', same).live).toHaveLength(felt.live.length + 1)
})

it('a pour that somebody has felt already is shown as learnt at first sight', () => {
  const store = forecasts()
  const felt = facts(eventAt(17 * MIN, { type: 'touch', cue: 'gloss_gone', seen: true }))
  const first = store.outlook('p2', felt)
  expect(first.learnt!.moved!.cue!.cue).toBe('gloss_gone')
})

const BATH = { device: 'bath', channel: 't1', batch: 0 } as const

it('a thermometer’s readings count when they come, without a record of any kind', async () => {
  const store = forecasts()
  const plain = facts()
  store.outlook('p3', plain)
  await until(() => store.outlook('p3', plain).learnt !== undefined)
  const before = store.outlook('p3', plain)
  const readings = Array.from({ length: 10 }, (_, i) => ({ atMs: (12 + i) * MIN, tempC: null }))
  store.setProbes('p3', [{ ...BATH, readings }])
  store.outlook('p3', plain)
  await until(() => store.outlook('p3', plain).learnt!.probeFaults.length > 0)
  // A dead one is said, and moves nothing.
  expect(store.outlook('p3', plain).learnt!.probeFaults).toMatchObject([
    { fault: 'dead', knownBy: 'bath t1' },
  ])
  expect(store.outlook('p3', plain).demould.recommendedS).toBeCloseTo(before.demould.recommendedS, 0)
})

it('a window just opened says that it is still learning, until its thermometers were asked and learnt from', async () => {
  const store = forecasts()
  const plain = facts()
  expect(store.isLearning('p4', plain)).toBe(true)
  store.outlook('p4', plain)
  expect(store.isLearning('p4', plain)).toBe(true)
  const readings = Array.from({ length: 10 }, (_, i) => ({ atMs: (12 + i) * MIN, tempC: 20 + i }))
  store.setProbes('p4', [{ ...BATH, readings }])
  store.outlook('p4', plain)
  // As a screen does, which is drawn again with what has come.
  await until(() => {
    store.outlook('p4', plain)
    return !store.isLearning('p4', plain)
  })
  expect(store.outlook('p4', plain).learnt!.moved).toBeDefined()
  // What cannot be had keeps nobody waiting, and what is not poured has nothing to learn from.
  store.setUnheard('p5')
  expect(store.isLearning('p5', plain)).toBe(false)
  expect(store.isLearning('p6', fold(testPlan(), []))).toBe(false)
})

it('a window opened anew shows what this device keeps of a forecast, as long as it is of the same', async () => {
  const store = forecasts()
  const felt = facts(eventAt(17 * MIN, { type: 'touch', cue: 'gloss_gone', seen: true }))
  const before = store.outlook('p4', felt)
  await until(() => store.keptOf('p4') !== undefined)
  const kept = structuredClone(store.keptOf('p4')!)
  // Told apart from what would be worked out anew.
  kept.forecast.learnt!.pace.sigmaLn = 0.123

  const again = forecasts()
  again.fill([kept])
  const same = structuredClone(felt)
  expect(again.outlook('p4', same)).toMatchObject({ demould: before.demould, sigmaLn: 0.123 })
  const more = { ...same, live: [...same.live, eventAt(19 * MIN, { type: 'note', text: 'x' })] }
  const other = forecasts()
  other.fill([kept])
  expect(other.outlook('p4', more).sigmaLn).toBe(before.sigmaLn)
  // What only stands until the worker has answered is not kept: nobody would ask again.
  other.outlook('p5', same)
  const plain = facts()
  other.outlook('p6', plain)
  await Promise.resolve()
  expect([other.keptOf('p5')?.of, other.keptOf('p6')]).toEqual([kept.of, undefined])
  await until(() => other.outlook('p6', plain).learnt !== undefined)
  expect(other.keptOf('p6')).toBeDefined()
})
