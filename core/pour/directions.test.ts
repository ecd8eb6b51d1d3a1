import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DIRECTIONS, brokenDirections } from '../../tests/support/directions'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { dryingCurve } from '../drying'
import { checkConsistency } from '../mix'
import { plasterProperties, type PlasterClassId } from '../plaster'
import { SETTING_EVENTS, STIR_INTENSITY, isothermalSetting, type StirManner } from '../setting'
import { batchesOf, evaluatePlan, type PlanOutcome, type PourPlan } from '.'

/**
 * Directions every caster knows (common practice, no source), whatever the figures are. What hangs on the piece's own
 * heat waits for the heat model.
 */
const MIN = 60_000

function outcomeOf(plan: PourPlan): PlanOutcome {
  const evaluation = evaluatePlan(plan)
  if (!evaluation.ok) throw new Error(JSON.stringify(evaluation.issues))
  return evaluation.outcome
}
const setting = (change: Partial<Parameters<typeof isothermalSetting>[0]> = {}) =>
  isothermalSetting({
    plaster: plasterProperties('pop'),
    consistency: 60,
    mixTempC: 20,
    stirS: 120,
    stirManner: 'hand',
    restS: 100,
    ratioSigmaLn: 0.02,
    ...change,
  }).timeS

// `npm run science` takes more draws of each.
it.each(Object.keys(DIRECTIONS))('direction %s', (direction) => {
  expect(brokenDirections(20, 31, [direction])).toEqual([{ direction, broken: 0 }])
})

describe('no forecast where water freezes, steams or is not enough', () => {
  it.each([
    ['the ground below 0 °C', { mouldTempC: -1 }, 'mould_freezing', 'mouldTempC'],
    ['the air below 0 °C', { air: { tempC: -0.5, rhPct: 60, speedMS: 0.1 } }, 'air_freezing', 'air.tempC'],
    ['a mix below 0 °C', { waterTempC: 0.5, powderTempC: -20 }, 'mix_freezing', 'waterTempC'],
    [
      'drying air over 50 °C',
      { air: { tempC: 50.1, rhPct: 20, speedMS: 1 } },
      'air_beyond_drying',
      'air.tempC',
    ],
    ['mix water over 45 °C', { waterTempC: 45.1 }, 'water_too_hot', 'waterTempC'],
    [
      'air that takes no water up',
      { air: { tempC: 15, rhPct: 97, speedMS: 0.1 } },
      'air_too_damp',
      'air.rhPct',
    ],
  ] as const)('%s', (_, change, code, path) =>
    expect(evaluatePlan(testPlan('pottery', change))).toMatchObject({
      ok: false,
      issues: [{ code, path, severity: 'error' }],
    }),
  )
  it('water that could not turn all of the powder, at the very limit too', () => {
    const limit = 100 * (27.02 / 145.15) * plasterProperties('hsgc').hemihydrateFraction
    expect(checkConsistency(limit, plasterProperties('hsgc'))).toMatchObject([{ severity: 'error' }])
    expect(evaluatePlan(testPlan('hsgc', { consistency: limit }))).toMatchObject({
      ok: false,
      issues: [{ code: 'consistency_below_chemical_minimum' }],
    })
  })
  it('is computed and flagged at the edge of what was tested', () => {
    const codes = (classId: PlasterClassId, change: Partial<PourPlan>) =>
      evaluatePlan(testPlan(classId, change)).issues.map((i) => `${i.code} ${i.severity}`)
    expect(codes('pottery', { air: { tempC: 47, rhPct: 20, speedMS: 1 } })).toContain('air_too_hot warning')
    expect(codes('pottery', { waterTempC: 1, powderTempC: 0 })).toContain('mix_too_cold warning')
    expect(codes('pottery', { waterTempC: 45, powderTempC: 45 })).toContain('mix_too_warm warning')
    expect(codes('gc', { consistency: 30 })).toContain('consistency_outside_tested warning')
    expect(codes('gc', { consistency: 73 })).toContain('consistency_outside_tested warning')
    expect(codes('gc', { consistency: 65 })).toContain('consistency_above_class_range warning')
    const { mould } = testPlan()
    for (const thicknessMm of [2, 210])
      expect(codes('pottery', { mould: { ...mould, thicknessMm } })).toContain(
        'thickness_outside_tested warning',
      )
  })
})

it('longer or harder stirring is never slower to set', () => {
  const manners = Object.keys(STIR_INTENSITY) as StirManner[]
  fc.assert(
    fc.property(
      fc.constantFrom(...manners),
      fc.double({ min: 10, max: 3000, noNaN: true }),
      fc.double({ min: 1, max: 3, noNaN: true }),
      (stirManner, stirS, longer) => {
        const before = setting({ stirManner, stirS })
        const harder = manners[Math.min(3, manners.indexOf(stirManner) + 1)]!
        for (const event of SETTING_EVENTS) {
          expect(setting({ stirManner, stirS: stirS * longer })[event].mid).toBeLessThanOrEqual(
            before[event].mid,
          )
          expect(setting({ stirManner: harder, stirS })[event].mid).toBeLessThanOrEqual(before[event].mid)
        }
      },
    ),
  )
})

