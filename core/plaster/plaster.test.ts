import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  ADDITION_IDS,
  PLASTER_CLASS_IDS,
  blend,
  checkAdditions,
  parseRatioLabel,
  plasterProperties,
  weighAdditions,
} from '.'

describe('a ratio as it is printed', () => {
  it.each([
    ['100 : 30', 30],
    ['100:30', 30],
    ['30 : 100', 30],
    ['2 : 1', 50],
    ['2 to 1 by weight', 50],
    ['70 parts', 70],
    ['70 parts water to 100', 70],
    ['70 parts of water to 100 parts of plaster', 70],
    ['70', 70],
    ['70 %', 70],
    ['0.7', 70],
    ['w/p 0.28', 28],
    ['1 : 1', 100],
    // Common practice, no source: 50 ml to 100 g, 28 ml per 100 g, 200 g to 85 ml; water weighs .998 g a ml.
    ['50 ml to 100 g', 49.91],
    ['28 ml per 100 g', 27.95],
    ['100 g: 28 ml', 27.95],
    ['200 g to 85 ml', 42.42],
    ['100 g plaster + 28 ml water', 27.95],
    ['1.2 kg to 750 ml', 62.39],
    ['1,2 kg to 750 ml', 62.39],
    // Common practice, no source: C 72.9.
    ['14 US cups water to 10 lb', 72.9],
    ['10 lb plaster to 14 us cups of water', 72.9],
  ])('%s', (text, consistency) => {
    const read = parseRatioLabel(text)
    expect(read).toMatchObject({ ok: true, by: 'weight' })
    if (read.ok && read.by === 'weight') expect(read.consistency).toBeCloseTo(consistency, 1)
  })

  it.each([
    ['2:1 by volume', 2],
    ['3 scoops plaster to 1 scoop of water', 3],
    ['1/2 cup to 1/4 cup', 2],
    ['½ cup to ¼ cup', 2],
    ['1 cup water, 2 cups plaster', 2],
  ])('%s: by volume', (text, powderParts) =>
    expect(parseRatioLabel(text)).toEqual({ ok: true, by: 'volume', powderParts }),
  )

  it('says what it understood of what it cannot read', () => {
    expect(parseRatioLabel('28 ml per bag')).toMatchObject({
      ok: false,
      code: 'not_understood',
      understood: '28 ml',
      rest: 'bag',
    })
    expect(parseRatioLabel('28 ml')).toMatchObject({ ok: false, code: 'half_a_ratio', understood: '28 ml' })
    expect(parseRatioLabel('100 : 3')).toMatchObject({ ok: false, code: 'no_such_ratio', consistency: 3 })
    expect(parseRatioLabel('2 cups plaster to 500 g')).toMatchObject({ ok: false, code: 'not_understood' })
    expect(parseRatioLabel('until it looks right')).toMatchObject({ ok: false, understood: '' })
    expect(parseRatioLabel('  ')).toMatchObject({ ok: false, code: 'empty' })
  })

  it('never breaks on anything typed, and never reads a ratio that is none', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9 :.,/a-z%½]{0,20}$/)), (text) => {
        const read = parseRatioLabel(text)
        if (read.ok && read.by === 'weight') {
          expect(read.consistency).toBeGreaterThanOrEqual(15)
          expect(read.consistency).toBeLessThanOrEqual(200)
        }
      }),
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
    ['citric_acid', 0.1, 3],
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
    expect(blend(pop, [{ id: 'acrylic', pct: 10 }]).admixWaterRatio).toBeCloseTo(0.05, 9)
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
          for (const value of Object.values(blend(plasterProperties(classId), additions)))
            expect(value).toSatisfy((v: unknown) => typeof v === 'string' || (v as number) >= 0)
        },
      ),
    )
  })
})
