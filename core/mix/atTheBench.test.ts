import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PLASTER_CLASS_IDS, blend, plasterProperties, type PlasterClassId } from '../plaster'
import {
  SIFT_STAGES,
  addPowder,
  addWater,
  blendWater,
  checkSlurry,
  consistencyBySifting,
  consistencyFromDensity,
  consistencyRangeByVolume,
  inScoops,
  largestBowl,
  largestForBowlMl,
  mayAdd,
  mixProperties,
  mixTempC,
  nearestStage,
  planBatches,
  ratioRange,
  takeWaterOut,
  airThatStays,
  tappingAdvice,
  unitsPerAirPct,
  vibratedViscosityPaS,
  waterFractionOfMould,
  weighOutForVolume,
  type BatchLimits,
  type Pace,
  type Scoop,
} from '.'

const inputOf = (classId: PlasterClassId = 'pottery', consistency?: number) => {
  const plaster = plasterProperties(classId)
  return { plaster, consistency: consistency ?? plaster.useConsistency, waterTempC: 20, airFraction: 0.01 }
}
const scooped: Scoop = { measureMl: 250, packing: 'scooped', weighedKgM3: null }

describe('the three schools', () => {
  // docs/science.md#mix: derived from bulk densities that are estimates. "2 : 1 by volume", "3 scoops to 1".
  it.each([
    [2, 'pop', 'scooped', 59],
    [3, 'pop', 'scooped', 39],
    [3, 'gc', 'scooped', 32],
    [2.5, 'pop', 'scooped', 47],
  ] as const)('%d : 1 by volume of %s, %s, is %d by weight', (parts, classId, packing, expected) => {
    const range = consistencyRangeByVolume(parts, classId, { ...scooped, packing })
    expect(Math.abs(range.mid - expected)).toBeLessThan(1)
    expect(range.low).toBeLessThan(range.mid)
    expect(range.high).toBeGreaterThan(range.mid)
  })
  it('one weighed scoop takes most of the doubt away', () => {
    const guess = ratioRange({ ratioMethod: 'by_volume', scoop: scooped }, 70)
    const weighed = ratioRange({ ratioMethod: 'by_volume', scoop: { ...scooped, weighedKgM3: 900 } }, 70)
    expect(weighed.high - weighed.low).toBeLessThan(0.5 * (guess.high - guess.low))
  })
  it.each([
    ['pop', 'islands', 76, 65, 90],
    ['pop', 'lake_bed', 67, 57, 80],
    ['pop', 'mountain', 58, 50, 69],
    ['gc', 'lake_bed', 39, 32, 47],
    ['hsgc', 'mountain', 27, 23, 33],
  ] as const)('%s sifted to %s comes to %d (%d–%d)', (classId, stage, mid, low, high) => {
    const range = consistencyBySifting(classId, stage)
    expect([range.mid, range.low, range.high].map(Math.round)).toEqual([mid, low, high])
  })
  it('knows the look nearest to a mix', () => {
    for (const stage of SIFT_STAGES)
      expect(nearestStage('pottery', consistencyBySifting('pottery', stage).mid)).toMatchObject({ stage })
    expect(nearestStage('pottery', 90).stage).toBe('islands')
  })
  it('two thirds of the mould in water is right at 75.6 (derived)', () =>
    expect(waterFractionOfMould(75.6, 2640)).toBeCloseTo(2 / 3, 3))
  it('counts powder in scoops', () => expect(inScoops(1000, 850, 250)).toBeCloseTo(1000 / 0.85 / 250, 6))
})

describe('the slurry check', () => {
  it('worked example: 1600 kg/m³ of a β slurry without air is 65.3 (derived, docs/science.md)', () => {
    const { plaster } = inputOf()
    expect(consistencyFromDensity({ plaster, waterTempC: 20, airFraction: 0 }, 1600)).toBeCloseTo(65.3, 1)
  })
  it('is undone by its inverse, filled mixes too', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PLASTER_CLASS_IDS),
        fc.double({ min: 22, max: 130, noNaN: true }),
        (classId, consistency) => {
          const input = inputOf(classId, consistency)
          const back = consistencyFromDensity(input, mixProperties(input).slurryDensityKgM3)
          expect(back! / consistency).toBeCloseTo(1, 9)
        },
      ),
    )
  })
  it('a percent of air more than assumed reads about 3 units thinner at 70 (derived)', () => {
    const input = inputOf('pottery', 70)
    const massG = mixProperties(input).slurryDensityKgM3
    expect(unitsPerAirPct(input, massG, 1000)).toBeCloseTo(3, -0.3)
  })
  it('has no answer for what cannot be slurry', () => {
    expect(checkSlurry(inputOf(), 900, 1000)).toBeUndefined()
    expect(checkSlurry(inputOf(), 3000, 1000)).toBeUndefined()
    const range = checkSlurry(inputOf(), 1585, 1000)!
    expect(range.low).toBeLessThan(range.mid)
    expect(range.high).toBeGreaterThan(range.mid)
  })
})

