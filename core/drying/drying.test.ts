import { createRequire } from 'node:module'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mixProperties } from '../mix'
import { plasterProperties } from '../plaster'
import {
  dryingCurve,
  dryingDepthMm,
  forecastDrying,
  massTransferMS,
  saturationPressurePa,
  wetSurface,
} from '.'

/** Reference library for moist air (ASHRAE Handbook, Fundamentals, 2017). */
const psychrolib = createRequire(import.meta.url)('psychrolib') as {
  SetUnitSystem(system: unknown): void
  SI: unknown
  GetSatVapPres(tempC: number): number
  GetTWetBulbFromRelHum(tempC: number, rh: number, pressurePa: number): number
}
psychrolib.SetUnitSystem(psychrolib.SI)

const pottery70 = mixProperties({
  plaster: plasterProperties('pottery'),
  consistency: 70,
  waterTempC: 20,
  airFraction: 0,
})
const still = { tempC: 20, rhPct: 50, speedMS: 0.1 }
const hours = (s: number) => s / 3600

describe('moist air', () => {
  it.each([0.5, 5, 10, 20, 30, 45])(
    'saturation pressure at %d °C agrees with the reference library to half a percent',
    (tempC) =>
      expect(Math.abs(saturationPressurePa(tempC) / psychrolib.GetSatVapPres(tempC) - 1)).toBeLessThan(0.005),
  )
  it.each([
    [10, 0.8],
    [20, 0.5],
    [30, 0.3],
    [40, 0.2],
  ])('a wet face at %d °C stays between the reference wet bulb and the air', (tempC, rh) => {
    const wetBulb = psychrolib.GetTWetBulbFromRelHum(tempC, rh, 101_325)
    const windy = wetSurface({ tempC, rhPct: rh * 100, speedMS: 4 }).surfaceTempC
    const calm = wetSurface({ tempC, rhPct: rh * 100, speedMS: 0.1 }).surfaceTempC
    // Radiation keeps it above the wet bulb; the faster the air, the less radiation counts.
    expect(windy).toBeGreaterThan(wetBulb)
    expect(windy - wetBulb).toBeLessThan(2.2)
    expect(calm).toBeGreaterThan(windy)
    expect(calm).toBeLessThan(tempC)
  })
  it.each([0.1, 0.5, 1])(
    'evaporates at %d m/s like open water in the pool formula, to a tenth',
    (speedMS) => {
      // ASHRAE pool evaporation, kg/m²s per kPa: (0.089 + 0.0782 v) / latent heat in kJ/kg (from memory).
      const perPa = (0.089 + 0.0782 * speedMS) / 2454 / 1000
      const ours = massTransferMS(speedMS) / (461.5 * 293.15)
      expect(Math.abs(ours / perPa - 1)).toBeLessThan(0.1)
    },
  )
})

