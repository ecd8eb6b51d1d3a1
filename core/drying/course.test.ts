import { createRequire } from 'node:module'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dryingCourses } from './course'
import { oddDrying } from '../../tests/support/oddDrying'
import {
  UNKNOWN_PLACE,
  WARMEST_SURFACE_C,
  dryingCourse,
  dryingCurve,
  dryingDepths,
  dryingTimeS,
  forecastDrying,
  fractionLeftAt,
  leftOfCourse,
  massAtG,
  nextWeighing,
  savingsFrom,
  timeOfCourse,
  timeToFractionS,
  wetSurface,
  type Air,
  type DryingStretch,
  type Weighing,
} from '.'

const H = 3600
const psychrolib = createRequire(import.meta.url)('psychrolib') as {
  SI: number
  SetUnitSystem: (system: number) => void
  GetHumRatioFromRelHum: (tempC: number, rh: number, pressurePa: number) => number
  GetRelHumFromHumRatio: (tempC: number, ratio: number, pressurePa: number) => number
}
psychrolib.SetUnitSystem(psychrolib.SI)

const STILL: Air = { tempC: 20, rhPct: 50, speedMS: 0.1 }
const FAN: Air = { ...STILL, speedMS: 1.5 }
const NIGHT: Air = { tempC: 10, rhPct: 80, speedMS: 0.3 }
const stretch = (change: Partial<DryingStretch> = {}): DryingStretch => ({
  fromS: 0,
  freeWaterKgM3: 478.1,
  depthMm: 12.5,
  air: STILL,
  pace: UNKNOWN_PLACE,
  ...change,
})

describe('a piece that is carried elsewhere', () => {
  const moved = dryingCourse([stretch(), stretch({ fromS: 40 * H, air: FAN })])
  const stayed = dryingCourse([stretch()])
  const windy = dryingCourse([stretch({ air: FAN })])
  it('is where it was until then, and goes on from there as it would at the other place', () => {
    for (const h of [0, 10, 40])
      expect(leftOfCourse(moved, 1, h * H)).toBeCloseTo(leftOfCourse(stayed, 1, h * H), 12)
    const left = leftOfCourse(stayed, 1, 40 * H)
    const there = timeOfCourse(windy, 1, left)
    for (const h of [5, 30, 90])
      expect(leftOfCourse(moved, 1, (40 + h) * H)).toBeCloseTo(leftOfCourse(windy, 1, there + h * H), 10)
    expect(timeOfCourse(moved, 1, 0.05)).toBeLessThan(timeOfCourse(stayed, 1, 0.05))
    expect(timeOfCourse(moved, 1, 0.05)).toBeGreaterThan(timeOfCourse(windy, 1, 0.05))
  })
  it('time and share are each other’s inverse over every leg, at any pace', () => {
    const course = dryingCourse([
      stretch(),
      stretch({ fromS: 20 * H, air: NIGHT }),
      stretch({ fromS: 50 * H, air: FAN, depthMm: 25 }),
    ])
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        fc.double({ min: 0.4, max: 2.5, noNaN: true }),
        (left, speed) => {
          expect(leftOfCourse(course, speed, timeOfCourse(course, speed, left))).toBeCloseTo(left, 8)
        },
      ),
    )
    expect(leftOfCourse(course, 1, 0)).toBe(1)
  })
  it('carried nowhere, or to a place just like it, dries as before', () => {
    const same = dryingCourse([stretch(), stretch({ fromS: 30 * H })])
    for (const h of [10, 30, 31, 100])
      expect(leftOfCourse(same, 1, h * H)).toBeCloseTo(leftOfCourse(stayed, 1, h * H), 10)
  })
  it('what a place has shown counts there, and the less known place widens the range', () => {
    const known = { meanLn: Math.log(0.8), sigmaLn: 0.16 }
    const course = dryingCourse([stretch({ pace: known })])
    expect(course.sigmaLn).toBe(0.16)
    expect(timeOfCourse(course, 1, 0.5) / timeOfCourse(stayed, 1, 0.5)).toBeCloseTo(1 / 0.8, 6)
    expect(dryingCourse([stretch({ pace: known }), stretch({ fromS: H })]).sigmaLn).toBe(
      UNKNOWN_PLACE.sigmaLn,
    )
  })
  it('legs out of order are a caller’s bug', () => {
    expect(() => dryingCourse([stretch({ fromS: 1 })])).toThrow('begin at 0')
    expect(() => dryingCourse([stretch(), stretch({ fromS: 9 }), stretch({ fromS: 4 })])).toThrow('follow')
  })
})

