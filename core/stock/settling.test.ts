import { expect, it } from 'vitest'
import { settlingNext, type SettlingAct } from '.'

const H = 3_600_000
const after = (...acts: [SettlingAct, atH: number][]) =>
  settlingNext(acts.map(([what, h]) => ({ what, atMs: h * H })))

it('filled, it clears overnight; then the clear is poured off, and from time to time the solid goes into the bin', () => {
  expect(after()).toEqual({ act: 'filled', fromMs: undefined })
  expect(after(['filled', 1])).toEqual({ act: 'poured_off', fromMs: 13 * H })
  // Filled up again it is cloudy again.
  expect(after(['filled', 1], ['filled', 5])).toEqual({ act: 'poured_off', fromMs: 17 * H })
  expect(after(['filled', 1], ['settled', 6])).toEqual({ act: 'poured_off', fromMs: 6 * H })
  expect(after(['filled', 1], ['poured_off', 14])).toEqual({ act: 'filled', fromMs: undefined })
  const rounds = [0, 1, 2, 3, 4].flatMap((i): [SettlingAct, number][] => [
    ['filled', 20 * i],
    ['poured_off', 20 * i + 13],
  ])
  expect(after(...rounds)).toEqual({ act: 'emptied', fromMs: 93 * H })
  expect(after(...rounds.slice(0, -2)).act).toBe('filled')
  expect(after(...rounds, ['emptied', 94], ['filled', 95], ['poured_off', 108]).act).toBe('filled')
  // Whatever the order it is told in.
  expect(after(['poured_off', 14], ['filled', 1])).toEqual({ act: 'filled', fromMs: undefined })
})
