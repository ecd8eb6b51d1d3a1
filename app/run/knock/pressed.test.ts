import { expect, it } from 'vitest'
import { holdBackMs } from './pressed'

it('of the windows that hear one press, the one that knows best comes first, and only a scale for all counts everywhere', () => {
  const home = (['typed', 'own_scale', 'scale', 'plan'] as const).map((by) => holdBackMs(by, true)!)
  expect(home).toEqual([...home].sort((a, b) => a - b))
  for (const by of ['typed', 'own_scale', 'plan'] as const) expect(holdBackMs(by, false)).toBeUndefined()
  expect(holdBackMs('scale', false)).toBe(holdBackMs('scale', true))
  expect(holdBackMs('nothing', true)).toBeUndefined()
})