/** Hour by hour through day and night, the falling rate from the curve's own resistances: the mean of air it stands for. */
function hourByHour(input: Omit<DryingStretch, 'fromS' | 'pace'>, night: Air, left: number): number {
  const curves = [input.air, night].map((air) => dryingCurve({ ...input, air, speedFactor: 1 }))
  let f = 1
  for (let s = 0; s < 3000 * H; s += 600) {
    const curve = curves[Math.floor(s / (12 * H)) % 2]!
    f = fractionLeftAt(curve, dryingTimeS(curve, f) + 600)
    if (f <= left) return s + 600
  }
  return Infinity
}

describe('how it lies, and nights', () => {
  it('turned every day lies between the rack and the bench', () => {
    const at = (lies: Parameters<typeof dryingDepths>[1]) =>
      timeOfCourse(dryingCourse([stretch(dryingDepths(40, lies))]), 1, 0.05)
    expect(at('both_faces')).toBeLessThan(at('turned'))
    expect(at('turned')).toBeLessThan(at('one_face'))
    // One face at a time: while it is wet through it is no quicker than on the bench.
    const early = (lies: Parameters<typeof dryingDepths>[1]) =>
      timeOfCourse(dryingCourse([stretch(dryingDepths(40, lies))]), 1, 0.7)
    expect(early('turned')).toBeCloseTo(early('one_face'), 6)
  })
  it.each([
    [10, 0.2],
    [20, 0.1],
    [20, 0.05],
  ])('day and night in one figure is near hour by hour: %d mm to %d left', (depthMm, left) => {
    const { fromS: _, pace: __, ...input } = stretch({ depthMm })
    const inOne = timeOfCourse(dryingCourse([stretch({ depthMm, nightAir: NIGHT })]), 1, left)
    expect(inOne).toBeGreaterThan(48 * H)
    expect(Math.abs(inOne / hourByHour(input, NIGHT, left) - 1)).toBeLessThan(0.09)
  })
  it('a night like the day is no night', () => {
    const [a, b] = [dryingCourse([stretch()]), dryingCourse([stretch({ nightAir: STILL })])]
    expect(timeOfCourse(b, 1, 0.05)).toBeCloseTo(timeOfCourse(a, 1, 0.05), 6)
  })
})

const [DRY_G, WATER_G] = [1630, 717]
const forecast = (weighings: Weighing[], felt: Parameters<typeof forecastDrying>[5] = []) =>
  forecastDrying([stretch()], DRY_G, WATER_G, weighings, 1, felt)
const truth = (speed: number, hours: number[]): Weighing[] =>
  hours.map((h) => ({
    timeS: h * H,
    massG: DRY_G + WATER_G * leftOfCourse(dryingCourse([stretch()]), speed, h * H),
  }))

describe('a hand', () => {
  const later = 60 * H
  it('moves the forecast a little, each way, and says nothing of the mass', () => {
    const unfelt = forecast([])
    const clammy = forecast([], [{ timeS: 120 * H, clammy: true }])
    const dry = forecast([], [{ timeS: later, clammy: false }])
    expect(clammy.speedFactor.mid).toBeLessThan(0.97 * unfelt.speedFactor.mid)
    expect(dry.speedFactor.mid).toBeGreaterThan(1.03 * unfelt.speedFactor.mid)
    expect(clammy.dryMassG).toBeCloseTo(unfelt.dryMassG, 6)
    for (const found of [clammy, dry]) expect(found.sigmaLnSpeed).toBeGreaterThan(0.1)
  })
  it('and one weighing both count', () => {
    const weighed = truth(1, [24])
    const both = forecast(weighed, [{ timeS: 60 * H, clammy: false }])
    expect(both.dryMassG).not.toBeCloseTo(forecast([], [{ timeS: 60 * H, clammy: false }]).dryMassG, 1)
    expect(both.speedFactor.mid).toBeGreaterThan(forecast(weighed).speedFactor.mid)
  })
  it('counts for little beside weighings', () => {
    const weighed = truth(0.8, [0, 24, 48, 96])
    const [without, withHand] = [forecast(weighed), forecast(weighed, [{ timeS: later, clammy: false }])]
    expect(Math.abs(Math.log(withHand.speedFactor.mid / without.speedFactor.mid))).toBeLessThan(0.02)
  })
})

