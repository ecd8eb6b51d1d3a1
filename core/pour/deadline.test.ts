import { expect, it } from 'vitest'
import { testPlan } from '../../tests/unit/plans'
import { plasterProperties } from '../plaster'
import { usualFacts, type VolumeMethod } from '../mould'
import { MS_PER } from '../units'
import {
  coverOf,
  covered,
  deadlineOf,
  deadlineRemedies,
  evaluatePlan,
  planMould,
  type Deadline,
  type PourPlan,
} from '.'

const print = (coverMm: number): VolumeMethod => ({
  by: 'traced',
  areaMm2: 6000,
  areaPlusMinusMm2: 300,
  printLengthMm: 110,
  printDepthMm: 18,
  meanDepthMm: 12,
  form: 'between',
  ringLengthMm: 150,
  ringWidthMm: 115,
  coverMm,
  ground: 'damp',
  soil: 'mud',
})
/** A print in mud on a cool day, in plaster of Paris. */
function inMud(change: Partial<PourPlan> = {}, coverMm = 25): PourPlan {
  const mould = planMould([
    {
      mouldId: null,
      name: 'Print',
      count: 1,
      purpose: 'print',
      facts: usualFacts('sand_soil'),
      volume: {
        parts: [{ role: 'add', count: 1, method: print(coverMm) }],
        cavities: 1,
        check: null,
        trust: 'parts',
      },
      thicknessMm: coverMm + 9,
    },
  ])!
  return {
    ...testPlan(),
    mould,
    plaster: { name: 'Plaster of Paris', properties: plasterProperties('pop') },
    consistency: 60,
    waterTempC: 10,
    powderTempC: 10,
    mouldTempC: 7,
    air: { tempC: 9, rhPct: 80, speedMS: 1 },
    ...change,
  }
}
const outcomeOf = (plan: PourPlan) => {
  const found = evaluatePlan(plan)
  if (!found.ok) throw new Error(JSON.stringify(found.issues))
  return found.outcome
}
const by = (leaveMin: number, withGround = false): Deadline => ({
  leaveAtMs: leaveMin * MS_PER.min,
  why: 'tide',
  withGround,
})

it('the last moment to mix is as the piece is advised out, ten minutes before one goes', () => {
  const outcome = outcomeOf(inMud())
  const { recommendedS } = outcome.demould
  const answer = deadlineOf(by(240), outcome, 0)
  expect(answer.mixByMs).toBeCloseTo((240 - 10) * MS_PER.min - recommendedS * MS_PER.s, 0)
  expect(answer.outAtMs).toBeCloseTo(recommendedS * MS_PER.s, 0)
  // Mixed at that very moment nothing is left over, and it is ready nine times in ten.
  const last = deadlineOf(by(240), outcome, answer.mixByMs)
  expect(last.spareS).toBeCloseTo(0, 6)
  expect(last.fits).toBe(true)
  expect(deadlineOf(by(240), outcome, answer.mixByMs + 1).fits).toBe(false)
  expect(last.chance).toBeGreaterThan(0.87)
})

it('chances grow with the time there is, are never all, and are none before the least that is asked for', () => {
  const outcome = outcomeOf(inMud())
  const chances = [20, 45, 70, 100, 140, 200, 300].map((min) => deadlineOf(by(min), outcome, 0).chance)
  expect(chances).toEqual([...chances].sort((a, b) => a - b))
  expect(chances.at(-1)).toBeLessThan(1)
  const floorMin = outcome.demould.floorS / 60
  expect(deadlineOf(by(floorMin + 10 - 0.1), outcome, 0).chance).toBe(0)
  // With its ground it only has to be hard.
  const lifted = deadlineOf(by(floorMin + 9, true), outcome, 0)
  expect(lifted.chance).toBeGreaterThan(0)
  expect(deadlineOf(by(240, true), outcome, 0).mixByMs).toBeGreaterThan(
    deadlineOf(by(240), outcome, 0).mixByMs,
  )
})

