import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEMO_MOULDS } from '../../../scripts/demoMoulds'
import { eventAt, fold, testPlan, wholeRun } from '../../../tests/unit/plans'
import type { DryingSpot } from '../../drying'
import { CAUSES, type CauseId } from '../../finish'
import { learnPace } from '../../forecast'
import {
  HEED_AT,
  STAGES,
  compareSchools,
  diagnosePour,
  dryingAhead,
  evaluatePlan,
  evidenceOf,
  faultsOf,
  finishWindows,
  foldPour,
  hasSetEvidence,
  heedAt,
  heeding,
  keepPlan,
  movedBy,
  observationsOf,
  planMould,
  refusalsOf,
  signsOf,
  subjectsOf,
  summarisePour,
  viewPour,
  type EventBody,
  type PourEvent,
  type PourPlan,
} from '..'

const MIN = 60_000
const DAY = 86_400_000
const ID = '00000000-0000-4000-8000-0000000000aa'
const at = (min: number, body: EventBody): PourEvent => eventAt(min * MIN, body)
const without = (...types: EventBody['type'][]) => wholeRun().filter((e) => !types.includes(e.body.type))
const moved = (type: EventBody['type'], toMin: number) =>
  wholeRun().map((e) => (e.body.type === type ? { ...e, occurredAtMs: toMin * MIN } : e))
const air = at(95, { type: 'defect', kind: 'air_holes' })
const first = (plan: PourPlan, events: PourEvent[]) => diagnosePour(fold(plan, events)).causes[0]!
const tile: PourPlan = {
  ...testPlan('pop'),
  mould: planMould([{ ...DEMO_MOULDS.tile, mouldId: ID, count: 1 }])!,
}

