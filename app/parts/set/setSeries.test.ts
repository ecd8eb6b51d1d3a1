import { expect, it } from 'vitest'
import { rowsOf } from './setSeries'

const label = (x: number, wide: number) => ({ x, from: x - 2, to: x - 2 + wide })

it('labels stand in the lowest row in which none runs into another', () => {
  expect(rowsOf([label(0, 40), label(100, 40)], 4)).toEqual([0, 0])
  expect(rowsOf([label(0, 40), undefined, label(44, 40)], 4)).toEqual([1, 0, 0])
})

it('no line runs through a label: the one to the left, which reaches over it, stands above it', () => {
  // As "holds a line" reaches over the line of "hard", and that over "now".
  const rows = rowsOf([label(25, 30), label(10, 80), label(20, 40)], 4)
  expect(rows).toEqual([0, 2, 1])
})

it('more than there is room for stand in the last row', () => {
  expect(rowsOf([label(0, 90), label(10, 90), label(20, 90)], 2)).toEqual([1, 1, 0])
})
