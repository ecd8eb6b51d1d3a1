import { expect, it } from 'vitest'
import { DEMO_MOULDS } from '../../../server/demo/moulds'
import { testPlan } from '../../../tests/unit/plans'
import { planMould } from '#core/pour'
import { atDepth, cellAt, sectionOf } from './section'

const planOf = (key: keyof typeof DEMO_MOULDS) =>
  testPlan('pop', { mould: planMould([{ ...DEMO_MOULDS[key], mouldId: null, count: 1 }])! })
const known = (depth: Float32Array) => [...depth].filter((d) => !Number.isNaN(d))

it('a slab that lies open is cut from its face down', () => {
  const { columns, rows, depth } = sectionOf(planOf('tile'))
  expect(known(depth)).toHaveLength(columns * rows)
  for (let row = 1; row < rows; row++)
    expect(depth[row * columns]!).toBeGreaterThan(depth[(row - 1) * columns]!)
  expect(depth[0]).toBeLessThan(0.02)
  expect(depth.at(-1)).toBeGreaterThan(0.98)
})

it('a drawn form shows as it was drawn, and is deepest in its middle', () => {
  const section = sectionOf(planOf('urchin'))
  const { columns, rows, depth } = section
  // Round: its corners are no piece.
  for (const corner of [0, columns - 1, (rows - 1) * columns, rows * columns - 1])
    expect(depth[corner]).toBeNaN()
  const all = known(depth)
  expect(Math.min(...all)).toBe(0)
  expect(Math.max(...all)).toBeGreaterThan(0.9)
  const middle = cellAt(section, 0)
  expect(Math.abs(middle.column - columns / 2)).toBeLessThan(2)
  expect(depth[middle.row * columns + middle.column]).toBeLessThan(0.02)
})

it('a figure by depth is read off between its cells, and held beyond the last', () => {
  expect(atDepth([10, 20, 40], 0.5)).toBe(20)
  expect(atDepth([10, 20, 40], 1 / 3)).toBeCloseTo(15, 9)
  expect([atDepth([10, 20], 0), atDepth([10, 20], 1), atDepth([7], 0.4)]).toEqual([10, 20, 7])
})
