import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plasterProperties } from '#core/plaster'
import {
  FILLING_WAYS,
  KNOWN_STEPS,
  STAGES,
  STEP,
  addLine,
  bodyOfStep,
  canMove,
  foldPour,
  outlookFrom,
  keepPlan,
  leftOutOf,
  leftoverNow,
  leftoverPour,
  moveLine,
  overMl,
  refusalsOf,
  scriptOf,
  stageOf,
  summarisePour,
  viewPour,
  type EventBody,
  type FillingWay,
  type PourEvent,
  type PourPlan,
  type ScriptLine,
  type StepId,
} from '#core/pour'
import { eventAt, testPlan } from '../../../tests/unit/plans'
import { massToWeighG } from './advance'

const LAYERS: PourPlan['batching'] = {
  split: {
    by: 'layers',
    layers: [
      { name: 'First', sharePct: 40 },
      { name: 'Second', sharePct: 60 },
    ],
  },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: null,
}
const ORDER: FillingWay[] = ['slush', 'hand_built', 'reinforced', 'two_stage']
const planned = (filling: FillingWay, change: Partial<PourPlan> = {}) =>
  testPlan('pottery', { filling, ...(ORDER.includes(filling) ? { batching: LAYERS } : {}), ...change })

/** What no knock says: how it came out, and how it ended. */
const ANSWERS: Partial<Record<StepId, EventBody>> = {
  demould: { type: 'demoulded', outcome: 'whole' },
  dry: { type: 'finished', verdict: 'good', reason: '' },
}

/** Knocks a pour through from beginning to end, a minute a step. @returns what was in hand each time, and the record. */
function knockThrough(plan: PourPlan, steps = Infinity) {
  const kept = keepPlan(plan)
  const events: PourEvent[] = []
  const seen: string[] = []
  for (let i = 0; i < steps; i++) {
    const facts = foldPour(kept, events)
    if (facts.next === undefined) break
    const { id, batch, own } = facts.next
    seen.push(`${own?.name ?? id} ${batch}`)
    const body =
      bodyOfStep(facts.next, { massG: massToWeighG(id, facts) ?? 0, stirManner: plan.stirManner }) ??
      ANSWERS[id]
    if (!body) throw new Error(`${id} records nothing`)
    events.push(eventAt(i * 60_000, body))
    if (events.length > 400) throw new Error('it never ends')
  }
  return { seen, events, facts: outlookFrom(kept, events) }
}

