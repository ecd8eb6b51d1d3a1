import type { Pixel } from '#core/field'

/** What of a photograph is in sight, px of it. */
export interface View {
  x: number
  y: number
  width: number
  height: number
}
interface Bounds {
  widthPx: number
  heightPx: number
}

export interface BoardShape {
  id: string
  /** As it is called: its points are told by it. */
  name: string
  points: readonly Pixel[]
  /** What is drawn between its points; the points themselves where it is the same. */
  line?: readonly Pixel[]
  closed: boolean
  tone: 'scale' | 'mark' | 'outline'
}

/** Nearer than this a pixel is a tile of the screen and nothing more is seen. */
const NEAREST = 12

export const viewFor = (widthPx: number, heightPx: number): View => ({
  x: 0,
  y: 0,
  width: widthPx,
  height: heightPx,
})

/** Nearer or farther, what is at `at` staying where it is; never past its edges. */
export function zoomed(view: View, by: number, at: Pixel | undefined, { widthPx, heightPx }: Bounds): View {
  const near = Math.min(NEAREST, Math.max(1, (widthPx / view.width) * by))
  const [width, height] = [widthPx / near, heightPx / near]
  const on = at ?? { x: view.x + view.width / 2, y: view.y + view.height / 2 }
  const x = on.x - ((on.x - view.x) / view.width) * width
  const y = on.y - ((on.y - view.y) / view.height) * height
  const within = (v: number, most: number) => Math.min(Math.max(0, v), Math.max(0, most))
  return { x: within(x, widthPx - width), y: within(y, heightPx - height), width, height }
}

/** The middle of some fingers, and how far apart they are. */
export function spread(fingers: readonly { clientX: number; clientY: number }[]) {
  const n = fingers.length
  const x = fingers.reduce((s, f) => s + f.clientX, 0) / n
  const y = fingers.reduce((s, f) => s + f.clientY, 0) / n
  const apart = fingers.reduce((s, f) => s + Math.hypot(f.clientX - x, f.clientY - y), 0) / n
  return { x, y, apart }
}

/** Which of some points a finger means: the nearest, not the one that was drawn last. Undefined where there is none. */
export function nearestTo(at: Pixel, points: readonly Pixel[]): number | undefined {
  const far = points.map((p) => Math.hypot(p.x - at.x, p.y - at.y))
  return points.length > 0 ? far.indexOf(Math.min(...far)) : undefined
}

/** A shape as a path of SVG, in px of the photograph. */
export function pathOf(shape: BoardShape): string {
  const line = shape.line ?? shape.points
  const d = line.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x} ${p.y}`).join('')
  return shape.closed && line.length > 2 ? `${d}Z` : d
}
