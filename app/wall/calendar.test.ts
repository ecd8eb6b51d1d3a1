import { expect, it } from 'vitest'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { calendarOf } from './calendar'

const MIN = 60_000

it('what falls due stands in the calendar once, at its time, and the same again is the same entry', () => {
  const wet = wholeRun().filter((e) => e.occurredAtMs < 20 * MIN && e.body.type !== 'demoulded')
  const facts = fold(testPlan(), [...wet, eventAt(19 * MIN, { type: 'note', text: 'x' })])
  const slab = { pourId: 'p2', piece: 'Slab', act: 'dried', fromMs: 5 * MIN } as const
  const at = (nowMs: number) =>
    calendarOf('Saltmarsh Shed', [{ id: 'p1', facts }], [slab], nowMs, 'http://127.0.0.1')
  const text = at(20 * MIN)
  const due = new Date(facts.settingStartMs! + facts.demould.recommendedS * 1000)
  const stamp = due.toISOString().replaceAll(/[-:]|\.\d+/g, '')
  // RFC 5545: an event has its UID, DTSTAMP and DTSTART; lines end in CRLF.
  expect(text).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2.0\r\n/)
  expect(text).toContain('UID:p1-demould@nine-ripples')
  expect(text).toContain(`DTSTART:${stamp}`)
  expect(text).toContain('Take it out')
  // A piece in use wants something of the day, not of the minute; what is overdue is for today.
  expect(text).toContain('SUMMARY:Slab: Dry it out')
  expect(text).toContain('DTSTART;VALUE=DATE:19700101')
  const ids = (of: string) => [...of.matchAll(/UID:(\S+)/g)].map((m) => m[1])
  expect(new Set(ids(text)).size).toBe(ids(text).length)
  expect(ids(at(20 * MIN + 5000))).toEqual(ids(text))
  // What has passed is nobody's appointment.
  expect(ids(at(due.getTime() + 1))).not.toContain('p1-demould@nine-ripples')
})
