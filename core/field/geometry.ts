/** Points in a photograph, px, y downwards as pictures have it; and on the ground, mm, in the same sense. */
export interface Pixel {
  x: number
  y: number
}
export interface Spot {
  xMm: number
  yMm: number
}

export const distanceMm = (a: Spot, b: Spot): number => Math.hypot(b.xMm - a.xMm, b.yMm - a.yMm)
export const distancePx = (a: Pixel, b: Pixel): number => Math.hypot(b.x - a.x, b.y - a.y)

/** Twice the signed area of a triangle. */
export const turn = (a: Pixel, b: Pixel, c: Pixel): number =>
  (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)

/** Whether three of these lie nearly in a line, against how far apart they are. */
export function threeInLine(points: readonly Pixel[]): boolean {
  const LEAST = 0.02
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++)
      for (let k = j + 1; k < points.length; k++) {
        const [a, b, c] = [points[i]!, points[j]!, points[k]!]
        const longest = Math.max(distancePx(a, b), distancePx(b, c), distancePx(a, c))
        if (Math.abs(turn(a, b, c)) <= LEAST * longest ** 2) return true
      }
  return false
}

/** Four corners as one walks round them: what crosses itself is put right. The first stays the first. */
export function walkedRound(corners: readonly Pixel[]): Pixel[] {
  const [cx, cy] = [mean(corners.map((c) => c.x)), mean(corners.map((c) => c.y))]
  const angle = (p: Pixel) => Math.atan2(p.y - cy, p.x - cx)
  const sorted = [...corners].sort((a, b) => angle(a) - angle(b))
  const first = sorted.indexOf(corners[0]!)
  const round = [...sorted.slice(first), ...sorted.slice(0, first)]
  // The way round that whoever marked them began, where they went round at all.
  const isBackwards = round[3] === corners[1] && round[1] === corners[3]
  return isBackwards ? [round[0]!, round[3]!, round[2]!, round[1]!] : round
}

/** Whether a corner lies within the triangle of the others: then they are no rectangle seen from anywhere. */
export function isConvex(round: readonly Pixel[]): boolean {
  const turns = round.map((p, i) =>
    Math.sign(turn(p, round[(i + 1) % round.length]!, round[(i + 2) % round.length]!)),
  )
  return turns.every((t) => t === turns[0] && t !== 0)
}

export const mean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / values.length
