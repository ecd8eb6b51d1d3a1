import type { LoggerResult } from '#core/formats'
import type { PourFacts } from '#core/pour'
import { MS_PER } from '#core/units'

/** As many as the workshop keeps of one file. */
const MOST_READINGS = 2000

/**
 * A file's readings at their moments, ms. Counted times begin when the caster says; a time of day is of the day of the
 * pour, or the day after where that is nearer; a day and time is taken as this place writes it.
 */
export function placedReadings(
  { format, readings }: Extract<LoggerResult, { ok: true }>,
  { settingStartMs, doneAtMs }: Pick<PourFacts, 'settingStartMs' | 'doneAtMs'>,
  zero: 'met_water' | 'poured',
  nowMs: number,
): { atMs: number; tempC: number }[] {
  const startMs = settingStartMs ?? nowMs
  const firstS = readings[0]!.atS
  const beginMs = ((): number => {
    switch (format.time) {
      case 'minutes':
      case 'seconds':
        return zero === 'poured' ? (doneAtMs.pour ?? doneAtMs.build ?? startMs) : startMs
      case 'moment': {
        const asUtc = new Date(firstS * 1000)
        return new Date(
          asUtc.getUTCFullYear(),
          asUtc.getUTCMonth(),
          asUtc.getUTCDate(),
          asUtc.getUTCHours(),
          asUtc.getUTCMinutes(),
          asUtc.getUTCSeconds(),
        ).getTime()
      }
      case 'clock': {
        const midnight = new Date(startMs).setHours(0, 0, 0, 0)
        const near = [-1, 0, 1].map((days) => midnight + days * MS_PER.day + firstS * 1000)
        return near.reduce((a, b) => (Math.abs(b - startMs) < Math.abs(a - startMs) ? b : a))
      }
    }
  })()
  const offsetS = format.time === 'minutes' || format.time === 'seconds' ? 0 : firstS
  const every = Math.ceil(readings.length / MOST_READINGS)
  return readings
    .filter((_, i) => i % every === 0)
    .map((r) => ({ atMs: Math.round(beginMs + (r.atS - offsetS) * 1000), tempC: r.tempC }))
    .filter((r) => r.atMs <= nowMs)
}

/** The same file is the same thermometer: named by what it holds. */
export async function fileIdOf(text: string): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text)))
  return `file.${[...hash.subarray(0, 8)].map((b) => b.toString(16).padStart(2, '0')).join('')}`
}
