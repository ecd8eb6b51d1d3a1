import { Matrix, SingularValueDecomposition } from 'ml-matrix'
import type { Issue } from '../errors'
import {
  distanceMm,
  distancePx,
  isConvex,
  mean,
  threeInLine,
  walkedRound,
  type Pixel,
  type Spot,
} from './geometry'

/**
 * What turns a photograph into a measure: two marks of a rule, or what is known of four places and more. All of it must lie
 * in the plane that is measured.
 */
export type Scale =
  /** Two marks, and how far they are apart, mm. Only straight down. */
  | { by: 'rule'; marks: readonly [Pixel, Pixel]; lengthMm: number }
  /** Four corners of something rectangular, in any order, and its sides, mm; the first side goes from the first corner to the next. */
  | { by: 'rectangle'; corners: readonly Pixel[]; sidesMm: readonly [number, number] }
  /** Places whose position on the ground is known, four or more. */
  | { by: 'places'; places: readonly { at: Pixel; xMm: number; yMm: number }[] }

/** Things whose sides are the same everywhere, mm. Cards of the bank's size: ISO/IEC 7810 ID-1. Sheets: ISO 216. */
export const KNOWN_SHEETS = {
  card: [85.6, 53.98],
  a4: [297, 210],
  a5: [210, 148],
} as const
export type KnownSheet = keyof typeof KNOWN_SHEETS

export type PlaneIssueCode =
  | 'marks_too_near'
  | 'corners_in_line'
  | 'corners_folded'
  | 'too_few_places'
  | 'no_length'
export type PlaneIssue = Issue<PlaneIssueCode>

/** From the photograph to the ground. */
export interface Plane {
  toGround: (p: Pixel) => Spot
  /** Whether a place in the photograph lies on this side of the horizon that the marks make, and not close under it. */
  isOnGround: (p: Pixel) => boolean
  /** How far the marks lie from where they ought to, mm, root of the mean square; 0 where there are none to spare. */
  residualMm: number
}
export type PlaneResult = { ok: true; plane: Plane } | { ok: false; issue: PlaneIssue }

/** Marks nearer than this say nothing, px. */
const LEAST_APART_PX = 8

const refused = (code: PlaneIssueCode, actual: number, limit: number, unit: string): PlaneResult => ({
  ok: false,
  issue: { code, severity: 'error', path: 'scale', actual, limit, unit },
})

/** Shifts to the middle of the points and scales to √2 from it on average (Hartley 1997): rounding then hardly matters. */
function normalising(points: readonly { x: number; y: number }[]): Matrix {
  const [cx, cy] = [mean(points.map((p) => p.x)), mean(points.map((p) => p.y))]
  const s = Math.SQRT2 / mean(points.map((p) => Math.hypot(p.x - cx, p.y - cy)))
  return new Matrix([
    [s, 0, -s * cx],
    [0, s, -s * cy],
    [0, 0, 1],
  ])
}
const moved = (m: Matrix, { x, y }: { x: number; y: number }) => {
  const w = m.get(2, 0) * x + m.get(2, 1) * y + m.get(2, 2)
  return {
    x: (m.get(0, 0) * x + m.get(0, 1) * y + m.get(0, 2)) / w,
    y: (m.get(1, 0) * x + m.get(1, 1) * y + m.get(1, 2)) / w,
  }
}
/** Of a matrix that only shifts and scales. */
const undone = (m: Matrix): Matrix => {
  const s = 1 / m.get(0, 0)
  return new Matrix([
    [s, 0, -m.get(0, 2) * s],
    [0, s, -m.get(1, 2) * s],
    [0, 0, 1],
  ])
}

/**
 * The homography that brings `from` to `to`, four pairs or more, by the normalised direct linear transform (Hartley &
 * Zisserman, Multiple View Geometry, 2nd ed., algorithm 4.2); with more than four in the least-squares sense.
 */
function homography(from: readonly Pixel[], to: readonly Pixel[]): Matrix {
  const [t, u] = [normalising(from), normalising(to)]
  const rows = from.flatMap((p, i) => {
    const [a, b] = [moved(t, p), moved(u, to[i]!)]
    return [
      [0, 0, 0, -a.x, -a.y, -1, b.y * a.x, b.y * a.y, b.y],
      [a.x, a.y, 1, 0, 0, 0, -b.x * a.x, -b.x * a.y, -b.x],
    ]
  })
  // Four pairs give eight rows: a ninth of nothing gives the factoring its last direction.
  if (rows.length < 9) rows.push(Array.from({ length: 9 }, () => 0))
  const { rightSingularVectors: v } = new SingularValueDecomposition(new Matrix(rows))
  const h = Matrix.from1DArray(3, 3, v.getColumn(8))
  return undone(u).mmul(h).mmul(t)
}