/**
 * Drying by other laws than ours: Page's (1949), f = exp(−(t/τ)^n), and Sherwood's (1929), a constant rate down to a
 * critical share and from there in proportion to what is left; both from memory. Of Page's, those that begin as slowly as a
 * wet block does.
 */
const page =
  (n: number) =>
  (t: number): number =>
    Math.exp(-(t ** n))
const sherwood =
  (critical: number) =>
  (t: number): number => {
    const until = 1 - critical
    return t < until ? 1 - t : critical * Math.exp(-(t - until) / critical)
  }
const OTHER_LAWS = [
  page(1.2),
  page(1.3),
  page(1.4),
  sherwood(0.1),
  sherwood(0.25),
  sherwood(0.4),
  sherwood(0.6),
]

it('ranges hold for pieces whose critical share and pores are their own, however often they were weighed', () => {
  for (const weighings of [0, 1, 2, 4, 6]) {
    const { band, late, asked } = oddDrying(60, weighings, 11)
    expect(band.held / band.of, `${weighings} weighings`).toBeGreaterThan(0.68)
    expect(band.held / band.of, `${weighings} weighings`).toBeLessThan(0.95)
    expect(late.held / late.of, `${weighings} weighings`).toBeLessThan(0.2)
    expect(asked.held).toBe(0)
  }
})

it('ranges hold for pieces that dry by another law than ours', () => {
  const inside: boolean[] = []
  for (const law of OTHER_LAWS)
    for (const tauH of [45, 60, 80, 110])
      for (const seen of [
        [0, 24],
        [0, 24, 48],
        [2, 30, 55, 80],
      ]) {
        const weighed = seen.map((h) => ({
          timeS: h * H,
          massG: Math.round(DRY_G + WATER_G * law(h / tauH)),
        }))
        const { low, high } = timeToFractionS(forecast(weighed), 0.1)
        let t = 0
        while (law(t) > 0.1) t += 0.002
        // Weighed past it, there is nothing left to forecast.
        if (t * tauH < seen.at(-1)!) continue
        inside.push(t * tauH * H > low && t * tauH * H < high)
      }
  const held = inside.filter(Boolean).length / inside.length
  // Four in five, as the ranges say of themselves: no fewer, and not nearly all.
  expect(held).toBeGreaterThan(0.75)
  expect(held).toBeLessThan(0.95)
  expect(inside.length).toBeGreaterThan(60)
})

