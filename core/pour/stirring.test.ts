import { expect, it } from 'vitest'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { stirringOf, usualTimeS, viewPour } from '.'
import { pourWindowOf } from './plan/mix/mixing'

const MIN = 60_000
/** Stirring begins at eight minutes. */
const stirring = fold(testPlan(), wholeRun().slice(0, 6))

it('while it is stirred: what is left if one stops now, what a minute more costs, when to stop at the latest', () => {
  const at = (min: number) => stirringOf(stirring, min * MIN)!
  expect(at(9).stirredS).toBe(60)
  // Stopped at the planned time it is the plan's own window.
  const planned = pourWindowOf(stirring.plan, stirring.inHand.planned)
  expect(at(10).leftS / planned.windowS.low).toBeCloseTo(1, 1)
  for (const min of [8.5, 9, 10, 12]) {
    // A minute of stirring is a minute gone, and hurries what is left.
    expect(at(min).minuteCostS).toBeGreaterThan(60)
    expect(at(min).leftS - at(min + 1).leftS).toBeCloseTo(at(min).minuteCostS, 6)
  }
  const stopBy = at(9).stopByMs
  expect(at(12).stopByMs).toBe(stopBy)
  expect(stirringOf(stirring, stopBy)!.leftS).toBeCloseTo(planned.neededS, 1)
  expect(stirringOf(fold(testPlan(), wholeRun().slice(0, 5)), 8 * MIN)).toBeUndefined()
})

it('while it is stirred one figure says what time is left: the one that goes by when one stops', () => {
  const clocks = viewPour(stirring, 10 * MIN).otherClocks.map((c) => c.id)
  expect(clocks).not.toContain('work_end')
  expect(clocks).toContain('initial_set')
  // Less by more than the minute that went by: stirring hurries it.
  const leftS = (min: number) => stirringOf(stirring, min * MIN)!.leftS
  expect(leftS(11)).toBeLessThan(leftS(10) - 60)
})

it('a crust soaks for one to five minutes, a filled mix slakes for three (common practice, no source)', () => {
  const soaking = (addingWay: 'sifted' | 'tipped_in', n: number) =>
    usualTimeS(fold(testPlan('pottery', { addingWay }), wholeRun().slice(0, n)))
  expect(soaking('sifted', 5)).toEqual({ leastS: 60, mostS: 300 })
  expect(soaking('tipped_in', 4)).toEqual({ leastS: 180, mostS: 180 })
  expect(usualTimeS(fold(testPlan(), []))).toEqual({})
})

it('layers and marks have windows, and a window is shown for as long as it is open', () => {
  const set = fold(testPlan(), wholeRun().slice(0, 9))
  const soft = (min: number) => viewPour(set, min * MIN).otherClocks.find((c) => c.id === 'soft_window')
  const { dueMs, untilMs } = soft(12)!
  const start = set.settingStartMs!
  expect(dueMs).toBe(start + set.setting.timeS.initial_set.mid * 1000)
  expect(untilMs).toBe(start + set.setting.timeS.final_set.low * 1000)
  expect(soft((untilMs! - 1) / MIN)).toBeDefined()
  expect(soft(untilMs! / MIN)).toBeUndefined()

  const layers = testPlan('pottery', {
    filling: 'hand_built',
    batching: {
      split: { by: 'layers', layers: [1, 2].map((n) => ({ name: `${n}`, sharePct: 50 })) },
      bowl: null,
      pourRateMlMin: null,
      scaleCapacityG: null,
    },
  })
  const bodies = ['sift_started', 'sifted', 'soaked'] as const
  const first = [
    ...bodies.map((type, i) => eventAt(i * MIN, { type })),
    eventAt(4 * MIN, { type: 'stirred', manner: 'hand' }),
    eventAt(5 * MIN, { type: 'face_coated' }),
  ]
  const thickening = fold(layers, first)
  expect(viewPour(thickening, 5 * MIN).clock).toMatchObject({
    id: 'peak',
    dueMs: thickening.settingStartMs! + thickening.setting.timeS.work_end.mid * 1000,
  })
  const built = fold(layers, [
    ...first,
    eventAt(9 * MIN, { type: 'thickened' }),
    eventAt(12 * MIN, { type: 'built' }),
  ])
  const window = viewPour(built, 12 * MIN).clock!
  expect(window.id).toBe('layer_ready')
  const { work_end, initial_set } = built.setting.timeS
  expect(window.untilMs).toBe(built.settingStartMs! + Math.max(work_end.mid, initial_set.low) * 1000)
  // Too stiff to work at the early end: too late is a lost layer.
  const building = fold(layers, [...first, eventAt(9 * MIN, { type: 'thickened' })])
  expect(viewPour(building, 9 * MIN).clock).toMatchObject({
    id: 'build_end',
    dueMs: building.settingStartMs! + building.setting.timeS.initial_set.low * 1000,
  })
})
