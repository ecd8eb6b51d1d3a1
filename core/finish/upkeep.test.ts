import { expect, it } from 'vitest'
import { upkeepNext, type Upkeep } from '.'

const DAY = 86_400_000
const acts = (...told: [Upkeep, day: number][]) => told.map(([what, day]) => ({ what, atMs: day * DAY }))

it('a slab is dried out after a few uses, a slip mould counts towards its life (common practice, no source)', () => {
  expect(upkeepNext(['slab'], [])).toMatchObject({ act: undefined, uses: 0 })
  const three = acts(['used', 1], ['used', 2], ['used', 3])
  expect(upkeepNext(['slab'], three)).toMatchObject({ act: 'dried', fromMs: 3 * DAY, life: undefined })
  expect(upkeepNext(['slab'], [...three, ...acts(['dried', 4])])).toMatchObject({ act: undefined, uses: 3 })
  expect(upkeepNext(['slip_mould'], three)).toMatchObject({ act: undefined, life: { low: 60, high: 120 } })
  // Whatever the order it is told in.
  expect(upkeepNext(['slab'], acts(['dried', 4], ['used', 3], ['used', 2], ['used', 1]))!.usesSinceDry).toBe(
    0,
  )
})

it('wetted it is a damp box: wetted again, and kept from mildew in between', () => {
  expect(upkeepNext(['slab'], acts(['wetted', 0]))).toMatchObject({ act: 'wetted', fromMs: 14 * DAY })
  expect(upkeepNext(['slab'], acts(['wetted', 0], ['wetted', 14]))).toMatchObject({
    act: 'bleached',
    fromMs: 21 * DAY,
  })
  const treated = acts(['wetted', 0], ['wetted', 14], ['bleached', 21])
  expect(upkeepNext(['slab'], treated)).toMatchObject({ act: 'wetted', fromMs: 28 * DAY })
  expect(upkeepNext(['slab'], [...treated, ...acts(['dried', 30])])).toMatchObject({ act: undefined })
})

it('a figure is not kept up', () => {
  expect(upkeepNext(['figure'], acts(['used', 1]))).toBeUndefined()
  expect(upkeepNext(['figure', 'slab'], acts(['used', 1]))).toBeDefined()
  expect(upkeepNext(['tile'], acts(['used', 1]))).toBeUndefined()
})
