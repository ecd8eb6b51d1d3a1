import Papa from 'papaparse'

/** A drying piece as rows: days since it came out, and g; what is not known at that time is left out. */
export interface DryingTableRow {
  day: number
  expectedG?: number
  fastG?: number
  slowG?: number
  weighedG?: number
}

const COLUMNS = ['day', 'expected_g', 'fast_g', 'slow_g', 'weighed_g']

/** Days to a minute, masses to a gram or as weighed. @returns CSV with a header. */
export function dryingToCsv(rows: readonly DryingTableRow[]): string {
  const gram = (massG: number | undefined) => (massG === undefined ? '' : Math.round(massG))
  return Papa.unparse(
    {
      fields: COLUMNS,
      data: rows.map((r) => [
        Number(r.day.toFixed(3)),
        gram(r.expectedG),
        gram(r.fastG),
        gram(r.slowG),
        r.weighedG ?? '',
      ]),
    },
    { newline: '\n' },
  )
}
