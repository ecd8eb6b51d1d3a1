import { afterAll, describe, expect, it } from 'vitest'
import { readLoggerFile } from '#core/formats'
import { placedReadings } from './loggerPlace'

const MIN = 60_000
const at = (text: string) => new Date(text).getTime()
const { TZ } = process.env
afterAll(() => {
  if (TZ === undefined) delete process.env.TZ
  else process.env.TZ = TZ
})
function placedFrom(
  startMs: number,
  rows: string[],
  zero: 'met_water' | 'poured' = 'poured',
  nowMs = startMs + 24 * 60 * MIN,
) {
  const facts = { settingStartMs: startMs, doneAtMs: { pour: startMs + 6 * MIN } }
  const result = readLoggerFile(['t;temp °C', ...rows].join('\n'))
  if (!result.ok) throw new Error(result.fault)
  return placedReadings(result, facts, zero, nowMs).map((r) => r.atMs)
}

describe.each(['Pacific/Auckland', 'America/St_Johns', 'UTC'])('in the zone %s', (zone) => {
  process.env.TZ = zone
  const startMs = at('2026-11-26T23:50:00')
  const placed = (...of: Parameters<typeof placedFrom> extends [number, ...infer Rest] ? Rest : never) => {
    process.env.TZ = zone
    return placedFrom(startMs, ...of)
  }

  it('times that count begin when the caster says', () => {
    const rows = ['0;18,0', '30;18,2', '60;18,4']
    expect(placed(rows)).toEqual([6, 6.5, 7].map((m) => startMs + m * MIN))
    expect(placed(rows, 'met_water')).toEqual([0, 0.5, 1].map((m) => startMs + m * MIN))
  })
  it('a time of day is of the day nearest to the pour, also past midnight', () => {
    expect(placed(['23:58:00;18,0', '23:59:00;18,2', '00:01:00;18,4'])).toEqual(
      [8, 9, 11].map((m) => startMs + m * MIN),
    )
    expect(placed(['00:02:00;18,0', '00:03:00;18,2', '00:04:00;18,4'])[0]).toBe(startMs + 12 * MIN)
  })
  it('a day and time is taken as this place writes it, and what is still to come is left out', () => {
    const rows = ['2026-11-26 23:58:00;18,0', '2026-11-26 23:59:00;18,2', '2026-11-27 00:30:00;18,4']
    expect(placed(rows)).toEqual([8, 9, 40].map((m) => startMs + m * MIN))
    expect(placed(rows, 'poured', startMs + 20 * MIN)).toHaveLength(2)
  })

  it('a day and time that says its zone is that moment, wherever it is read', () => {
    const rows = [
      '2026-07-14T12:00:00Z;18,0',
      '2026-07-14T14:01:00+02:00;18,2',
      '2026-07-14 07:32:00 -0430;18,4',
    ]
    const noonMs = Date.UTC(2026, 6, 14, 12)
    process.env.TZ = zone
    expect(placedFrom(noonMs, rows)).toEqual([0, 1, 2].map((m) => noonMs + m * MIN))
  })
})

it('between two readings the clocks may be changed', () => {
  process.env.TZ = 'Europe/Berlin'
  // On this night 02:00 was 03:00.
  const startMs = at('2026-03-29T01:50:00')
  const minutes = [8, 12, 13]
  expect(placedFrom(startMs, ['01:58:00;18,0', '03:02:00;18,2', '03:03:00;18,4'])).toEqual(
    minutes.map((m) => startMs + m * MIN),
  )
  const rows = ['2026-03-29 01:58:00;18,0', '2026-03-29 03:02:00;18,2', '2026-03-29 03:03:00;18,4']
  expect(placedFrom(startMs, rows)).toEqual(minutes.map((m) => startMs + m * MIN))
})
