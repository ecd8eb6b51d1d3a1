import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { eventAt, testPlan, tilesPlan, fold } from '../../tests/unit/plans'
import { usualFacts } from '../mould'
import {
  batchesOf,
  bowlByRecord,
  evaluatePlan,
  fixesFor,
  layerBelow,
  seamOf,
  undoTargets,
  viewPour,
  type EventBody,
  type PourEvent,
  type PourOutlook,
  type PourPlan,
} from '.'

const MIN = 60_000
const layered = testPlan('pottery', {
  batching: {
    split: {
      by: 'layers',
      layers: [
        { name: 'Face coat', sharePct: 25 },
        { name: 'Fill', sharePct: 75 },
      ],
    },
    bowl: null,
    pourRateMlMin: null,
    scaleCapacityG: null,
  },
})
/** Bodies a minute apart, from the first minute on. */
const told = (...bodies: EventBody[]): PourEvent[] => bodies.map((b, i) => eventAt((i + 1) * MIN, b))
const stepOf = (facts: PourOutlook) => `${facts.step} ${facts.batch}`

const WEIGHED: EventBody[] = [
  { type: 'mould_ready' },
  { type: 'weighed', what: 'water', massG: 177 },
  { type: 'weighed', what: 'powder', massG: 252 },
  { type: 'weighed', what: 'water', massG: 529, batch: 1 },
  { type: 'weighed', what: 'powder', massG: 757, batch: 1 },
]
const mixed = (batch: number): EventBody[] =>
  (
    [
      { type: 'sift_started' },
      { type: 'sifted' },
      { type: 'soaked' },
      { type: 'stirred', manner: 'hand' },
      { type: 'poured' },
    ] as EventBody[]
  ).map((b) => (batch > 0 ? ({ ...b, batch } as EventBody) : b))

describe('a pour of several bowls', () => {
  it('weighs all of them first, then mixes and pours one after the other', () => {
    const all = told(...WEIGHED, ...mixed(0), ...mixed(1), { type: 'tapped', batch: 1 })
    const seen = all.map((_, n) => stepOf(fold(layered, all.slice(0, n))))
    expect(seen).toEqual([
      'prepare 0',
      'weigh_water 0',
      'weigh_powder 0',
      'weigh_water 1',
      'weigh_powder 1',
      'start_sift 0',
      'sift 0',
      'soak 0',
      'stir 0',
      'pour 0',
      'start_sift 1',
      'sift 1',
      'soak 1',
      'stir 1',
      'pour 1',
      'tap 1',
    ])
    const facts = fold(layered, all)
    expect(facts.step).toBe('demould')
    expect(facts.actual).toMatchObject({ waterG: 706, powderG: 1009 })
    // The piece waits for the bowl that was mixed last.
    expect(facts.settingStartMs).toBe(11.5 * MIN)
  })

  it('waits with a layer until the one before it thickens', () => {
    const facts = fold(layered, told(...WEIGHED, ...mixed(0)))
    const { clock, urgency } = viewPour(facts, 11 * MIN)
    expect(clock?.id).toBe('layer_ready')
    expect(clock!.dueMs).toBeCloseTo(
      facts.batches[0]!.settingStartMs! + facts.batches[0]!.setting.timeS.work_end.mid * 1000,
      6,
    )
    expect(urgency).toBe('hands')
  })

  it('takes back a step of its own bowl only', () => {
    const all = told(...WEIGHED)
    expect(undoTargets(fold(layered, all).live)).toEqual([all[4]!.id])
  })

  it('is one where nothing cuts it, whatever older plans say of bowls', () => {
    expect(fold(testPlan(), []).batches).toHaveLength(1)
  })
})