describe('what a record says', () => {
  it('of a pour by the book: every figure is there, and nothing speaks clearly for a fault', () => {
    const signs = signsOf(fold(testPlan(), wholeRun()))
    expect(signs.soaked!.actual).toBe(120)
    expect(signs.ratio_over!.value).toBeCloseTo(706 / 1009 / 0.7, 3)
    expect(signs.tapped!.actual).toBe(60)
    expect(signs.out_at!.actual).toBeCloseTo(84.5 * 60, 0)
    expect(signs.sift_pace!.actual).toBeCloseTo(60 / 1.009, 3)
    expect(signs.full_at!.limit).toBeGreaterThan(300)
    expect(signs.not_drained).toBeUndefined()
    const found = diagnosePour(fold(testPlan(), [...wholeRun(), air]))
    expect(found.clean).toBe(true)
  })
  it('of a pour half done says nothing of what has not happened', () => {
    const signs = signsOf(fold(testPlan(), wholeRun().slice(0, 5)))
    for (const sign of ['tapped', 'out_at', 'full_at', 'drying_temp', 'stirred_until', 'ran_short'] as const)
      expect(signs[sign], sign).toBeUndefined()
  })
  it.each<[CauseId, PourEvent[], PourPlan?]>([
    ['no_tap', without('tapped')],
    ['soak_short', moved('soaked', 6.2)],
    ['past_working', moved('poured', 28)],
    [
      'stirred_hard',
      wholeRun().map((e) => (e.body.type === 'stirred' ? { ...e, body: { ...e.body, manner: 'drill' } } : e)),
    ],
  ])('full of air: %s is named first', (cause, events, plan = testPlan()) => {
    expect(first(plan, [...events, air]).cause).toBe(cause)
  })
  it('soft: too much water, by its own masses; one that came out early; one that dried too hot', () => {
    const soft = at(95, { type: 'defect', kind: 'soft' })
    const wet = wholeRun().map((e) =>
      e.body.type === 'weighed' && e.body.what === 'water' ? { ...e, body: { ...e.body, massG: 900 } } : e,
    )
    expect(first(testPlan(), [...wet, soft]).cause).toBe('too_thin')
    expect(first(testPlan(), [...moved('demoulded', 30), soft]).cause).toBe('early_out')
    const oven: DryingSpot = { placeId: null, name: 'Oven', air: { tempC: 50, rhPct: 10, speedMS: 1 } }
    const hot = [...wholeRun(), soft, at(100, { type: 'dries_at', spot: oven, lies: 'both_faces' })]
    expect(first(testPlan(), hot).cause).toBe('dried_hot')
  })
  it('short: what ran out, and what was mixed', () => {
    const short = at(95, { type: 'defect', kind: 'short_fill' })
    const leaked = at(10.5, { type: 'leaked', plug: 'clay', lostMl: 180 })
    expect(first(testPlan(), [...wholeRun(), leaked, short]).cause).toBe('leaked')
    expect(
      first(testPlan('pottery', { sparePct: 0 }), [
        ...wholeRun().map((e) =>
          e.body.type === 'weighed' ? { ...e, body: { ...e.body, massG: 0.78 * e.body.massG } } : e,
        ),
        short,
      ]).cause,
    ).toBe('mixed_short')
  })
  it('stuck, where the release was left undone and others were ticked', () => {
    const plan = { ...testPlan(), mould: planMould([{ ...DEMO_MOULDS.clock, mouldId: ID, count: 1 }])! }
    const ticked = at(0, { type: 'prepared', item: 'bench_ready' })
    const stuck = at(95, { type: 'defect', kind: 'stuck' })
    const found = diagnosePour(fold(plan, [ticked, ...wholeRun(), stuck]))
    expect(found.causes[0]!.cause).toBe('release_missing')
    expect(signsOf(fold(plan, wholeRun())).release_undone).toBeUndefined()
  })
  it('what cannot have been is left out, whatever was seen', () => {
    const every = ['flow_lines', 'soft', 'stuck', 'stains'].map((kind) =>
      at(95, { type: 'defect', kind: kind as 'soft' }),
    )
    const causes = diagnosePour(fold(tile, [...wholeRun(), ...every])).causes.map((c) => c.cause)
    for (const none of ['layers_late', 'gel_softens', 'mould_colours'] as const)
      expect(causes).not.toContain(none)
  })
  it('a fault taken back is none, and one told twice is one', () => {
    const twice = [...wholeRun(), air, at(96, { type: 'defect', kind: 'air_holes', place: 'face' })]
    expect(faultsOf(fold(testPlan(), twice))).toHaveLength(2)
    expect(diagnosePour(fold(testPlan(), twice))).toEqual(
      diagnosePour(fold(testPlan(), [...wholeRun(), air])),
    )
    const back = [...wholeRun(), air, at(97, { type: 'void', targetId: air.id })]
    expect(diagnosePour(fold(testPlan(), back)).causes).toEqual([])
  })
})

describe('the next plan', () => {
  it('heeds any cause, and is one that can be poured, with something moved or something to keep in mind', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...CAUSES), { minLength: 1, maxLength: 6 }), (causes) => {
        const plan = testPlan('pottery', {
          soakS: 20,
          stirS: 600,
          stirManner: 'drill',
          waterTempC: 12,
          water: 'sea',
          dryingExposure: 'one_face',
          consistency: 90,
        })
        const next = heeding(plan, causes)
        expect(refusalsOf(next)).toEqual([])
        expect(next.heed).toEqual(causes)
        for (const cause of causes) {
          expect(STAGES).toContain(HEED_AT[cause])
          expect(heedAt(next, HEED_AT[cause])).toContain(cause)
        }
        // Heeded twice it is the same plan, but for what can still be moved further.
        const again = heeding(next, causes)
        expect(again.heed).toEqual(causes)
      }),
    )
  })
  it('is better for it: what spoke for the cause speaks no more', () => {
    const plan = testPlan('pottery', { soakS: 20, script: { order: [], leftOut: ['tap'] } })
    expect(movedBy(plan, 'soak_short')).toEqual(['soakS'])
    expect(movedBy(plan, 'no_tap')).toEqual(['script'])
    expect(movedBy(plan, 'knocked')).toEqual([])
    const next = heeding(plan, ['soak_short', 'no_tap'])
    expect(next.soakS).toBe(120)
    expect(next.script!.leftOut).toEqual([])
    expect(heeding(testPlan('investment', { soakS: 20 }), ['soak_short']).soakS).toBe(180)
    const thin = heeding(
      testPlan('pottery', { consistency: 95, ratioMethod: 'by_eye', siftStage: 'islands' }),
      ['too_thin'],
    )
    expect(thin).toMatchObject({ consistency: 70, ratioMethod: 'weighed' })
    expect('siftStage' in thin).toBe(false)
    expect(heeding(testPlan('pottery', { waterTempC: 6 }), ['cold']).waterTempC).toBe(24)
    expect(heeding(testPlan('pottery', { waterTempC: 20 }), ['past_working']).waterTempC).toBe(14)
    expect(heeding(testPlan('pottery', { waterTempC: 5 }), ['past_working']).waterTempC).toBe(5)
    expect(heeding(testPlan('pottery', { sparePct: 45 }), ['mixed_short']).sparePct).toBe(50)
  })
})

