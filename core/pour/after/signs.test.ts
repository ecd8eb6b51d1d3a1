import { describe, expect, it } from 'vitest'
import { DEMO_MOULDS } from '../../../server/demo/moulds'
import { eventAt, fold, testPlan, wholeRun } from '../../../tests/unit/plans'
import type { DryingSpot } from '../../drying'
import { worthOf, type CauseId, type SignId } from '../../finish'
import type { Purpose } from '../../mould'
import type { AdditionId } from '../../plaster'
import {
  asksOf,
  batchesOf,
  diagnosePour,
  evaluatePlan,
  faultsOf,
  planMould,
  signsOf,
  type EventBody,
  type PlanIssueCode,
  type PourEvent,
  type PourPlan,
} from '..'

const MIN = 60_000
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
  it('of two bowls, how late the second came upon the first; scored it holds all the same', () => {
    const layers = [
      { name: 'First', sharePct: 40 },
      { name: 'Second', sharePct: 60 },
    ]
    const plan = testPlan('pottery', {
      filling: 'two_stage',
      batching: { split: { by: 'layers', layers }, bowl: null, pourRateMlMin: null, scaleCapacityG: null },
    })
    const mixed = (batch: number, fromMin: number): PourEvent[] => {
      const of = batch === 0 ? {} : { batch }
      return [
        at(fromMin, { type: 'sift_started', ...of }),
        at(fromMin + 1, { type: 'sifted', ...of }),
        at(fromMin + 3, { type: 'soaked', ...of }),
        at(fromMin + 5, { type: 'stirred', manner: 'hand', ...of }),
        at(fromMin + 6, { type: 'poured', ...of }),
      ]
    }
    const gap = (laterMin: number, ...more: PourEvent[]) =>
      signsOf(fold(plan, [at(0, { type: 'mould_ready' }), ...mixed(0, 5), ...mixed(1, laterMin), ...more]))
        .next_bowl_at
    const late = gap(45)!
    const facts = fold(plan, [...mixed(0, 5), ...mixed(1, 45)])
    expect(late.actual).toBeCloseTo((51 * MIN - facts.batches[0]!.settingStartMs!) / 1000, 6)
    expect(late.limit).toBe(facts.batches[0]!.setting.timeS.initial_set.mid)
    expect(late.value).toBeGreaterThan(1)
    expect(gap(12)!.value).toBeLessThan(1)
    expect(gap(45, at(40, { type: 'roughened' }))).toBeUndefined()
  })
  it('of several bowls, of the one that went furthest', () => {
    const plan = testPlan('pottery', {
      batching: { split: { by: 'bowls', count: 2 }, bowl: null, pourRateMlMin: null, scaleCapacityG: null },
    })
    const mixed = (batch: number, fromMin: number, stirMin: number): PourEvent[] => [
      at(fromMin, { type: 'sift_started', batch }),
      at(fromMin + 1, { type: 'sifted', batch }),
      at(fromMin + 3, { type: 'soaked', batch }),
      at(fromMin + 3 + stirMin, { type: 'stirred', manner: 'hand', batch }),
      at(fromMin + 4 + stirMin, { type: 'poured', batch }),
    ]
    const stirredUntil = (first: number, second: number) =>
      signsOf(fold(plan, [at(0, { type: 'mould_ready' }), ...mixed(0, 5, first), ...mixed(1, 30, second)]))
        .stirred_until!
    const [quick, slow] = [stirredUntil(1, 1), stirredUntil(1, 5)]
    expect(slow.value).toBeGreaterThan(1.5 * quick.value)
    expect(stirredUntil(5, 1).value).toBeCloseTo(slow.value, 1)
  })
  it('of a bowl that set before it was poured: that it was stirred until then, and could not have been in time', () => {
    const drilled = (soakMin: number, stirMin: number): PourEvent[] => [
      ...wholeRun().filter((e) => ['mould_ready', 'sift_started', 'sifted'].includes(e.body.type)),
      at(7 + soakMin, { type: 'soaked' }),
      at(7 + soakMin + stirMin, { type: 'stirred', manner: 'drill' }),
      at(40, { type: 'defect', kind: 'short_fill' }),
    ]
    const plan = testPlan('investment')
    const stiff = fold(plan, drilled(8, 5))
    // Filled, and nobody said how it went in: at once, as it should.
    expect(signsOf(stiff).sift_pace).toBeUndefined()
    expect(signsOf(stiff).ready_at!.limit).toBe(stiff.inHand.setting.timeS.work_end.mid)
    const { causes, clean } = diagnosePour(stiff)
    expect(causes.slice(0, 2).map((c) => c.cause)).toEqual(['stirred_long', 'past_working'])
    expect(clean).toBe(false)
    const inTime = diagnosePour(fold(plan, drilled(3, 0.7)))
    expect(inTime.causes[0]!.cause).not.toBe('stirred_long')
    expect(signsOf(fold(testPlan(), wholeRun())).ready_at).toBeUndefined()
  })
  it('of how it set only what was really seen of it', () => {
    const facts = fold(testPlan(), wholeRun())
    const seen = (sigmaLn: number) => {
      const learnt = { pace: { meanLn: Math.log(0.6), sigmaLn }, prior: { meanLn: 0, sigmaLn: 0.3 } }
      return signsOf({ ...facts, learnt: learnt as never })
    }
    expect(seen(0.1)).toMatchObject({ set_fast: { value: 0.6 }, set_slow: { value: 0.6 } })
    expect(seen(0.28).set_fast).toBeUndefined()
    expect(signsOf(facts).set_slow).toBeUndefined()
  })
  it('of its water, its bag, its ground and its weather, in their own figures', () => {
    const plain = testPlan()
    const bag = {
      bagId: ID,
      name: 'A bag',
      boughtG: 25_000,
      price: null,
      openDays: 200,
      keeping: 'damp' as const,
    }
    const plan: PourPlan = {
      ...plain,
      water: 'sea',
      mouldTempC: 4,
      plaster: { ...plain.plaster, bag },
      mould: { ...plain.mould, kind: 'ground' },
      dryingExposure: 'one_face',
    }
    const lost = at(11, { type: 'leaked', plug: 'clay', lostMl: 90 })
    const said = signsOf(fold(plan, [...wholeRun(), lost]))
    expect(said).toMatchObject({
      salty_water: { value: 1 },
      salty_ground: { value: 1 },
      bag_open: { value: 200 },
      bag_damp: { value: 1 },
      ground_temp: { actual: 4 },
      leaked_share: { value: 0.09, actual: 90, limit: 1000 },
      one_face_dry: { value: 1 },
    })
    expect(said.mould_temp).toBeUndefined()
    expect(signsOf(fold(plain, wholeRun()))).toMatchObject({
      salty_water: { value: 0 },
      salty_ground: { value: 0 },
      mould_temp: { actual: 20 },
      one_face_dry: { value: 0 },
    })
    const turned = at(200, {
      type: 'dries_at',
      spot: { placeId: null, name: '', air: plain.air },
      lies: 'both_faces',
    })
    expect(signsOf(fold(plan, [...wholeRun(), turned])).one_face_dry).toMatchObject({ value: 0 })
    const gel = { ...plain, mould: { ...plain.mould, kind: 'alginate' as const } }
    expect(signsOf(fold(gel, wholeRun())).hours_in_gel!.actual).toBeCloseTo(79 / 60, 6)
  })
  it('of its mould: what was used on it, what it cannot let go of, and what cannot have been', () => {
    const of = (key: keyof typeof DEMO_MOULDS, material?: 'wood') => {
      const demo = DEMO_MOULDS[key]
      const facts = material ? { ...demo.facts, material } : demo.facts
      const mould = planMould([{ ...demo, facts, mouldId: ID, count: 1 }])!
      return fold({ ...testPlan(), mould }, [...wholeRun(), at(95, { type: 'defect', kind: 'stains' })])
    }
    // Rubber wants no film; a plaster mould is soaped, a box of wood greased.
    expect(signsOf(of('tile'))).toMatchObject({ film_used: { value: 0 }, undercut_rigid: { value: 0 } })
    expect(signsOf(of('clock')).film_used).toMatchObject({ value: 1 })
    expect(signsOf(fold(testPlan(), wholeRun())).film_used).toBeUndefined()
    expect(signsOf(fold(testPlan(), wholeRun())).undercut_rigid).toBeUndefined()
    const causes = (facts: ReturnType<typeof of>) => diagnosePour(facts).causes.map((c) => c.cause)
    expect(causes(of('tile'))).not.toContain('mould_colours')
    expect(causes(of('tile', 'wood'))).toContain('mould_colours')
  })
  it('of what nobody told, nothing: unknown is not no', () => {
    const silent = signsOf(fold(testPlan(), without('tapped')))
    for (const sign of ['tapped', 'leaked_share', 'ran_short', 'mould_damaged'] as const)
      expect(silent[sign], sign).toBeUndefined()
    // Left out of the script on purpose, it is known.
    const unasked = testPlan('pottery', { script: { order: [], leftOut: ['tap'] } })
    expect(signsOf(fold(unasked, without('tapped'))).tapped!.value).toBe(0)
    // A hook in the form, and nobody ticked what was done against its air.
    const hooked = fold(
      {
        ...testPlan('pop'),
        mould: planMould([
          {
            ...DEMO_MOULDS.tile,
            facts: { ...DEMO_MOULDS.tile.facts, airTraps: ['hooks'] },
            mouldId: ID,
            count: 1,
          },
        ])!,
      },
      [...wholeRun(), air],
    )
    expect(signsOf(hooked).traps_left).toBeUndefined()
    expect(diagnosePour(hooked).causes.find((c) => c.cause === 'air_in_form')!.chance).toBeLessThan(0.3)
    // The ground may hold salts, which is no sign that it did: a cast in it can be clean.
    const plain = testPlan()
    const ground = { ...plain, mould: { ...plain.mould, kind: 'ground' as const } }
    expect(diagnosePour(fold(ground, [...wholeRun(), air])).clean).toBe(true)
  })
  it('of a ratio nobody knows, nothing', () => {
    const unsure = (events: PourEvent[]) => signsOf(fold(testPlan(), events)).ratio_unsure_thin
    expect(unsure(wholeRun().slice(0, 1))).toBeUndefined()
    expect(unsure(wholeRun())!.value).toBeGreaterThan(0)
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
  it('what the record leaves out is asked for; an answer settles it, another takes its place, taken back it is open again', () => {
    const voids = at(95, { type: 'defect', kind: 'voids' })
    const silent = [...without('tapped'), voids]
    const asks = (events: PourEvent[]) => asksOf(fold(testPlan(), events))
    const chance = (events: PourEvent[]) =>
      diagnosePour(fold(testPlan(), events)).causes.find((c) => c.cause === 'no_tap')!
    const [first] = asks(silent)
    expect(first).toMatchObject({ ask: 'tapped', answered: undefined })
    expect(first!.worth).toBeGreaterThan(0.1)
    // Recorded, it is no question; nor is what no such mould has.
    expect(asks([...wholeRun(), voids]).map((a) => a.ask)).not.toContain('tapped')
    for (const none of ['gel', 'ground', 'air'] as const)
      expect(asks(silent).map((a) => a.ask)).not.toContain(none)
    expect(asks(without('tapped'))).toEqual([])
    const no = at(100, { type: 'recalled', said: 'tapped:none' })
    const well = at(101, { type: 'recalled', said: 'tapped:well' })
    const said = [...silent, no]
    expect(chance(said).for).toMatchObject([{ sign: 'tapped', recalled: 'tapped:none' }])
    expect(chance(said).chance).toBeGreaterThan(3 * chance(silent).chance)
    expect(asks(said).find((a) => a.ask === 'tapped')!.answered).toEqual({
      said: 'tapped:none',
      eventId: no.id,
    })
    expect(chance([...said, well]).chance).toBeLessThan(chance(silent).chance)
    const back = at(102, { type: 'void', targetId: no.id })
    expect(chance([...said, back])).toEqual(chance(silent))
    // What was recorded then is believed before what is remembered now.
    expect(chance([...wholeRun(), voids, no]).for).toEqual([])
  })
  it('a cause that the plan warned of is never forgotten', () => {
    const plaster = testPlan('pop').plaster
    const adding = (id: AdditionId, pct: number): Partial<PourPlan> => ({
      plaster: { ...plaster, additions: [{ id, pct }] },
    })
    const thin = (key: keyof typeof DEMO_MOULDS, purpose: Purpose, thinnestMm: number): Partial<PourPlan> => {
      const mould = planMould([{ ...DEMO_MOULDS[key], purpose, mouldId: ID, count: 1 }])!
      return {
        mould: {
          ...mould,
          thicknessMm: thinnestMm,
          members: mould.members!.map((m) => ({ ...m, thinnestMm })),
        },
      }
    }
    const use = plaster.properties
    const warned: Partial<Record<PlanIssueCode, [SignId, Partial<PourPlan>]>> = {
      consistency_below_class_range: ['ratio_under', { consistency: use.consistencyLow - 2 }],
      consistency_above_class_range: ['ratio_over', { consistency: use.consistencyHigh + 5 }],
      mix_too_cold: ['mix_temp', { waterTempC: 1, powderTempC: 1 }],
      air_too_hot: ['drying_temp', { air: { tempC: 50, rhPct: 20, speedMS: 1 } }],
      piece_too_thin: ['thinnest', thin('tile', 'tile', 4)],
      plate_will_break: ['thinnest', thin('tile', 'tile', 6)],
      print_too_thin: ['thinnest', thin('ripple', 'print', 9)],
      dental_base_too_thin: ['thinnest', thin('jaw', 'dental', 8)],
      slab_too_thin: ['thinnest', thin('tile', 'slab', 30)],
      slip_wall_too_thin: ['thinnest', thin('jug', 'slip_mould', 18)],
      pigment_above_limit: ['pigment_over', adding('pigment', 9)],
      liquid_paint_splits: ['liquid_colour', adding('liquid_paint', 3)],
      retarder_weakens: ['weakening_added', adding('citric_acid', 0.1)],
      surface_stays_soft: ['weakening_added', adding('gelatine', 0.2)],
      addition_beyond_known: ['weakening_added', adding('borax', 1.5)],
      salt_rusts_and_blooms: ['salty_water', adding('salt', 1)],
    }
    for (const [code, [sign, change]] of Object.entries(warned)) {
      const plan = testPlan('pop', change)
      expect(
        evaluatePlan(plan).issues.map((i) => i.code),
        code,
      ).toContain(code)
      const { waterG, powderG } = batchesOf(plan).total
      const run = wholeRun().map((e) =>
        e.body.type === 'weighed'
          ? { ...e, body: { ...e.body, massG: e.body.what === 'water' ? waterG : powderG } }
          : e,
      )
      const read = signsOf(fold(plan, run))[sign]
      expect(worthOf(sign, read!.value), code).toBeGreaterThan(0)
    }
  })
})
