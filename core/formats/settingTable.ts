import Papa from 'papaparse'

/** A setting's temperatures as a table: minutes since powder met water, °C. */
export interface SettingTableRow {
  minute: number
  coreC: number
  lowC: number
  highC: number
  surfaceC: number
  setPct: number
}

const COLUMNS = ['minutes', 'inside_c', 'inside_low_c', 'inside_high_c', 'surface_c', 'set_pct', 'measured_c']
const tenth = (value: number) => Number(value.toFixed(1))

/** What was expected each minute, then what was measured, in the same columns. */
export function settingToCsv(
  expected: readonly SettingTableRow[],
  measured: readonly { minute: number; tempC: number }[],
): string {
  return Papa.unparse(
    {
      fields: COLUMNS,
      data: [
        ...expected.map((r) => [
          r.minute,
          ...[r.coreC, r.lowC, r.highC, r.surfaceC].map(tenth),
          Math.round(r.setPct),
          '',
        ]),
        ...measured.map((m) => [Number(m.minute.toFixed(2)), '', '', '', '', '', tenth(m.tempC)]),
      ],
    },
    { newline: '\n' },
  )
}
