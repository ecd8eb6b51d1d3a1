import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  ADDITIONS,
  ADDITION_IDS,
  PLASTER_CLASS_IDS,
  WATER_KINDS,
  blend,
  plasterProperties,
} from '../core/plaster'
import { evaluatePlan, keepPlan, refusalsOf, type PourPlan } from '../core/pour'
import { emptyDraft } from '../app/plan/draft/planDraft'
import { planOf } from '../app/plan/draft/toPlan'
import { TEST_SETTINGS, testPlan } from '../tests/unit/plans'
import { benchPlanSchema, planSchema, storedPlanSchema } from './plans'

/** A figure around the whole of what might be typed: inside its limits, at them, and far out. */
const around = (least: number, most: number) =>
  fc.oneof(
    { weight: 6, arbitrary: fc.double({ min: least, max: most, noNaN: true }) },
    fc.constantFrom(least, most),
    fc.double({ min: least - 0.3 * (most - least), max: most + 0.3 * (most - least), noNaN: true }),
  )
const mostly = <T>(usual: T, other: fc.Arbitrary<T>) =>
  fc.oneof({ weight: 3, arbitrary: fc.constant(usual) }, other)

const anyPlan: fc.Arbitrary<PourPlan> = fc
  .record({
    classId: fc.constantFrom(...PLASTER_CLASS_IDS),
    water: fc.constantFrom(...WATER_KINDS),
    additions: mostly(
      [] as { id: (typeof ADDITION_IDS)[number]; share: number }[],
      fc.uniqueArray(fc.record({ id: fc.constantFrom(...ADDITION_IDS), share: around(0, 1) }), {
        maxLength: 3,
        selector: (a) => a.id,
      }),
    ),
    thinner: around(0.6, 1.4),
    cavityMl: mostly(1000, around(1, 500_000)),
    thicknessMm: mostly(25, around(1, 500)),
    sparePct: mostly(10, around(0, 200)),
    waterTempC: mostly(16, around(0.5, 45)),
    powderTempC: mostly(18, around(-20, 50)),
    mouldTempC: mostly(18, around(-5, 60)),
    sun: fc.constantFrom(undefined, 'hazy' as const, 'full' as const),
    soakS: mostly(120, around(0, 3600)),
    stirS: mostly(120, around(10, 3600)),
    tempC: mostly(18, around(-5, 55)),
    rhPct: mostly(55, around(1, 99)),
    speedMS: mostly(0.1, around(0.02, 10)),
    scaleDivisionG: mostly(1, around(0.01, 1000)),
    hands: mostly(1, fc.integer({ min: 0, max: 8 })),
    pourRateMlMin: fc.constantFrom(null, 200, 5000),
    bowlMl: fc.constantFrom(null, 60, 900, 12_000),
    count: fc.constantFrom(undefined, 1, 7, 60, 61),
  })
  .map((p) => {
    const base = testPlan()
    const additions = p.additions.map(({ id, share }) => ({ id, pct: share * ADDITIONS[id].maxPct }))
    const properties = blend(plasterProperties(p.classId), additions, p.water)
    return {
      ...base,
      mould: { ...base.mould, cavityMl: p.cavityMl, thicknessMm: p.thicknessMm },
      plaster: { name: 'Any', properties, additions },
      consistency: properties.useConsistency * p.thinner,
      batching: {
        split: p.count === undefined ? { by: 'need' as const } : { by: 'bowls' as const, count: p.count },
        bowl: p.bowlMl === null ? null : { name: 'Bowl', volumeMl: p.bowlMl, tareG: 200 },
        pourRateMlMin: p.pourRateMlMin,
        scaleCapacityG: null,
      },
      hands: p.hands,
      water: p.water,
      sparePct: p.sparePct,
      waterTempC: p.waterTempC,
      powderTempC: p.powderTempC,
      mouldTempC: p.mouldTempC,
      ...(p.sun ? { sun: p.sun } : {}),
      soakS: p.soakS,
      stirS: p.stirS,
      air: { tempC: p.tempC, rhPct: p.rhPct, speedMS: p.speedMS },
      scaleDivisionG: p.scaleDivisionG,
    }
  })

describe('what the worksheet accepts the server accepts, and the reverse', () => {
  it('for any plan, and what is accepted has figures that can be', () => {
    let [accepted, refused] = [0, 0]
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const worksheet = evaluatePlan(plan)
        expect(benchPlanSchema.safeParse(plan).success).toBe(worksheet.ok)
        expect(planSchema.safeParse(plan).success).toBe(worksheet.ok)
        if (!worksheet.ok) {
          refused += 1
          return
        }
        accepted += 1
        const { outcome } = worksheet
        for (const figure of [
          outcome.dryS.high,
          outcome.demould.recommendedS,
          outcome.pourWindowS.low,
          outcome.weighOut.powderG,
          outcome.flow.tapping.tapS,
        ])
          expect(Number.isFinite(figure)).toBe(true)
        // Taken to the bench it can be read again.
        expect(
          storedPlanSchema.parse(JSON.parse(JSON.stringify(keepPlan(plan)))).kept.batches.length,
        ).toBeGreaterThan(0)
      }),
      { numRuns: 600 },
    )
    // The draws must try both.
    expect(accepted).toBeGreaterThan(80)
    expect(refused).toBeGreaterThan(80)
  })

  it('silica to three times the powder, hot powder, and what a draft comes to', () => {
    const silica = blend(plasterProperties('pop'), [{ id: 'silica', pct: 300 }])
    const base = testPlan('pop')
    const filled = {
      ...base,
      plaster: { ...base.plaster, properties: silica, additions: [{ id: 'silica' as const, pct: 300 }] },
      consistency: silica.useConsistency,
    }
    expect(evaluatePlan(filled).ok).toBe(true)
    expect(benchPlanSchema.safeParse(filled).success).toBe(true)
    const hot = benchPlanSchema.safeParse({ ...base, powderTempC: 95 })
    expect(hot.error?.issues).toMatchObject([{ path: ['powderTempC'], message: 'out_of_range' }])
    const stock = {
      plasters: [],
      bags: [],
      moulds: [],
      mouldSets: [],
      bowls: [],
      places: [],
      settings: TEST_SETTINGS,
    }
    const drafted = planOf(emptyDraft(TEST_SETTINGS), stock, 0)!
    expect(refusalsOf(drafted)).toEqual([])
    expect(benchPlanSchema.safeParse(drafted).success).toBe(true)
  })

  it('complaints name the field', () => {
    const { error } = benchPlanSchema.safeParse({
      ...testPlan(),
      air: { tempC: -3, rhPct: 99, speedMS: 0.1 },
    })
    expect(error!.issues.map((i) => `${i.path.join('.')} ${i.message}`)).toEqual([
      'air.tempC air_freezing',
      'air.rhPct air_too_damp',
    ])
  })
})
