import { expect, it } from 'vitest'
import { targetFractionLeft } from '../drying'
import { FINISH_TASKS, tasksFor, waterWindow, type FinishTask } from '.'

// Water against dry mass as the hand calls it: estimates, in the order that the trade gives (common practice, no source).
it('what wants it soft ends before it is dry, what wants it dry begins then, and so as shares of what it holds', () => {
  expect(waterWindow('knock_bumps', 0.6)).toEqual({ fromLeft: 1, untilLeft: 0.25, afterH: 0 })
  expect(waterWindow('sand_dry', 0.6)).toEqual({ fromLeft: 0.05, untilLeft: 0, afterH: 0 })
  expect(waterWindow('rinse_dab', 0.6)).toEqual({ fromLeft: 1, untilLeft: 0, afterH: 12 })
  // A dense piece holds so little that it is as good as dry when it comes out.
  expect(waterWindow('paint', 0.04).fromLeft).toBe(1)
  expect(waterWindow('pick_gel', 0.15).untilLeft).toBe(1)
  for (const id of FINISH_TASKS) {
    const { fromLeft, untilLeft } = waterWindow(id, 0.5)
    expect(fromLeft, id).toBeGreaterThan(untilLeft)
  }
  // By the day a piece may be painted, its drying says so too.
  for (const [task, use] of [
    ['sand_dry', 'sand'],
    ['paint', 'paint'],
    ['seal', 'seal'],
  ] as const)
    expect(waterWindow(task, 0.6).fromLeft).toBeCloseTo(targetFractionLeft(use, 0.6), 12)
  // What docs/science.md says of each, of a piece whose water is as much as its dry mass: estimates.
  const until = (ids: FinishTask[]) => ids.map((id) => waterWindow(id, 1).untilLeft)
  expect(until(['pick_gel'])).toEqual([0.2])
  expect(until(['peel_clay', 'knock_bumps', 'trim_base'])).toEqual([0.15, 0.15, 0.15])
  expect(until(['fill_voids', 'round_edges', 'scrub'])).toEqual([0.1, 0.1, 0.1])
  const begins = (['paint', 'sand_dry', 'seal'] as const).map((id) => waterWindow(id, 0.6).fromLeft)
  expect(begins).toEqual([...begins].sort((a, b) => b - a))
})

it('a print keeps its soil, a mould that draws water is not sealed, gel is picked only out of gel', () => {
  const print = tasksFor({ purposes: ['print'], materials: ['sand_soil'] })
  expect(print).toContain('leave_soil')
  for (const rough of ['knock_bumps', 'scrub', 'sand_dry', 'trim_base'] as const)
    expect(print).not.toContain(rough)
  const slipMould = tasksFor({ purposes: ['slip_mould'], materials: ['silicone'] })
  for (const shut of ['paint', 'seal', 'pick_gel', 'peel_clay'] as const)
    expect(slipMould).not.toContain(shut)
  expect(tasksFor({ purposes: ['figure'], materials: ['alginate'] })).toContain('pick_gel')
  expect(tasksFor({ purposes: ['figure'], materials: ['wet_clay'] })).toContain('peel_clay')
})