describe('water from two taps', () => {
  it('worked example: 24.84 °C for 12 °C powder and a mix of 22; a third hot from 55 and 10 (derived)', () => {
    const blendOf = (targetTempC: number) =>
      blendWater({
        consistency: 70,
        fillerRatio: 0,
        targetTempC,
        powderTempC: 12,
        coldTempC: 10,
        hotTempC: 55,
        waterG: 1412,
      })
    const mid = blendOf(22)
    expect(mid.waterTempC).toBeCloseTo(24.84, 2)
    expect(mid.hotG / 1412).toBeCloseTo(0.33, 2)
    expect(mid.hotG + mid.coldG).toBeCloseTo(1412, 9)
    expect(mid.limit).toBeUndefined()
    expect(mixTempC(70, mid.waterTempC, 12, 0)).toBeCloseTo(22, 9)
    expect(blendOf(60)).toMatchObject({ limit: 'too_hot', waterTempC: 45 })
    expect(blendOf(5)).toMatchObject({ limit: 'colder_than_tap', waterTempC: 10, hotG: 0 })
  })
})

describe('air', () => {
  it('tapping is worth a quarter minute to two, and ends before it thickens', () => {
    const at = (depthMm: number, pouredAtS: number) =>
      tappingAdvice({ depthMm, viscosityPaS: 0.6, densityKgM3: 1620, workS: 600, pouredAtS })
    expect(at(2, 60)).toMatchObject({ tapS: 15, heldBy: 'floor' })
    expect(at(600, 60)).toMatchObject({ tapS: 120, heldBy: 'ceiling' })
    expect(at(600, 300)).toMatchObject({ tapS: 60, heldBy: 'working_time' })
  })
  it('gets harder as the mix gets stiffer', () => {
    for (const classId of PLASTER_CLASS_IDS)
      for (let c = 15; c < 110; c += 5) {
        const [stiffer, thinner] = [c, c + 5].map((at) => vibratedViscosityPaS(classId, at))
        expect(stiffer!.mid).toBeGreaterThanOrEqual(thinner!.mid)
        expect(stiffer!.low * 3).toBeCloseTo(stiffer!.mid, 9)
        expect(stiffer!.high / 3).toBeCloseTo(stiffer!.mid, 9)
      }
  })
  // Estimates by class, at the class's own consistency and to either side (docs/science.md#air).
  it.each([
    ['pottery', 70, 0.3],
    ['pop', 60, 0.6],
    ['gc', 45, 0.3],
    ['lowexp', 38, 0.6],
    ['hsgc', 32, 0.8],
    ['dental3', 30, 0.8],
    ['dental4', 23, 1],
    ['dental4', 20, 2.5],
    // Held beyond the last point known.
    ['dental4', 17, 2.5],
    ['dental4', 40, 0.6],
    ['pottery', 200, 0.1],
  ] as const)('%s at %d flows at %d Pa·s', (classId, consistency, paS) =>
    expect(vibratedViscosityPaS(classId, consistency).mid).toBeCloseTo(paS, 9),
  )
  // 14·τ/(ρg), order of magnitude (Tsamopoulos and others 2008; Dubash & Frigaard 2004), at 1600 kg/m³ by hand.
  it.each([
    [0.1, 1.8],
    [0.3, 4.5],
    [0.8, 10.7],
    [2, 22.3],
    // Held beyond what is known.
    [0.01, 1.8],
    [9, 22.3],
  ])('at %d Pa·s bubbles under %d mm do not rise by themselves', (viscosityPaS, mm) => {
    const of = { depthMm: 50, viscosityPaS, densityKgM3: 1600, workS: 600, pouredAtS: 60 }
    const { heldBelowMm } = airThatStays(of, 40)
    expect(heldBelowMm.mid).toBeCloseTo(mm, 1)
    expect(heldBelowMm.high / heldBelowMm.low).toBeCloseTo(4, 9)
  })
  it('tapped as long as its bubble of a millimetre takes, that one comes up and smaller ones do not', () => {
    const of = { depthMm: 60, viscosityPaS: 0.3, densityKgM3: 1600, workS: 900, pouredAtS: 100 }
    const { riseS } = tappingAdvice(of)
    expect(airThatStays(of, riseS).tappedFromMm).toBeCloseTo(1, 9)
    expect(airThatStays(of, 4 * riseS).tappedFromMm).toBeCloseTo(0.5, 9)
    expect(airThatStays({ ...of, depthMm: 240 }, riseS).tappedFromMm).toBeCloseTo(2, 9)
    expect(airThatStays(of, 0).tappedFromMm).toBe(Infinity)
  })
  it('and tapping is over when the time for it is', () => {
    const late = (pouredAtS: number) =>
      tappingAdvice({ depthMm: 40, viscosityPaS: 0.6, densityKgM3: 1620, workS: 600, pouredAtS })
    expect(late(355)).toMatchObject({ tapS: 5, heldBy: 'working_time' })
    expect(late(400)).toMatchObject({ tapS: 0, heldBy: 'working_time' })
  })
})

