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
