import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { eventAt, testPlan, wholeRun } from '../../tests/unit/plans'
import { keepPlan, planMould, summarisePour, type EventBody, type PourEvent } from '.'
import { describeCavity } from '../mould'

const MIN = 60_000
const BAG = '0b000000-0000-4000-8000-000000000001'
const MOULD = '0a000000-0000-4000-8000-000000000001'
const PLASTER = '0c000000-0000-4000-8000-000000000001'

const volume = {
  parts: [{ role: 'add', count: 1, method: { by: 'known', volumeMl: 400, plusMinusPct: 5 } }],
  cavities: 1,
  check: null,
  trust: 'parts',
} as const
const mould = planMould([
  {
    mouldId: MOULD,
    name: 'Tile',
    count: 3,
    purpose: 'tile',
    thicknessMm: 20,
    volume: { ...volume, parts: [...volume.parts] },
    facts: {
      material: 'silicone',
      flex: 'flexible',
      build: 'one_piece',
      oneTime: false,
      support: 'none',
      opening: 'wide',
      undercut: 'none',
      airTraps: [],
    },
  },
])!
const plan = keepPlan(
  testPlan('pottery', {
    mould,
    plaster: {
      ...testPlan().plaster,
      plasterId: PLASTER,
      bag: { bagId: BAG, name: 'Sack', boughtG: 25_000, price: null },
    },
  }),
)
const at = (min: number, body: EventBody) => eventAt(min * MIN, body)
const sum = (...events: PourEvent[]) => summarisePour(plan, events, 1)

it('a plan nobody has begun is open, under its names, and has touched no bag and no mould', () => {
  expect(describeCavity(mould.members![0]!.volume).ok).toBe(true)
  expect(sum()).toMatchObject({
    piece: 'A test piece',
    mould: 'Tile × 3',
    plaster: 'A test plaster',
    mouldId: MOULD,
    plasterId: PLASTER,
    open: true,
    stage: 'mould',
    verdict: undefined,
    reason: '',
    actualConsistency: undefined,
    draws: [],
    uses: [
      { mouldId: MOULD, count: 3, pouredAtMs: undefined, outcomes: { poured: 3 }, faults: [], damages: [] },
    ],
  })
})

describe('what left the bag', () => {
  it('is each bowl’s last weighing, with what was put in and taken out after it', () => {
    const { draws } = sum(
      at(1, { type: 'weighed', what: 'powder', massG: 900 }),
      at(2, { type: 'corrected', how: 'powder_in', massG: 50 }),
      at(3, { type: 'weighed', what: 'powder', massG: 1000 }),
      at(4, { type: 'corrected', how: 'powder_in', massG: 30 }),
      at(5, { type: 'corrected', how: 'powder_out', massG: 10 }),
      at(6, { type: 'corrected', how: 'water_in', massG: 99 }),
      at(7, { type: 'weighed', what: 'water', massG: 700 }),
      at(8, { type: 'weighed', what: 'powder', massG: 400, batch: 1 }),
      at(9, { type: 'corrected', how: 'powder_out', massG: 40, batch: 2 }),
    )
    expect(draws).toEqual([
      { bagId: BAG, batch: 0, atMs: 3 * MIN, massG: 1020 },
      { bagId: BAG, batch: 1, atMs: 8 * MIN, massG: 400 },
    ])
  })
  it('goes back when the weighing is taken back, and there is none without a bag', () => {
    const weighed = at(1, { type: 'weighed', what: 'powder', massG: 900 })
    expect(sum(weighed, at(2, { type: 'void', targetId: weighed.id })).draws).toEqual([])
    expect(summarisePour(keepPlan(testPlan()), [weighed], 1).draws).toEqual([])
  })
})

