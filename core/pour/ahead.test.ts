import { expect, it } from 'vitest'
import { fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { aheadOf, clashesOf, type Ahead } from './ahead'
import { viewPour } from './view'

const MIN = 60_000
const run = wholeRun()
const upTo = (type: string) => run.slice(0, run.findLastIndex((e) => e.body.type === type) + 1)
/** What is ahead of a usual pour right after this was recorded, and when that was. */
function after(type: string, laterMs = 0) {
  const events = upTo(type)
  const facts = fold(testPlan(), events)
  const nowMs = events.at(-1)!.occurredAtMs + laterMs
  return { facts, nowMs, ahead: aheadOf(facts, viewPour(facts, nowMs), nowMs) }
}

it('from the powder meeting the water on, everything follows, without gaps, to the piece coming out', () => {
  const { facts, nowMs, ahead } = after('sift_started')
  expect(ahead.stretches.map((s) => s.stage)).toEqual(['sift', 'soak', 'stir', 'pour', 'set', 'demould'])
  expect(ahead.stretches.map((s) => s.hands)).toEqual([true, false, true, true, false, true])
  for (const [i, s] of ahead.stretches.slice(1).entries()) expect(s.fromMs).toBe(ahead.stretches[i]!.untilMs)
  const [sift, soak, stir] = ahead.stretches
  expect(sift!.untilMs - nowMs).toBeCloseTo(facts.siftS * 1000, 0)
  expect(soak!.untilMs - soak!.fromMs).toBe(facts.plan.soakS * 1000)
  expect(stir!.untilMs - stir!.fromMs).toBe(facts.plan.stirS * 1000)
  expect(ahead.stretches.at(-1)!.fromMs).toBe(facts.settingStartMs! + facts.demould.recommendedS * 1000)
})

it('a soak that has run out is stirred now; what is the caster’s own pace is not foretold', () => {
  const late = after('sifted', 10 * MIN)
  expect(late.ahead.stretches[0]).toMatchObject({ stage: 'soak', untilMs: late.nowMs })
  expect(late.ahead.stretches[1]).toMatchObject({ stage: 'stir', fromMs: late.nowMs })
  expect(late.ahead.canWaitMs).toBeLessThan(after('sifted').ahead.canWaitMs)
  expect(after('mould_ready').ahead.stretches).toEqual([])
  expect(after('weighed').ahead.stretches).toEqual([])
})

it('a piece that is due comes out now, and can wait', () => {
  const { facts, nowMs } = after('tapped')
  const dueMs = facts.settingStartMs! + facts.demould.recommendedS * 1000
  const at = (ms: number) => aheadOf(facts, viewPour(facts, ms), ms)
  expect(at(nowMs).stretches.map((s) => s.stage)).toEqual(['set', 'demould'])
  expect(at(dueMs + MIN).stretches).toMatchObject([
    { stage: 'set' },
    { stage: 'demould', fromMs: dueMs + MIN },
  ])
  expect(at(nowMs).canWaitMs).toBe(Infinity)
})

const lane = (
  id: string,
  canWaitMin: number,
  ...of: [Ahead['stretches'][number]['stage'], number, number][]
) => ({
  id,
  ahead: {
    canWaitMs: canWaitMin * MIN,
    stretches: of.map(([stage, from, until]) => ({
      stage,
      fromMs: from * MIN,
      untilMs: until * MIN,
      hands: stage !== 'soak' && stage !== 'set',
    })),
  },
})

it('two that want hands at once: the soak is made longer, if the working time lasts', () => {
  const a = lane('a', 5, ['soak', -1, 4], ['stir', 4, 6], ['pour', 6, 7])
  const b = lane('b', 5, ['soak', 0, 5], ['stir', 5, 7], ['pour', 7, 8])
  // The first is done with stirring at 6; a minute later hands are free for the second: two minutes more of soak.
  expect(clashesOf([a, b], 0)).toEqual([
    { between: ['a', 'b'], atMs: 5 * MIN, hold: { id: 'b', byMs: 2 * MIN, at: 'soak' } },
  ])
  // No time left to wait in the second: then the first is held back, where it can be.
  expect(clashesOf([a, lane('b', 1, ['soak', 0, 5], ['stir', 5, 7])], 0)[0]!.hold).toEqual({
    id: 'a',
    byMs: 4 * MIN,
    at: 'soak',
  })
  expect(
    clashesOf([lane('a', 0, ['stir', -1, 6]), lane('b', 1, ['soak', 0, 5], ['stir', 5, 7])], 0)[0]!.hold,
  ).toBe(undefined)
})

it('a piece in its mould waits for anything; hands a minute apart are no clash, nor what is in hand already', () => {
  const out = lane('out', Infinity, ['set', -9, 5], ['demould', 5, 7])
  expect(clashesOf([out, lane('b', 0, ['stir', 4, 6])], 0)[0]!.hold).toEqual({
    id: 'out',
    byMs: 2 * MIN,
    at: 'set',
  })
  expect(clashesOf([lane('due', Infinity, ['demould', 0, 2]), lane('b', 0, ['stir', 1, 6])], 0)).toEqual([])
  expect(clashesOf([lane('a', 9, ['stir', 1, 3]), lane('b', 9, ['stir', 4, 6])], 0)).toEqual([])
  expect(clashesOf([lane('a', 9, ['stir', 1, 3]), lane('b', 9, ['stir', 3.5, 6])], 0)).toHaveLength(1)
  expect(clashesOf([lane('a', 9, ['stir', -2, 3]), lane('b', 9, ['stir', -1, 6])], 0)).toEqual([])
})
