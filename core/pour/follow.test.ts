import { expect, it } from 'vitest'
import { eventAt, fold, testPlan, tilesPlan } from '../../tests/unit/plans'
import { asksWhatFollows, followWays, followsWaterBy, type EventBody, type PourPlan } from '.'

const plan = testPlan()
const after = (of: PourPlan, ...bodies: EventBody[]) =>
  fold(
    of,
    bodies.map((body, i) => eventAt(i, body)),
  )
const plannedG = after(plan).planned.waterG
const water = (share: number): EventBody => ({ type: 'weighed', what: 'water', massG: plannedG * share })

it('plaster follows a few grams of water by itself; far more or less is asked about, each way with what it comes to', () => {
  expect(asksWhatFollows(after(plan, water(1.02)).inHand)).toBe(false)
  expect(followsWaterBy(after(plan, water(1.02)).inHand)).toBeCloseTo(1.02, 5)
  const over = after(plan, water(1.5))
  expect(asksWhatFollows(over.inHand)).toBe(true)
  // Until it is answered nothing follows.
  expect(followsWaterBy(over.inHand)).toBe(1)
  const [out, follow, stay] = followWays(over).ways
  expect(out).toMatchObject({ way: 'water', how: 'water_out' })
  expect(out).toHaveProperty('massG', plannedG / 2)
  // Half as much again of both: what is over is the half, and the spare that was meant to be.
  const cavityMl = plan.mould.cavityMl
  expect(follow).toMatchObject({ way: 'follow' })
  expect((follow as { leftMl: number }).leftMl).toBeCloseTo(cavityMl * (1.1 * 1.5 - 1), -1)
  expect((follow as { powderG: number }).powderG).toBeCloseTo(over.planned.powderG * 1.5, 5)
  expect((stay as { consistency: number }).consistency).toBeCloseTo(plan.consistency * 1.5, 0)
})

it('too little is filled up; short of the mould is said as less than nothing over', () => {
  const [add, follow] = followWays(after(plan, water(0.5))).ways
  expect(add).toMatchObject({ way: 'water', how: 'water_in', body: { type: 'corrected', how: 'water_in' } })
  expect((follow as { leftMl: number }).leftMl).toBeLessThan(0)
})

it('answers are of the bowl in hand', () => {
  const two = tilesPlan(6, 3)
  const facts = after(
    two,
    { type: 'weighed', what: 'water', massG: 232 },
    { type: 'weighed', what: 'powder', massG: 332 },
  )
  expect(facts.batch).toBe(1)
  for (const { body } of followWays(facts).ways) expect(body).toMatchObject({ batch: 1 })
  for (const { body } of followWays(after(two)).ways) expect(body).not.toHaveProperty('batch')
})