it('a temperature read after the working time moves no start, and one of another bowl moves not this one', () => {
  const run = wholeRun().slice(0, 9)
  const untouched = fold(testPlan(), run)
  const read = (atMin: number, tempC: number, of: { batch?: number } = {}) =>
    fold(testPlan(), [...run, eventAt(atMin * MIN, { type: 'temperature', place: 'slurry', tempC, ...of })])
  expect(read(9, 12).settingInput.mixTempC).toBe(12)
  // 38 °C forty minutes on is the piece warming: nothing moves.
  const late = read(40, 38)
  expect(late.settingInput).toEqual(untouched.settingInput)
  expect(late.demould).toEqual(untouched.demould)
  // Of a slurry already, though its clock starts at the middle of the sprinkling.
  const [metMs, midMs] = [untouched.doneAtMs.start_sift!, untouched.settingStartMs!]
  expect(midMs).toBeGreaterThan(metMs)
  expect(read((metMs + midMs) / 2 / MIN, 12).settingInput.mixTempC).toBe(12)
  // Before the powder was in, it was the water's.
  expect(read(4, 38).settingInput).toEqual(untouched.settingInput)
  expect(read(9, 12, { batch: 1 }).settingInput).toEqual(untouched.settingInput)
})

it('scaling a job scales its masses exactly and moves no time but sifting and heat', () => {
  const base = testPlan('pottery', { scaleDivisionG: 0.01, sparePct: 0 })
  const at = (k: number) => outcomeOf({ ...base, mould: { ...base.mould, cavityMl: 500 * k } })
  const [one, four] = [at(1), at(4)]
  expect(four.weighOut.powderG / one.weighOut.powderG).toBeCloseTo(4, 3)
  expect(four.weighOut.waterG / one.weighOut.waterG).toBeCloseTo(4, 3)
  expect(four.dryMassG / one.dryMassG).toBeCloseTo(4, 9)
  expect(four.dryS).toEqual(one.dryS)
  // The soak runs at half speed: half of what longer sifting adds before stirring is the difference, but for the
  // little that it warms sooner in the mould.
  const laterS = four.setting.timeS.final_set.mid - one.setting.timeS.final_set.mid
  expect(Math.abs(laterS - (four.siftS - one.siftS) / 4)).toBeLessThan(1)
})

it('the sea’s salt stays in the piece: heavier slurry, heavier dry', () => {
  const salty = testPlan('pop', {})
  const { plaster } = salty
  const withSalt = { gPerPowder: 0, mlPerPowder: 0, gPerWater: 0.035, mlPerWater: 0.035 / 2.165 }
  const sea = {
    ...salty,
    plaster: { ...plaster, properties: { ...plaster.properties, dissolved: withSalt } },
  }
  const [fresh, salt] = [outcomeOf(salty).mix, outcomeOf(sea).mix]
  // 3.5 % of the water, .6 g for each g of powder: 21 mg of salt.
  expect(salt.dryMassPerPowder - fresh.dryMassPerPowder).toBeCloseTo(0.021, 9)
  expect(salt.slurryMlPerG - fresh.slurryMlPerG).toBeCloseTo(0.021 / 2.165 / 0.99, 6)
  expect(salt.slurryDensityKgM3).toBeGreaterThan(fresh.slurryDensityKgM3)
})

it('a setting event never falls after a later one, however thin the mix', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.6, max: 3, noNaN: true }),
      fc.double({ min: 0, max: 45, noNaN: true }),
      (of, mixTempC) => {
        const times = setting({ consistency: 60 * of, mixTempC })
        for (const [i, event] of SETTING_EVENTS.slice(1).entries()) {
          const before = times[SETTING_EVENTS[i]!]
          for (const end of ['low', 'mid', 'high'] as const)
            expect(before[end]).toBeLessThan(times[event][end])
        }
      },
    ),
  )
})

it('a slab dries no sooner on the bench than the curve of its whole thickness', () => {
  const curve = dryingCurve({ freeWaterKgM3: 478, depthMm: 25, air: testPlan().air, speedFactor: 1 })
  expect(curve.criticalFraction).toBeCloseTo(0.22, 9)
})

it('every bowl is poured within its own working time, its own powder sifted, soaked and stirred', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1000, max: 40_000, noNaN: true }),
      fc.constantFrom(800, 2000, 5000),
      fc.integer({ min: 1, max: 3 }),
      (cavityMl, pourRateMlMin, hands) => {
        const base = testPlan('pottery', { hands })
        const plan: PourPlan = {
          ...base,
          mould: { ...base.mould, cavityMl },
          batching: { split: { by: 'need' }, bowl: null, pourRateMlMin, scaleCapacityG: null },
        }
        const { batches, largestMl } = batchesOf(plan)
        for (const { slurryMl, powderG } of batches) {
          const siftS = Math.max(40, (powderG * 0.06) / hands)
          const work = isothermalSetting({
            plaster: plan.plaster.properties,
            consistency: plan.consistency,
            mixTempC: 20,
            stirS: plan.stirS,
            stirManner: 'hand',
            restS: siftS / 2 + plan.soakS,
            ratioSigmaLn: 0.02,
          }).timeS.work_end.low
          const pourS = slurryMl / ((pourRateMlMin * hands) / 60)
          expect(siftS / 2 + plan.soakS + plan.stirS + pourS).toBeLessThan(0.75 * work + 2)
        }
        // And no bowl more than that takes.
        if (batches.length > 1) expect((batches.length - 1) * largestMl).toBeLessThan(cavityMl * 1.1 * 1.02)
      },
    ),
    { numRuns: 200 },
  )
})
