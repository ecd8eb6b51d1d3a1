import { describe, expect, it } from 'vitest'
import { testPlan } from '../../../../tests/unit/plans'
import { evaluatePlan, remediesFor, type PourPlan, type Remedy, type RemedyId } from '../..'

function remediesOf(plan: PourPlan): Remedy[] {
  const evaluation = evaluatePlan(plan)
  if (!evaluation.ok) throw new Error(JSON.stringify(evaluation.issues))
  return remediesFor(plan, evaluation.outcome)
}
const hasty = (change: Partial<PourPlan> = {}) =>
  testPlan('dental3', { waterTempC: 22, powderTempC: 22, soakS: 180, stirS: 240, ...change })
const byId = (plan: PourPlan, id: RemedyId) => remediesOf(plan).find((r) => r.change.id === id)

describe('where soak, stirring and pouring do not fit the working time', () => {
  it('says so in the plan, by the early end of the time', () => {
    const { issues } = evaluatePlan(hasty())
    expect(issues).toContainEqual(
      expect.objectContaining({ code: 'working_time_shorter_than_steps', limit: 60, unit: 's' }),
    )
  })
  it('offers what would help, each with what it gains and costs', () => {
    const found = remediesOf(hasty())
    expect(found.map((r) => r.change.id)).toEqual(
      expect.arrayContaining(['colder_water', 'shorter_stir', 'shorter_soak', 'thinner', 'retarder']),
    )
    for (const { pourS } of found) expect(pourS.to).toBeGreaterThan(pourS.from)
    // What it costs: later out of the mould, weaker when dry, lumps.
    // Above some 30 °C its own heat holds a warm mix back, and colder water would cost nothing.
    const box = testPlan('pottery', { waterTempC: 28, powderTempC: 22, stirS: 480 })
    const colder = byId(box, 'colder_water')!
    expect(colder.demouldS.to).toBeGreaterThan(colder.demouldS.from)
    expect(byId(hasty(), 'thinner')!.dryMPa.to).toBeLessThan(byId(hasty(), 'thinner')!.dryMPa.from)
    expect(byId(hasty(), 'shorter_stir')!.lumps).toBe(true)
    // A tenth more water, to a whole part.
    const thinner = byId(hasty(), 'thinner')!.change
    expect(thinner).toEqual({ id: 'thinner', consistency: Math.round(hasty().consistency * 1.1) })
  })
  it('counts what the bowl takes to pour, so that smaller bowls and more hands can be the answer', () => {
    const large = testPlan('pottery', {
      mould: { ...testPlan().mould, cavityMl: 14_000 },
      batching: { split: { by: 'bowls', count: 2 }, bowl: null, pourRateMlMin: 900, scaleCapacityG: null },
    })
    // Cut by the clock, every bowl fits it: nothing to mend.
    expect(remediesOf(large)).toEqual([])
    const bags: PourPlan = {
      ...large,
      batching: { ...large.batching!, split: { by: 'casts', castsPerBag: 1 } },
    }
    const { issues } = evaluatePlan(bags)
    expect(issues.map((i) => i.code)).toEqual(
      expect.arrayContaining(['bag_outlasts_working_time', 'working_time_shorter_than_steps']),
    )
    expect(byId(bags, 'more_hands')!.pourS.to).toBeGreaterThan(byId(bags, 'more_hands')!.pourS.from)
  })
  it('offers nothing where the time is enough', () => expect(remediesOf(testPlan('pottery'))).toEqual([]))
  it('and never more stirring, more people than six, or the same retarder twice', () => {
    const plan = hasty({ hands: 6 })
    expect(byId(plan, 'more_hands')).toBeUndefined()
    const retarded: PourPlan = {
      ...plan,
      plaster: { ...plan.plaster, additions: [{ id: 'borax', pct: 0.5 }] },
    }
    expect(byId(retarded, 'retarder')).toBeUndefined()
    for (const { change } of remediesOf(plan))
      if (change.id === 'shorter_stir') expect(change.stirS).toBe(120)
  })
})
