import { LEAST_VOLUME_ML, MOST_VOLUME_ML } from '../bounds'
import Papa from 'papaparse'
import { MOULD_MATERIALS, PURPOSES, type MouldMaterial, type Purpose } from '../mould'

/** A shelf as a table: what a spreadsheet can hold of a mould. Volumes ml, lengths mm. */
export interface MouldTableRow {
  name: string
  material: MouldMaterial
  purpose: Purpose
  holdsMl: number
  plusMinusMl: number
  thicknessMm: number
  casts: number
  note: string
}

export type MouldTableFault = 'missing_column' | 'not_a_number' | 'out_of_range' | 'unknown_word' | 'no_name'

export interface MouldTableProblem {
  /** Line of the file, the heading being 1. */
  line: number
  column: string
  code: MouldTableFault
  at: string
}

const COLUMNS = ['name', 'material', 'purpose', 'holds_ml', 'plus_minus_ml', 'thickness_mm', 'casts', 'note']
const NEEDED = ['name', 'material', 'holds_ml']

export function mouldsToCsv(rows: readonly MouldTableRow[]): string {
  return Papa.unparse(
    {
      fields: COLUMNS,
      data: rows.map((r) => [
        r.name,
        r.material,
        r.purpose,
        Number(r.holdsMl.toFixed(1)),
        Number(r.plusMinusMl.toFixed(1)),
        Number(r.thicknessMm.toFixed(1)),
        r.casts,
        r.note,
      ]),
    },
    // A cell that a spreadsheet would run as a formula is kept as text.
    { newline: '\n', escapeFormulae: true },
  )
}

/** Reads a table of moulds. Lines that cannot be read are named; the rest is still given. */
export function mouldsFromCsv(text: string): { rows: MouldTableRow[]; problems: MouldTableProblem[] } {
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  const missing = NEEDED.filter((column) => !meta.fields?.includes(column))
  if (missing.length > 0)
    return {
      rows: [],
      problems: missing.map((column) => ({ line: 1, column, code: 'missing_column', at: '' })),
    }
  const rows: MouldTableRow[] = []
  const problems: MouldTableProblem[] = []
  for (const [i, record] of data.entries()) {
    const found = problems.length
    const refuse = (column: string, code: MouldTableFault, at: string) =>
      problems.push({ line: i + 2, column, code, at: at.slice(0, 40) })
    const word = <W extends string>(column: string, words: readonly W[], fallback: W): W => {
      const cell = (record[column] ?? '').trim().toLowerCase().replace(/\s+/g, '_')
      if (cell === '') return fallback
      if (!(words as readonly string[]).includes(cell)) refuse(column, 'unknown_word', cell)
      return cell as W
    }
    const number = (column: string, min: number, max: number, fallback: number): number => {
      const cell = (record[column] ?? '').trim()
      if (cell === '') return fallback
      const value = Number(cell)
      if (!Number.isFinite(value)) refuse(column, 'not_a_number', cell)
      else if (value < min || value > max) refuse(column, 'out_of_range', cell)
      return value
    }
    // Undoes what escaping formulae put in front.
    const plain = (cell: string | undefined) => (cell ?? '').trim().replace(/^'(?=[=+\-@])/, '')
    const name = plain(record.name)
    if (name === '') refuse('name', 'no_name', '')
    const holdsMl = number('holds_ml', LEAST_VOLUME_ML, MOST_VOLUME_ML, NaN)
    if (Number.isNaN(holdsMl) && problems.length === found) refuse('holds_ml', 'not_a_number', '')
    const row: MouldTableRow = {
      name: name.slice(0, 120),
      material: word('material', MOULD_MATERIALS, 'silicone'),
      purpose: word('purpose', PURPOSES, 'figure'),
      holdsMl,
      plusMinusMl: number('plus_minus_ml', 0, 250_000, 0.05 * holdsMl),
      thicknessMm: number('thickness_mm', 1, 500, 30),
      casts: Math.round(number('casts', 0, 100_000, 0)),
      note: plain(record.note).slice(0, 2000),
    }
    if (problems.length === found) rows.push(row)
  }
  return { rows, problems }
}