const pace = (): Pace => ({
  workLowS: 0.7 * 12 * 60,
  soakS: 120,
  stirS: 120,
  siftSPerG: 0.06,
  leastSiftS: 40,
})
const limits = (change: Partial<BatchLimits> = {}): BatchLimits => ({
  split: { by: 'need' },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: null,
  ...change,
})
const job = (cavityMl: number, change: object = {}) => ({
  cavityMl,
  sparePct: 10,
  casts: 1,
  divisionG: 1,
  ...change,
})
const bowl = (volumeMl: number, tareG = 400) => ({ name: 'bucket', volumeMl, tareG })

describe('batches', () => {
  it('is one when nothing limits it, and the worked weigh-out (2 l, 10 % spare: 2017 and 1412 g)', () => {
    const plan = planBatches(inputOf(), job(2000), limits(), pace)
    expect(plan.batches).toMatchObject([{ powderG: 2017, waterG: 1412, start: 'first' }])
    expect(plan.because).toBeUndefined()
  })
  it('keeps the water to a third of the bowl and the slurry off the rim (common practice)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PLASTER_CLASS_IDS),
        fc.double({ min: 200, max: 20_000, noNaN: true }),
        fc.double({ min: 800, max: 20_000, noNaN: true }),
        (classId, cavityMl, bowlMl) => {
          const plan = planBatches(
            inputOf(classId),
            job(cavityMl, { divisionG: 0.1 }),
            limits({ bowl: bowl(bowlMl) }),
            pace,
          )
          for (const b of plan.batches) {
            expect(b.waterG).toBeLessThanOrEqual(bowlMl / 3 + 1)
            expect(b.bowlFill).toBeLessThanOrEqual(0.701)
          }
        },
      ),
    )
  })
  it('adds up to the job, whatever cuts it', () => {
    const anySplit = fc.oneof(
      fc.constant({ by: 'need' as const }),
      fc.record({ by: fc.constant('casts' as const), castsPerBag: fc.integer({ min: 1, max: 3 }) }),
      fc.record({ by: fc.constant('whole_bags' as const), bagPowderG: fc.integer({ min: 500, max: 5000 }) }),
      fc
        .array(fc.record({ name: fc.constant('coat'), sharePct: fc.integer({ min: 1, max: 100 }) }), {
          minLength: 1,
          maxLength: 5,
        })
        .map((layers) => ({ by: 'layers' as const, layers })),
    )
    fc.assert(
      fc.property(
        anySplit,
        fc.integer({ min: 300, max: 20_000 }),
        fc.constantFrom(0.1, 1, 5),
        (split, cavityMl, divisionG) => {
          const plan = planBatches(
            inputOf(),
            job(cavityMl, { casts: 6, divisionG }),
            limits({ split, bowl: bowl(5000) }),
            pace,
          )
          if (plan.batches.length === 0) {
            // A scale too coarse for so small a bowl: refused, never a bowl of nothing.
            expect(plan.issues.map((i) => `${i.code} ${i.severity}`)).toContain('bowl_of_nothing error')
            return
          }
          const sum = (of: 'waterG' | 'powderG') => plan.batches.reduce((total, b) => total + b[of], 0)
          expect(sum('waterG')).toBeCloseTo(plan.total.waterG, 6)
          expect(sum('powderG')).toBeCloseTo(plan.total.powderG, 6)
          expect(plan.total.slurryMl).toBeGreaterThan(cavityMl)
          if (split.by === 'need' || split.by === 'layers') {
            const whole = weighOutForVolume(inputOf(), cavityMl, 10, divisionG)
            expect(sum('waterG')).toBeCloseTo(whole.waterG, 6)
            expect(sum('powderG')).toBeCloseTo(whole.powderG, 6)
          }
          for (const b of plan.batches) {
            // A bag's weight is what is printed on it; everything else is in steps of the scale.
            if (split.by !== 'whole_bags')
              expect(b.powderG / divisionG).toBeCloseTo(Math.round(b.powderG / divisionG), 6)
            expect(Number.isFinite(b.slurryMl) && b.slurryMl >= 0).toBe(true)
          }
        },
      ),
    )
  })
  it('k times the mould takes k times the masses', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 500, max: 5000, noNaN: true }),
        fc.integer({ min: 2, max: 9 }),
        (ml, k) => {
          const at = (cavityMl: number) =>
            planBatches(inputOf(), job(cavityMl, { divisionG: 0.01 }), limits(), pace).total
          expect(at(k * ml).powderG / at(ml).powderG / k).toBeCloseTo(1, 4)
          expect(at(k * ml).waterG / at(ml).waterG / k).toBeCloseTo(1, 4)
        },
      ),
    )
  })
  it('are as many as the hands can pour before it thickens', () => {
    const plan = planBatches(inputOf(), job(20_000), limits({ pourRateMlMin: 2000 }), pace)
    expect(plan.because).toBe('working_time')
    for (const b of plan.batches) {
      const siftS = Math.max(40, b.powderG * 0.06)
      const pourS = b.slurryMl / (2000 / 60)
      expect(siftS / 2 + 120 + 120 + pourS).toBeLessThanOrEqual(0.75 * 0.7 * 720 + 1)
    }
    // A small batch takes the least time to sift: .75 · 504 − 40/2 − 240 = 118 s at 300 ml a minute.
    const slow = planBatches(inputOf(), job(2000), limits({ pourRateMlMin: 300 }), pace)
    expect(slow.largestMl).toBeCloseTo(590, 6)
    const hopeless = planBatches(inputOf(), job(2000), limits({ pourRateMlMin: 2000 }), () => ({
      ...pace(),
      stirS: 900,
    }))
    expect(hopeless.issues).toMatchObject([{ code: 'no_time_to_pour' }])
    expect(hopeless.batches).toHaveLength(1)
  })
  it('of layers wait for the one before to thicken', () => {
    const split = {
      by: 'layers' as const,
      layers: [
        { name: 'Face coat', sharePct: 20 },
        { name: 'Fill', sharePct: 80 },
      ],
    }
    const plan = planBatches(inputOf(), job(5000), limits({ split, bowl: bowl(6000) }), pace)
    expect(plan.batches.map((b) => [b.name, b.start])).toEqual([
      ['Face coat', 'first'],
      ['Fill', 'when_it_thickens'],
      ['Fill', 'at_once'],
    ])
  })
  it('says when a set needs slightly more than a bag, and opens no bag for a part', () => {
    const plan = planBatches(
      inputOf(),
      job(2000),
      limits({ split: { by: 'whole_bags', bagPowderG: 1950 } }),
      pace,
    )
    expect(plan.issues).toMatchObject([{ code: 'slightly_more_than_bags', actual: 2017, limit: 1950 }])
    expect(plan.batches.map((b) => b.powderG)).toEqual([1950, 1950])
  })
  it('too heavy for the scale are weighed in turns; too many are refused', () => {
    const heavy = planBatches(
      inputOf(),
      job(5000),
      limits({ bowl: bowl(12_000, 500), scaleCapacityG: 2000 }),
      pace,
    )
    expect(heavy.batches[0]!.weighings).toEqual({ water: 3, powder: 4 })
    const many = planBatches(inputOf(), job(100_000), limits({ bowl: bowl(500) }), pace)
    expect(many).toMatchObject({ batches: [], issues: [{ code: 'too_many_batches', severity: 'error' }] })
    // Bags that are not cut fill a bowl of just their size, and not one a hundredth smaller.
    const whole = (bowlMl: number) =>
      planBatches(
        inputOf(),
        job(2000),
        limits({ split: { by: 'whole_bags', bagPowderG: 3000 }, bowl: bowl(bowlMl) }),
        pace,
      )
    const neededMl = whole(1e6).batches[0]!.bowlMl
    expect(whole(neededMl).issues).toEqual([])
    expect(whole(0.9998 * neededMl).issues).toEqual([])
    expect(whole(0.99 * neededMl).issues).toMatchObject([{ code: 'bowl_too_small', severity: 'warning' }])
    // No bowl holds 500 litres; three do, between them.
    const inOne = planBatches(inputOf(), job(499_000), limits({}), pace)
    expect(inOne).toMatchObject({ batches: [], issues: [{ code: 'bowl_too_large', severity: 'error' }] })
    const inThree = planBatches(inputOf(), job(499_000), limits({ split: { by: 'bowls', count: 3 } }), pace)
    expect(inThree.batches).toHaveLength(3)
    // Of unequal ones the largest counts.
    const split = {
      by: 'layers' as const,
      layers: [
        { name: 'Face coat', sharePct: 5 },
        { name: 'Fill', sharePct: 95 },
      ],
    }
    expect(planBatches(inputOf(), job(499_000), limits({ split }), pace)).toEqual({
      ...inOne,
      total: expect.anything(),
      issues: [expect.objectContaining({ code: 'bowl_too_large' })],
    })
  })
  it('a curve is drawn by the same largest bowl that is weighed, but for the scale’s steps', () => {
    const splits: BatchLimits['split'][] = [
      { by: 'need' },
      { by: 'bowls', count: 3 },
      {
        by: 'layers',
        layers: [
          { name: 'Face coat', sharePct: 15 },
          { name: 'Fill', sharePct: 85 },
        ],
      },
    ]
    for (const split of splits)
      for (const bowlMl of [900, 4000, 60_000]) {
        const given = [inputOf(), job(5000), limits({ split, bowl: bowl(bowlMl) }), pace] as const
        const weighed = planBatches(...given).batches
        const drawn = largestBowl(...given)!
        expect(drawn.powderG / Math.max(...weighed.map((b) => b.powderG))).toBeCloseTo(1, 2)
        expect(drawn.slurryMl / Math.max(...weighed.map((b) => b.slurryMl))).toBeCloseTo(1, 2)
      }
    const many = [inputOf(), job(100_000), limits({ bowl: bowl(500) }), pace] as const
    expect(largestBowl(...many)).toBeUndefined()
  })
  it('a bowl of 4.24 l is what the worked example fills (derived)', () => {
    const { slurryMlPerG } = mixProperties(inputOf())
    expect(largestForBowlMl(4236, 0.7 / slurryMlPerG)).toBeCloseTo(2200, -1)
  })
})

