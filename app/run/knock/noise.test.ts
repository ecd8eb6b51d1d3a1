import { expect, it } from 'vitest'
import { NO_KNOCK, hearKnock, levelOf } from './noise'

it('loudness goes by decibels: half the swing is six of them', () => {
  const at = (peak: number) => levelOf(Float32Array.from([0, -peak, peak / 3]))
  expect(at(0)).toBe(0)
  expect(at(1)).toBe(1)
  expect(at(2)).toBe(1)
  // 6.02 dB of the sixty.
  expect(at(1) - at(0.5)).toBeCloseTo(6.02 / 60, 3)
  expect(at(0.0005)).toBe(0)
})

it('one bang is one knock, however long it rings; what rattles at the threshold is still the same one', () => {
  const levels = [0.2, 0.7, 0.9, 0.65, 0.58, 0.62, 0.3, 0.3, 0.8]
  let heard = NO_KNOCK
  const knocks = levels.map((level) => {
    heard = hearKnock(heard, level, 0.6)
    return heard.isKnock
  })
  expect(knocks.flatMap((k, i) => (k ? [i] : []))).toEqual([1, 8])
})
