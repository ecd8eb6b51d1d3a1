import { distanceMm, mean, type Pixel, type Spot } from './geometry'
import {
  NINE_IN_TEN,
  TOUCH_PX,
  doubtOf,
  lowered,
  notesOf,
  refused,
  rootSum,
  tiltShare,
  type MeasureIssue,
  type Shot,
  type ShotNote,
} from './measure'
import { planeOf } from './plane'

/** So many places between two that were traced. */
const BETWEEN = 8
export const LEAST_TRACED = 3
export const MOST_TRACED = 400

/** Where a traced line turns by more it was meant as a corner; a ring of five points turns by 72° at each. */
const CORNER_DEG = 75

/** By how much a line turns at `b`, °. */
function turnsAt(a: Pixel, b: Pixel, c: Pixel): number {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y]
  return (Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * 180) / Math.PI
}

/**
 * The closed curve through what was traced: a centripetal Catmull-Rom spline, which neither loops nor overshoots where points
 * stand close (Yuksel, Schaefer & Keyser 2011).
 */
export function curveThrough(points: readonly Pixel[]): Pixel[] {
  const n = points.length
  if (n < LEAST_TRACED) return [...points]
  const step = (a: Pixel, b: Pixel) => Math.sqrt(Math.max(1e-6, Math.hypot(b.x - a.x, b.y - a.y)))
  const mix = (a: Pixel, b: Pixel, ta: number, tb: number, t: number): Pixel => {
    const u = (t - ta) / (tb - ta)
    return { x: a.x + (b.x - a.x) * u, y: a.y + (b.y - a.y) * u }
  }
  const at = (i: number) => points[(i + n) % n]!
  const mirrored = (middle: Pixel, of: Pixel) => ({ x: 2 * middle.x - of.x, y: 2 * middle.y - of.y })
  return points.flatMap((b, i) => {
    const c = at(i + 1)
    // At a corner the curve ends and begins anew, straight towards it.
    const a = turnsAt(at(i - 1), b, c) > CORNER_DEG ? mirrored(b, c) : at(i - 1)
    const d = turnsAt(b, c, at(i + 2)) > CORNER_DEG ? mirrored(c, b) : at(i + 2)
    const t1 = step(a, b)
    const t2 = t1 + step(b, c)
    const t3 = t2 + step(c, d)
    return Array.from({ length: BETWEEN }, (_, k) => {
      const t = t1 + ((t2 - t1) * k) / BETWEEN
      const [p, q, r] = [mix(a, b, 0, t1, t), mix(b, c, t1, t2, t), mix(c, d, t2, t3, t)]
      return mix(mix(p, q, 0, t2, t), mix(q, r, t1, t3, t), t1, t2, t)
    })
  })
}

/** By the shoelace formula. */
export function areaMm2(spots: readonly Spot[]): number {
  let twice = 0
  spots.forEach((a, i) => {
    const b = spots[(i + 1) % spots.length]!
    twice += a.xMm * b.yMm - b.xMm * a.yMm
  })
  return Math.abs(twice) / 2
}
/** Of the frame that lies within a traced line, 0–1: a print that fills little of it is measured badly. */
export function shareOfFrame(
  { widthPx, heightPx }: Pick<Shot, 'widthPx' | 'heightPx'>,
  points: readonly Pixel[],
): number {
  // A frame's pixels are laid out as the ground's millimetres are.
  return areaMm2(points.map(({ x, y }) => ({ xMm: x, yMm: y }))) / (widthPx * heightPx)
}

/** The way out of what was traced so far, at a place on its edge, of length 1; undefined in its very middle. */
export function outwardAt(points: readonly Pixel[], at: Pixel): Pixel | undefined {
  const [dx, dy] = [at.x - mean(points.map((p) => p.x)), at.y - mean(points.map((p) => p.y))]
  const far = Math.hypot(dx, dy)
  return far > 0 ? { x: dx / far, y: dy / far } : undefined
}

const aroundMm = (spots: readonly Spot[]): number =>
  spots.reduce((sum, a, i) => sum + distanceMm(a, spots[(i + 1) % spots.length]!), 0)

/** How long it is at its longest, and how wide across that. */
function extentMm(spots: readonly Spot[]): { lengthMm: number; widthMm: number } {
  let [lengthMm, dx, dy] = [0, 1, 0]
  for (const a of spots)
    for (const b of spots) {
      const d = distanceMm(a, b)
      if (d > lengthMm) [lengthMm, dx, dy] = [d, (b.xMm - a.xMm) / d, (b.yMm - a.yMm) / d]
    }
  const across = spots.map((s) => -s.xMm * dy + s.yMm * dx)
  return { lengthMm, widthMm: Math.max(...across) - Math.min(...across) }
}

/** Whether a closed line crosses itself. */
export function crosses(line: readonly Pixel[]): boolean {
  const n = line.length
  const side = (a: Pixel, b: Pixel, c: Pixel) =>
    Math.sign((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x))
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue
      const [a, b, c, d] = [line[i]!, line[i + 1]!, line[j]!, line[(j + 1) % n]!]
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true
    }
  return false
}

export interface Outline {
  areaMm2: number
  /** Half the range that holds the truth nine times in ten, mm². */
  areaPlusMinusMm2: number
  aroundMm: number
  lengthMm: number
  widthMm: number
  /** The curve on the ground, for drawing and for files. */
  spots: Spot[]
  notes: ShotNote[]
}
export type OutlineResult = { ok: true; outline: Outline } | { ok: false; issue: MeasureIssue }

/**
 * What a traced outline holds.
 * @param points as they were traced, three or more, in order.
 * @param belowMm how far under the plane of the marks it lies.
 */
export function outlineOf(shot: Shot, points: readonly Pixel[], belowMm = 0): OutlineResult {
  const found = planeOf(shot.scale)
  if (!found.ok) return found
  const { plane } = found
  if (points.length < LEAST_TRACED) return refused('too_few_points', points.length, LEAST_TRACED)
  const curve = curveThrough(points)
  if (!curve.every(plane.isOnGround)) return refused('beyond_horizon')
  if (crosses(curve)) return refused('outline_crosses')
  const below = lowered(shot, plane, belowMm)
  const spots = curve.map(plane.toGround).map((s) => ({ xMm: s.xMm * below.by, yMm: s.yMm * below.by }))
  // Where the line was traced too far in or out all round it adds up; its points, each for itself, hardly do.
  const doubt = doubtOf(shot, plane, curve, (all) => areaMm2(all), 0)
  const area = areaMm2(spots)
  const around = aroundMm(spots)
  const mmPx =
    around /
    curve.reduce((sum, a, i) => {
      const b = curve[(i + 1) % curve.length]!
      return sum + Math.hypot(b.x - a.x, b.y - a.y)
    }, 0)
  const traced = around * mmPx * TOUCH_PX
  const sigma = rootSum([
    doubt.pixel,
    doubt.scale,
    doubt.lens,
    traced,
    2 * area * tiltShare(shot, points.slice(0, 2)),
    2 * area * below.off,
  ])
  return {
    ok: true,
    outline: {
      areaMm2: area,
      areaPlusMinusMm2: NINE_IN_TEN * sigma,
      aroundMm: around,
      ...extentMm(spots),
      spots,
      notes: [...notesOf(shot, plane, points), ...below.notes],
    },
  }
}
