import { expect, it } from 'vitest'
import { Allowance } from '../../server/devices/allowance'

it('gives so much at once, then so much a second, and never saves up more than at first', () => {
  const some = new Allowance(3, 2)
  const takes = (nowMs: number) => some.take(nowMs)
  expect([takes(1000), takes(1000), takes(1000), takes(1000)]).toEqual([true, true, true, false])
  expect([takes(1400), takes(1500), takes(1600)]).toEqual([false, true, false])
  // A clock that is put back gives nothing, and takes nothing.
  expect(takes(500)).toBe(false)
  expect([takes(90_000), takes(90_000), takes(90_000), takes(90_000)]).toEqual([true, true, true, false])
})