describe('when to weigh next', () => {
  const first: Weighing[] = [{ timeS: 0, massG: 2338 }]
  it('is before it is dry, not at once, and narrows what is known', () => {
    const found = forecast(first)
    const next = nextWeighing(found, first, 1, 0.1, 0, 3 * H)!
    expect(next.atS).toBeGreaterThanOrEqual(3 * H)
    expect(next.atS).toBeLessThan(timeToFractionS(found, 0.1).mid)
    expect(next.afterSigmaLn).toBeLessThan(0.5 * next.sigmaLn)
    expect(next.sigmaLn).toBeCloseTo(found.sigmaLnSpeed, 1)
  })
  it('is when somebody is up, and tells about as much then; never where nobody ever is', () => {
    const found = forecast(first)
    const free = nextWeighing(found, first, 1, 0.1, 0, 3 * H)!
    const night = (atS: number) => Math.abs(atS - free.atS) < 5 * H
    const by = nextWeighing(found, first, 1, 0.1, 0, 3 * H, (atS) => !night(atS))!
    expect(night(by.atS)).toBe(false)
    expect(by.afterSigmaLn).toBeLessThan(1.1 * free.afterSigmaLn)
    expect(nextWeighing(found, first, 1, 0.1, 0, 3 * H, () => false)).toBeUndefined()
  })
  it('what it promises is about what comes of it', () => {
    const next = nextWeighing(forecast(first), first, 1, 0.1, 0, 3 * H)!
    const then = forecast([...first, { timeS: next.atS, massG: massAtG(forecast(first), next.atS).mid }])
    expect(then.sigmaLnSpeed / next.afterSigmaLn).toBeGreaterThan(0.6)
    expect(then.sigmaLnSpeed / next.afterSigmaLn).toBeLessThan(1.6)
  })
  it('promises what three unknowns leave of the pace, by the whole matrix written out and turned over', () => {
    const weighed = truth(1, [0, 10, 26])
    const found = forecast(weighed)
    const SD = 3
    const next = nextWeighing(found, weighed, SD, 0.1, 30 * H, 3 * H)!
    const { waterAtStartG, dryMassG } = found
    const { course, lnSpeed } = found.shapes[0]!
    const information = [
      [course.sigmaLn ** -2, 0, 0],
      [0, (0.02 * dryMassG) ** -2, 0],
      [0, 0, (0.04 * waterAtStartG) ** -2],
    ]
    const mass = (lnPace: number, dryG: number, waterG: number, atS: number) =>
      dryG + waterG * leftOfCourse(course, Math.exp(lnSpeed + lnPace), atS)
    const add = (atS: number) => {
      const at = [0, dryMassG, waterAtStartG] as const
      const slope = [1e-4, 0.1, 0.1].map((h, k) => {
        const [up, down] = [h, -h].map(
          (d) => at.map((v, j) => (j === k ? v + d : v)) as [number, number, number],
        )
        return (mass(...up!, atS) - mass(...down!, atS)) / (2 * h)
      })
      const lost = waterAtStartG * (1 - slope[2]!)
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++)
          information[i]![j]! += (slope[i]! * slope[j]!) / (SD ** 2 + (0.02 * lost) ** 2)
    }
    /** First of the inverse's diagonal, by Cramer's rule. */
    const sigma = () => {
      const [[a, b, c], [d, e, f], [g, h, k]] = information as [number[], number[], number[]]
      const minor = e! * k! - f! * h!
      return Math.sqrt(minor / (a! * minor - b! * (d! * k! - f! * g!) + c! * (d! * h! - e! * g!)))
    }
    for (const w of weighed) add(w.timeS)
    expect(next.sigmaLn).toBeCloseTo(sigma(), 4)
    add(next.atS)
    expect(next.afterSigmaLn).toBeCloseTo(sigma(), 4)
  })
  it('what would narrow it by less than a twentieth is not asked for, and what narrows it by more is', () => {
    const found = forecast(first)
    const narrowed = (scaleSdG: number) => {
      const next = nextWeighing(found, first, scaleSdG, 0.1, 0, 3 * H)
      return next && 1 - next.afterSigmaLn / next.sigmaLn
    }
    // The coarsest scale that is still worth the walk, found by halves.
    let [fineG, coarseG] = [1, 2000]
    expect(narrowed(coarseG)).toBeUndefined()
    for (let i = 0; i < 30; i++) {
      const midG = Math.sqrt(fineG * coarseG)
      if (narrowed(midG) === undefined) coarseG = midG
      else fineG = midG
    }
    expect(narrowed(fineG)).toBeGreaterThan(0.9 * 0.05)
    expect(narrowed(fineG)).toBeLessThan(0.05 + 1e-6)
  })
  it('a coarser scale tells less, and once all is known or it is dry there is nothing to weigh for', () => {
    const found = forecast(first)
    const [fine, coarse] = [1, 60].map((g) => nextWeighing(found, first, g, 0.1, 0, 3 * H))
    expect(coarse === undefined || coarse.afterSigmaLn > fine!.afterSigmaLn).toBe(true)
    const often = truth(1, [0, 12, 24, 36, 48, 60, 72])
    expect(nextWeighing(forecast(often), often, 1, 0.1, 72 * H, 3 * H)?.afterSigmaLn ?? 0).toBeLessThan(0.05)
    expect(nextWeighing(found, first, 1, 0.1, 900 * H, 3 * H)).toBeUndefined()
  })
})

