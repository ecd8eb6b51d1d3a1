import Papa from 'papaparse'

/** How a logger writes its times. */
export const LOGGER_TIMES = ['zoned', 'moment', 'clock', 'minutes', 'seconds'] as const
export type LoggerTime = (typeof LOGGER_TIMES)[number]

/** How a file is read: found by looking at it, shown, and changed by whoever knows better. */
export interface LoggerFormat {
  delimiter: string
  decimalSign: 'point' | 'comma'
  time: LoggerTime
  unit: 'c' | 'f'
  /** Columns of time and temperature, from 0. */
  timeColumn: number
  tempColumn: number
}

export type LoggerFault =
  | 'no_two_columns'
  | 'no_times'
  | 'no_temperatures'
  | 'too_few'
  | 'not_rising'
  | 'beyond_belief'

export interface LoggerReading {
  /**
   * s since the first reading; of a clock since that day's midnight; of a moment since 1970 as if it had been written in UTC,
   * and of one with its zone really so.
   */
  atS: number
  tempC: number
}

export type LoggerResult =
  | { ok: true; format: LoggerFormat; readings: LoggerReading[]; skipped: number; head: string[] }
  | { ok: false; fault: LoggerFault }

const LEAST_READINGS = 3
/** Air, mix and set plaster lie well within. */
const BELIEVED_C = { low: -40, high: 150 }

