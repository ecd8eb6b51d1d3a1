import { coarsened, type FinenessM, type Position } from '#core/field'
import type { Find } from '~~/shared/finds'

export type Kept = NonNullable<Find['position']>
export type Fineness = 'none' | '10' | '1000'
export const FINENESS: { value: Fineness; label: string }[] = [
  { value: 'none', label: 'Not at all' },
  { value: '1000', label: 'To 1 km' },
  { value: '10', label: 'To 10 m' },
]

const GRID = /\d{5,}/
const DEGREES = /^\s*(-?\d{1,3}(?:\.\d+)?)\s*[°,;\s]\s*(-?\d{1,3}(?:\.\d+)?)\s*°?\s*$/

/** Two numbers of degrees, latitude first, as phones and maps write them; or why they are none. */
export function readPosition(text: string): { ok: true; position: Position } | { ok: false; why: string } {
  if (GRID.test(text.replaceAll(/\.\d+/g, '')))
    return {
      ok: false,
      why: 'These look like metres of a country’s own grid. Degrees of WGS 84 are asked for, as phones show them.',
    }
  const found = DEGREES.exec(text)
  if (!found) return { ok: false, why: 'Two numbers of degrees, north first: 54.1234, -3.6543' }
  const [latDeg, lonDeg] = [Number(found[1]), Number(found[2])]
  if (Math.abs(latDeg) > 90) return { ok: false, why: 'North is at most 90°: the other way round?' }
  if (Math.abs(lonDeg) > 180) return { ok: false, why: 'East is at most 180°.' }
  return { ok: true, position: { latDeg, lonDeg } }
}

/** As finely as wished, and never finer than it is known. @param accuracyM how well; 0 where somebody typed it. */
export function keptAs(position: Position, wished: Fineness, accuracyM: number): Kept | null {
  if (wished === 'none') return null
  const withinM: FinenessM = wished === '10' && accuracyM <= 2 * 10 ? 10 : 1000
  return { ...coarsened(position, withinM), withinM }
}

export const positionText = ({ latDeg, lonDeg, withinM }: Kept): string =>
  `${latDeg}, ${lonDeg}, to ${withinM === 10 ? '10 m' : '1 km'}`