describe('scripts by school, from the mould to the last weighing', () => {
  // What is done one after the other: common practice, no source.
  const MIX = (bowl: number) => ['start_sift', 'sift', 'soak', 'stir'].map((id) => `${id} ${bowl}`)
  const WEIGH = (bowl: number) => [`weigh_water ${bowl}`, `weigh_powder ${bowl}`]
  const two = [...WEIGH(0), ...WEIGH(1)]
  const SCRIPTS: Record<FillingWay, string[]> = {
    poured: ['prepare 0', ...WEIGH(0), ...MIX(0), 'pour 0', 'tap 0'],
    part_fill: ['prepare 0', ...WEIGH(0), ...MIX(0), 'part_fill 0', 'pour 0', 'tap 0'],
    squeezed: ['prepare 0', ...WEIGH(0), ...MIX(0), 'squeeze 0', 'pour 0', 'tap 0'],
    second_layer: ['prepare 0', 'key_layer 0', ...WEIGH(0), ...MIX(0), 'bond_coat 0', 'pour 0', 'tap 0'],
    slush: ['prepare 0', ...two, ...MIX(0), 'pour 0', 'turn 0', ...MIX(1), 'pour 1', 'turn 1', 'level 1'],
    two_stage: [
      'prepare 0',
      ...two,
      ...MIX(0),
      'pour 0',
      'vibrate 0',
      'roughen 0',
      ...MIX(1),
      'pour 1',
      'tap 1',
    ],
    hand_built: [
      'prepare 0',
      ...two,
      ...MIX(0),
      'face_coat 0',
      'thicken 0',
      'build 0',
      'roughen 0',
      ...MIX(1),
      'thicken 1',
      'build 1',
      'level 1',
    ],
    reinforced: [
      'prepare 0',
      ...two,
      ...MIX(0),
      'face_coat 0',
      'thicken 0',
      'reinforce 0',
      'build 0',
      'roughen 0',
      ...MIX(1),
      'thicken 1',
      'reinforce 1',
      'build 1',
      'level 1',
    ],
  }
  it.each(FILLING_WAYS)('%s', (way) => {
    expect(knockThrough(planned(way)).seen).toEqual([...SCRIPTS[way], 'demould 0', 'dry 0'])
  })

  it('a knock says neither how a piece came out nor that it is done', () => {
    for (const id of ['demould', 'dry'] as const)
      expect(bodyOfStep({ id, batch: 0 }, { massG: 0, stirManner: 'hand' })).toBeUndefined()
  })

  it('with silica in the mix, extraction is looked at before any powder is open, whatever the way', () => {
    for (const way of FILLING_WAYS) {
      const plan = planned(way, {
        consistency: plasterProperties('investment').useConsistency,
        plaster: { name: 'Shell mix', properties: plasterProperties('investment') },
      })
      const { seen } = knockThrough(plan)
      expect(seen.indexOf('check_air 0')).toBeGreaterThan(-1)
      expect(seen.indexOf('check_air 0')).toBeLessThan(seen.indexOf('weigh_powder 0'))
      expect(refusalsOf({ ...plan, script: { order: [], leftOut: ['check_air'] } })).toMatchObject([
        { code: 'script_needs_step' },
      ])
    }
  })

  it('however it is edited, it runs from end to end, every step once and no stage before its time', () => {
    const edit = fc.record({
      way: fc.constantFrom(...FILLING_WAYS),
      adding: fc.constantFrom('sifted' as const, 'tipped_in' as const, 'kneaded' as const),
      moves: fc.array(fc.tuple(fc.nat(30), fc.constantFrom(-1 as const, 1 as const)), { maxLength: 8 }),
      without: fc.array(fc.nat(30), { maxLength: 3 }),
      own: fc.array(
        fc.tuple(fc.constantFrom('mould' as const, 'weigh' as const, 'pour' as const), fc.boolean()),
        {
          maxLength: 2,
        },
      ),
    })
    fc.assert(
      fc.property(edit, ({ way, adding, moves, without, own }) => {
        const plan = planned(way, { addingWay: adding })
        let lines = scriptOf(plan)
        own.forEach(([stage, eachBowl], i) => {
          const id = `0e000000-0000-4000-8000-00000000000${i}`
          lines = addLine(lines, { own: { id, name: `Own ${i}`, stage, timeS: 60, eachBowl } })
        })
        for (const [at, by] of moves) {
          const index = at % lines.length
          if (canMove(lines, index, by)) lines = moveLine(lines, index, by)
        }
        const dropped = without.flatMap((at) => {
          const line = lines[at % lines.length]!
          return 'step' in line && STEP[line.step].mayLeaveOut ? [line.step] : []
        })
        const order: ScriptLine[] = lines.filter((l) => !('step' in l) || !dropped.includes(l.step))
        const edited: PourPlan = { ...plan, script: { order, leftOut: [...new Set(dropped)] } }
        expect(refusalsOf(edited)).toEqual([])
        expect(scriptOf(edited)).toEqual(order)
        expect([...leftOutOf(edited)].sort()).toEqual([...new Set(dropped)].sort())
        const { seen, facts } = knockThrough(edited)
        expect(new Set(seen).size).toBe(seen.length)
        expect(seen).toHaveLength(facts.steps.length)
        expect(facts.step).toBeUndefined()
        // Within a bowl a stage never comes back.
        for (const batch of [0, 1]) {
          const stages = facts.steps.filter((s) => s.batch === batch).map((s) => STAGES.indexOf(stageOf(s)))
          expect(stages).toEqual([...stages].sort((a, b) => a - b))
        }
      }),
      { numRuns: 300 },
    )
  })

  it('an order that cannot be done is refused, wherever it comes from', () => {
    const plan = planned('poured')
    const swapped = (a: number, b: number) => {
      const order = scriptOf(plan)
      ;[order[a], order[b]] = [order[b]!, order[a]!]
      return refusalsOf({ ...plan, script: { order, leftOut: [] } }).map((r) => r.code)
    }
    const at = (step: (typeof KNOWN_STEPS)[number]) =>
      scriptOf(plan).findIndex((l) => 'step' in l && l.step === step)
    expect(swapped(at('weigh_water'), at('weigh_powder'))).toEqual(['script_out_of_order'])
    expect(swapped(at('soak'), at('stir'))).toEqual(['script_out_of_order'])
    expect(swapped(at('pour'), at('tap'))).toEqual(['script_out_of_order'])
    expect(swapped(at('demould'), at('dry'))).toEqual(['script_out_of_order'])
    const [first] = scriptOf(plan)
    expect(refusalsOf({ ...plan, script: { order: [first!, first!], leftOut: [] } })).toMatchObject([
      { code: 'own_step_twice' },
    ])
  })

  it('what a plan comes to need later stands where it belongs; a soak left out takes its time out, too', () => {
    const plan = planned('poured')
    const script = { order: scriptOf(plan), leftOut: [] }
    const salted = planned('poured', {
      script,
      plaster: { ...plan.plaster, additions: [{ id: 'citric_acid', pct: 0.1 }] },
    })
    const names = scriptOf(salted).map((l) => ('step' in l ? l.step : l.own.name))
    expect(names.indexOf('weigh_admix')).toBe(names.indexOf('weigh_water') + 1)
    const without = planned('poured', { script: { order: [], leftOut: ['soak'] } })
    const stirred = knockThrough(without, 6).facts
    expect(stirred.step).toBe('pour')
    expect(stirred.settingInput.stirS).toBe(60)
    expect(stirred.settingInput.restS).toBeLessThan(60)
  })

  it('another bowl for what is missing has the same steps, and closes the pour in its turn', () => {
    for (const way of FILLING_WAYS) {
      const plan = planned(way)
      const { events, facts } = knockThrough(plan, knockThrough(plan).seen.indexOf('demould 0'))
      const short = eventAt(3_600_000, { type: 'ran_short', missingMl: 100 })
      const again = outlookFrom(keepPlan(plan), [...events, short])
      expect(again.next).toMatchObject({ id: 'weigh_water', batch: facts.batches.length })
      const extra = again.steps.filter((s) => s.batch === facts.batches.length).map((s) => s.id)
      expect(extra).toContain(facts.steps.some((s) => s.id === 'build') ? 'build' : 'pour')
      expect(['tap', 'level']).toContain(extra.at(-1))
    }
  })
})