describe('what was done with the mould', () => {
  it.each<[string, EventBody[], string, number | undefined]>([
    ['weighed only', [{ type: 'weighed', what: 'water', massG: 700 }], 'poured', undefined],
    ['poured', [{ type: 'poured' }], 'poured', 0],
    ['a forgotten pour, tapped', [{ type: 'tapped' }], 'poured', 0],
    ['out, with damage', [{ type: 'poured' }, { type: 'demoulded', outcome: 'damaged' }], 'damaged', 0],
    [
      'ended',
      [
        { type: 'demoulded', outcome: 'whole' },
        { type: 'finished', verdict: 'usable', reason: 'a chip' },
      ],
      'usable',
      0,
    ],
  ])('%s', (_, bodies, outcome, pouredAtMs) => {
    const [use] = sum(...bodies.map((body, i) => at(i, body))).uses
    expect(use).toMatchObject({ count: 3, outcomes: { [outcome]: 3 }, pouredAtMs })
  })
  it('damage is noted at the mould it befell, also one that is not in the plan', () => {
    const other = '0a000000-0000-4000-8000-000000000002'
    const { uses } = sum(
      at(1, { type: 'mould_damage', mouldId: MOULD, kind: 'tear' }),
      at(2, { type: 'mould_damage', mouldId: other, kind: 'crack' }),
      at(3, { type: 'mould_damage', mouldId: null, kind: 'crack' }),
    )
    expect(uses).toMatchObject([
      { mouldId: MOULD, count: 3, damages: [{ kind: 'tear', atMs: MIN }] },
      { mouldId: other, count: 0, damages: [{ kind: 'crack', atMs: 2 * MIN }] },
    ])
  })
})

it('a whole run is closed with its verdict and what was really mixed', () => {
  const summary = sum(...wholeRun())
  expect(summary).toMatchObject({ open: false, stage: 'dry', verdict: 'good', rings: Array(9).fill(1) })
  expect(summary.actualConsistency).toBeCloseTo(70, 0)
})

it('says the same whatever the order and number of arrivals', () => {
  const run = wholeRun()
  fc.assert(
    fc.property(fc.shuffledSubarray([...run, ...run], { minLength: run.length * 2 }), (told) => {
      expect(sum(...told)).toEqual(sum(...run))
    }),
    { numRuns: 40 },
  )
})

it('a slab that was used until it is wet wants to dry, and only once it is called finished', () => {
  const slab = keepPlan({
    ...plan,
    mould: { ...mould, members: mould.members!.map((m) => ({ ...m, purpose: 'slab' as const })) },
  })
  const end = wholeRun()
  const used = [1, 2, 3].map((day) =>
    eventAt(end.at(-1)!.occurredAtMs + day * 86_400_000, { type: 'kept_up', what: 'used' }),
  )
  expect(summarisePour(slab, [...end, ...used], 1).upkeep).toEqual({
    act: 'dried',
    fromMs: used[2]!.occurredAtMs,
  })
  expect(summarisePour(slab, [...end, ...used.slice(1)], 1).upkeep).toBeUndefined()
  expect(summarisePour(slab, [...end.slice(0, -1), ...used], 1).upkeep).toBeUndefined()
  expect(summarisePour(plan, [...end, ...used], 1).upkeep).toBeUndefined()
})

it('what it was really made of left that bag, and teaches that one; taken back, it is the plan’s again', () => {
  const other = '0b000000-0000-4000-8000-000000000002'
  const bag = { bagId: other, name: 'By the door', boughtG: 10_000, price: 20 }
  const weighed = at(3, { type: 'weighed', what: 'powder', massG: 1000 })
  const was = at(60, { type: 'plaster_was', plaster: { ...testPlan('gc').plaster, name: 'Cement', bag } })
  const found = sum(weighed, was)
  expect(found).toMatchObject({
    plaster: 'Cement',
    plasterId: undefined,
    draws: [{ bagId: other, massG: 1000 }],
  })
  expect(found.tags).toContain(`bag:${other}`)
  expect(found.tags).not.toContain(`bag:${BAG}`)
  expect(found.cost).toBeCloseTo(2, 9)
  expect(sum(weighed, was, at(61, { type: 'void', targetId: was.id })).draws).toMatchObject([{ bagId: BAG }])
})
