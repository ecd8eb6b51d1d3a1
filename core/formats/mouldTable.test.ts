import { expect, it } from 'vitest'
import { mouldsFromCsv, mouldsToCsv, type MouldTableRow } from '.'

const rows: MouldTableRow[] = [
  {
    name: 'Chart tile, "B" side',
    material: 'silicone',
    purpose: 'tile',
    holdsMl: 410,
    plusMinusMl: 3,
    thicknessMm: 18,
    casts: 64,
    note: 'Two\nlines; =not a formula',
  },
  {
    name: '=SUM(A1)',
    material: 'rigid_plastic',
    purpose: 'prop',
    holdsMl: 63.2,
    plusMinusMl: 3.1,
    thicknessMm: 30,
    casts: 0,
    note: '',
  },
]

it('a table out and in is the same shelf, formulae disarmed on the way', () => {
  const csv = mouldsToCsv(rows)
  expect(csv).toContain(`'=SUM(A1)`)
  expect(mouldsFromCsv(csv)).toEqual({ rows, problems: [] })
})

it('fills in what a short table leaves out', () => {
  expect(mouldsFromCsv('Name,Material,Holds_ml\nDoor stop,wet clay,500').rows[0]).toMatchObject({
    name: 'Door stop',
    material: 'wet_clay',
    holdsMl: 500,
    plusMinusMl: 25,
    purpose: 'figure',
  })
})

it('names each line that cannot be read and gives the others', () => {
  const { rows: read, problems } = mouldsFromCsv(
    'name,material,holds_ml\nA,silicone,100\n,silicone,100\nB,jelly,100\nC,silicone,lots\nD,silicone,0\nE,silicone,',
  )
  expect(read.map((r) => r.name)).toEqual(['A'])
  expect(problems.map((p) => [p.line, p.column, p.code])).toEqual([
    [3, 'name', 'no_name'],
    [4, 'material', 'unknown_word'],
    [5, 'holds_ml', 'not_a_number'],
    [6, 'holds_ml', 'out_of_range'],
    [7, 'holds_ml', 'not_a_number'],
  ])
  expect(mouldsFromCsv('a,b\n1,2').problems.map((p) => p.code)).toEqual([
    'missing_column',
    'missing_column',
    'missing_column',
  ])
})
