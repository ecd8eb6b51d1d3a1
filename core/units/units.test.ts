import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  formatArea,
  formatLength,
  formatMass,
  formatTemp,
  formatRoughVolume,
  formatVolume,
  formatVolumeRange,
  parseQuantity,
  GRAMS_PER,
  ML_PER,
  MM_PER,
} from '.'

describe('exact factors', () => {
  // NIST SP 811 appendix B; UK Weights and Measures Act 1985 (from memory).
  it.each([
    ['US gallon is 231 cubic inches', ML_PER.usGallon, 231 * ML_PER.in3],
    ['cubic foot is 12³ cubic inches', ML_PER.ft3, 1728 * ML_PER.in3],
    ['cubic inch is 2.54³ cm³', ML_PER.in3, 2.54 ** 3],
    ['US gallon is 16 cups, 128 fl oz, 256 tbsp', ML_PER.usGallon, 16 * ML_PER.usCup],
    ['US fluid ounce', ML_PER.usGallon, 128 * ML_PER.usFlOz],
    ['US tablespoon', ML_PER.usGallon, 256 * ML_PER.usTbsp],
    ['US teaspoon', ML_PER.usTbsp, 3 * ML_PER.usTsp],
    ['imperial gallon is 160 imperial fl oz', ML_PER.impGallon, 160 * ML_PER.impFlOz],
    ['imperial pint is 20 imperial fl oz', ML_PER.impPint, 20 * ML_PER.impFlOz],
    ['pound is 16 ounces', GRAMS_PER.lb, 16 * GRAMS_PER.oz],
    ['foot is 12 inches', MM_PER.ft, 12 * MM_PER.in],
  ])('%s', (_, a, b) => expect(a).toBeCloseTo(b, 9))
})

describe('parseQuantity', () => {
  it.each([
    ['2 lb 3 oz', 'mass', 35 * 28.349523125],
    ['1.2 kg', 'mass', 1200],
    ['1,2 kg', 'mass', 1200],
    ['250', 'mass', 250],
    ['750 ml', 'volume', 750],
    ['1/2 cup', 'volume', 118.29411825],
    ['1 1/2 cups', 'volume', 354.88235475],
    ['½ cup', 'volume', 118.29411825],
    ['2½ fl oz', 'volume', 73.93382398],
    ['3 3/8 in', 'length', 85.725],
    ['1\' 2"', 'length', 355.6],
    ['.5 l', 'volume', 500],
  ] as const)('reads %s', (text, kind, value) => {
    const unit = { mass: 'g', volume: 'ml', length: 'mm' }[kind]
    const parsed = parseQuantity(text, kind, unit, 'us')
    expect(parsed).toMatchObject({ ok: true })
    if (parsed.ok) expect(parsed.value).toBeCloseTo(value, 6)
  })

  it('takes cups and pints in the workshop’s own size', () => {
    const pint = (system: 'us' | 'imperial') => parseQuantity('1 pint', 'volume', 'ml', system)
    expect(pint('us')).toEqual({ ok: true, value: 473.176473 })
    expect(pint('imperial')).toEqual({ ok: true, value: 568.26125 })
    expect(parseQuantity('1 cup', 'volume', 'ml', 'metric')).toEqual({ ok: true, value: 250 })
  })

  it('reads temperatures either way, below zero too', () => {
    expect(parseQuantity('68 F', 'temp', 'c')).toEqual({ ok: true, value: 20 })
    expect(parseQuantity('-5', 'temp', 'c')).toEqual({ ok: true, value: -5 })
  })

  it.each([
    ['', 'mass', 'empty'],
    ['plenty', 'mass', 'not_a_quantity'],
    ['-3 g', 'mass', 'not_a_quantity'],
    ['NaN', 'mass', 'not_a_quantity'],
    ['1/0 cup', 'volume', 'not_a_quantity'],
    ['3 stone', 'mass', 'unknown_unit'],
    ['3 ml', 'mass', 'wrong_kind_of_unit'],
    ['1,500 g', 'mass', 'ambiguous_comma'],
    ['9999999999 kg', 'mass', 'too_large'],
  ] as const)('refuses "%s" as %s: %s', (text, kind, code) =>
    expect(parseQuantity(text, kind, 'g')).toMatchObject({ ok: false, code }),
  )
})

