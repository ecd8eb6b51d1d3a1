import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Habits } from '../units'
import {
  ADDITION_IDS,
  PLASTER_CLASS_IDS,
  blend,
  checkAdditions,
  parseRatioLabel,
  plasterProperties,
  timingOf,
  weighAdditions,
  type Addition,
  type WaterKind,
  type PlasterClassId,
} from '.'

const OPEN: Habits = { system: 'metric', decimalSign: null, kitchen: null }
const US: Habits = { ...OPEN, system: 'us' }

describe('a ratio as it is printed', () => {
  type Must = number | { low: number; high: number } | { scoops: number }
  /** One reading, or several to choose from. */
  const CASES: [classId: PlasterClassId, text: string, must: Must | Must[], habits?: Habits][] = [
    ['hsgc', '100 : 30', 30],
    ['hsgc', '100:30', 30],
    ['hsgc', '30 : 100', 30],
    ['pottery', '100/70', 70],
    ['pottery', '70/100', 70],
    ['pottery', '10/7', 70],
    ['pottery', '3/2', [66.67, { scoops: 1.5 }]],
    ['pottery', '3/2 by weight', 66.67],
    ['pottery', '2/1', [50, { scoops: 2 }]],
    ['pottery', '2 : 1', [50, { scoops: 2 }]],
    ['gc', '2:1', [50, { scoops: 2 }]],
    // By weight it would be 50: nobody mixes this class so thin, and a scoop of it gives 45.
    ['hsgc', '2:1', { scoops: 2 }],
    // Neither is what the class is mixed at: both are offered, and the card's range warns.
    ['pottery', '3:1', [33.33, { scoops: 3 }]],
    ['dental2', '2 to 1 by weight', 50],
    ['dental2', '2 parts plaster to 1 part water by weight', 50],
    ['pottery', '70 parts', 70],
    ['pottery', '70 parts water to 100', 70],
    ['pottery', '70 parts of water to 100 parts of plaster', 70],
    ['pottery', '70', 70],
    ['pottery', '70 %', 70],
    ['pottery', '0.7', 70],
    ['pottery', '.7', 70],
    ['pottery', '0,7', 70],
    ['pottery', '1.43', 69.93],
    ['pottery', 'p:w 1.43', 69.93],
    ['pottery', 'P/W = 1.43', 69.93],
    ['pottery', 'powder:water 1.43', 69.93],
    ['pottery', 'p:w 1.43:1', 69.93],
    ['hsgc', 'w/p 0.28', 28],
    ['hsgc', 'w:p 28:100', 28],
    ['pottery', 'water/powder 0.7', 70],
    ['investment', '1 : 1', 100],
    // Ranges.
    ['pottery', '65–70 parts', { low: 65, high: 70 }],
    ['dental3', '28-30', { low: 28, high: 30 }],
    ['pottery', '64 to 66', { low: 64, high: 66 }],
    ['hsgc', '32-38 %', { low: 32, high: 38 }],
    ['pottery', '100 : 65-70', { low: 65, high: 70 }],
    ['dental3', '28 – 30 ml per 100 g', { low: 27.95, high: 29.95 }],
    ['pottery', '1.2-1.3 kg to 900 ml', { low: 69.11, high: 74.87 }],
    ['gc', '0.40-0.45 l per kg', { low: 39.93, high: 44.92 }],
    ['pottery', '0.7 l/kg', 69.88],
    ['pottery', '700 ml to the kilo', 69.88],
    ['pottery', '12 fl oz per lb', [78.1, 75.04]],
    ['pottery', '2¼-2½ lb to 1.5 lb', { low: 60, high: 66.67 }],
    ['hsgc', '28 to 32 parts per 100', { low: 28, high: 32 }],
    ['pottery', '0.65-0.70', { low: 65, high: 70 }],
    ['pottery', '100-70', 70],
    ['pottery', '100 to 70', 70],
    ['pottery', '70-100', [{ low: 70, high: 100 }, 70]],
    // Common practice, no source: 50 ml to 100 g, 28 ml per 100 g, 200 g to 85 ml; water weighs .998 g a ml.
    ['dental2', '50 ml to 100 g', 49.91],
    ['dental3', '28 ml per 100 g', 27.95],
    ['dental3', '100 g: 28 ml', 27.95],
    ['gc', '200 g to 85 ml', 42.42],
    ['dental3', '100 g plaster + 28 ml water', 27.95],
    ['pottery', '1.2 kg to 750 ml', 62.39],
    ['pottery', '1,2 kg to 750 ml', 62.39],
    ['pottery', '1 500 g : 1 l', 66.55],
    // Common practice, no source: C 72.9. Cups with pounds are American, whatever the workshop is.
    ['pottery', '14 US cups water to 10 lb', 72.9],
    ['pottery', '14 cups : 10 lb', 72.9],
    ['pottery', '10 lb plaster to 14 cups of water', 72.9],
    ['pottery', '2 lb 12 oz to 1 qt', 75.73, US],
    ['pottery', '2 lb 12 oz to 1 qt', [75.73, 90.95]],
    ['pottery', '1 US qt to 2 lb 12 oz', 75.73],
    ['pottery', '2:1 by volume', { scoops: 2 }],
    ['hsgc', '3 scoops plaster to 1 scoop of water', { scoops: 3 }],
    ['pottery', '1/2 cup to 1/4 cup', { scoops: 2 }],
    ['pottery', '½ cup to ¼ cup', { scoops: 2 }],
    ['pottery', '1 cup water, 2 cups plaster', { scoops: 2 }],
  ]
  it.each(CASES)('%s: “%s”', (classId, text, must, habits = OPEN) => {
    const read = parseRatioLabel(text, classId, habits)
    expect(read).toMatchObject({ ok: true })
    if (!read.ok) return
    const wanted = Array.isArray(must) ? must : [must]
    expect(read.readings).toHaveLength(wanted.length)
    for (const [i, want] of wanted.entries()) {
      const got = read.readings[i]!
      if (typeof want === 'number') {
        expect(got).not.toHaveProperty('range')
        expect(got.consistency).toBeCloseTo(want, 1)
      } else if ('low' in want) {
        expect(got.by === 'weight' && got.range!.low).toBeCloseTo(want.low, 1)
        expect(got.by === 'weight' && got.range!.high).toBeCloseTo(want.high, 1)
      } else expect(got).toMatchObject({ by: 'volume', powderParts: want.scoops })
    }
  })

  it('says what it understood of what it cannot read', () => {
    const read = (text: string) => parseRatioLabel(text, 'pottery', OPEN)
    expect(read('28 ml per bag')).toMatchObject({
      ok: false,
      code: 'not_understood',
      understood: '28 ml',
      rest: 'bag',
    })
    expect(read('28 ml per scoop')).toMatchObject({ ok: false })
    expect(read('28 ml')).toMatchObject({ ok: false, code: 'half_a_ratio', understood: '28 ml' })
    expect(read('7 lb 8 oz')).toMatchObject({ ok: false, code: 'half_a_ratio', understood: '7 lb 8 oz' })
    expect(read('100 : 3')).toMatchObject({ ok: false, code: 'no_such_ratio', consistency: 3 })
    expect(read('2 cups plaster to 500 g')).toMatchObject({ ok: false, code: 'not_understood' })
    expect(read('until it looks right')).toMatchObject({ ok: false, understood: '' })
    expect(read('  ')).toMatchObject({ ok: false, code: 'empty' })
  })

  it('never breaks on anything typed, and never reads a ratio that is none', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.stringMatching(/^[0-9 :.,/a-z%½–-]{0,20}$/)),
        fc.constantFrom(...PLASTER_CLASS_IDS),
        (text, classId) => {
          const read = parseRatioLabel(text, classId, OPEN)
          if (!read.ok) return
          for (const { consistency } of read.readings) {
            expect(consistency).toBeGreaterThanOrEqual(15)
            expect(consistency).toBeLessThanOrEqual(200)
          }
        },
      ),
    )
  })
})