it('three pours on one tide: one fits, one only with its ground, one not at all', () => {
  const plan = inMud()
  const outcome = outcomeOf(plan)
  const outMin = outcome.demould.recommendedS / 60
  const setMin = outcome.setting.timeS.final_set.high / 60
  expect(setMin).toBeLessThan(outMin)
  expect(deadlineOf(by(outMin + 15), outcome, 0).fits).toBe(true)

  const between = by((setMin + outMin) / 2 + 10)
  expect(deadlineOf(between, outcome, 0).fits).toBe(false)
  const remedies = deadlineRemedies(plan, between, 0)
  expect(remedies[0]).toMatchObject({ way: { id: 'with_ground' }, answer: { fits: true } })
  for (const { gainS, answer } of remedies) {
    expect(gainS).toBeGreaterThanOrEqual(60)
    expect(answer.spareS - deadlineOf(between, outcome, 0).spareS).toBeCloseTo(gainS, 6)
  }

  const none = deadlineRemedies(plan, by(12), 0)
  expect(none.every((r) => !r.answer.fits)).toBe(true)
})

it('warmer water and a faster plaster are sooner, each as it is really worked out; a cover is thinned to what holds', () => {
  const plan = inMud()
  const soon = by(60)
  const dental = {
    key: 'stone',
    name: 'Dental stone',
    plan: inMud({
      plaster: { name: 'Dental stone', properties: plasterProperties('dental3') },
      consistency: 30,
    }),
  }
  const found = deadlineRemedies(plan, soon, 0, [dental])
  const of = (id: string) => found.find((r) => r.way.id === id)
  const warm = of('warmer_water')!
  expect(warm.way).toMatchObject({ waterTempC: 20 })
  expect(warm.answer.outAtMs).toBeCloseTo(
    outcomeOf({ ...plan, waterTempC: 20 }).demould.recommendedS * MS_PER.s,
    0,
  )
  const cover = of('thinner_cover')
  if (cover) expect(cover.way).toMatchObject({ coverMm: 12 })
  const other = of('other_plaster')
  if (other)
    expect(other.answer.outAtMs).toBeCloseTo(outcomeOf(dental.plan).demould.recommendedS * MS_PER.s, 0)
  expect(found.length).toBeGreaterThan(1)
  // It has no more cover than it needs: there is nothing to save.
  expect(deadlineRemedies(inMud({}, 12), soon, 0).some((r) => r.way.id === 'thinner_cover')).toBe(false)
  // Already lifted with its ground: that is no news.
  expect(deadlineRemedies(plan, by(30, true), 0).some((r) => r.way.id === 'with_ground')).toBe(false)
})

it('a thinner cover takes less plaster and makes a thinner piece; what is no print stays as it is', () => {
  const volume = {
    parts: [{ role: 'add' as const, count: 1, method: print(25) }],
    cavities: 1,
    check: null,
    trust: 'parts' as const,
  }
  const thin = covered({ volume, thicknessMm: 34 }, 12)
  expect(thin.thicknessMm).toBe(21)
  expect([coverOf(volume), coverOf(thin.volume)]).toEqual([25, 12])
  const [thick, thinner] = [25, 12].map((mm) => inMud({}, mm).mould.cavityMl)
  // The cover lies over all that the ring holds, and spreads as damp ground lets it.
  expect(thick! - thinner!).toBeCloseTo(((Math.PI / 4) * 150 * 115 * 13 * 1.05) / 1000, 1)
  const box = {
    ...volume,
    parts: [
      { role: 'add' as const, count: 1, method: { by: 'known' as const, volumeMl: 300, plusMinusPct: 5 } },
    ],
  }
  expect(covered({ volume: box, thicknessMm: 20 }, 12)).toEqual({ volume: box, thicknessMm: 20 })
})