describe('how the powder goes in decides the steps', () => {
  const ids = (change: Partial<PourPlan>) => fold(testPlan('pottery', change), []).steps.map((s) => s.id)
  it('tipped in at once, it is slaked but not sifted', () => {
    expect(ids({ addingWay: 'tipped_in' })).not.toContain('sift')
    expect(ids({ addingWay: 'tipped_in' })).toContain('soak')
  })
  it('kneaded in a bag, it is neither sifted nor soaked', () => {
    expect(ids({ addingWay: 'kneaded' })).toEqual([
      'prepare',
      'weigh_water',
      'weigh_powder',
      'start_sift',
      'stir',
      'pour',
      'tap',
      'demould',
      'dry',
    ])
  })
  it('and how much of the working time is left to pour', () => {
    const window = (addingWay: PourPlan['addingWay']) => {
      const evaluation = evaluatePlan(testPlan('pottery', { addingWay }))
      if (!evaluation.ok) throw new Error('plan refused')
      return evaluation.outcome.pourWindowS.mid
    }
    // A bag is not left to soak: two minutes, at half of the plaster's pace.
    expect(window('kneaded') - window('tipped_in')).toBeCloseTo(60, 0)
  })
  it('what dissolves goes into the water before the plaster is weighed', () => {
    const additions = [
      { id: 'salt', pct: 1 },
      { id: 'silica', pct: 50 },
    ] as const
    const salted = { ...testPlan().plaster, additions: [...additions] }
    salted.properties = { ...salted.properties, fillerRatio: 0.5, dryAddRatio: 0.5 }
    expect(ids({ plaster: salted }).slice(1, 6)).toEqual([
      'check_air',
      'weigh_water',
      'weigh_admix',
      'weigh_powder',
      'weigh_filler',
    ])
  })
})

const plan = testPlan()
const one = (...bodies: EventBody[]) => fold(plan, told(...bodies))
const weighedAs = (waterG: number, powderG: number): EventBody[] => [
  { type: 'mould_ready' },
  { type: 'weighed', what: 'water', massG: waterG },
  { type: 'weighed', what: 'powder', massG: powderG },
]

