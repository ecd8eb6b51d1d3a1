import { ArgumentError } from '../errors'
import { distanceToSpanMm, findCrossing, isInside, thinnedTo, type Point } from './polyline'

/**
 * A corner of a turned form's half profile, mm: distance from the axis and height. A smooth node is passed on a curve.
 * Profiles run from the deepest point to the rim.
 */
export interface ProfileNode {
  radiusMm: number
  heightMm: number
  smooth: boolean
}

export const MAX_PROFILE_NODES = 200

export type ProfileFaultCode =
  | 'profile_too_short'
  | 'profile_crosses_itself'
  | 'profile_holds_nothing'
  | 'inner_outside_outer'

const CURVE_STEPS = 8

/** Cubic Bézier handles of the span from node i to the next; undefined where it is straight. */
export function curveHandles(
  nodes: readonly ProfileNode[],
  i: number,
): { first: Point; second: Point } | undefined {
  const [from, to] = [nodes[i], nodes[i + 1]]
  if (!from || !to) throw new ArgumentError(`no span ${i} in a profile of ${nodes.length} nodes`)
  if (!from.smooth && !to.smooth) return undefined
  const [a, b] = [tangent(nodes, i, i), tangent(nodes, i + 1, i)]
  // Handles stay between the heights of their nodes: a curve that dips under its own floor holds less than nothing.
  const low = Math.min(from.heightMm, to.heightMm)
  const high = Math.max(from.heightMm, to.heightMm)
  return {
    first: [Math.max(0, from.radiusMm + a[0] / 3), Math.min(high, Math.max(low, from.heightMm + a[1] / 3))],
    second: [Math.max(0, to.radiusMm - b[0] / 3), Math.min(high, Math.max(low, to.heightMm - b[1] / 3))],
  }
}

/**
 * Tangent at node i for the span that begins at node `span`: Catmull-Rom at a smooth node between two others, square to
 * the axis on it, and at a smooth end what leaves the curve without a bend. A corner is left straight for the next.
 */
function tangent(nodes: readonly ProfileNode[], i: number, span: number): Point {
  const own = smoothTangent(nodes, i, span)
  if (own) return own
  const [from, to] = [nodes[span]!, nodes[span + 1]!]
  const chord: Point = [to.radiusMm - from.radiusMm, to.heightMm - from.heightMm]
  const other = nodes[i]!.smooth ? smoothTangent(nodes, i === span ? span + 1 : span, span) : undefined
  return other ? [(3 * chord[0] - other[0]) / 2, (3 * chord[1] - other[1]) / 2] : chord
}

function smoothTangent(nodes: readonly ProfileNode[], i: number, span: number): Point | undefined {
  const [before, node, after] = [nodes[i - 1], nodes[i]!, nodes[i + 1]]
  if (!node.smooth) return undefined
  if (node.radiusMm === 0) {
    const neighbour = (after ?? before)!
    return [(i === span ? 1 : -1) * neighbour.radiusMm, 0]
  }
  if (!before || !after) return undefined
  return [(after.radiusMm - before.radiusMm) / 2, (after.heightMm - before.heightMm) / 2]
}

// Hot loops below run on every move of a hand: plain functions and numbers, nothing made anew for each point.

function bezier(p0: number, p1: number, p2: number, p3: number, t: number): number {
  const u = 1 - t
  return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3
}

/** The profile as a line of straight pieces, eight to a curve. */
export function flattenProfile(nodes: readonly ProfileNode[]): Point[] {
  const line: Point[] = []
  for (let i = 0; i < nodes.length; i++) {
    const [node, next] = [nodes[i]!, nodes[i + 1]]
    line.push([node.radiusMm, node.heightMm])
    const handles = next && curveHandles(nodes, i)
    if (!handles) continue
    const { first, second } = handles
    for (let s = 1; s < CURVE_STEPS; s++) {
      const t = s / CURVE_STEPS
      line.push([
        Math.max(0, bezier(node.radiusMm, first[0], second[0], next.radiusMm, t)),
        bezier(node.heightMm, first[1], second[1], next.heightMm, t),
      ])
    }
  }
  return line
}

/**
 * Volume of revolution below a level, ml: π ∫ r² dz along the line, what lies above the level left out. Exact for
 * straight pieces (each is a cone frustum); pieces that lead downwards take away, as a raised floor should.
 * Equals Pappus' theorem on the closed half section.
 */
export function revolvedVolumeMl(line: readonly Point[], levelMm: number): number {
  let sum = 0
  for (let i = 1; i < line.length; i++) sum += frustumBelow(line, i, levelMm)
  return FRUSTUM_ML * sum
}

const FRUSTUM_ML = (Math.PI / 3) * 1e-3

/** Three frustums over π of one piece of a line, mm³, as far as it lies below a level. */
function frustumBelow(line: readonly Point[], i: number, levelMm: number): number {
  let [r0, z0] = line[i - 1]!
  let [r1, z1] = line[i]!
  if (z0 === z1 || (z0 >= levelMm && z1 >= levelMm)) return 0
  if (z0 > levelMm) {
    r0 += ((r1 - r0) * (levelMm - z0)) / (z1 - z0)
    z0 = levelMm
  } else if (z1 > levelMm) {
    r1 += ((r0 - r1) * (levelMm - z1)) / (z0 - z1)
    z1 = levelMm
  }
  return (z1 - z0) * (r0 * r0 + r0 * r1 + r1 * r1)
}