describe('additions', () => {
  const pop = plasterProperties('pop')

  it('make plaster of Paris with its weight in silica the investment of the class table', () => {
    const mixed = blend(pop, [{ id: 'silica', pct: 100 }])
    const investment = plasterProperties('investment')
    expect(mixed.fillerRatio).toBe(investment.fillerRatio)
    expect(mixed.fillerDensityKgM3).toBeCloseTo(investment.fillerDensityKgM3, 9)
    expect(mixed.strengthFactor).toBeCloseTo(investment.strengthFactor, 9)
    expect(mixed.dryAddRatio).toBe(1)
    // 1 : 1 : 1 by weight takes 100 of water: the solids want theirs.
    expect(Math.abs(mixed.useConsistency / 100 - 1)).toBeLessThan(0.05)
  })
  it('of nothing change nothing', () => {
    expect(blend(pop, [])).toEqual(pop)
    expect(blend(pop, [{ id: 'salt', pct: 0 }])).toEqual(pop)
  })
  // Directions: Phillips’ dental materials text, from memory. Sizes are estimates (docs/science.md).
  it.each([
    ['salt', 1, 0.75],
    ['salt', 5, 1],
    ['potassium_sulfate', 1, 0.6],
    ['set_gypsum', 1, 0.52],
    ['borax', 0.5, 1.7],
    ['citric_acid', 0.05, 2.2],
    ['citric_acid', 0.1, 4],
  ] as const)('%s at %d %% moves the setting time by %d', (id, pct, multiplier) => {
    const mixed = blend(pop, [{ id, pct }])
    expect(mixed.halfHydrationMin / pop.halfHydrationMin).toBeCloseTo(multiplier, 2)
    expect(mixed.timeSigmaLn).toBeGreaterThan(0.3)
  })
  it('of sea water, about 3.5 % salt, set it in four fifths of the time', () => {
    const mixed = blend(pop, [{ id: 'salt', pct: 3.5 }])
    expect(mixed.halfHydrationMin / pop.halfHydrationMin).toBeCloseTo(0.8, 1)
  })
  it('bring their water, and are weighed against what they go into', () => {
    // Both are half water, and what is not stands in the mix as a solid.
    for (const id of ['acrylic', 'liquid_paint'] as const) {
      const mixed = blend(pop, [{ id, pct: 10 }])
      expect(mixed.admixWaterRatio).toBeCloseTo(0.05, 9)
      expect(mixed.fillerRatio).toBeCloseTo(pop.fillerRatio + 0.05, 9)
    }
    expect(
      weighAdditions(
        [
          { id: 'salt', pct: 2 },
          { id: 'pigment', pct: 3 },
        ],
        1000,
        600,
      ),
    ).toMatchObject([
      { massG: 12, into: 'water' },
      { massG: 30, into: 'powder' },
    ])
  })
  it('are spoken of where they do harm: pigment above a twentieth, paint at all (common practice)', () => {
    expect(checkAdditions([{ id: 'pigment', pct: 5 }])).toEqual([])
    expect(checkAdditions([{ id: 'pigment', pct: 6 }])).toMatchObject([
      { code: 'pigment_above_limit', limit: 5 },
    ])
    expect(checkAdditions([{ id: 'liquid_paint', pct: 1 }])).toMatchObject([{ code: 'liquid_paint_splits' }])
  })
  it('in any number give figures that can be computed with', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PLASTER_CLASS_IDS),
        fc.array(fc.record({ id: fc.constantFrom(...ADDITION_IDS), pct: fc.double({ min: 0, max: 20 }) }), {
          maxLength: 6,
        }),
        (classId, additions) => {
          const { dissolved, ...mixed } = blend(plasterProperties(classId), additions, 'sea')
          for (const value of [...Object.values(mixed), ...Object.values(dissolved!)])
            expect(value).toSatisfy((v: unknown) => typeof v === 'string' || (v as number) >= 0)
        },
      ),
    )
  })
})

