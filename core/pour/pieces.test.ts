import { describe, expect, it } from 'vitest'
import { eventAt, fold, tilesPlan } from '../../tests/unit/plans'
import { MS_PER } from '../units'
import {
  diagnosePour,
  keepPlan,
  signsOf,
  summarisePour,
  undoTargets,
  type EventBody,
  type PourEvent,
} from '.'

/** Six tiles in two bowls of three: the first soaked well, the second hardly. */
const plan = tilesPlan(6, 3)
const bowl = (batch: number, fromMin: number, soakMin: number): [number, EventBody][] => [
  [fromMin, { type: 'weighed', what: 'water', massG: 232, batch }],
  [fromMin + 1, { type: 'weighed', what: 'powder', massG: 332, batch }],
  [fromMin + 2, { type: 'sift_started', batch }],
  [fromMin + 3, { type: 'sifted', batch }],
  [fromMin + 3 + soakMin, { type: 'soaked', batch }],
  [fromMin + 5 + soakMin, { type: 'stirred', manner: 'hand', batch }],
  [fromMin + 6 + soakMin, { type: 'poured', batch }],
]
const at = ([min, body]: [number, EventBody]) => eventAt(min * MS_PER.min, body)
const poured = [...bowl(0, 1, 3), ...bowl(1, 20, 0.1)].map(at)
const out = (min: number, pieces?: number[], outcome: 'whole' | 'broken' = 'whole') =>
  at([min, { type: 'demoulded', outcome, ...(pieces ? { pieces } : {}) }])
const ended = (min: number, verdict: 'good' | 'usable' | 'failed', pieces?: number[], reason = '') =>
  at([min, { type: 'finished', verdict, reason, ...(pieces ? { pieces } : {}) }])
const after = (...events: PourEvent[]) => fold(plan, [...poured, ...events])
const sum = (...events: PourEvent[]) => summarisePour(keepPlan(plan), [...poured, ...events], 1)

it('each cast knows its number and the bowl it is of', () => {
  expect(after().pieces.map((p) => [p.number, p.name, p.bowls, p.out])).toEqual(
    [0, 0, 0, 1, 1, 1].map((b, i) => [i + 1, 'Tile', [b], undefined]),
  )
  // Three moulds of two cavities are six casts, each with its share.
  const [tile] = plan.mould.members!
  const twins = { ...tile!, count: 3, cavityMl: 600, volume: { ...tile!.volume, cavities: 2 } }
  const { pieces } = fold({ ...plan, mould: { ...plan.mould, members: [twins] } }, [])
  expect(pieces.map((p) => [p.number, p.cavityMl])).toEqual([1, 2, 3, 4, 5, 6].map((n) => [n, 100]))
  // So many that nobody tells them apart are one lot.
  const many = summarisePour(keepPlan(tilesPlan(100, 25)), [out(90), ended(99, 'good')], 1)
  expect(many).toMatchObject({ casts: 100, ended: { good: 100 } })
})

describe('out of the mould', () => {
  it('the pour waits for the last of them, and what is not named is what is still in', () => {
    const some = after(out(60, [1, 2, 3]))
    expect([some.step, some.drying]).toEqual(['demould', undefined])
    const all = after(out(60, [1, 2, 3]), out(80, undefined, 'broken'))
    expect(all.step).toBe('dry')
    expect(all.drying?.startMs).toBe(80 * MS_PER.min)
    expect(all.pieces.map((p) => p.out?.outcome)).toEqual([
      ...['whole', 'whole', 'whole'],
      ...['broken', 'broken', 'broken'],
    ])
  })
  it('a name of no piece is nobody’s; said again of all it is the last word, and the first hour', () => {
    expect(after(out(60, [9])).pieces.every((p) => p.out === undefined)).toBe(true)
    const twice = after(out(60), out(70, undefined, 'broken'))
    expect(twice.pieces[0]!.out).toMatchObject({ outcome: 'broken', atMs: 60 * MS_PER.min })
  })
  it('undo takes back the last said, not what was said of the others', () => {
    const [first, second] = [out(60, [1, 2, 3]), out(80)]
    expect(undoTargets([...poured, first, second])).toEqual([second.id])
  })
})