describe('putting it right', () => {
  it('too much water: sponge it out, or more plaster; the forecast follows either', () => {
    const wet = one(...weighedAs(800, 1000))
    const { fixes, may } = fixesFor(wet, bowlByRecord(wet), 5 * MIN)
    expect(may).toBe('freely')
    expect(fixes.map((f) => [f.how, Math.round(f.massG)])).toEqual([
      ['water_out', 100],
      ['powder_in', 143],
    ])
    const dried = one(...weighedAs(800, 1000), { type: 'corrected', how: 'water_out', massG: 100 })
    expect(dried.actual?.consistency).toBeCloseTo(70, 9)
    expect(dried.setting.timeS.final_set.mid).toBeLessThan(wet.setting.timeS.final_set.mid)
    expect(fixesFor(dried, bowlByRecord(dried), 6 * MIN).fixes).toEqual([])
  })

  it('plaster overshot: while it is apart it comes out again, once it is wet only water helps', () => {
    const apart = one(...weighedAs(700, 1100))
    expect(fixesFor(apart, bowlByRecord(apart), 5 * MIN).fixes.map((f) => f.how)).toEqual([
      'powder_out',
      'water_in',
    ])
    const wet = one(...weighedAs(700, 1100), { type: 'sift_started' }, { type: 'sifted' })
    const { fixes } = fixesFor(wet, bowlByRecord(wet), 6 * MIN)
    expect(fixes.map((f) => [f.how, Math.round(f.massG)])).toEqual([['water_in', 70]])
  })

  it('every fix, done, leaves nothing to be put right', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 400, max: 1200, noNaN: true }),
        fc.double({ min: 600, max: 1600, noNaN: true }),
        fc.nat(1),
        (waterG, powderG, which) => {
          const before = one(...weighedAs(waterG, powderG))
          const fix = fixesFor(before, bowlByRecord(before), 5 * MIN).fixes[which]
          if (!fix) return
          const after = one(...weighedAs(waterG, powderG), {
            type: 'corrected',
            how: fix.how,
            massG: fix.massG,
          })
          expect(after.actual?.consistency).toBeCloseTo(70, 6)
          expect(after.actual?.slurryMl).toBeCloseTo(fix.slurryMl, 6)
        },
      ),
    )
  })

  it('a later weighing replaces what was put right before it', () => {
    const facts = one(
      ...weighedAs(800, 1000),
      { type: 'corrected', how: 'water_out', massG: 100 },
      { type: 'weighed', what: 'water', massG: 690 },
    )
    expect(facts.inHand.inBowl.waterG).toBe(690)
  })

  it('never into a mix that has begun to set', () => {
    const stirred = one(
      ...weighedAs(800, 1000),
      { type: 'sift_started' },
      { type: 'sifted' },
      { type: 'soaked' },
      { type: 'stirred', manner: 'hand' },
    )
    const at = (min: number) => fixesFor(stirred, bowlByRecord(stirred), min * MIN)
    expect(at(7)).toMatchObject({ state: 'stirred_fresh', may: 'with_care', fixes: [{ how: 'powder_in' }] })
    expect(at(16)).toMatchObject({ state: 'thickening', may: 'never', fixes: [] })
    expect(at(60)).toMatchObject({ state: 'setting', may: 'never', fixes: [] })
  })

  it('a weighed slurry tells its consistency, and the forecast goes by that', () => {
    const all = [...weighedAs(706, 1009), ...mixed(0).slice(0, 4)]
    const before = one(...all)
    // Worked example: 1600 kg/m³ is 65.3 without air; with 1 % of air it reads about 3 lower.
    const after = one(...all, { type: 'slurry_checked', massG: 800, volumeMl: 500 })
    expect(after.actual!.consistency).toBeGreaterThan(60)
    expect(after.actual!.consistency).toBeLessThan(65.3)
    expect(after.setting.timeS.final_set.mid).toBeLessThan(before.setting.timeS.final_set.mid)
    // Putting it right goes on from there: as much water as is missing brings it to the plan.
    const [fix] = fixesFor(after, bowlByRecord(after), 7 * MIN).fixes
    const thinned = one(
      ...all,
      { type: 'slurry_checked', massG: 800, volumeMl: 500 },
      { type: 'corrected', how: 'water_in', massG: fix!.massG },
    )
    expect(thinned.actual!.consistency).toBeCloseTo(70, 6)
    const stiffer = one(
      ...all,
      { type: 'slurry_checked', massG: 780, volumeMl: 500 },
      { type: 'corrected', how: 'powder_in', massG: 100 },
    )
    const thin = one(...all, { type: 'slurry_checked', massG: 780, volumeMl: 500 })
    expect(stiffer.actual!.waterG).toBeCloseTo(thin.actual!.waterG, 9)
    expect(stiffer.actual!.powderG).toBe(1109)
    // Slurry that no mix of this plaster weighs changes nothing.
    const nonsense = one(...all, { type: 'slurry_checked', massG: 300, volumeMl: 500 })
    expect(nonsense.actual).toEqual(before.actual)
  })

  it('a mould that ran short gets another bowl, before the tapping or after it', () => {
    const poured = [...weighedAs(706, 1009), ...mixed(0)]
    const short: EventBody = { type: 'ran_short', missingMl: 200 }
    const early = one(...poured, short)
    expect(stepOf(early)).toBe('weigh_water 1')
    expect(early.batches[1]).toMatchObject({ topUp: true })
    expect(early.batches[1]!.planned.slurryMl / 220).toBeCloseTo(1, 2)
    const tailOf = (facts: PourOutlook) => facts.steps.slice(-4).map((s) => `${s.id} ${s.batch}`)
    expect(tailOf(early)).toEqual(['pour 1', 'tap 1', 'demould 0', 'dry 0'])
    // Tapped after that, it is the second bowl's tapping that is left out, not done twice.
    expect(one(...poured, short, { type: 'tapped' }).steps.filter((s) => s.id === 'tap')).toHaveLength(1)
    const late = one(...poured, { type: 'tapped' }, short)
    expect(stepOf(late)).toBe('weigh_water 1')
    expect(late.steps.filter((s) => s.id === 'tap')).toHaveLength(2)
    // Empty before it was full: that bowl is done without having been "full".
    expect(stepOf(one(...poured.slice(0, -1), short))).toBe('weigh_water 1')
    // Mixing the second bowl starts a clock of its own, and the piece waits for it.
    const weighed: EventBody[] = [
      { type: 'weighed', what: 'water', massG: 140, batch: 1 },
      { type: 'weighed', what: 'powder', massG: 202, batch: 1 },
    ]
    const again = one(...poured, short, ...weighed, ...mixed(1), { type: 'tapped', batch: 1 })
    expect(again.step).toBe('demould')
    expect(again.settingStartMs! - early.batches[0]!.settingStartMs!).toBe(8 * MIN)
    expect(again.actual?.powderG).toBe(1211)
  })

  it('tells how the second bowl holds on the first', () => {
    const poured = one(...weighedAs(706, 1009), ...mixed(0))
    expect(layerBelow(poured, 10 * MIN)).toBe('still_soft')
    expect(layerBelow(poured, 60 * MIN)).toBe('set_today')
  })

  it('what no plan could have is no temperature of its mix: 68 typed for 68 °F would lengthen its working time', () => {
    const all = [...weighedAs(706, 1009), ...mixed(0).slice(0, 3)]
    const read = (tempC: number) => one(...all, { type: 'temperature', place: 'slurry', tempC })
    const [plain, warm] = [one(...all), read(30)]
    expect(warm.settingInput.mixTempC).toBe(30)
    for (const tempC of [68, 45.1, 1.9, -5]) expect(read(tempC).settingInput).toEqual(plain.settingInput)
    expect(read(45).settingInput.mixTempC).toBe(45)
    expect(read(2).settingInput.mixTempC).toBe(2)
  })
  it('a checked slurry is better known than a scooped one', () => {
    const scooped = testPlan('pottery', { ratioMethod: 'by_volume' })
    const all = [...weighedAs(706, 1009), ...mixed(0).slice(0, 4)]
    const before = fold(scooped, told(...all))
    const after = fold(scooped, told(...all, { type: 'slurry_checked', massG: 790, volumeMl: 500 }))
    expect(after.setting.sigmaLn).toBeLessThan(before.setting.sigmaLn)
  })

  it('by volume, once the scale has failed, is less certain', () => {
    const spread = ({ setting }: PourOutlook) => setting.sigmaLn
    expect(spread(one({ type: 'mould_ready' }, { type: 'scale_failed' }))).toBeGreaterThan(spread(one()))
  })
})