const RACK: DryingSpot = { placeId: ID, name: 'Rack', air: { tempC: 20, rhPct: 50, speedMS: 0.1 } }
const bagged = (setFactor?: number): PourPlan => {
  const plan = testPlan('pottery', { dryingPlace: RACK })
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
    const facts = foldPour(keepPlan(scooped), run)
    expect(facts.settingInput.consistency).toBeGreaterThan(75)
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

describe('a piece that is out', () => {
  const facts = fold(tile, wholeRun().slice(0, 11))
  const out = facts.drying!.startMs
  it('has work while it is soft, and other work once it is dry, each in its window', () => {
    const windows = new Map(finishWindows(facts).map((w) => [w.task, w]))
    expect(windows.get('knock_bumps')!.fromMs).toBe(out)
    expect(windows.get('knock_bumps')!.untilMs).toBeLessThan(windows.get('sand_dry')!.fromMs)
    expect(windows.get('paint')!.fromMs).toBeLessThan(windows.get('sand_dry')!.fromMs)
    expect(windows.get('sand_dry')!.fromMs).toBeLessThan(windows.get('seal')!.fromMs)
    expect(windows.get('rinse_dab')!.fromMs).toBe(out + DAY / 2)
    // Of an ear out of gel, the gel is picked; of a tile, nothing.
    expect(windows.has('pick_gel')).toBe(false)
    const ear = { ...tile, mould: planMould([{ ...DEMO_MOULDS.ear, mouldId: ID, count: 1 }])! }
    expect(finishWindows(fold(ear, wholeRun().slice(0, 11))).map((w) => w.task)).toContain('pick_gel')
  })
  it('nothing that shuts the water in is offered for what works by drawing it', () => {
    const jug = { ...tile, mould: planMould([{ ...DEMO_MOULDS.jug, mouldId: ID, count: 1 }])! }
    const tasks = finishWindows(fold(jug, wholeRun().slice(0, 11))).map((w) => w.task)
    expect(tasks).not.toContain('seal')
    expect(tasks).not.toContain('paint')
  })
  it('rings for the soft work in good time, until it is done', () => {
    const soft = (events: PourEvent[]) =>
      viewPour(fold(tile, events), out + 1).otherClocks.find((c) => c.id === 'soft_finish')
    const clock = soft(wholeRun().slice(0, 11))!
    expect(clock.dueMs).toBeLessThan(clock.untilMs!)
    const done = finishWindows(facts).map((w, i) => at(92 + i, { type: 'finish_done', task: w.task }))
    expect(soft([...wholeRun().slice(0, 11), ...done])).toBeUndefined()
  })
  it('will do for each use on a date, in order, the wanted one marked', () => {
    const { dates } = dryingAhead(facts, out)!
    expect(dates.filter((d) => d.wanted).map((d) => d.target)).toEqual(['paint'])
    for (const { atMs } of dates) expect(atMs.low <= atMs.mid && atMs.mid <= atMs.high).toBe(true)
    expect(dates.map((d) => d.target).indexOf('handle')).toBe(0)
    expect(dates.at(-1)!.target).toBe('full_strength')
  })
})
