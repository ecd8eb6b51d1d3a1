import type { HeatPiece } from '#core/heat'
import { distanceToSpanMm, flattenProfile, isInside, type Point } from '#core/mould'
import { heatPiecesOf, type PourPlan } from '#core/pour'

/**
 * A piece cut through, as cells of a picture: how deep each lies as the heat model counts it, 0 the open face or the
 * middle, 1 the mould's side; NaN outside of the piece. Row by row from the top.
 */
export interface Section {
  columns: number
  rows: number
  depth: Float32Array
}

const ROWS = 56
const WIDEST = 3.2
const NARROWEST = 0.6
const ROUND_STEPS = 48

/** A drawn form turned about its axis, where it is the plan's only one. */
function drawnRing({ mould }: PourPlan): Point[] | undefined {
  const [member, ...others] = mould.members ?? []
  const [part, ...more] = member?.volume.parts ?? []
  if (!part || others.length + more.length > 0 || part.method.by !== 'profile') return undefined
  const half = flattenProfile(part.method.outer)
  return [...half, ...half.map(([across, up]): Point => [-across, up]).reverse()]
}

function ringOf(plan: PourPlan, { shape, sizeMm }: HeatPiece): Point[] {
  const drawn = drawnRing(plan)
  if (drawn) return drawn
  if (shape !== 'slab')
    return Array.from({ length: ROUND_STEPS }, (_, i) => {
      const turn = (2 * Math.PI * i) / ROUND_STEPS
      return [sizeMm * Math.cos(turn), sizeMm * Math.sin(turn)]
    })
  // A plate is far wider than any picture.
  const halfMm = (WIDEST * sizeMm) / 2
  return [
    [-halfMm, 0],
    [halfMm, 0],
    [halfMm, sizeMm],
    [-halfMm, sizeMm],
  ]
}

export function sectionOf(plan: PourPlan): Section {
  const { piece } = heatPiecesOf(plan)
  const ring = ringOf(plan, piece)
  const [xs, ys] = [ring.map((p) => p[0]), ring.map((p) => p[1])]
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const [bottom, top] = [Math.min(...ys), Math.max(...ys)]
  const columns = Math.max(
    8,
    Math.round(ROWS * Math.min(WIDEST, Math.max(NARROWEST, (right - left) / (top - bottom)))),
  )
  const points = Array.from({ length: ROWS * columns }, (_, i): Point => {
    const [row, column] = [Math.floor(i / columns), i % columns]
    return [left + ((right - left) * (column + 0.5)) / columns, top - ((top - bottom) * (row + 0.5)) / ROWS]
  })
  const inside = points.map((p) => isInside(p, ring))
  const isOpen = piece.shape === 'slab' && piece.top === 'open'
  return { columns, rows: ROWS, depth: isOpen ? below(inside, columns) : fromTheMiddle(points, inside, ring) }
}

/** Column by column from the upper face down. */
function below(inside: readonly boolean[], columns: number): Float32Array {
  const depth = new Float32Array(inside.length).fill(NaN)
  for (let column = 0; column < columns; column++) {
    const rows = Array.from({ length: ROWS }, (_, row) => row).filter((row) => inside[row * columns + column])
    for (const [i, row] of rows.entries()) depth[row * columns + column] = (i + 0.5) / rows.length
  }
  return depth
}

/** By how far it is to the nearest wall, against the place that is furthest from any. */
function fromTheMiddle(
  points: readonly Point[],
  inside: readonly boolean[],
  ring: readonly Point[],
): Float32Array {
  const toWall = points.map((p, i) =>
    inside[i] ? Math.min(...ring.map((a, k) => distanceToSpanMm(p, a, ring[(k + 1) % ring.length]!))) : NaN,
  )
  const most = Math.max(...toWall.filter((d) => !Number.isNaN(d)))
  return Float32Array.from(toWall, (d) => 1 - d / most)
}

/** A figure that is known from the open face or the middle outwards, at a depth; straight between its cells. */
export function atDepth(values: readonly number[], depth: number): number {
  const at = Math.min(values.length - 1, Math.max(0, depth * values.length - 0.5))
  const i = Math.min(values.length - 2, Math.floor(at))
  return values.length === 1 ? values[0]! : values[i]! + (at - i) * (values[i + 1]! - values[i]!)
}

/** The cell of a section that lies nearest to a depth, and of those the one in the middle: column and row. */
export function cellAt({ columns, depth }: Section, wanted: number): { column: number; row: number } {
  let best = { column: 0, row: 0, off: Infinity }
  for (const [i, d] of depth.entries()) {
    if (Number.isNaN(d)) continue
    const [row, column] = [Math.floor(i / columns), i % columns]
    const off = Math.abs(d - wanted) + 0.02 * Math.abs((column + 0.5) / columns - 0.5)
    if (off < best.off) best = { column, row, off }
  }
  return { column: best.column, row: best.row }
}