it('a spoonful on a coarse scale is said, and does not break the forecast', () => {
  const base = testPlan('dental4', { consistency: 19.55 })
  const evaluation = evaluatePlan({ ...base, mould: { ...base.mould, cavityMl: 5.9 } })
  expect(evaluation.issues.map((i) => i.code)).toContain('scale_too_coarse')
  expect(evaluation.ok && evaluation.outcome.dryS.mid).toBeGreaterThan(0)
})

it('bags for casts are as many as the moulds make, cavities counted', () => {
  const member = {
    mouldId: null,
    name: 'Sheet of six',
    count: 2,
    cavityMl: 600,
    purpose: 'figure' as const,
    thinnestMm: null,
    facts: usualFacts('silicone'),
    volume: {
      parts: [
        {
          role: 'add' as const,
          count: 1,
          method: { by: 'known' as const, volumeMl: 50, plusMinusPct: 5 },
        },
      ],
      cavities: 6,
      check: null,
      trust: 'parts' as const,
    },
  }
  const base = testPlan('pottery', {
    batching: {
      split: { by: 'casts', castsPerBag: 2 },
      bowl: null,
      pourRateMlMin: null,
      scaleCapacityG: null,
    },
  })
  const plan = { ...base, mould: { ...base.mould, cavityMl: 600, members: [member] } }
  expect(batchesOf(plan).batches).toHaveLength(6)
})

it('no plan within its limits gives a figure that cannot be', () => {
  const split = fc.constantFrom<NonNullable<PourPlan['batching']>['split']>(
    { by: 'need' },
    { by: 'casts', castsPerBag: 2 },
    { by: 'whole_bags', bagPowderG: 700 },
    { by: 'layers', layers: [{ name: 'Only', sharePct: 40 }] },
  )
  const anyPlan = fc.record({
    classId: fc.constantFrom('pop', 'pottery', 'gc', 'hsgc', 'dental4', 'investment' as const),
    thinner: fc.double({ min: 0.85, max: 1.3, noNaN: true }),
    cavityMl: fc.double({ min: 5, max: 40_000, noNaN: true }),
    split,
    bowlMl: fc.constantFrom(null, 900, 12_000),
    pourRateMlMin: fc.constantFrom(null, 200, 4000),
    targetTempC: fc.constantFrom(null, 5, 22, 39),
    addingWay: fc.constantFrom('sifted', 'tipped_in', 'kneaded' as const),
    stirS: fc.constantFrom(30, 120, 900),
  })
  fc.assert(
    fc.property(anyPlan, (p) => {
      const base = testPlan(p.classId)
      const evaluation = evaluatePlan({
        ...base,
        mould: { ...base.mould, cavityMl: p.cavityMl },
        consistency: base.consistency * p.thinner,
        batching: {
          split: p.split,
          bowl: p.bowlMl === null ? null : { name: 'bowl', volumeMl: p.bowlMl, tareG: 100 },
          pourRateMlMin: p.pourRateMlMin,
          scaleCapacityG: 3000,
        },
        addingWay: p.addingWay,
        stirS: p.stirS,
        ...(p.targetTempC === null
          ? {}
          : { taps: { coldTempC: 8, hotTempC: 60, targetTempC: p.targetTempC } }),
      })
      if (!evaluation.ok) {
        expect(evaluation.issues.some((i) => i.severity === 'error')).toBe(true)
        return
      }
      const { batching, waterBlend, flow, becomes } = {
        becomes: evaluation.outcome,
        ...evaluation.outcome,
      }
      for (const b of batching.batches) {
        for (const massG of [b.waterG, b.powderG, b.fillerG, b.slurryMl])
          expect(Number.isFinite(massG) && massG >= 0).toBe(true)
        // Bags are weighed before anyone knows the bowl: one that is too small is said, not filled past its rim.
        const runsOver = p.bowlMl !== null && b.bowlFill === undefined
        if (b.bowlFill !== undefined) expect(b.bowlFill).toBeLessThanOrEqual(1)
        if (runsOver) expect(evaluation.issues.map((i) => i.code)).toContain('bowl_too_small')
      }
      if (waterBlend) {
        expect(waterBlend.waterTempC).toBeLessThanOrEqual(45)
        expect(Math.min(waterBlend.hotG, waterBlend.coldG)).toBeGreaterThanOrEqual(-1e-9)
      }
      expect(flow.tapping.tapS).toBeGreaterThanOrEqual(0)
      for (const figure of [becomes.dryMassG, becomes.strength.dry.mid, becomes.dryS.mid])
        expect(Number.isFinite(figure) && figure > 0).toBe(true)
    }),
  )
})

