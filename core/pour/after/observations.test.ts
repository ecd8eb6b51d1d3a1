import { describe, expect, it } from 'vitest'
import { eventAt, fold, testPlan, wholeRun } from '../../../tests/unit/plans'
import { leftOfCourse } from '../../drying'
import { learnPace, type LearntForecast } from '../../forecast'
import { bulkDensityOf } from '../../mix'
import {
  compareSchools,
  evaluatePlan,
  evidenceOf,
  foldPour,
  hasSetEvidence,
  keepPlan,
  observationsOf,
  subjectsOf,
  summarisePour,
  type EventBody,
  type PourEvent,
  type PourPlan,
  type ProbeTrace,
} from '..'

const MIN = 60_000
const ID = '00000000-0000-4000-8000-0000000000aa'
const at = (min: number, body: EventBody): PourEvent => eventAt(min * MIN, body)
const air = at(95, { type: 'defect', kind: 'air_holes' })

const RACK: NonNullable<PourPlan['dryingPlace']> = {
  placeId: ID,
  name: 'Rack',
  air: { tempC: 20, rhPct: 50, speedMS: 0.1 },
}
const bagged = (setFactor?: number, dryingPlace = RACK): PourPlan => {
  const plan = testPlan('pottery', { dryingPlace })
  const bag = { bagId: ID, name: 'A bag', boughtG: 25_000, price: 20 }
  return { ...plan, plaster: { ...plan.plaster, bag: setFactor === undefined ? bag : { ...bag, setFactor } } }
}
/** The marks of a bucket that takes `slower` times as long as forecast, seen as they happened. */
function slowRun(plan: PourPlan, slower: number): PourEvent[] {
  const facts = fold(plan, wholeRun())
  const after = (mark: 'initial_set' | 'final_set') =>
    (facts.settingStartMs! + slower * facts.setting.timeS[mark].mid * 1000) / MIN
  return [
    ...wholeRun(),
    at(after('initial_set'), { type: 'touch', cue: 'gloss_gone', seen: true }),
    at(after('final_set'), { type: 'touch', cue: 'thumbnail_no_dent', seen: true }),
  ]
}
function seenOf(plan: PourPlan, events: PourEvent[]) {
  const facts = foldPour(keepPlan(plan), events)
  const learnt = hasSetEvidence(facts, []) ? learnPace(evidenceOf(facts, [])!, 0) : undefined
  return Object.fromEntries(observationsOf(facts, learnt, []).map((o) => [o.factor, o]))
}

