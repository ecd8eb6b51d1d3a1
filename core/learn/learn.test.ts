import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  FACTOR,
  FACTORS,
  LEARN_ALL,
  ODD_Z,
  learnFactor,
  learnFrom,
  likelihoodOf,
  priorAfter,
  priorOf,
} from '.'
import type { FactorId } from '.'

const DAY = 86_400_000
const MONTH = 30.44 * DAY
const seen = (ratio: number, i = 0, atMs = 0, sigmaLn = 0.1) => ({ pourId: `p${i}`, atMs, ratio, sigmaLn })
const THREE = [1.3, 1.18, 1.25].map((r, i) => seen(r, i))

describe('a factor', () => {
  it('worked example: three pours that took longer, and a fourth that is odd (derived, docs/science.md#learning)', () => {
    const even = learnFactor({ meanLn: 0, sigmaLn: 0.3, perPourSigmaLn: 0 }, THREE)
    expect(even.factor).toBeCloseTo(1.233, 3)
    expect(even.sigmaLn).toBeCloseTo(0.0567, 4)
    const found = learnFrom('set_time', THREE, 0)
    expect(found.factor).toBeCloseTo(1.22, 3)
    expect(found.sigmaLn).toBeCloseTo(0.086, 3)
    expect(found.nextSigmaLn).toBeCloseTo(0.148, 3)
    // A wrong powder cannot drag it away, and is asked about.
    const odd = learnFrom('set_time', [...THREE, seen(0.45, 3)], 0)
    expect(odd.factor).toBeCloseTo(1.178, 3)
    expect(odd.points.map((p) => Math.abs(p.z) > ODD_Z)).toEqual([false, false, false, true])
    // Weight of the fourth, .12: how little it counts.
    expect(5 / (4 + odd.points[3]!.z ** 2)).toBeCloseTo(0.12, 2)
  })

  // From the priors alone: σ0² / (σ0² + σ² + σp²) of what one pour says (docs/science.md#learning; estimates).
  it.each<[FactorId, number, number]>([
    ['set_time', 0.842, 0.823],
    ['heat', 0.667, 0.649],
    ['drying', 0.831, 0.825],
    ['scoop_density', 0.772, 0.758],
    ['sprinkled', 0.702, 0.702],
    ['slurry_yield', 0.133, 0.133],
  ])('%s is moved so far by one pour read to 5 %, and so far by one of a month ago', (factor, fresh, old) => {
    const moved = (nowMs: number) =>
      learnFrom(factor, [seen(1.02, 0, 0, 0.05)], nowMs).meanLn / Math.log(1.02)
    expect(moved(0)).toBeCloseTo(fresh, 3)
    expect(moved(MONTH)).toBeCloseTo(old, 3)
    // Told from the future, by another clock, it is no older than now.
    expect(moved(-MONTH)).toBeCloseTo(fresh, 3)
  })

  it('rests where its own weights leave it, whatever was seen', () => {
    const any = fc.array(
      fc.record({
        ratio: fc.double({ min: 0.3, max: 3, noNaN: true }),
        sigmaLn: fc.double({ min: 0.02, max: 0.4, noNaN: true }),
      }),
      { maxLength: 8 },
    )
    fc.assert(
      fc.property(any, fc.constantFrom(...FACTORS), (observations, factor) => {
        const prior = priorOf(factor)
        const { meanLn, sigmaLn, z } = learnFactor(prior, observations)
        const weights = observations.map(
          (o, i) => Math.min(1, 5 / (4 + z[i]! ** 2)) / (o.sigmaLn ** 2 + prior.perPourSigmaLn ** 2),
        )
        const precision = prior.sigmaLn ** -2 + weights.reduce((a, b) => a + b, 0)
        const pull = observations.reduce((sum, o, i) => sum + weights[i]! * Math.log(o.ratio), 0)
        expect(meanLn).toBeCloseTo(pull / precision, 4)
        expect(sigmaLn).toBeCloseTo(precision ** -0.5, 4)
      }),
    )
  })

  it('the more pours, the surer, down to what differs each time', () => {
    const many = Array.from({ length: 200 }, (_, i) => seen(1.2, i))
    const [one, all] = [learnFrom('set_time', many.slice(0, 1), 0), learnFrom('set_time', many, 0)]
    expect(all.nextSigmaLn).toBeLessThan(one.nextSigmaLn)
    expect(all.nextSigmaLn).toBeGreaterThan(FACTOR.set_time.perPourSigmaLn)
    expect(all.factor).toBeCloseTo(1.2, 2)
  })
})

