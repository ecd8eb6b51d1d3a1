/** A point of a section or profile: [across from the axis, up from the floor], mm. */
export type Point = readonly [acrossMm: number, upMm: number]

function orientation(a: Point, b: Point, c: Point): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
}

/** Whether two segments cross in a point inside both; touching ends do not count. */
function cross(a: Point, b: Point, c: Point, d: Point): boolean {
  return orientation(a, b, c) * orientation(a, b, d) < 0 && orientation(c, d, a) * orientation(c, d, b) < 0
}

interface Span {
  from: Point
  to: Point
  low: number
  high: number
  line: number
}

function spansOf(line: readonly Point[], number: number): Span[] {
  return line.slice(1).map((to, i) => {
    const from = line[i]!
    return { from, to, low: Math.min(from[1], to[1]), high: Math.max(from[1], to[1]), line: number }
  })
}

/**
 * A place where lines cross, themselves or one another; undefined if nowhere. Spans are swept by height and only those
 * that share one are compared, so a profile that mostly climbs costs little more than one pass.
 */
export function findCrossing(...lines: readonly (readonly Point[])[]): Point | undefined {
  // A single line that only climbs, as most profiles do, cannot meet itself.
  if (lines.length === 1 && lines[0]!.every((p, i, line) => i === 0 || p[1] > line[i - 1]![1]))
    return undefined
  const spans = lines.flatMap(spansOf).sort((a, b) => a.low - b.low)
  let active: Span[] = []
  for (const span of spans) {
    active = active.filter((s) => s.high >= span.low)
    const hit = active.find((s) => cross(s.from, s.to, span.from, span.to))
    if (hit) return [(span.from[0] + span.to[0]) / 2, (span.from[1] + span.to[1]) / 2]
    active.push(span)
  }
  return undefined
}

/** Distance of a point from a segment, mm. */
export function distanceToSpanMm(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const along = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)
  const t = Math.min(1, Math.max(0, along))
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy)
}

/** Whether a point lies inside a closed ring of points (even-odd rule). */
export function isInside(p: Point, ring: readonly Point[]): boolean {
  let inside = false
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [a, b] = [ring[i]!, ring[j]!]
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < ((b[0] - a[0]) * (p[1] - a[1])) / (b[1] - a[1]) + a[0])
      inside = !inside
  }
  return inside
}

/** Douglas and Peucker's thinning (1973): indices to keep so that nothing is further off than the tolerance. */
function keptWithin(line: readonly Point[], toleranceMm: number): number[] {
  const kept = new Set([0, line.length - 1])
  const open: [number, number][] = [[0, line.length - 1]]
  for (let range = open.pop(); range; range = open.pop()) {
    const [from, to] = range
    let worst = -1
    let worstMm = toleranceMm
    for (let i = from + 1; i < to; i++) {
      const offMm = distanceToSpanMm(line[i]!, line[from]!, line[to]!)
      if (offMm > worstMm) [worst, worstMm] = [i, offMm]
    }
    if (worst < 0) continue
    kept.add(worst)
    open.push([from, worst], [worst, to])
  }
  return [...kept].sort((a, b) => a - b)
}

/** Indices of the at most `maxPoints` points of a line that keep its form best. */
export function thinnedTo(line: readonly Point[], maxPoints: number): number[] {
  if (line.length <= maxPoints) return line.map((_, i) => i)
  let toleranceMm = 0.05
  for (;;) {
    const kept = keptWithin(line, toleranceMm)
    if (kept.length <= maxPoints) return kept
    toleranceMm *= 1.6
  }
}
