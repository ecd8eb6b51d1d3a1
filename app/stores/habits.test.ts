import { expect, it } from 'vitest'
import { isNight } from './habits'

it('from ten to seven, by this device’s own day, nobody is asked to weigh', () => {
  const at = (hour: number, minute = 0) => isNight(new Date(2031, 4, 7, hour, minute).getTime())
  expect([22, 23, 0, 3, 6].map((h) => at(h))).toEqual([true, true, true, true, true])
  expect([7, 12, 21].map((h) => at(h))).toEqual([false, false, false])
  expect([at(21, 59), at(6, 59)]).toEqual([false, true])
})