describe('what counts', () => {
  const all = [seen(1.3, 0, DAY), seen(1.2, 1, 5 * DAY), seen(0.5, 2, 9 * DAY)]
  const learn = (choice: Partial<typeof LEARN_ALL>) =>
    learnFrom('set_time', all, 9 * DAY, { ...LEARN_ALL, ...choice })
  it('left out, set back or switched off it counts no more', () => {
    expect(learn({ leftOut: ['p2'] }).points.map((p) => p.pourId)).toEqual(['p0', 'p1'])
    expect(learn({ sinceMs: 5 * DAY }).pours).toBe(2)
    expect(learn({ leftOut: ['p2'], sinceMs: 2 * DAY })).toEqual(learnFrom('set_time', [all[1]!], 9 * DAY))
    const off = learn({ off: true })
    expect(off).toMatchObject({ factor: 1, meanLn: 0, sigmaLn: 0.3, pours: 3 })
    // Its points are still shown.
    expect(off.points.map((p) => p.z)).toEqual([0, 0, 0])
  })
  it('spoon tests count beside pours and are no points; set back they go as well', () => {
    const spoon = { atMs: 2 * DAY, ratio: 1.4, sigmaLn: 0.08 }
    const with_ = learnFrom('set_time', all.slice(0, 1), 9 * DAY, LEARN_ALL, priorOf('set_time'), [spoon])
    expect(with_.pours).toBe(1)
    expect(with_.factor).toBeGreaterThan(learnFrom('set_time', all.slice(0, 1), 9 * DAY).factor)
    const back = { ...LEARN_ALL, sinceMs: 3 * DAY }
    expect(learnFrom('set_time', [], 9 * DAY, back, priorOf('set_time'), [spoon]).factor).toBe(1)
  })
  it('what was seen is worth less the older it is, whatever the year', () => {
    const after = (months: number, bornMs: number) =>
      learnFrom('set_time', [seen(1.3, 0, bornMs)], bornMs + months * MONTH).sigmaLn
    expect(after(12, 0)).toBeGreaterThan(after(1, 0))
    expect(after(12, 600 * MONTH)).toBeCloseTo(after(12, 0), 12)
  })
  it('the order of telling is nothing', () => {
    const some = [1.3, 0.9, 1.1, 2].map((r, i) => seen(r, i, i * DAY))
    expect(learnFrom('drying', some, 9 * DAY)).toEqual(learnFrom('drying', [...some].reverse(), 9 * DAY))
  })
})

it('a new bag starts from half of what the last one showed, at σ .25 (docs/science.md#learning)', () => {
  expect(priorAfter('set_time', { meanLn: 0.2, pours: 6 })).toEqual({
    meanLn: 0.1,
    sigmaLn: 0.25,
    perPourSigmaLn: 0.12,
  })
  expect(priorAfter('set_time', { meanLn: 0.2, pours: 0 })).toEqual(priorOf('set_time'))
  expect(priorAfter('set_time', undefined)).toEqual(priorOf('set_time'))
})

it('a prior taken out of what was found gives back what was put in', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      fc.double({ min: 0.05, max: 0.3, noNaN: true }),
      fc.double({ min: -0.3, max: 0.3, noNaN: true }),
      (meanLn, sigmaLn, priorMean) => {
        const prior = { meanLn: priorMean, sigmaLn: 0.35 }
        const w = [sigmaLn ** -2, prior.sigmaLn ** -2]
        const found = {
          meanLn: (meanLn * w[0]! + priorMean * w[1]!) / (w[0]! + w[1]!),
          sigmaLn: (w[0]! + w[1]!) ** -0.5,
        }
        const alone = likelihoodOf(found, prior)!
        expect(alone.meanLn).toBeCloseTo(meanLn, 8)
        expect(alone.sigmaLn).toBeCloseTo(sigmaLn, 8)
      },
    ),
  )
  // A fifth surer than the prior is the least that counts as seen.
  const surer = (by: number) =>
    likelihoodOf({ meanLn: 0.1, sigmaLn: 0.4 * (1 + by) ** -0.5 }, { meanLn: 0, sigmaLn: 0.4 })
  expect(surer(0.19)).toBeUndefined()
  expect(surer(0.21)!.sigmaLn).toBeCloseTo(0.4 * 0.21 ** -0.5, 8)
})
