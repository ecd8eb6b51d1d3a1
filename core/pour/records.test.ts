import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { massAtG, timeToFractionS } from '../drying'
import {
  batchesOf,
  bindsPlan,
  currentPlan,
  evaluatePlan,
  outlookFrom,
  keepPlan,
  undoTargets,
  type EventBody,
  type PlanV1,
  type PourEvent,
  type PourPlan,
} from '.'

const MIN = 60_000
const { mould } = testPlan()
const SEVEN_BOWLS = testPlan('pottery', {
  mould: { ...mould, cavityMl: 12_000 },
  batching: { split: { by: 'need' }, bowl: null, pourRateMlMin: 1500, scaleCapacityG: null },
})

describe('what was planned stays planned', () => {
  /** The same plan where the plaster sets 20 % faster: a better model, or another bag. */
  const faster = (plan: PourPlan): PourPlan => {
    const { properties } = plan.plaster
    return {
      ...plan,
      plaster: {
        ...plan.plaster,
        properties: { ...properties, halfHydrationMin: 0.8 * properties.halfHydrationMin },
      },
    }
  }
  it('though the models of today would cut it otherwise', () => {
    const kept = keepPlan(SEVEN_BOWLS)
    expect(batchesOf(faster(SEVEN_BOWLS)).batches.length).toBeGreaterThan(kept.kept.batches.length)
    const later = { ...kept, ...faster(SEVEN_BOWLS) }
    const weighed: EventBody = { type: 'weighed', what: 'water', massG: 900, batch: 1 }
    for (const plan of [kept, later]) {
      const facts = outlookFrom(plan, [eventAt(0, { type: 'mould_ready' }), eventAt(1, weighed)])
      expect(facts.batches).toHaveLength(kept.kept.batches.length)
      expect(facts.steps).toEqual(kept.kept.steps)
      expect(facts.planned).toEqual(outlookFrom(kept, []).planned)
    }
  })
  it('and the worksheet of a kept plan shows its bowls, not new ones', () => {
    const kept = keepPlan(SEVEN_BOWLS)
    const evaluation = evaluatePlan({ ...kept, ...faster(SEVEN_BOWLS) })
    expect(evaluation.ok && evaluation.outcome.batching.batches).toEqual(kept.kept.batches)
  })
})

describe('plans of version 1, as they were saved with the bowls its models made of them', () => {
  const samples = JSON.parse(
    readFileSync(new URL('../../tests/fixtures/plans.v1.json', import.meta.url), 'utf8'),
  ) as { plan: PlanV1; bowls: { waterG: number; powderG: number; fillerG: number }[]; steps: string[] }[]
  it.each(samples)('$plan.piece', ({ plan, bowls, steps }) => {
    const current = currentPlan(plan)
    expect(current).toMatchObject({
      schemaVersion: 2,
      piece: plan.piece,
      kept: { modelVersion: 1, batches: bowls },
    })
    expect(current.kept.steps.map((s) => `${s.id} ${s.batch}`)).toEqual(steps)
    expect(outlookFrom(current, []).step).toBe('prepare')
    // Read again it is what it was read as.
    expect(currentPlan(current)).toEqual(current)
  })
})

describe('events name the plan they were recorded against', () => {
  const of = (planRevision: number, atMin: number, body: EventBody): PourEvent => ({
    ...eventAt(atMin * MIN, body),
    planRevision,
  })
  const water: EventBody = { type: 'weighed', what: 'water', massG: 700 }
  it('what was weighed for an earlier one is set apart until somebody says that it holds', () => {
    const events = [of(1, 0, { type: 'mould_ready' }), of(1, 1, water)]
    expect(fold(testPlan(), events, 1).step).toBe('weigh_powder')
    const changed = fold(testPlan(), events, 2)
    // A mould made ready is ready for any plan.
    expect(changed.step).toBe('weigh_water')
    expect(changed.inHand.inBowl.waterG).toBeUndefined()
    expect(changed.stale).toEqual([events[1]])
    const held = of(2, 2, { type: 'plan_holds', revision: 1 })
    const settled = fold(testPlan(), [...events, held], 2)
    expect(settled.stale).toEqual([])
    expect(settled.step).toBe('weigh_powder')
    // Said of the second plan, it is not said of a third.
    expect(fold(testPlan(), [...events, held], 3).stale).toHaveLength(1)
  })
  it('and those that name none are of the plan that stands', () =>
    expect(fold(testPlan(), wholeRun(), 5).stale).toEqual([]))
  it('saying that it holds can be taken back like anything else', () => {
    const events = [of(1, 1, water), of(2, 2, { type: 'plan_holds', revision: 1 })]
    expect(undoTargets(fold(testPlan(), events, 2).live)).toEqual([events[1]!.id])
  })
  it('notes, temperatures and touches bind no plan', () => {
    expect(bindsPlan({ type: 'note', text: 'x' })).toBe(false)
    expect(bindsPlan({ type: 'temperature', place: 'slurry', tempC: 20 })).toBe(false)
    expect(bindsPlan(water)).toBe(true)
  })
})

it('a weighing that does not fit is marked, kept, and taken back by its own event', () => {
  const run = wholeRun().slice(0, 12)
  const slip = eventAt((91 + 2000) * MIN, { type: 'weighing', massG: 2400 })
  const facts = fold(testPlan(), [...run, slip])
  expect(facts.drying!.weighings.map((w) => w.doubtful)).toEqual([false, false, true])
  const undone = eventAt(1e9, { type: 'void', targetId: facts.drying!.weighings[2]!.eventId })
  expect(fold(testPlan(), [...run, slip, undone]).drying!.weighings).toHaveLength(2)
})

it('a piece first weighed a week after it came out folds and has a sane forecast', () => {
  const late = eventAt((91 + 7 * 1440) * MIN, { type: 'weighing', massG: 1120 })
  const { drying } = fold(testPlan(), [...wholeRun().slice(0, 10), late])
  const { forecast } = drying!
  expect(massAtG(forecast, 0).mid).toBeLessThan(2000)
  expect(forecast.dryMassG).toBeGreaterThan(900)
  expect(timeToFractionS(forecast, 0.05).high).toBeLessThan(60 * 86_400)
})