describe('a step of one’s own', () => {
  const own = { id: '0e000000-0000-4000-8000-000000000001', name: 'Wet the face', timeS: 90, eachBowl: false }
  it('rings after its time, counted from the step before, and is recorded by itself', () => {
    const plan = planned('poured')
    const order = addLine(scriptOf(plan), { own: { ...own, stage: 'mould' } })
    const kept = keepPlan({ ...plan, script: { order, leftOut: [] } })
    const ready = eventAt(1000, { type: 'mould_ready' })
    const facts = outlookFrom(kept, [ready])
    expect(facts.next).toMatchObject({ id: 'own', own: { name: 'Wet the face' } })
    expect(viewPour(facts, 2000)).toMatchObject({ stage: 'mould', clock: { id: 'own', dueMs: 91_000 } })
    const done = eventAt(95_000, bodyOfStep(facts.next!, { massG: 0, stirManner: 'hand' })!)
    expect(outlookFrom(kept, [ready, done]).step).toBe('weigh_water')
  })
})

it('a step of one’s own in the pouring is done with each bowl, or once when the last is in', () => {
  const done = (eachBowl: boolean) => {
    const plan = planned('slush')
    const own = {
      id: '0e000000-0000-4000-8000-000000000001',
      name: 'Look',
      stage: 'pour' as const,
      timeS: null,
    }
    const order = addLine(scriptOf(plan), { own: { ...own, eachBowl } })
    return knockThrough({ ...plan, script: { order, leftOut: [] } }).seen.filter((s) => s.startsWith('Look'))
  }
  expect(done(true)).toEqual(['Look 0', 'Look 1'])
  expect(done(false)).toEqual(['Look 1'])
})

