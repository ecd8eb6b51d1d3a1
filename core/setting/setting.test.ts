import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plasterProperties, type PlasterClassId } from '../plaster'
import {
  SETTING_EVENTS,
  ageAtMin,
  equivalentAgeMin,
  halfHydrationOf,
  isothermalSetting,
  hydration,
  mixingMultiplier,
  settingRate,
  timeInBowlS,
  type SettingInput,
} from '.'

const inputOf = (id: PlasterClassId, consistency: number, tempC = 20, change = {}): SettingInput => ({
  plaster: plasterProperties(id),
  consistency,
  mixTempC: tempC,
  stirS: 120,
  stirManner: 'hand',
  restS: 0,
  ratioSigmaLn: 0.02,
  ...change,
})
function minutes(...of: Parameters<typeof inputOf>) {
  const { timeS } = isothermalSetting(inputOf(...of))
  return Object.fromEntries(SETTING_EVENTS.map((e) => [e, timeS[e].mid / 60]))
}

describe('worked examples (derived, docs/science.md)', () => {
  it('pottery plaster at 74, isothermal at 20 °C', () => {
    const at = minutes('pottery', 74)
    expect(at.work_end).toBeCloseTo(13.4, 1)
    expect(at.initial_set).toBeCloseTo(20.6, 1)
    expect(at.vicat_set).toBeCloseTo(33.3, 1)
    expect(at.final_set).toBeCloseTo(37.5, 1)
    expect(at.hardened).toBeCloseTo(50.5, 1)
    expect(minutes('pottery', 74, 10).final_set! / at.final_set!).toBeCloseTo(1.344, 2)
  })
  it.each([
    [0, 0.496],
    [10, 0.744],
    [20, 1],
    [38, 1.253],
    [60, 0.794],
    [80, 0.12],
  ])('rate at %d °C', (tempC, rate) => expect(settingRate(tempC)).toBeCloseTo(rate, 2))
  it('stops where hemihydrate is no more soluble than gypsum', () => expect(settingRate(98)).toBe(0))
})

describe('against what is published', () => {
  // Typical published maker's data, hand-mixed Vicat set at 21 °C, min, from memory. The gypsum cement row
  // (25–35) is left out: the model's 20 is known to be fast there (docs/science.md, weak points).
  it.each([
    ['pottery', 70, 27, 37],
    ['pop', 70, 27, 37],
    ['lowexp', 38, 25, 35],
    ['hsgc', 32, 17, 20],
  ] as const)('%s at %d: Vicat between %d and %d min', (id, consistency, low, high) => {
    const vicat = minutes(id, consistency, 21).vicat_set!
    expect(vicat).toBeGreaterThan(low * 0.97)
    expect(vicat).toBeLessThan(high * 1.03)
  })
  // Craig, Restorative Dental Materials: initial set of dental plaster, min (from memory).
  it.each([
    [45, 8],
    [50, 11],
    [55, 14],
  ])('dental plaster at %d: initial set about %d min', (consistency, published) =>
    expect(Math.abs(minutes('dental2', consistency).initial_set! / published - 1)).toBeLessThan(0.2),
  )
  // ASTM C59: casting plaster sets in 20–40 min (from memory).
  it('plaster of Paris sets within the standard’s 20 to 40 minutes', () => {
    expect(minutes('pop', 65).vicat_set).toBeGreaterThan(20)
    expect(minutes('pop', 65).vicat_set).toBeLessThan(40)
  })
  it('2 : 1 by scoop is firm in a quarter to half an hour (common practice, no source)', () => {
    const firm = minutes('pop', 59).final_set!
    expect(firm).toBeGreaterThan(15)
    expect(firm).toBeLessThan(30)
  })
})

describe('directions that every caster knows (common practice, no source)', () => {
  it('thinner and colder is slower, longer stirring and a warm mix is faster, a filled mix keeps pace', () => {
    const usual = minutes('pop', 60).final_set!
    expect(minutes('pop', 80).final_set).toBeGreaterThan(usual)
    expect(minutes('pop', 60, 8).final_set).toBeGreaterThan(usual)
    expect(minutes('pop', 60, 30).final_set).toBeLessThan(usual)
    expect(minutes('pop', 60, 20, { stirS: 600 }).final_set).toBeLessThan(usual)
    expect(minutes('pop', 60, 20, { stirManner: 'drill' }).final_set).toBeLessThan(usual)
    expect(minutes('investment', 100).final_set! / usual).toBeCloseTo(1.07, 1)
  })
  it('a soak delays everything by half its length', () => {
    const delay = minutes('pop', 60, 20, { restS: 240 }).final_set! - minutes('pop', 60).final_set!
    expect(delay).toBeCloseTo(2, 6)
  })
  it('what a time comes to and the time it takes are each other’s inverse, before the stir and after it', () => {
    for (const restS of [0, 240, 7200])
      for (const alpha of [0.02, 0.2, 0.5, 0.9]) {
        const input = inputOf('pop', 60, 20, { restS })
        const timeS = timeInBowlS(input, alpha)
        expect(hydration(ageAtMin(input, timeS), halfHydrationOf(input))).toBeCloseTo(alpha, 9)
      }
    // Never stirred it takes twice as long.
    const [stirred, left] = [0, 7200].map((restS) => timeInBowlS(inputOf('pop', 60, 20, { restS }), 0.5))
    expect(left! / stirred!).toBeCloseTo(2, 9)
  })
  it('counts two minutes by hand as the standard stir', () => expect(mixingMultiplier(120, 'hand')).toBe(1))
})

it('keeps events in order and ranges around them, whatever the mix', () => {
  fc.assert(
    fc.property(
      fc.constantFrom<PlasterClassId>('pop', 'pottery', 'gc', 'lowexp', 'hsgc', 'dental4', 'investment'),
      fc.double({ min: 0.7, max: 1.6, noNaN: true }),
      fc.double({ min: 2, max: 40, noNaN: true }),
      fc.integer({ min: 10, max: 3600 }),
      (id, of, mixTempC, restS) => {
        const plaster = plasterProperties(id)
        const { timeS } = isothermalSetting({
          plaster,
          consistency: plaster.useConsistency * of,
          mixTempC,
          stirS: 120,
          stirManner: 'hand',
          restS,
          ratioSigmaLn: 0.12,
        })
        const mids = SETTING_EVENTS.map((e) => timeS[e].mid)
        expect([...mids].sort((a, b) => a - b)).toEqual(mids)
        for (const e of SETTING_EVENTS) expect(timeS[e].low).toBeLessThan(timeS[e].high)
      },
    ),
  )
})

it('equivalent age and hydration are each other’s inverse', () => {
  for (const alpha of [0.02, 0.3, 0.9, 0.99])
    expect(hydration(equivalentAgeMin(alpha, 32), 32)).toBeCloseTo(alpha, 10)
})
