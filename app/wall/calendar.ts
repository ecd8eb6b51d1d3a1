import ical, { ICalAlarmType } from 'ical-generator'
import { viewPour, type Clock, type PourOutlook } from '#core/pour'
import { CUE_QUESTIONS } from '~/parts/words/cues'
import { UPKEEP_WORDS } from '~/parts/words/upkeep'
import { CLOCK_WORDS } from '~/parts/words/pour'

import type { UpkeepLine } from '~~/shared/upkeep'

/** What a calendar is told of: what falls due in minutes is the bench's, not a calendar's. */
const TOLD: ReadonlySet<Clock['id']> = new Set([
  'demould',
  'soft_window',
  'look',
  'soft_finish',
  'next_weighing',
  'dry_enough',
])

const wordsOf = (clock: Clock) => (clock.cue ? CUE_QUESTIONS[clock.cue] : CLOCK_WORDS[clock.id])

/**
 * What falls due of these pours and of the pieces in use, as an iCalendar file. Read in again it replaces what it said before: each entry is of
 * one clock of one pour.
 * @param address of the workshop, for the way back to a pour.
 */
export function calendarOf(
  name: string,
  pours: readonly { id: string; facts: PourOutlook }[],
  upkeep: readonly UpkeepLine[],
  nowMs: number,
  address: string,
): string {
  const calendar = ical({
    name: `${name}: what falls due`,
    prodId: { company: 'Nine Ripples', product: 'bench' },
  })
  for (const { id, facts } of pours) {
    const { clock, otherClocks } = viewPour(facts, nowMs)
    for (const due of [clock, ...otherClocks]) {
      if (!due || !TOLD.has(due.id) || due.dueMs < nowMs) continue
      const event = calendar.createEvent({
        id: `${id}-${due.id}${due.cue ?? ''}@nine-ripples`,
        stamp: new Date(nowMs),
        start: new Date(due.dueMs),
        end: new Date(due.untilMs ?? due.dueMs),
        summary: `${facts.plan.piece}: ${wordsOf(due)}`,
        url: `${address}/pour/${id}`,
      })
      event.createAlarm({ type: ICalAlarmType.display, trigger: 0 })
    }
  }
  for (const { pourId, piece, act, fromMs } of upkeep) {
    const start = new Date(Math.max(fromMs, nowMs))
    calendar.createEvent({
      id: `${pourId}-${act}@nine-ripples`,
      stamp: new Date(nowMs),
      start,
      allDay: true,
      summary: `${piece}: ${UPKEEP_WORDS[act].wants}`,
      url: `${address}/casts/${pourId}`,
    })
  }
  return calendar.toString()
}
