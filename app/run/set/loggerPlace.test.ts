import { expect, it } from 'vitest'
import { readLoggerFile } from '#core/formats'
import { placedReadings } from './loggerPlace'

const MIN = 60_000
const at = (text: string) => new Date(text).getTime()
const startMs = at('2026-11-26T23:50:00')
const facts = { settingStartMs: startMs, doneAtMs: { pour: startMs + 6 * MIN } }
const placed = (rows: string[], zero: 'met_water' | 'poured' = 'poured', nowMs = startMs + 24 * 60 * MIN) => {
  const result = readLoggerFile(['t;temp °C', ...rows].join('\n'))
  if (!result.ok) throw new Error(result.fault)
  return placedReadings(result, facts, zero, nowMs).map((r) => r.atMs)
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
