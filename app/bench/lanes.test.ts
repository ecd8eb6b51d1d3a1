import { expect, it } from 'vitest'
import { viewPour } from '#core/pour'
import { fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { lanesOf, type LanePart } from './lanes'

const run = wholeRun()
const upTo = (type: string) => run.slice(0, run.findLastIndex((e) => e.body.type === type) + 1)

it('lays pours on one axis, the present at its place, and says in words what clashes', () => {
  const events = upTo('sifted')
  const facts = fold(testPlan(), events)
  const nowMs = events.at(-1)!.occurredAtMs
  const pour = (id: string, piece: string) => ({ id, piece, facts, view: viewPour(facts, nowMs) })
  const planned = fold(testPlan(), upTo('mould_ready'))
  const resting = { id: 'rest', piece: 'Not begun', facts: planned, view: viewPour(planned, nowMs) }
  const { lanes, clashes, nowPct, ticks } = lanesOf([pour('a', 'Tile'), pour('b', 'Jug'), resting], nowMs)
  expect(lanes.map((l) => l.piece)).toEqual(['Tile', 'Jug'])
  expect(nowPct).toBeCloseTo(100 / 16, 6)
  expect(ticks.map((t) => t.word)).toEqual(['10 min', '20 min', '30 min'])
  expect(ticks.at(-1)!.leftPct).toBe(100)
  const [soak, stir] = lanes[0]!.parts
  expect(soak).toMatchObject({ stage: 'soak', hands: false })
  // What is too short for its word is said beside the bar.
  const holds = (part: LanePart) => part.widthPct >= 14
  expect(lanes[0]!.parts.map((p) => p.word !== '')).toEqual(lanes[0]!.parts.map(holds))
  expect(lanes[0]!.short).toMatch(/^Soak now, Stir at /)
  expect(stir!.leftPct).toBeCloseTo(soak!.leftPct + soak!.widthPct, 6)
  for (const part of lanes[0]!.parts) expect(part.leftPct + part.widthPct).toBeLessThanOrEqual(100.8)
  expect(clashes).toHaveLength(1)
  expect(clashes[0]!.words).toMatch(
    /two want hands. First Tile, then Jug. The second may soak .* longer: that costs nothing/,
  )
})
