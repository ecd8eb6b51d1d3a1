import { expect, it } from 'vitest'
import { leansOut, type PaceTable } from './pace'

it('more runs are asked for on the side that what was seen leans on, and on neither while it lies inside', () => {
  const prior = { meanLn: 0, sigmaLn: 0.2 }
  const table: PaceTable = { lnF: Array.from({ length: 17 }, (_, i) => (i - 8) * 0.125), times: [] }
  const grid = Float64Array.from({ length: 201 }, (_, i) => (i - 100) / 100)
  const seenAt = (ln: number) =>
    leansOut(
      table,
      prior,
      grid,
      grid.map((x) => Math.exp(-0.5 * ((x - ln) / 0.1) ** 2)),
    )
  expect([-0.95, -0.4, 0, 0.4, 0.95].map(seenAt)).toEqual(['fast', undefined, undefined, undefined, 'slow'])
})
