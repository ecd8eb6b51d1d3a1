import { format, isSameDay, isSameYear, parseISO } from 'date-fns'
import { counted } from './counted'

const MIN = 60_000
const HOUR = 60 * MIN
const DAY = 24 * HOUR
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
  return days < 10 ? `${days.toFixed(1)} days` : counted(Math.round(days), 'day')
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
  const days = seconds / 86400
  return counted(days < 10 ? Math.round(days * 2) / 2 : Math.round(days), 'day')
}

export function durationRangeText(lowS: number, highS: number): string {
  const [low, high] = [durationText(lowS), durationText(highS)]
  if (low === high) return low
  const [lowNumber, ...lowUnit] = low.split(' ')
  return high.endsWith(lowUnit.join(' ')) ? `${lowNumber}–${high}` : `${low} – ${high}`
}

/** Time of day today, else with its day, else with its year. */
export function momentText(atMs: number, nowMs: number): string {
  if (isSameDay(atMs, nowMs)) return format(atMs, 'HH:mm')
  return format(atMs, isSameYear(atMs, nowMs) ? 'EEE d MMM, HH:mm' : 'd MMM yyyy, HH:mm')
}

/** A day as it is kept, `yyyy-MM-dd`. */
export function isoDayText(day: string): string {
  return format(parseISO(day), 'd MMM yyyy')
}

export function dayText(atMs: number, nowMs: number): string {
  return format(atMs, isSameYear(atMs, nowMs) ? 'd MMM' : 'd MMM yyyy')
}
