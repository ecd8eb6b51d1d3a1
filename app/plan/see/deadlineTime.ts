import { getTimes } from 'suncalc'
import type { Position } from '#core/field'
import { MS_PER } from '#core/units'

/** The next moment that a clock shows so; undefined where that is no time of day. */
export function nextAt(text: string, nowMs: number): number | undefined {
  const found = /^(\d{1,2}):(\d{2})$/.exec(text)
  if (!found) return undefined
  const at = new Date(nowMs)
  at.setHours(Number(found[1]), Number(found[2]), 0, 0)
  return at.getTime() > nowMs ? at.getTime() : at.getTime() + MS_PER.day
}

/** When the sun is 6° under (civil dusk) on that day; undefined where it never is. */
export const duskOf = ({ latDeg, lonDeg }: Position, nowMs: number): number | undefined =>
  getTimes(new Date(nowMs), latDeg, lonDeg).dusk?.getTime()
