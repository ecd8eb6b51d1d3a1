import { createRequire } from 'node:module'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mixProperties } from '../mix'
import type { Range } from '../provenance'
import { plasterProperties } from '../plaster'
import {
  DOUBTFUL_Z,
  UNKNOWN_PLACE,
  dryingCurve,
  dryingDepths,
  dryingTimeS,
  forecastDrying,
  fractionLeftAt,
  leftOfCourse,
  massAtG,
  massTransferMS,
  saturationPressurePa,
  timeToFractionS,
  wetSurface,
} from '.'
import { USUAL_SHAPE } from './curve'
import { forecastOver } from './forecast'

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
    const { freeWaterKgM3 } = pottery70
    const curve = dryingCurve({ freeWaterKgM3, depthMm: 12.5, air: still, speedFactor: 1 })
    expect(curve.fluxKgM2S).toBeCloseTo(2.038e-5, 8)
    expect(curve.criticalFraction).toBeCloseTo(0.21, 3)
    expect(hours(curve.criticalTimeS)).toBeCloseTo(64.4, 1)
    expect(hours(dryingTimeS(curve, 0.5))).toBeCloseTo(40.7, 1)
    expect(hours(dryingTimeS(curve, 0.05))).toBeCloseTo(117.2, 1)
    expect(hours(dryingTimeS(curve, 0.005 / pottery70.freeWaterOfDryMass))).toBeCloseTo(197.2, 1)
    expect(1 / curve.tailRatePerS / 3600).toBeCloseTo(59.2, 1)
  })
  it('a working pottery mould takes about a week (common practice, no source)', () => {
    for (const thicknessMm of [25, 35]) {
      const { depthMm } = dryingDepths(thicknessMm, 'both_faces')
      const curve = dryingCurve({
        freeWaterKgM3: pottery70.freeWaterKgM3,
        depthMm,
        air: { ...still, speedMS: 0.2 },
        speedFactor: 1,
      })
      expect(hours(dryingTimeS(curve, 0.05)) / 24).toBeGreaterThan(3.5)
      expect(hours(dryingTimeS(curve, 0.05)) / 24).toBeLessThan(8)
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
          expect(fractionLeftAt(curve, dryingTimeS(curve, left))).toBeCloseTo(left, 9)
          expect(dryingTimeS(curve, left * 0.99)).toBeGreaterThan(dryingTimeS(curve, left))
        },
      ),
    )
  })
  it('has no jump in rate where the two periods meet', () => {
    const curve = dryingCurve({
      freeWaterKgM3: 478,
      depthMm: 12.5,
      air: still,
      speedFactor: 1,
    })
    const at = (s: number) => fractionLeftAt(curve, curve.criticalTimeS + s)
    const before = at(-1) - at(0)
    const after = at(0) - at(1)
    expect(after / before).toBeCloseTo(1, 4)
  })
  it('never says later for more wind, drier or warmer air, a thinner piece or less water', () => {
    const anyPiece = fc.record({
      freeWaterKgM3: fc.double({ min: 50, max: 700, noNaN: true }),
      depthMm: fc.double({ min: 1, max: 200, noNaN: true }),
      tempC: fc.double({ min: 0, max: 50, noNaN: true }),
      rhPct: fc.double({ min: 1, max: 96, noNaN: true }),
      speedMS: fc.double({ min: 0.02, max: 4, noNaN: true }),
    })
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom('wind', 'dry', 'warm', 'thin', 'less water' as const),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        // Down to half a percent of the dry mass, at any porosity.
        fc.double({ min: 0.003, max: 0.95, noNaN: true }),
        (piece, change, by, left) => {
          const better = { ...piece }
          if (change === 'wind') better.speedMS += 3 * by
          if (change === 'dry') better.rhPct *= 1 - by * 0.99
          if (change === 'warm') better.tempC += (50 - piece.tempC) * by
          if (change === 'thin') better.depthMm *= 1 - by * 0.9
          if (change === 'less water') better.freeWaterKgM3 *= 1 - by * 0.9
          const time = ({ freeWaterKgM3, depthMm, ...air }: typeof piece, fraction: number) =>
            dryingTimeS(dryingCurve({ freeWaterKgM3, depthMm, air, speedFactor: 1 }), fraction)
          // Less water to begin with: the same mass of it may be left.
          const allowed = Math.min(0.95, left * (piece.freeWaterKgM3 / better.freeWaterKgM3))
          expect(time(better, allowed)).toBeLessThanOrEqual(time(piece, left) * (1 + 1e-9))
        },
      ),
      { numRuns: 20_000 },
    )
  })
  it('refuses air that can take nothing up', () => {
    const damp = { freeWaterKgM3: 478, depthMm: 12, air: { ...still, rhPct: 100 }, speedFactor: 1 }
    expect(() => dryingCurve(damp)).toThrow('out of range')
    const good = { ...damp, air: still }
    expect(() => dryingCurve(good)).not.toThrow()
    for (const wrong of [
      { depthMm: 0 },
      { poreDepthMm: 0 },
      { freeWaterKgM3: 0 },
      { speedFactor: 0 },
      { nightAir: { ...still, rhPct: 100 } },
    ])
      expect(() => dryingCurve({ ...good, ...wrong }), JSON.stringify(wrong)).toThrow('out of range')
  })
})

