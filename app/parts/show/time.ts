import { isSameDay, isSameYear, lightFormat } from 'date-fns'
import { MS_PER } from '#core/units'
import { habits } from '~/stores/habits'
import { counted } from './counted'
import { figure } from './figures'

const { s: SECOND, min: MIN, h: HOUR, day: DAY } = MS_PER
const YEAR = 365 * DAY
/** Further off nobody plans by a number, and no model here can tell. */
const LONG = 'more than a year'

/**
 * A span as read off a clock across a bench: seconds under an hour, then hours and minutes, then days.
 * @param ms any sign; the sign is the caller's to put into words.
 */
export function spanText(ms: number): string {
  const abs = Math.abs(ms)
  if (abs < HOUR) {
    const seconds = Math.floor(abs / 1000)
    return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
  }
  if (abs < DAY)
    return `${Math.floor(abs / HOUR)} h ${String(Math.floor((abs % HOUR) / MIN)).padStart(2, '0')}`
  if (abs > YEAR) return LONG
  const days = abs / DAY
  return days < 10 ? `${figure(days, 1)} days` : counted(Math.round(days), 'day')
}

/** The same span for a screen reader, which would read 4:10 as a time of day. */
export function spanSpoken(ms: number): string {
  const abs = Math.abs(ms)
  if (abs < MIN) return counted(Math.floor(abs / 1000), 'second')
  if (abs < HOUR) return counted(Math.floor(abs / MIN), 'minute')
  if (abs < DAY)
    return `${counted(Math.floor(abs / HOUR), 'hour')} ${counted(Math.floor((abs % HOUR) / MIN), 'minute')}`
  return abs > YEAR ? LONG : counted(Math.round(abs / DAY), 'day')
}

/** A planned duration or range: minutes up to two hours, then hours, then days. Never a false decimal. */
export function durationText(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`
  if (seconds < 2 * 3600) return `${Math.round(seconds / 60)} min`
  if (seconds < 48 * 3600) return `${Math.round(seconds / 3600)} h`
  if (seconds * 1000 > YEAR) return LONG
  const days = (seconds * SECOND) / DAY
  return counted(days < 10 ? Math.round(days * 2) / 2 : Math.round(days), 'day')
}

/** A short time that is compared with others, in minutes and halves of them: 90 and 120 s are 1½ and 2 min. */
export function minutesText(seconds: number): string {
  if (seconds >= 600) return durationText(seconds)
  const halves = Math.max(1, Math.round(seconds / 30))
  const whole = Math.floor(halves / 2)
  return `${whole > 0 ? whole : ''}${halves % 2 === 1 ? '½' : ''} min`
}

export function durationRangeText(lowS: number, highS: number): string {
  const [low, high] = [durationText(lowS), durationText(highS)]
  if (low === high) return low
  const [lowNumber, ...lowUnit] = low.split(' ')
  return high.endsWith(lowUnit.join(' ')) ? `${lowNumber}–${high}` : `${low} – ${high}`
}

const isAmerican = () => habits.value.system === 'us'

const formats = new Map<string, Intl.DateTimeFormat>()
/** In English, as the country of the workshop's units writes it: month first and a clock of twelve hours, or not. */
function written(atMs: number, how: Intl.DateTimeFormatOptions): string {
  const locale = isAmerican() ? 'en-US' : 'en-GB'
  const key = locale + Object.keys(how).join()
  const format = formats.get(key) ?? new Intl.DateTimeFormat(locale, how)
  formats.set(key, format)
  return format.format(atMs)
}
/** Twenty-four hours are written 09:57, twelve 9:57 AM. Not by Intl, which takes longer to begin than a bench to draw. */
export const clockText = (atMs: number) => lightFormat(atMs, isAmerican() ? 'h:mm\u202Fa' : 'HH:mm')
const DAY_OF_YEAR = { day: 'numeric', month: 'short' } as const
const DAY_IN_FULL = { ...DAY_OF_YEAR, year: 'numeric' } as const

/** Time of day today, else with its day, else with its year. */
export function momentText(atMs: number, nowMs: number): string {
  const clock = clockText(atMs)
  if (isSameDay(atMs, nowMs)) return clock
  const day = isSameYear(atMs, nowMs)
    ? `${written(atMs, { weekday: 'short' })} ${written(atMs, DAY_OF_YEAR)}`
    : dayInFull(atMs)
  return `${day}, ${clock}`
}

/** A day with its year. */
export const dayInFull = (atMs: number) => written(atMs, DAY_IN_FULL)

export function dayText(atMs: number, nowMs: number): string {
  if (atMs - nowMs > YEAR) return `in ${LONG}`
  return written(atMs, isSameYear(atMs, nowMs) ? DAY_OF_YEAR : DAY_IN_FULL)
}