describe('what a pour teaches', () => {
  it('its bag’s pace is what was seen over what the card says, whatever was known before', () => {
    const fresh = seenOf(bagged(), slowRun(bagged(), 1.3)).set_time!
    expect(fresh.ratio).toBeGreaterThan(1.2)
    expect(fresh.ratio).toBeLessThan(1.4)
    expect(fresh.sigmaLn).toBeLessThan(0.2)
    // A plan that knew of 1.3 and saw what it expected saw 1.3 against the card.
    expect(seenOf(bagged(1.3), slowRun(bagged(1.3), 1)).set_time!.ratio).toBeCloseTo(1.3, 1)
  })
  it('nothing seen of the set teaches nothing of it', () => {
    expect(seenOf(bagged(), wholeRun()).set_time).toBeUndefined()
    expect(hasSetEvidence(foldPour(keepPlan(bagged()), wholeRun()), [])).toBe(false)
  })
  it('its place learns from weighings, unless the piece was carried about', () => {
    const weigh = (h: number, massG: number) => at(90 + 60 * h, { type: 'weighing', massG })
    const dries = [weigh(24, 1380), weigh(48, 1250)]
    const found = seenOf(bagged(), [...wholeRun().slice(0, 11), ...dries]).drying!
    expect(found.subject).toBe(`place:${ID}`)
    expect(found.sigmaLn).toBeLessThan(0.2)
    const carried = at(200, { type: 'dries_at', spot: { ...RACK, placeId: null }, lies: 'both_faces' })
    expect(seenOf(bagged(), [...wholeRun().slice(0, 11), ...dries, carried]).drying).toBeUndefined()
  })
  it('a weighed slurry speaks of the scoop or of the hand, never of both, and the set is held against it', () => {
    const check = at(9, { type: 'slurry_checked', massG: 1490, volumeMl: 1000 })
    const scooped = {
      ...bagged(),
      ratioMethod: 'by_volume' as const,
      scoop: { measureMl: 250, packing: 'scooped' as const, weighedKgM3: null },
    }
    const run = [...wholeRun().slice(0, 6), check, ...wholeRun().slice(6)]
    const found = seenOf(scooped, run)
    expect(found.scoop_density!.subject).toBe(`scoop:${ID}`)
    expect(found.scoop_density!.ratio).toBeLessThan(1)
    expect(found.sprinkled).toBeUndefined()
    const byEye = seenOf({ ...bagged(), ratioMethod: 'by_eye', siftStage: 'lake_bed' }, run)
    expect(byEye.sprinkled!.subject).toBe('person:test')
    expect(byEye.sprinkled!.ratio).toBeGreaterThan(1)
    expect(byEye.scoop_density).toBeUndefined()
    // A hand is a person where they were let in; a name however it is written; and nobody's where nobody said.
    const handIs = (whose: Pick<PourEvent, 'who' | 'whoId'>) =>
      subjectsOf(
        foldPour(
          keepPlan({ ...bagged(), ratioMethod: 'by_eye', siftStage: 'lake_bed' }),
          run.map((e) => ({ ...e, ...whose })),
        ),
      ).filter((s) => s.startsWith('person:'))
    expect(handIs({ who: 'Ann', whoId: ID })).toEqual([`person:${ID}`])
    expect(handIs({ who: ' ANN' })).toEqual(handIs({ who: 'ann' }))
    expect(handIs({ who: ' ' })).toEqual([])
    const facts = foldPour(keepPlan(scooped), run)
    expect(facts.settingInput.consistency).toBeGreaterThan(75)
  })
  it('what a scoop weighs is its own ratio to the class, whatever was taken for it', () => {
    const check = at(9, { type: 'slurry_checked', massG: 1540, volumeMl: 1000 })
    const run = [...wholeRun().slice(0, 6), check, ...wholeRun().slice(6)]
    const scooped = (weighedKgM3: number | null): PourPlan => ({
      ...bagged(),
      ratioMethod: 'by_volume',
      scoop: { measureMl: 250, packing: 'scooped', weighedKgM3 },
    })
    const facts = foldPour(keepPlan(scooped(null)), run)
    const { low, mid, high } = facts.batches[0]!.inBowl.checked!
    const usual = bulkDensityOf('pottery', { measureMl: 250, packing: 'scooped', weighedKgM3: null }).value
    // Its range holds four in five, 2.56 σ from end to end.
    expect(seenOf(scooped(null), run).scoop_density!.sigmaLn).toBeCloseTo(Math.log(high / low) / 2.56, 6)
    expect(seenOf(scooped(null), run).scoop_density!.atMs).toBe(facts.settingStartMs)
    // As much water came to be in it as if the scoops had been so much lighter than they were taken for.
    expect(seenOf(scooped(null), run).scoop_density!.ratio).toBeCloseTo(70 / mid, 6)
    expect(seenOf(scooped(1.1 * usual), run).scoop_density!.ratio).toBeCloseTo((1.1 * 70) / mid, 6)
    // Of a hand that is known to go a tenth beyond the look, what it really does is told, not how far it was off again.
    const hand = (factor: number): PourPlan => ({
      ...bagged(),
      ratioMethod: 'by_eye',
      siftStage: 'lake_bed',
      learnt: { sprinkled: { factor, sigmaLn: 0.05, pours: 4 } },
    })
    const told = (factor: number) => seenOf(hand(factor), run).sprinkled!.ratio
    expect(told(1.1) / told(1)).toBeCloseTo(1.1, 6)
    const sifted = hand(1)
    const inBowl = foldPour(keepPlan(sifted), run).batches[0]!.inBowl.checked!
    expect(told(1)).toBeCloseTo(inBowl.mid / sifted.consistency, 6)
  })
  it('how hot it got teaches the bag’s heat: past its peak, by a thermometer that is believed, in its own bowl', () => {
    const facts = foldPour(keepPlan(bagged()), wholeRun())
    const { mixTempC } = facts.settingInput
    const learnt = (change: Partial<LearntForecast> = {}) =>
      ({
        marks: { peakC: mixTempC + 20 },
        probeFaults: [],
        pace: PACE,
        prior: PACE,
        ...change,
      }) as LearntForecast
    const PACE = { meanLn: 0, sigmaLn: 0.3 }
    const trace = (temps: (number | null)[], batch = 0): ProbeTrace => ({
      device: 'bath',
      channel: 't1',
      batch,
      readings: temps.map((k, i) => ({ atMs: (12 + i) * MIN, tempC: k === null ? null : mixTempC + k })),
    })
    const heatOf = (traces: ProbeTrace[], of = learnt(), plan = bagged()) =>
      observationsOf(foldPour(keepPlan(plan), wholeRun()), of, traces).find((o) => o.factor === 'heat')
    const passed = trace([1, 12, 18, null, 16.9])
    expect(heatOf([passed])).toMatchObject({ subject: `bag:${ID}`, ratio: 0.9 })
    expect(heatOf([passed])!.sigmaLn).toBeCloseTo(Math.hypot(0.08, 0.6 / 18), 6)
    // The hottest of several; what the plan knew of its heat already is in its forecast, and counts once.
    expect(heatOf([passed, trace([2, 19, 17])])!.ratio).toBeCloseTo(19 / 20, 6)
    const knew = { ...bagged(), learnt: { heat: { factor: 1.2, sigmaLn: 0.05, pours: 3 } } }
    expect(heatOf([passed], learnt(), knew)!.ratio).toBeCloseTo(1.2 * 0.9, 6)
    for (const nothing of [
      heatOf([trace([1, 12, 18, 17.1])]),
      heatOf([trace([18, 16])]),
      heatOf([trace([1, 18, 12], 1)]),
      heatOf([trace([0.2, 0.9, -0.6])]),
      heatOf([passed], learnt({ probeFaults: ['flat'] as never })),
      heatOf([passed], learnt({ marks: { peakC: mixTempC + 1.5 } as never })),
      heatOf([]),
    ])
      expect(nothing).toBeUndefined()
    expect(observationsOf(facts, undefined, [passed]).map((o) => o.factor)).not.toContain('heat')
  })
  it('what a place does is told apart from what was expected of it', () => {
    const out = wholeRun().slice(0, 10)
    const { shapes, dryMassG, waterAtStartG } = fold(bagged(), out).drying!.forecast
    const { course } = shapes.find(({ shape }) => shape.critical === 1 && shape.diffusivity === 1)!
    // Weighed as a piece would be that dries at .8 of what its air should do.
    const weighed = [0.2, 24, 48].map((h) => {
      const massG = Math.round(dryMassG + waterAtStartG * leftOfCourse(course, 0.8, h * 3600))
      return at(90 + 60 * h, { type: 'weighing', massG })
    })
    const told = (plan: PourPlan, of = weighed) => seenOf(plan, [...out, ...of]).drying
    for (const pace of [
      { meanLn: -0.2, sigmaLn: 0.1, pours: 9 },
      { meanLn: 0.15, sigmaLn: 0.2, pours: 3 },
    ]) {
      const found = told(bagged(undefined, { ...RACK, pace }))!
      expect(found.ratio).toBeCloseTo(0.8, 2)
      expect(found.sigmaLn).toBeCloseTo(told(bagged())!.sigmaLn, 2)
    }
    // Weighed once, it says nothing of its pace.
    expect(told(bagged(), weighed.slice(0, 1))).toBeUndefined()
  })
  it('what was over says what the bowl gives', () => {
    const plan = {
      ...bagged(),
      batching: {
        split: { by: 'need' as const },
        bowl: { bowlId: ID, name: 'B', volumeMl: 4000, tareG: 1 },
        pourRateMlMin: null,
        scaleCapacityG: null,
      },
    }
    const over = (ml: number) =>
      seenOf(plan, [...wholeRun(), at(13, { type: 'left_over', volumeMl: ml })]).slurry_yield!
    expect(over(120).ratio / over(60).ratio).toBeCloseTo(1120 / 1060, 6)
    expect(seenOf(plan, wholeRun()).slurry_yield).toBeUndefined()
    const beforeFull = [...wholeRun().slice(0, 7), at(10.5, { type: 'left_over', volumeMl: 60 })]
    expect(seenOf(plan, beforeFull).slurry_yield).toBeUndefined()
    // A bowl that gives less is given more, and then the mould is as full as from one that gives all.
    const outcomeOf = (of: PourPlan) => {
      const found = evaluatePlan({ ...of, scaleDivisionG: 0.1 })
      return found.ok ? found.outcome : undefined
    }
    const mean = { ...plan, learnt: { slurryYield: { factor: 0.95, sigmaLn: 0.02, pours: 4 } } }
    const [all, some] = [outcomeOf(plan)!, outcomeOf(mean)!]
    expect(some.weighOut.powderG / all.weighOut.powderG).toBeCloseTo(1 / 0.95, 3)
    expect(some.leftover.leftMl).toBeCloseTo(all.leftover.leftMl, 0)
    const fill = (of: PourPlan) => compareSchools(of, undefined).find((s) => s.id === 'plan')!.fill
    expect(fill(mean)).toBeCloseTo(fill(plan), 2)
  })
  it('is summed up with its subjects and tags, without a model', () => {
    const plan = { ...bagged(), recipe: { recipeId: ID, name: 'Plain' } }
    const sum = summarisePour(keepPlan(plan), [...wholeRun(), air], 1)
    expect(sum.teaches).toEqual([`bag:${ID}`, `place:${ID}`])
    expect(sum.tags).toEqual([`recipe:${ID}`, `bag:${ID}`, `place:${ID}`, 'fault:air_holes'])
    expect(sum.casts).toBe(1)
    expect(sum.cost).toBeCloseTo((20 * 1009) / 25_000, 6)
    expect(sum.dryDays).toBeCloseTo(8641 / 1440, 3)
    expect(subjectsOf(foldPour(keepPlan(testPlan()), wholeRun()))).toEqual([])
  })
})