describe('what would be quicker', () => {
  const found = forecast([])
  const saved = (air: Air, lies: Parameters<typeof savingsFrom>[2], nowS = 0) =>
    savingsFrom(
      forecastDrying([stretch({ air, ...dryingDepths(25, lies) })], DRY_G, WATER_G, [], 1),
      stretch({ air, ...dryingDepths(25, lies) }),
      lies,
      25,
      0.1,
      nowS,
    )
  it('a fan in still air, a rack from the bench, each with what it saves; never over 45 °C', () => {
    expect(saved(STILL, 'one_face').map((s) => s.change)).toEqual(['fan', 'rack', 'warmer', 'cabinet'])
    for (const { asIsS, withS } of saved(STILL, 'both_faces')) expect(withS).toBeLessThan(0.9 * asIsS)
    expect(saved(FAN, 'both_faces').map((s) => s.change)).not.toContain('fan')
    const hot = saved({ tempC: 44, rhPct: 20, speedMS: 1 }, 'both_faces').map((s) => s.change)
    expect(hot).toEqual([])
    expect(WARMEST_SURFACE_C).toBe(45)
  })
  it('what a fan saves is what drying under a fan from the start would have saved, at the start', () => {
    const fan = saved(STILL, 'both_faces').find((s) => s.change === 'fan')!
    const under = dryingCourse([stretch({ air: FAN })])
    // At the likeliest shape of its curve, which is the usual one; the forecast is over all of them.
    const share = timeOfCourse(under, 1, 0.1) / timeOfCourse(dryingCourse([stretch()]), 1, 0.1)
    expect(fan.withS / fan.asIsS).toBeCloseTo(share, 6)
    expect(fan.asIsS).toBeCloseTo(timeToFractionS(found, 0.1).mid, 0)
  })
  it('air that is warmed holds as much water as before, by psychrolib, and so is drier', () => {
    const ratio = psychrolib.GetHumRatioFromRelHum(STILL.tempC, STILL.rhPct / 100, 101_325)
    const rhPct = 100 * psychrolib.GetRelHumFromHumRatio(STILL.tempC + 8, ratio, 101_325)
    const warmer = saved(STILL, 'both_faces').find((s) => s.change === 'warmer')!
    const course = dryingCourse([stretch({ air: { ...STILL, tempC: STILL.tempC + 8, rhPct } })])
    const share = timeOfCourse(course, 1, 0.1) / timeOfCourse(dryingCourse([stretch()]), 1, 0.1)
    expect(warmer.withS / warmer.asIsS / share).toBeCloseTo(1, 1)
    // At its old humidity it would dry a good deal more slowly.
    const damp = dryingCourse([stretch({ air: { ...STILL, tempC: STILL.tempC + 8 } })])
    expect(timeOfCourse(damp, 1, 0.1)).toBeGreaterThan(1.2 * timeOfCourse(course, 1, 0.1))
  })
  it('how fast this piece was found to dry stays here; a cabinet has its own pace', () => {
    const slow = forecast(truth(0.6, [0, 12, 24, 36]))
    const { lnSpeed } = slow.shapes[0]!
    expect(Math.exp(lnSpeed)).toBeLessThan(0.75)
    const cabinet = savingsFrom(slow, stretch(), 'both_faces', 25, 0.1, 0).find(
      (s) => s.change === 'cabinet',
    )!
    const { shape } = slow.shapes[0]!
    const timeIn = (air: Air, speed: number) =>
      timeOfCourse(dryingCourses([stretch({ air })], [shape])[0]!, speed, 0.1)
    const share = timeIn({ tempC: 40, rhPct: 20, speedMS: 1 }, 1) / timeIn(STILL, Math.exp(lnSpeed))
    expect(cabinet.withS / cabinet.asIsS).toBeCloseTo(share, 3)
  })
  it('nights here are left behind by what is carried elsewhere', () => {
    const here = (nightAir: Air | undefined) => {
      const lies = stretch({ ...dryingDepths(25, 'one_face'), ...(nightAir ? { nightAir } : {}) })
      return savingsFrom(forecastDrying([lies], DRY_G, WATER_G, [], 1), lies, 'one_face', 25, 0.1, 0)
    }
    const withS = (change: string, nightAir?: Air) => here(nightAir).find((s) => s.change === change)!.withS
    expect(withS('cabinet', NIGHT) / withS('cabinet')).toBeCloseTo(1, 2)
    expect(withS('rack', NIGHT)).toBeGreaterThan(1.2 * withS('rack'))
  })
  it('nothing once it is dry', () => expect(saved(STILL, 'both_faces', 2000 * H)).toEqual([]))
})

it('wind does less and less: the fan helps the wet surface, not the pores', () => {
  expect(wetSurface(FAN).fluxKgM2S).toBeGreaterThan(1.5 * wetSurface(STILL).fluxKgM2S)
  const [a, b] = [STILL, FAN].map((air) => dryingCurve({ ...stretch(), air, speedFactor: 1 }))
  expect(b!.poreResistance).toBeCloseTo(a!.poreResistance, 9)
})