describe('verdicts', () => {
  it('a pour is over when each has one; what broke needs none', () => {
    const outs = [out(60, [1, 2, 3, 4]), out(61, [5]), out(62, [6], 'broken')]
    expect(after(...outs, ended(900, 'good', [1, 2, 3])).verdict).toBeUndefined()
    const over = after(...outs, ended(900, 'good', [1, 2, 3]), ended(950, 'usable', undefined, 'chipped'))
    expect(over.verdict).toEqual({ verdict: 'good', reason: 'chipped', atMs: 950 * MS_PER.min })
    expect(over.step).toBeUndefined()
    expect(over.pieces[5]!.verdict).toMatchObject({ verdict: 'failed' })
    expect(sum(...outs, ended(900, 'good', [1, 2, 3]), ended(950, 'usable'))).toMatchObject({
      open: false,
      casts: 6,
      ended: { good: 3, usable: 2, failed: 1 },
    })
  })
  it('of as many each, the worse is said of the pour', () => {
    const { verdict } = after(out(60), ended(900, 'good', [1, 2, 3]), ended(901, 'failed'))
    expect(verdict?.verdict).toBe('failed')
  })
  it('what was said of all before pieces were told apart is said of each', () => {
    expect(sum(out(60), ended(900, 'good'))).toMatchObject({ casts: 6, ended: { good: 6 }, open: false })
  })
})

describe('what is wrong', () => {
  const lumps = (...pieces: number[]) => at([100, { type: 'defect', kind: 'lumps', pieces }])
  it('is counted by piece, at the mould as well', () => {
    const { faulty, uses, tags } = sum(out(60), lumps(4, 5), lumps(5, 6))
    expect(faulty).toEqual({ lumps: 3 })
    expect(tags).toContain('fault:lumps')
    expect(uses).toEqual([])
  })
  it('is looked for in the bowl that the faulty ones are of', () => {
    const cause = (...pieces: number[]) => diagnosePour(after(out(60), lumps(...pieces))).causes[0]!
    // Their bowl was hardly left to soak; the first was, and speaks for nothing.
    expect(cause(4, 5)).toMatchObject({ cause: 'soak_short' })
    const soak = (found: ReturnType<typeof cause>) => found.for.some((e) => e.sign === 'soaked')
    expect(soak(cause(4, 5))).toBe(true)
    expect(soak(cause(1, 2))).toBe(false)
  })
  it('signs of the pour as a whole are those of all its bowls', () => {
    expect(signsOf(after(out(60))).soaked?.value).toBeCloseTo(6, 5)
  })
})

describe('drying', () => {
  const weighed = (min: number, massG: number, pieces?: number[]) =>
    at([min, { type: 'weighing', massG, ...(pieces ? { pieces } : {}) }])
  it('a piece weighed by itself is held against its own share of the mix', () => {
    const whole = after(out(60)).drying!.forecast
    const startG = (whole.dryMassG + whole.waterAtStartG) / 6
    const one = after(out(60), weighed(61, startG, [2])).drying!.forecast
    expect(one.pieces).toEqual([2])
    expect(one.dryMassG).toBeCloseTo(whole.dryMassG / 6, -1)
    expect(one.z[0]).toBeLessThan(3)
  })
  it('what broke is not on the scale with the others', () => {
    const drying = after(out(60, [1], 'broken'), out(61), weighed(62, 800)).drying!
    expect(drying.weighings[0]!.pieces).toEqual([2, 3, 4, 5, 6])
    expect(drying.forecast.pieces).toEqual([2, 3, 4, 5, 6])
  })
  it('of pieces weighed apart it waits for the slowest that tells its pace', () => {
    const day = 24 * 60
    const { dryMassG, waterAtStartG } = after(out(60)).drying!.forecast
    const mass = (left: number) => (dryMassG + waterAtStartG * left) / 6
    const quick = [weighed(61, mass(1), [1]), weighed(61 + day, mass(0.3), [1])]
    const slow = [weighed(62, mass(1), [2]), weighed(62 + day, mass(0.8), [2])]
    const both = after(out(60), ...quick, ...slow, weighed(63, mass(1), [3])).drying!
    expect(both.forecast.pieces).toEqual([2])
    expect(both.forecast.weighingsUsed).toBe(2)
    expect(both.weighings.map((w) => w.doubtful)).toEqual([false, false, false, false, false])
  })
})