// Common practice, no source: water a third of the bucket; what stiffened before the rest came in shows a seam.
describe('a job that one bowl takes only against its rule', () => {
  const bucket = { name: 'Black bucket', volumeMl: 10_000, tareG: 500 }
  const job = (change: Partial<PourPlan> = {}, split: PourPlan['batching'] = undefined): PourPlan => {
    const plan = testPlan('pottery', change)
    return {
      ...plan,
      mould: { ...plan.mould, cavityMl: 5400 },
      batching: split ?? { split: { by: 'need' }, bowl: bucket, pourRateMlMin: null, scaleCapacityG: null },
    }
  }
  const toTheRim = (bowl = bucket): PourPlan['batching'] => ({
    split: { by: 'need', toTheRim: true },
    bowl,
    pourRateMlMin: null,
    scaleCapacityG: null,
  })
  const outcomeOf = (plan: PourPlan) => {
    const evaluation = evaluatePlan(plan)
    if (!evaluation.ok) throw new Error(JSON.stringify(evaluation.issues))
    return { ...evaluation.outcome, codes: evaluation.issues.map((i) => i.code) }
  }

  it('is two bowls by the rule, one against it, with what may happen said; past the rim it is cut all the same', () => {
    const byRule = outcomeOf(job())
    expect(byRule.batching).toMatchObject({ because: 'bowl', batches: { length: 2 } })
    expect(byRule.codes).not.toContain('bowl_too_small')
    const one = outcomeOf(job({}, toTheRim()))
    expect(one.batching.batches).toHaveLength(1)
    expect(one.codes).toContain('bowl_too_small')
    expect(one.weighOut).toMatchObject({ waterG: byRule.weighOut.waterG, powderG: byRule.weighOut.powderG })
    // 5.9 l do not go into 6.5 l and get stirred.
    expect(outcomeOf(job({}, toTheRim({ ...bucket, volumeMl: 6500 }))).batching.batches).toHaveLength(2)
  })

  it('its two bowls run together where there is time, else leave a seam; not by two pairs of hands, nor in moulds of their own', () => {
    const seamIn = (plan: PourPlan) => seamOf(plan, outcomeOf(plan))
    const slow = job({ soakS: 60, stirS: 60, waterTempC: 8, powderTempC: 8 })
    expect(seamIn(slow)?.runs).toBe(true)
    const quick = seamIn(job({ soakS: 180, stirS: 240, waterTempC: 35, powderTempC: 25 }))!
    expect(quick.runs).toBe(false)
    expect(quick.gapS).toBeGreaterThan(180 + 240)
    expect(quick.runsS).toBeLessThan(quick.gapS)
    expect(seamIn(job({ hands: 2 }))).toBeUndefined()
    expect(seamIn(job({}, toTheRim()))).toBeUndefined()
    const tiles = tilesPlan(30, 1)
    const each = {
      ...tiles,
      batching: { ...toTheRim({ ...bucket, volumeMl: 2000 })!, split: { by: 'need' } as const },
    }
    expect(outcomeOf(each).batching.batches.length).toBeGreaterThan(1)
    expect(seamIn(each)).toBeUndefined()
  })
})
