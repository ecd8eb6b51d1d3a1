import type { LoggerResult } from '#core/formats'
import type { PourFacts } from '#core/pour'
import { MS_PER } from '#core/units'

/** As many as the workshop keeps of one file. */
const MOST_READINGS = 2000

/**
 * A file's readings at their moments, ms. Counted times begin when the caster says; a time of day is of the day of the
 * pour, or the day after where that is nearer; a day and time is taken as this place writes it, unless it says its zone.
 */
export function placedReadings(
  { format, readings }: Extract<LoggerResult, { ok: true }>,
  { settingStartMs, doneAtMs }: Pick<PourFacts, 'settingStartMs' | 'doneAtMs'>,
  zero: 'met_water' | 'poured',
  nowMs: number,
): { atMs: number; tempC: number }[] {
  const startMs = settingStartMs ?? nowMs
  const firstS = readings[0]!.atS
  /** Each by itself: between two readings the clocks may have been changed. */
  const atMs = ((): ((atS: number) => number) => {
    switch (format.time) {
      case 'minutes':
      case 'seconds': {
        const beginMs = zero === 'poured' ? (doneAtMs.pour ?? doneAtMs.build ?? startMs) : startMs
        return (atS) => beginMs + atS * MS_PER.s
      }
      case 'zoned':
        return (atS) => atS * MS_PER.s
      case 'moment':
        return (atS) => {
          const as = new Date(atS * MS_PER.s)
          return new Date(
            as.getUTCFullYear(),
            as.getUTCMonth(),
            as.getUTCDate(),
            as.getUTCHours(),
            as.getUTCMinutes(),
            as.getUTCSeconds(),
          ).getTime()
        }
      case 'clock': {
        const day = new Date(startMs)
        const onDay = (days: number, atS: number) =>
          new Date(day.getFullYear(), day.getMonth(), day.getDate() + days, 0, 0, atS).getTime()
        const near = [-1, 0, 1].reduce((a, b) =>
          Math.abs(onDay(b, firstS) - startMs) < Math.abs(onDay(a, firstS) - startMs) ? b : a,
        )
        return (atS) => onDay(near, atS)
      }
    }
  })()
  const every = Math.ceil(readings.length / MOST_READINGS)
  return readings
    .filter((_, i) => i % every === 0)
    .map((r) => ({ atMs: Math.round(atMs(r.atS)), tempC: r.tempC }))
    .filter((r) => r.atMs <= nowMs)
}

/** The same file is the same thermometer: named by what it holds. */
export async function fileIdOf(text: string): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text)))
  return `file.${[...hash.subarray(0, 8)].map((b) => b.toString(16).padStart(2, '0')).join('')}`
}