describe('water as it comes', () => {
  const pop = plasterProperties('pop')
  const pace = (water: WaterKind, additions: Addition[] = []) =>
    blend(pop, additions, water).halfHydrationMin / pop.halfHydrationMin

  it('moves the clock: hard a little, the sea by a fifth (Phillips for the direction, sizes are estimates)', () => {
    expect(pace('soft')).toBe(1)
    expect(pace('hard')).toBeGreaterThan(0.93)
    expect(pace('hard')).toBeLessThan(1)
    expect(pace('sea')).toBeCloseTo(0.8, 1)
    // Salt on top of the sea's goes past the turning point and slows it again.
    expect(pace('sea', [{ id: 'salt', pct: 3 }])).toBeGreaterThan(pace('sea'))
  })
  it('no addition is known to a twentieth, and none so badly that its range is more than fourfold', () => {
    for (const id of ADDITION_IDS) {
      const range = timingOf({ id, pct: 1 })
      if (!range) continue
      expect(range.high / range.low, id).toBeGreaterThan(1.05)
      expect(range.high / range.low, id).toBeLessThan(4)
    }
    const spread = (water: WaterKind) => blend(pop, [{ id: 'salt', pct: 1 }], water).timeSigmaLn!
    expect(Math.sqrt(spread('hard') ** 2 - spread('soft') ** 2)).toBeLessThan(0.1)
  })
  it('of the sea leaves its salt in the piece and is spoken of', () => {
    expect(blend(pop, [], 'sea').dissolved).toMatchObject({ gPerWater: 0.035 })
    expect(checkAdditions([], 'sea')).toMatchObject([{ code: 'salt_rusts_and_blooms' }])
    expect(blend(pop, [], 'sea').timeSigmaLn).toBeGreaterThan(blend(pop, [], 'hard').timeSigmaLn!)
  })
})
