import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { findLoggerFormat, readLoggerFile } from './loggerFile'

const lines = (...of: string[]) => of.join('\n')
const read = (text: string) => {
  const result = readLoggerFile(text)
  if (!result.ok) throw new Error(result.fault)
  return result
}

describe('a logger’s file, whoever wrote it', () => {
  it('semicolons, decimal commas, clock times', () => {
    const { format, readings, skipped } = read(
      lines('Uhrzeit;Temperatur (°C)', '10:02:00;18,4', '10:02:30;18,6', '10:03:00;19,1'),
    )
    expect(format).toMatchObject({ delimiter: ';', decimalSign: 'comma', time: 'clock', unit: 'c' })
    expect(readings.map((r) => r.atS - readings[0]!.atS)).toEqual([0, 30, 60])
    expect(readings[2]!.tempC).toBeCloseTo(19.1)
    expect(skipped).toBe(1)
  })
  it('tabs, minutes, Fahrenheit by its heading and without one', () => {
    const named = read(lines('time (min)\ttemp F', '0\t64.4', '1\t68', '2.5\t104'))
    expect(named.format).toMatchObject({ time: 'minutes', unit: 'f' })
    expect(named.readings.map((r) => [r.atS, Math.round(10 * r.tempC) / 10])).toEqual([
      [0, 18],
      [60, 20],
      [150, 40],
    ])
    // Nothing here is colder than 50: no room is so warm, so these are °F.
    expect(read(lines('a,b', '0,68.0', '30,69.1', '60,72.5')).format.unit).toBe('f')
    expect(read(lines('a,b', '0,18.0', '30,19.1', '60,52.5')).format.unit).toBe('c')
  })
  it('moments with their day, further columns, a gap', () => {
    const { format, readings, skipped } = read(
      lines(
        'No,Date,Core temp C,Battery',
        '1,2026-11-26 23:59:00,40.0,97',
        '2,2026-11-26 23:59:30,,97',
        '3,2026-11-27 00:00:00,41.0,97',
        '4,2026-11-27 00:00:30,41.5,97',
      ),
    )
    expect(format).toMatchObject({ time: 'moment', timeColumn: 1, tempColumn: 2 })
    expect(readings.map((r) => r.atS - readings[0]!.atS)).toEqual([0, 60, 90])
    expect(skipped).toBe(2)
  })
  it('a clock that passes midnight goes on', () => {
    const { readings } = read(lines('t;c', '23:59:30;20,0', '00:00:00;20,5', '00:00:30;21,0'))
    expect(readings.map((r) => r.atS - readings[0]!.atS)).toEqual([0, 30, 60])
  })
  it('seconds or minutes by their steps where nothing says it', () => {
    expect(findLoggerFormat(lines('t,c', '0,18.1', '10,18.2', '20,18.4'))?.time).toBe('seconds')
    expect(findLoggerFormat(lines('t,c', '0,18.1', '0.5,18.2', '1,18.4'))?.time).toBe('minutes')
  })
  it.each([
    ['two readings', lines('s,c', '0,18.1', '10,18.2'), 'no_two_columns'],
    ['one column', lines('c', '18', '19', '20'), 'no_two_columns'],
    ['words', lines('a,b', 'x,y', 'x,y', 'x,y'), 'no_two_columns'],
    ['hotter than anything here', lines('s,c', '0,20.0', '10,900.0', '20,20.0'), 'beyond_belief'],
  ])('%s is refused', (_, text, fault) => expect(readLoggerFile(text)).toEqual({ ok: false, fault }))
  it('a format said by hand is taken as said', () => {
    const text = lines('t,c', '0,18.1', '10,18.2', '20,18.4')
    const format = { ...findLoggerFormat(text)!, time: 'minutes' as const }
    const result = readLoggerFile(text, format)
    expect(result.ok && result.readings.at(-1)!.atS).toBe(1200)
    expect(readLoggerFile(text, { ...format, time: 'clock' })).toEqual({ ok: false, fault: 'no_times' })
  })
  it('what is written in any of these ways is read back', () => {
    const way = fc.record({
      delimiter: fc.constantFrom(';', '\t'),
      comma: fc.boolean(),
      fahrenheit: fc.boolean(),
      temps: fc.array(fc.integer({ min: 150, max: 600 }), { minLength: 4, maxLength: 30 }),
    })
    fc.assert(
      fc.property(way, ({ delimiter, comma, fahrenheit, temps }) => {
        const shown = temps.map((t) => (fahrenheit ? (t / 10) * 1.8 + 32 : t / 10).toFixed(2))
        const rows = shown.map((t, i) => [`${i * 20}`, comma ? t.replace('.', ',') : t].join(delimiter))
        const text = lines(['seconds', fahrenheit ? 'temp °F' : 'temp °C'].join(delimiter), ...rows)
        const { readings } = read(text)
        readings.forEach((r, i) => {
          expect(r.atS).toBe(i * 20)
          expect(r.tempC).toBeCloseTo(temps[i]! / 10, 1)
        })
        expect(readings).toHaveLength(temps.length)
      }),
    )
  })
})