describe('forecast from weighings', () => {
  const DRY_G = 1630
  const WATER_G = 717
  const slab = {
    freeWaterKgM3: 478.1,
    depthMm: 1.5e6 / 145_000,
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
  }
  const HOUR_S = 3600
  type Weighed = [hour: number, massG: number][]
  const forecast = (weighed: Weighed) =>
    forecastDrying(
      [{ ...slab, fromS: 0, pace: UNKNOWN_PLACE }],
      DRY_G,
      WATER_G,
      weighed.map(([hour, massG]) => ({ timeS: hour * HOUR_S, massG })),
      1,
    )
  const ofUsualShape = (weighed: Weighed) =>
    forecastOver(
      [{ share: 1, shape: USUAL_SHAPE }],
      [{ fromS: 0, ...slab, pace: UNKNOWN_PLACE }],
      DRY_G,
      WATER_G,
      weighed.map(([h, massG]) => ({ timeS: h * HOUR_S, massG })),
      1,
      [],
    )
  it('believes a shape by how well it explains the weighings, however wide it lets the pace be: integrated by brute force', () => {
    const [usual, late] = [USUAL_SHAPE, { critical: 0.6, diffusivity: 1 }]
    const of = (weighings: { timeS: number; massG: number }[]) =>
      forecastOver(
        [usual, late].map((shape) => ({ share: 0.5, shape })),
        [{ fromS: 0, ...slab, pace: UNKNOWN_PLACE }],
        DRY_G,
        WATER_G,
        weighings,
        4,
        [],
      ).shapes
    const courses = [usual, late].map((shape) => of([]).find((s) => s.shape === shape)!.course)
    const weighed = [0, 60, 110, 150].map((h) => ({
      timeS: h * HOUR_S,
      massG: 1625 + 720 * leftOfCourse(courses[0]!, 0.9, h * HOUR_S),
    }))
    const found = of(weighed)
    // Likelihood times prior, summed over pace, dry mass and water.
    const evidence = courses.map((course) => {
      let sum = 0
      for (let i = -120; i <= 120; i += 2) {
        const ln = (i / 120) * 4 * course.sigmaLn
        const left = weighed.map((w) => leftOfCourse(course, Math.exp(ln), w.timeS))
        for (let d = -40; d <= 40; d += 2)
          for (let w = -40; w <= 40; w += 2) {
            const [dry, water] = [DRY_G * (1 + 0.002 * d), WATER_G * (1 + 0.004 * w)]
            let lnP = -0.5 * ((ln / course.sigmaLn) ** 2 + (d / 10) ** 2 + (w / 10) ** 2)
            weighed.forEach(({ massG }, k) => {
              const variance = 4 ** 2 + (0.02 * WATER_G * (1 - left[k]!)) ** 2
              lnP -= 0.5 * ((massG - dry - water * left[k]!) ** 2 / variance + Math.log(variance))
            })
            sum += Math.exp(lnP)
          }
      }
      return sum
    })
    const shareOf = (shape: object) => found.find((s) => s.shape === shape)!.share
    expect(shareOf(late) / shareOf(usual)).toBeCloseTo(evidence[1]! / evidence[0]!, 2)
    // Not what they were before anything was weighed.
    expect(Math.abs(shareOf(late) - 0.5)).toBeGreaterThan(0.02)
  })
  const printed = ({ low, mid, high }: Range) => [low, mid, high].map((s) => Math.round(hours(s)))

  // Derived; printed by an independent program of the same equations (docs/science.md#drying).
  const WORKED: [
    what: string,
    weighed: Weighed,
    s: number,
    sigma: number,
    at95: number[],
    constant: number[],
    doubtful?: number[],
  ][] = [
    ['one teaches mass, not pace', [[0, 2338]], 1, 0.35, [72, 112, 175], [117, 183, 287]],
    [
      'two teach pace',
      [
        [0, 2338],
        [24, 2176],
      ],
      0.769,
      0.037,
      [139, 146, 153],
      [227, 238, 250],
    ],
    [
      'three',
      [
        [0, 2338],
        [24, 2176],
        [48, 2021],
      ],
      0.76,
      0.034,
      [141, 147, 154],
      [231, 241, 252],
    ],
    [
      'seven, to the end',
      [
        [0, 2338],
        [24, 2176],
        [48, 2021],
        [96, 1741],
        [120, 1697],
        [144, 1670],
        [168, 1653],
      ],
      0.766,
      0.022,
      [142, 146, 150],
      [233, 239, 246],
    ],
    [
      'a slip of the scale moves nothing',
      [
        [0, 2338],
        [24, 2176],
        [48, 2521],
        [96, 1741],
        [120, 1697],
      ],
      0.782,
      0.032,
      [137, 143, 149],
      [225, 234, 244],
      [2],
    ],
    [
      'first seen after a week',
      [
        [168, 1653],
        [192, 1643],
      ],
      1,
      0.32,
      [74, 112, 168],
      [122, 183, 275],
    ],
    [
      'a piece cannot gain weight in dry air',
      [
        [0, 2338],
        [24, 2400],
        [48, 2534],
      ],
      1.07,
      0.31,
      [71, 105, 156],
      [116, 172, 255],
      [1, 2],
    ],
  ]
  it.each(WORKED)(
    'worked, at the usual shape of the curve: %s',
    (_, weighed, s, sigma, at95, constant, doubtful = []) => {
      const found = ofUsualShape(weighed)
      expect(found.speedFactor.mid).toBeCloseTo(s, 2)
      expect(found.sigmaLnSpeed).toBeCloseTo(sigma, 2)
      const within = (range: Range, want: number[]) =>
        printed(range).forEach((h, i) =>
          expect(Math.abs(h - want[i]!)).toBeLessThanOrEqual(Math.max(1, 0.01 * want[i]!)),
        )
      within(timeToFractionS(found, 0.05), at95)
      within(timeToFractionS(found, (0.005 * DRY_G) / WATER_G), constant)
      // Where its shape is not known, a date is less sure.
      const width = ({ low, high }: Range) => Math.log(high / low)
      expect(width(timeToFractionS(forecast(weighed), 0.05))).toBeGreaterThan(
        width(timeToFractionS(found, 0.05)),
      )
      expect(found.z.flatMap((z, i) => (Math.abs(z) > DOUBTFUL_Z ? [i] : []))).toEqual(doubtful)
    },
  )
  it('draws a sane curve for a piece first weighed a week after it came out', () => {
    const found = forecast([
      [168, 1653],
      [192, 1643],
    ])
    expect(massAtG(found, 0).mid).toBeGreaterThan(2200)
    expect(massAtG(found, 0).mid).toBeLessThan(2450)
    expect(massAtG(found, 1e8).mid / found.dryMassG).toBeCloseTo(1, 2)
  })
  it('does not mind the order of the weighings; one repeated moves nothing twice', () => {
    const some: Weighed = [
      [0, 2338],
      [24, 2176],
      [48, 2021],
    ]
    const all = forecast(some)
    const shuffled = forecast([...some].reverse())
    expect(shuffled.speedFactor.mid).toBeCloseTo(all.speedFactor.mid, 6)
    expect(all.sigmaLnSpeed).toBeLessThan(forecast(some.slice(0, 2)).sigmaLnSpeed)
    // Asked within the minute, the same scale says the same: the middle stays where it was.
    const repeated = forecast([...some, [48.01, 2021]])
    expect(Math.abs(repeated.speedFactor.mid / all.speedFactor.mid - 1)).toBeLessThan(0.02)
  })
  it('finds the speed that made the weighings', () => {
    for (const speedFactor of [0.6, 1, 1.5]) {
      const truth = dryingCurve({ ...slab, speedFactor })
      const found = forecast(
        [0, 1, 2, 4, 6].map((day) => [day * 24, 1640 + 700 * fractionLeftAt(truth, day * 24 * HOUR_S)]),
      )
      expect(Math.abs(Math.log(found.speedFactor.mid / speedFactor))).toBeLessThan(0.05)
      expect(Math.abs(found.dryMassG - 1640)).toBeLessThan(20)
    }
  })
  it('gives ordered, finite figures whatever is weighed whenever', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0, max: 20_000, noNaN: true }),
            fc.double({ min: 0.1, max: 1e6, noNaN: true }),
          ),
          { maxLength: 8 },
        ),
        (weighed) => {
          const found = forecast(weighed)
          const { low, mid, high } = timeToFractionS(found, 0.05)
          expect(low).toBeGreaterThan(0)
          expect(low).toBeLessThanOrEqual(mid)
          expect(mid).toBeLessThanOrEqual(high)
          expect(Number.isFinite(high + massAtG(found, 1e6).high + found.dryMassSdG)).toBe(true)
        },
      ),
      { numRuns: 150 },
    )
  })
})