describe('correcting', () => {
  const target = inputOf('pottery', 70)
  it('worked by hand: 800 g of water for 1000 g of plaster at 70', () => {
    expect(takeWaterOut(target, { waterG: 800, powderG: 1000 }).takeWaterG).toBeCloseTo(100, 9)
    expect(addPowder(target, { waterG: 800, powderG: 1000 }).addPowderG).toBeCloseTo(142.857, 3)
    expect(addWater(target, { waterG: 700, powderG: 1100 }).addWaterG).toBeCloseTo(70, 9)
  })
  it('twice is the same as once, and ends at the plan', () => {
    const acrylic = { ...target, plaster: blend(target.plaster, [{ id: 'acrylic', pct: 10 }]) }
    fc.assert(
      fc.property(
        fc.constantFrom(target, acrylic),
        fc.double({ min: 100, max: 2000, noNaN: true }),
        fc.double({ min: 100, max: 2000, noNaN: true }),
        fc.constantFrom(takeWaterOut, addPowder, addWater),
        (to, waterG, powderG, correct) => {
          const once = correct(to, { waterG, powderG })
          const twice = correct(to, once.after)
          expect(twice.addPowderG + twice.addWaterG + twice.takeWaterG).toBeCloseTo(0, 6)
          const moved = once.addPowderG + once.addWaterG + once.takeWaterG
          if (moved > 1e-6) expect(once.after.consistency).toBeCloseTo(70, 6)
        },
      ),
    )
  })
  it('nothing goes into a mix that has begun to set', () => {
    expect([mayAdd('not_stirred'), mayAdd('stirred_fresh'), mayAdd('thickening'), mayAdd('setting')]).toEqual(
      ['freely', 'with_care', 'never', 'never'],
    )
  })
})