/** Surface of revolution, mm², with the open face at the rim. */
export function revolvedSurfaceMm2(line: readonly Point[]): number {
  let sum = 0
  for (let i = 1; i < line.length; i++) {
    const [r0, z0] = line[i - 1]!
    const [r1, z1] = line[i]!
    sum += Math.PI * (r0 + r1) * Math.hypot(r1 - r0, z1 - z0)
  }
  const [first, last] = [line[0]![0], line.at(-1)![0]]
  return sum + Math.PI * (last ** 2 + first ** 2)
}

/** Volume against depth of fill, from the floor to the rim in equal steps. */
export function depthVolumeCurve(
  line: readonly Point[],
  steps: number,
): { depthMm: number; volumeMl: number }[] {
  const floorMm = Math.min(...line.map((p) => p[1]))
  const stepMm = (line.at(-1)![1] - floorMm) / steps
  const levelOf = (step: number) => floorMm + step * stepMm
  // One pass: a piece counts in part at the levels that cross it, and whole at all above them.
  const partly = new Float64Array(steps + 1)
  const wholeFrom = new Float64Array(steps + 2)
  for (let i = 1; i < line.length; i++) {
    const [z0, z1] = [line[i - 1]![1], line[i]![1]]
    const topMm = Math.max(z0, z1)
    let step =
      stepMm > 0 ? Math.min(steps + 1, Math.max(0, Math.ceil((Math.min(z0, z1) - floorMm) / stepMm))) : 0
    for (; step <= steps && levelOf(step) < topMm; step++)
      partly[step]! += frustumBelow(line, i, levelOf(step))
    wholeFrom[step]! += frustumBelow(line, i, Infinity)
  }
  let whole = 0
  return Array.from(partly, (part, step) => {
    whole += wholeFrom[step]!
    return { depthMm: step * stepMm, volumeMl: FRUSTUM_ML * (whole + part) }
  })
}

export interface Undercut {
  /** Where it begins and ends, heights in mm. */
  fromMm: number
  toMm: number
  /** How far the form is wider there than the narrowest place between it and the opening, mm. */
  depthMm: number
}

/** Less than this is drawing, not form. */
const UNDERCUT_FLOOR_MM = 0.3

/**
 * Places where the form narrows towards its opening, so that a rigid mould cannot let go. Walks down from the rim and
 * keeps the narrowest radius passed.
 */
export function findUndercuts(line: readonly Point[]): Undercut[] {
  const found: Undercut[] = []
  let narrowest = line.at(-1)![0]
  let open: Undercut | undefined
  for (let i = line.length - 2; i >= 0; i--) {
    const [r, z] = line[i]!
    const depthMm = r - narrowest
    if (depthMm > UNDERCUT_FLOOR_MM) {
      if (!open) {
        open = { fromMm: z, toMm: line[i + 1]![1], depthMm }
        found.push(open)
      }
      open.fromMm = Math.min(open.fromMm, z)
      open.depthMm = Math.max(open.depthMm, depthMm)
    } else open = undefined
    narrowest = Math.min(narrowest, r)
  }
  return found
}

export interface WallThickness {
  thinnestMm: number
  thickestMm: number
  meanMm: number
}

/** Thickness of the wall between two profiles, from each place of the inner one to the nearest of the outer. */
export function wallThickness(outer: readonly Point[], inner: readonly Point[]): WallThickness {
  const places = inner.flatMap((p, i): Point[] => {
    const next = inner[i + 1]
    return next ? [p, [(p[0] + next[0]) / 2, (p[1] + next[1]) / 2]] : [p]
  })
  let thinnestMm = Infinity
  let thickestMm = 0
  let sum = 0
  for (const place of places) {
    let nearest = Infinity
    for (let i = 1; i < outer.length; i++)
      nearest = Math.min(nearest, distanceToSpanMm(place, outer[i - 1]!, outer[i]!))
    thinnestMm = Math.min(thinnestMm, nearest)
    thickestMm = Math.max(thickestMm, nearest)
    sum += nearest
  }
  return { thinnestMm, thickestMm, meanMm: sum / places.length }
}

/** Why flattened profiles, or a pair of them, are no form that could be cast; undefined if they are one. */
export function profileFault(
  outer: readonly Point[],
  inner: readonly Point[],
): { code: ProfileFaultCode; at: Point } | undefined {
  const at = outer[0] ?? [0, 0]
  if (outer.length < 2 || inner.length === 1) return { code: 'profile_too_short', at }
  for (const line of inner.length > 0 ? [outer, inner] : [outer]) {
    const crossing = findCrossing(line)
    if (crossing) return { code: 'profile_crosses_itself', at: crossing }
  }
  const rimMm = outer.at(-1)![1]
  if (!(revolvedVolumeMl(outer, rimMm) > 0)) return { code: 'profile_holds_nothing', at }
  if (inner.length === 0) return undefined
  const meeting = findCrossing(outer, inner)
  if (meeting) return { code: 'inner_outside_outer', at: meeting }
  // Closed along rim and axis; beyond both a little, so that nodes on them count as inside.
  const floorMm = Math.min(...outer.map((p) => p[1]))
  const ring: Point[] = [
    ...outer,
    [outer.at(-1)![0], rimMm + 1],
    [-1, rimMm + 1],
    [-1, Math.min(outer[0]![1], floorMm)],
  ]
  const stray = inner.find((p) => !isInside(p, ring))
  return stray ? { code: 'inner_outside_outer', at: stray } : undefined
}

/** A long list of points made into a profile that can be drawn and edited: at most 200 nodes. */
export function thinProfile(nodes: readonly ProfileNode[]): ProfileNode[] {
  const points = nodes.map((n): Point => [n.radiusMm, n.heightMm])
  return thinnedTo(points, MAX_PROFILE_NODES).map((i) => nodes[i]!)
}