describe('drying curve', () => {
  it('worked example: 25 mm of pottery plaster, both faces, still room (derived, docs/science.md)', () => {
    const curve = dryingCurve({ freeWaterKgM3: 478, depthMm: 12.5, air: still, speedFactor: 1 })
    expect(curve.fluxKgM2S).toBeCloseTo(2.038e-5, 8)
    expect(curve.criticalFraction).toBeCloseTo(0.206, 3)
    expect(hours(curve.criticalTimeS)).toBeCloseTo(64.7, 1)
    expect(hours(curve.timeS(0.5))).toBeCloseTo(40.7, 1)
    expect(hours(curve.timeS(0.05))).toBeCloseTo(115.6, 1)
    expect(hours(curve.timeS(0.005 / pottery70.freeWaterOfDryMass))).toBeCloseTo(193.9, 1)
  })
  it('a working pottery mould takes about a week (common practice, no source)', () => {
    for (const thicknessMm of [25, 35]) {
      const depthMm = dryingDepthMm(thicknessMm, 'both_faces')
      const curve = dryingCurve({
        freeWaterKgM3: pottery70.freeWaterKgM3,
        depthMm,
        air: { ...still, speedMS: 0.2 },
        speedFactor: 1,
      })
      expect(hours(curve.timeS(0.05)) / 24).toBeGreaterThan(3.5)
      expect(hours(curve.timeS(0.05)) / 24).toBeLessThan(8)
    }
  })
  it('falls without a break, and its time and fraction undo each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 100, noNaN: true }),
        fc.double({ min: 5, max: 45, noNaN: true }),
        fc.double({ min: 10, max: 90, noNaN: true }),
        fc.double({ min: 0.003, max: 0.999, noNaN: true }),
        (depthMm, tempC, rhPct, left) => {
          const curve = dryingCurve({
            freeWaterKgM3: 478,
            depthMm,
            air: { tempC, rhPct, speedMS: 0.3 },
            speedFactor: 1,
          })
          expect(curve.fractionLeft(curve.timeS(left))).toBeCloseTo(left, 9)
          expect(curve.timeS(left * 0.99)).toBeGreaterThan(curve.timeS(left))
        },
      ),
    )
  })
  it('has no jump in rate where the two periods meet', () => {
    const { criticalTimeS: t, fractionLeft } = dryingCurve({
      freeWaterKgM3: 478,
      depthMm: 12.5,
      air: still,
      speedFactor: 1,
    })
    const before = fractionLeft(t - 1) - fractionLeft(t)
    const after = fractionLeft(t) - fractionLeft(t + 1)
    expect(after / before).toBeCloseTo(1, 4)
  })
  it('refuses air that can take nothing up', () => {
    const damp = { freeWaterKgM3: 478, depthMm: 12, air: { ...still, rhPct: 100 }, speedFactor: 1 }
    expect(() => dryingCurve(damp)).toThrow('out of range')
  })
})

describe('forecast from weighings', () => {
  const slab = {
    freeWaterKgM3: 478,
    depthMm: 1.5e6 / 145_000,
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
  }
  const DAY_S = 86_400
  const weighed = [
    { timeS: 0, massG: 2338 },
    { timeS: DAY_S, massG: 2176 },
    { timeS: 2 * DAY_S, massG: 2021 },
  ]

  it('worked example: a slab weighed three times (derived, docs/science.md)', () => {
    const before = forecastDrying(slab, 1630, 717, [], 1)
    // The example is printed to the whole hour: 110 h before weighing, 143 (135–152) after.
    expect(Math.abs(hours(before.timeToFractionS(0.05).mid) - 110)).toBeLessThan(1)
    const after = forecastDrying(slab, 1630, 717, weighed, 1)
    expect(after.speedFactor.mid).toBeCloseTo(0.767, 2)
    expect(after.sigmaLnSpeed).toBeLessThan(0.07)
    const dry = after.timeToFractionS(0.05)
    for (const [s, printed] of [
      [dry.low, 135],
      [dry.mid, 143],
      [dry.high, 152],
    ] as const) {
      expect(Math.abs(hours(s) - printed)).toBeLessThan(1.5)
    }
  })
  it('does not mind the order of the weighings, and narrows with each', () => {
    const some = forecastDrying(slab, 1630, 717, weighed.slice(0, 2), 1)
    const all = forecastDrying(slab, 1630, 717, weighed, 1)
    const shuffled = forecastDrying(slab, 1630, 717, [...weighed].reverse(), 1)
    expect(shuffled.speedFactor).toEqual(all.speedFactor)
    expect(all.sigmaLnSpeed).toBeLessThan(some.sigmaLnSpeed)
  })
  it('finds the speed that made the weighings', () => {
    for (const speedFactor of [0.6, 1, 1.5]) {
      const truth = dryingCurve({ ...slab, speedFactor })
      const points = [0, 1, 2, 4, 6].map((d) => ({
        timeS: d * DAY_S,
        massG: 1640 + 700 * truth.fractionLeft(d * DAY_S),
      }))
      const found = forecastDrying(slab, 1630, 717, points, 1)
      expect(Math.abs(Math.log(found.speedFactor.mid / speedFactor))).toBeLessThan(0.05)
      expect(Math.abs(found.dryMassG - 1640)).toBeLessThan(15)
    }
  })
})