/** Of how deep the marks lie, as the plane has it: what lies under it is seen so flat that nothing can be said of it. */
const NEAR_HORIZON = 0.2

/** Sides that differ by less cannot be told apart by how they look from the side. */
const SIDES_ALIKE = 1.16

/**
 * Which of the sides is which: seen from the side a rectangle is shortened one way, and never by as much as a wrong answer
 * would ask for. Nearly square, it is as it was marked.
 */
function cornersOf(round: readonly Pixel[], [firstMm, secondMm]: readonly [number, number]): Spot[] {
  const across = mean([distancePx(round[0]!, round[1]!), distancePx(round[3]!, round[2]!)])
  const along = mean([distancePx(round[1]!, round[2]!), distancePx(round[0]!, round[3]!)])
  const off = (a: number, b: number) => Math.abs(Math.log(across / a / (along / b)))
  const ratio = Math.max(firstMm / secondMm, secondMm / firstMm)
  const isTurned = ratio > SIDES_ALIKE && off(secondMm, firstMm) < off(firstMm, secondMm)
  const [w, h] = isTurned ? [secondMm, firstMm] : [firstMm, secondMm]
  return [
    { xMm: -w / 2, yMm: -h / 2 },
    { xMm: w / 2, yMm: -h / 2 },
    { xMm: w / 2, yMm: h / 2 },
    { xMm: -w / 2, yMm: h / 2 },
  ]
}

/** How a photograph is to be read as measures, or why it cannot be. Lengths mm, greater than 0. */
export function planeOf(scale: Scale): PlaneResult {
  if (scale.by === 'rule') {
    const [a, b] = scale.marks
    const apart = distancePx(a, b)
    if (!(scale.lengthMm > 0)) return refused('no_length', scale.lengthMm, 0, 'mm')
    if (apart < LEAST_APART_PX) return refused('marks_too_near', apart, LEAST_APART_PX, 'px')
    const mmPx = scale.lengthMm / apart
    return {
      ok: true,
      plane: {
        toGround: (p) => ({ xMm: (p.x - a.x) * mmPx, yMm: (p.y - a.y) * mmPx }),
        isOnGround: () => true,
        residualMm: 0,
      },
    }
  }
  if (scale.by === 'rectangle') {
    const [w, h] = scale.sidesMm
    if (!(w > 0 && h > 0)) return refused('no_length', Math.min(w, h), 0, 'mm')
    if (scale.corners.length !== 4) return refused('too_few_places', scale.corners.length, 4, '')
    if (threeInLine(scale.corners)) return refused('corners_in_line', 0, 0, '')
    const round = walkedRound(scale.corners)
    if (!isConvex(round)) return refused('corners_folded', 0, 0, '')
    const spots = cornersOf(round, scale.sidesMm)
    return through(round, spots)
  }
  const { places } = scale
  if (places.length < 4) return refused('too_few_places', places.length, 4, '')
  const pixels = places.map((p) => p.at)
  if (!hasFourFree(pixels)) return refused('corners_in_line', 0, 0, '')
  return through(pixels, places)
}

/** Whether four of them stand so that no three lie in a line: any fewer leave the plane open. */
function hasFourFree(points: readonly Pixel[]): boolean {
  const n = points.length
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++)
      for (let c = b + 1; c < n; c++)
        for (let d = c + 1; d < n; d++)
          if (!threeInLine([points[a]!, points[b]!, points[c]!, points[d]!])) return true
  return false
}

function through(pixels: readonly Pixel[], spots: readonly Spot[]): PlaneResult {
  const h = homography(
    pixels,
    spots.map(({ xMm, yMm }) => ({ x: xMm, y: yMm })),
  )
  const toGround = (p: Pixel): Spot => {
    const { x, y } = moved(h, p)
    return { xMm: x, yMm: y }
  }
  const squares = pixels.map((p, i) => distanceMm(toGround(p), spots[i]!) ** 2)
  const spare = 2 * pixels.length - 8
  const depth = (p: Pixel) => h.get(2, 0) * p.x + h.get(2, 1) * p.y + h.get(2, 2)
  const middle = depth({ x: mean(pixels.map((p) => p.x)), y: mean(pixels.map((p) => p.y)) })
  return {
    ok: true,
    plane: {
      toGround,
      isOnGround: (p) => depth(p) / middle > NEAR_HORIZON,
      residualMm: spare > 0 ? Math.sqrt(squares.reduce((s, v) => s + v, 0) / spare) : 0,
    },
  }
}
