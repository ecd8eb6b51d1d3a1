import { expect, it } from 'vitest'
import { Thinning } from '../../server/devices/thinning'

const kept = (
  readings: readonly (readonly [atS: number, value: number, stable?: boolean])[],
  channel: 'mass' | 't1',
) => {
  const thinning = new Thinning()
  return readings
    .filter(([atS, value, stable = true]) =>
      thinning.take({ device: 'd', channel, atMs: atS * 1000, value, stable }),
    )
    .map(([atS]) => atS)
}

it('keeps what changes, at most once a second, and something each ten seconds', () => {
  const still = Array.from({ length: 126 }, (_, i) => [i / 5, 21.4] as const)
  expect(kept(still, 't1')).toEqual([0, 10, 20])
  const pouring = Array.from({ length: 26 }, (_, i) => [i / 5, 100 * i, false] as const)
  expect(kept(pouring, 'mass')).toEqual([0, 1, 2, 3, 4, 5])
})

it('keeps the moment at which a scale comes to rest, however soon', () => {
  expect(
    kept(
      [
        [0, 500, false],
        [0.2, 700, false],
        [0.4, 705, true],
        [0.6, 705, true],
      ],
      'mass',
    ),
  ).toEqual([0, 0.4])
})

it('keeps each moment at which a scale comes to nothing, however short: from there a bowl is counted', () => {
  const [bowl, filled] = [236, 400]
  expect(
    kept(
      [
        [0, bowl],
        [0.2, 0],
        [0.4, 0.02],
        [0.5, 3, false],
        [0.6, 0],
        [0.8, filled],
        [0.9, -0.04],
      ],
      'mass',
    ),
  ).toEqual([0, 0.2, 0.9])
})

it('knows devices and channels apart', () => {
  const thinning = new Thinning()
  const reading = { device: 'a', channel: 't1' as const, atMs: 0, value: 20, stable: true }
  expect(thinning.take(reading)).toBe(true)
  expect(thinning.take({ ...reading, channel: 't2' })).toBe(true)
  expect(thinning.take({ ...reading, device: 'b' })).toBe(true)
  expect(thinning.take(reading)).toBe(false)
})