describe('what is left over', () => {
  const spill = [{ mouldId: '0a000000-0000-4000-8000-000000000009', name: 'Chalk', cavityMl: 60 }]
  const plan = planned('poured', { spill, sparePct: 10 })
  const { events, facts } = knockThrough(plan, 9)
  const nowMs = events.at(-1)!.occurredAtMs + 1000

  it('is a small pour of its own: the same mix, its share of it, and nothing out of the bag again', () => {
    const [fill] = leftoverNow(facts, nowMs).fills
    expect(fill).toMatchObject({ name: 'Chalk', fillMl: 60 })
    const made = leftoverPour(facts, 'parent', { ...plan.mould, cavityMl: 60 }, fill!, nowMs)
    const kept = keepPlan(made.plan)
    const small = outlookFrom(
      kept,
      made.events.map((e) => eventAt(e.atMs, e.body)),
    )
    expect(small.actual!.consistency).toBeCloseTo(facts.actual!.consistency, 6)
    expect(small.actual!.slurryMl).toBeCloseTo(60, 6)
    expect(small.settingStartMs).toBe(facts.settingStartMs)
    expect(small.step).toBe('tap')
    const bag = { bagId: '0b000000-0000-4000-8000-000000000001', name: 'Bag', boughtG: 1000, price: null }
    const bagged = keepPlan({ ...made.plan, plaster: { ...made.plan.plaster, bag } })
    const record = made.events.map((e) => eventAt(e.atMs, e.body))
    expect(summarisePour(bagged, record, 1).draws).toEqual([])
    const { leftoverOf: _, ...notLeft } = bagged
    expect(summarisePour(notLeft, record, 1).draws).toHaveLength(1)
    // Filled, it is not offered again, and what it took is gone.
    const after = outlookFrom(keepPlan(plan), [
      ...events,
      eventAt(nowMs, { type: 'leftover_poured', mouldId: fill!.mouldId, fillMl: 60 }),
    ])
    expect(leftoverNow(after, nowMs)).toMatchObject({ fills: [], leftMl: overMl(facts) - 60 })
  })

  it('what was put right in the bowl holds for what it left over, too', () => {
    const at = events.find((e) => e.body.type === 'sift_started')!.occurredAtMs - 1
    const wetter = outlookFrom(keepPlan(plan), [
      ...events,
      eventAt(at, { type: 'corrected', how: 'water_in', massG: 60 }),
    ])
    const [fill] = leftoverNow(wetter, nowMs).fills
    const made = leftoverPour(wetter, 'parent', { ...plan.mould, cavityMl: 60 }, fill!, nowMs)
    const small = outlookFrom(
      keepPlan(made.plan),
      made.events.map((e) => eventAt(e.atMs, e.body)),
    )
    expect(wetter.actual!.consistency).toBeGreaterThan(facts.actual!.consistency + 3)
    expect(small.actual!.consistency).toBeCloseTo(wetter.actual!.consistency, 6)
  })

  it('goes nowhere once it thickens', () => {
    expect(leftoverNow(facts, nowMs).flows).toBe(true)
    expect(leftoverNow(facts, facts.settingStartMs! + facts.setting.timeS.work_end.mid * 1000).flows).toBe(
      false,
    )
  })

  it('is less by what leaked', () => {
    const leaked = outlookFrom(keepPlan(plan), [
      ...events,
      eventAt(nowMs, { type: 'leaked', plug: 'clay', lostMl: 30 }),
    ])
    expect(overMl(leaked)).toBeCloseTo(overMl(facts) - 30, 6)
    expect(overMl(facts, 150)).toBeLessThan(0)
  })
})