const CLOCK = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?$/
const MOMENT =
  /^(\d{4})-(\d{1,2})-(\d{1,2})[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?(?: ?(Z|[+-]\d{2}(?::?\d{2})?))?$/

/** How far a zone's clocks are ahead of UTC, s. */
function zoneS(zone: string): number {
  const found = /^([+-])(\d{2}):?(\d{2})?$/.exec(zone)
  if (!found) return 0
  const [, sign, h, min = '0'] = found
  return (sign === '-' ? -1 : 1) * (Number(h) * 3600 + Number(min) * 60)
}

function numberOf(text: string, sign: LoggerFormat['decimalSign']): number | undefined {
  const plain = text.trim().replace(/\s*°?\s*[CcFf]$/, '')
  if (!/^[+-]?\d+(?:[.,]\d+)?$/.test(plain)) return undefined
  if (sign === 'point' ? plain.includes(',') : plain.includes('.')) return undefined
  return Number(plain.replace(',', '.'))
}

function timeOf(text: string, { time, decimalSign }: LoggerFormat): number | undefined {
  const cell = text.trim()
  if (time === 'clock') {
    const found = CLOCK.exec(cell)
    if (!found) return undefined
    const [, h, m, s = '0'] = found
    return Number(h) < 24 && Number(m) < 60 ? Number(h) * 3600 + Number(m) * 60 + Number(s) : undefined
  }
  if (time === 'moment' || time === 'zoned') {
    const found = MOMENT.exec(cell)
    if (!found) return undefined
    const [year, month, day, h, min, s = '0', zone] = found.slice(1) as (string | undefined)[]
    if (time === 'zoned' && zone === undefined) return undefined
    const of = Date.UTC(Number(year), Number(month) - 1, Number(day), Number(h), Number(min), Number(s))
    return of / 1000 - (time === 'zoned' ? zoneS(zone!) : 0)
  }
  const value = numberOf(cell, decimalSign)
  return value === undefined ? undefined : time === 'minutes' ? value * 60 : value
}

const median = (of: readonly number[]) => [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]!

function rowsOf(text: string, delimiter?: string): { rows: string[][]; delimiter: string } {
  const { data, meta } = Papa.parse<string[]>(text.trim(), {
    skipEmptyLines: 'greedy',
    ...(delimiter ? { delimiter } : { delimitersToGuess: [';', '\t', ',', '|'] }),
  })
  return { rows: data, delimiter: meta.delimiter }
}

/** Rows in which most cells of a column read so. */
function share(rows: readonly string[][], column: number, reads: (cell: string) => boolean): number {
  return rows.filter((r) => r[column] !== undefined && reads(r[column])).length / Math.max(1, rows.length)
}
const MOST = 0.7

/**
 * How this file is written, by looking at it: its delimiter, its sign before decimals, which columns, how it writes
 * times, and °C or °F. Undefined where no two columns read as times and temperatures.
 */
export function findLoggerFormat(text: string): LoggerFormat | undefined {
  const { rows, delimiter } = rowsOf(text)
  const body = rows.slice(1)
  const wide = median(body.map((r) => r.length)) ?? 0
  if (body.length < LEAST_READINGS || wide < 2) return undefined
  const columns = Array.from({ length: wide }, (_, i) => i)
  const commas = body.flat().filter((c) => /^[+-]?\d+,\d+/.test(c.trim())).length
  const points = body.flat().filter((c) => /^[+-]?\d+\.\d+/.test(c.trim())).length
  const decimalSign = commas > points ? 'comma' : 'point'
  const isNumber = (cell: string) => numberOf(cell, decimalSign) !== undefined
  const head = rows[0]!.map((h) => h.toLowerCase())
  const asMoment = columns.find((i) => share(body, i, (c) => MOMENT.test(c.trim())) > MOST)
  const asClock = columns.find((i) => share(body, i, (c) => CLOCK.test(c.trim())) > MOST)
  const timeColumn =
    asMoment ??
    asClock ??
    columns.find((i) => share(body, i, isNumber) > MOST && isRising(body, i, decimalSign))
  if (timeColumn === undefined) return undefined
  const others = columns.filter((i) => i !== timeColumn && share(body, i, isNumber) > MOST)
  const tempColumn =
    others.find((i) => /temp|°|celsius|fahrenheit|kern|core|inside/.test(head[i] ?? '')) ?? others[0]
  if (tempColumn === undefined) return undefined
  const values = body.flatMap((r) => numberOf(r[tempColumn] ?? '', decimalSign) ?? [])
  const label = head[tempColumn] ?? ''
  // A room is never 50 °C, and hardly ever 50 °F.
  const unit = /°?\s*f\b|fahrenheit/.test(label)
    ? 'f'
    : /°?\s*c\b|celsius/.test(label)
      ? 'c'
      : Math.min(...values) >= 50
        ? 'f'
        : 'c'
  const times = body.flatMap((r) => numberOf(r[timeColumn] ?? '', decimalSign) ?? [])
  const steps = times.slice(1).map((t, i) => t - times[i]!)
  const time: LoggerTime =
    asMoment !== undefined
      ? share(body, asMoment, (c) => MOMENT.exec(c.trim())?.[7] !== undefined) > MOST
        ? 'zoned'
        : 'moment'
      : asClock !== undefined
        ? 'clock'
        : /sec|\bs\b|\(s\)/.test(head[timeColumn] ?? '')
          ? 'seconds'
          : /min/.test(head[timeColumn] ?? '')
            ? 'minutes'
            : // Nobody logs less often than each ten minutes, and few more often than each two seconds.
              median(steps) >= 2 || times.at(-1)! > 600
              ? 'seconds'
              : 'minutes'
  return { delimiter, decimalSign, time, unit, timeColumn, tempColumn }
}

function isRising(rows: readonly string[][], column: number, sign: LoggerFormat['decimalSign']): boolean {
  const values = rows.flatMap((r) => numberOf(r[column] ?? '', sign) ?? [])
  return values.every((v, i) => i === 0 || v > values[i - 1]!)
}

/** Reads a logger's file by a format. Lines that are no reading (headings, gaps) are counted, not guessed at. */
export function readLoggerFile(
  text: string,
  format: LoggerFormat | undefined = findLoggerFormat(text),
): LoggerResult {
  if (!format) return { ok: false, fault: 'no_two_columns' }
  const { rows } = rowsOf(text, format.delimiter)
  const readings: LoggerReading[] = []
  let [skipped, times, temps] = [0, 0, 0]
  let dayS = 0
  for (const row of rows) {
    const at = timeOf(row[format.timeColumn] ?? '', format)
    const value = numberOf(row[format.tempColumn] ?? '', format.decimalSign)
    times += at === undefined ? 0 : 1
    temps += value === undefined ? 0 : 1
    if (at === undefined || value === undefined) {
      skipped += 1
      continue
    }
    const last = readings.at(-1)
    // A clock that goes back has passed midnight.
    if (format.time === 'clock' && last && at + dayS < last.atS - 43_200) dayS += 86_400
    readings.push({ atS: at + dayS, tempC: format.unit === 'f' ? ((value - 32) * 5) / 9 : value })
  }
  if (times === 0) return { ok: false, fault: 'no_times' }
  if (temps === 0) return { ok: false, fault: 'no_temperatures' }
  if (readings.length < LEAST_READINGS) return { ok: false, fault: 'too_few' }
  if (readings.some((r, i) => i > 0 && r.atS < readings[i - 1]!.atS))
    return { ok: false, fault: 'not_rising' }
  if (readings.some((r) => r.tempC < BELIEVED_C.low || r.tempC > BELIEVED_C.high))
    return { ok: false, fault: 'beyond_belief' }
  return { ok: true, format, readings, skipped, head: rows[0]! }
}