describe('display', () => {
  const metric = { system: 'metric', scaleDivisionG: 0.1 } as const
  it('shows whole grams above 100 g and the scale’s step below', () => {
    expect(formatMass(1234.56, metric)).toBe('1235 g')
    expect(formatMass(42.37, metric)).toBe('42.4 g')
    expect(formatMass(1234.56, { system: 'metric', scaleDivisionG: 5 })).toBe('1235 g')
  })
  it('carries ounces over into pounds', () => {
    expect(formatMass(453.5, { system: 'us', scaleDivisionG: 1 })).toBe('1 lb 0 oz')
    expect(formatMass(992.2, { system: 'us', scaleDivisionG: 1 })).toBe('2 lb 3 oz')
  })
  it('never shows a false decimal', () => {
    expect(formatVolume(1086.5, 'metric')).toBe('1.09 l')
    expect(formatVolume(946.4, 'us')).toBe('1.00 qt')
    expect(formatLength(85.725, 'us')).toBe('3 3/8 in')
    expect(formatTemp(21.6, 'us')).toBe('71 °F')
  })
})

describe('what is shown can be typed again', () => {
  const prefs = (system: 'metric' | 'us' | 'imperial') => ({ system, scaleDivisionG: 1 })
  it.each(['metric', 'us', 'imperial'] as const)('in %s units, to what the display rounds to', (system) => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 50_000, noNaN: true }), (value) => {
        const back = (text: string, kind: 'mass' | 'volume' | 'length') => {
          const parsed = parseQuantity(text, kind, '', system)
          expect(parsed, text).toMatchObject({ ok: true })
          return parsed.ok ? parsed.value : Number.NaN
        }
        // Half a step: a gram or half an ounce; three figures; a millimetre or a sixteenth of an inch.
        expect(Math.abs(back(formatMass(value, prefs(system)), 'mass') - value)).toBeLessThan(0.72)
        expect(Math.abs(back(formatVolume(value, system), 'volume') / value - 1)).toBeLessThan(0.006)
        expect(Math.abs(back(formatLength(value, system), 'length') - value)).toBeLessThan(0.8)
      }),
    )
  })
})

it('lets the range decide how many figures of a volume make sense', () => {
  expect(formatVolumeRange(2123, 355, 'metric')).toEqual(['2.1 l', '0.4 l'])
  expect(formatVolumeRange(5191, 108, 'metric')).toEqual(['5.19 l', '0.11 l'])
  expect(formatVolumeRange(32.7, 3.46, 'metric')).toEqual(['33 ml', '3 ml'])
  expect(formatVolumeRange(410.4, 2.9, 'metric')).toEqual(['410 ml', '3 ml'])
  expect(formatVolumeRange(946.352946, 40, 'us')).toEqual(['1.00 qt', '0.04 qt'])
  expect(formatVolumeRange(640, 130, 'metric')).toEqual(['640 ml', '130 ml'])
  expect(formatRoughVolume(26.8, 'metric')).toBe('27 ml')
  expect(formatRoughVolume(1278, 'metric')).toBe('1.3 l')
})

it('reads and shows areas', () => {
  expect(parseQuantity('0.4 m2', 'area', 'cm2')).toEqual({ ok: true, value: 400_000 })
  expect(parseQuantity('2 sq ft', 'area', 'in2', 'us')).toEqual({ ok: true, value: 2 * 304.8 ** 2 })
  expect(parseQuantity('500', 'area', 'cm2')).toEqual({ ok: true, value: 50_000 })
  expect(parseQuantity('5 cm', 'area', 'cm2')).toMatchObject({ ok: false, code: 'wrong_kind_of_unit' })
  expect(formatArea(50_000, 'metric')).toBe('500 cm²')
  expect(formatArea(304.8 ** 2, 'us')).toBe('1.00 ft²')
})
