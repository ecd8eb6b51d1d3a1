/** What a frame of the camera is judged by: its brightness, row by row, 0–255. A few hundred pixels wide is enough. */
export interface Grey {
  width: number
  height: number
  light: Uint8ClampedArray | Uint8Array
}

export const FRAME_FAULTS = ['blown_out', 'glare', 'too_dark', 'blurred', 'flat_light', 'tilted'] as const
export type FrameFault = (typeof FRAME_FAULTS)[number]

/** Shares of a frame and other bounds, tried on rendered frames [E]. */
const BLOWN = 250
const MOST_BLOWN = 0.02
const GLARE_BLOWN = 0.004
const DARK = 40
const LEAST_SHARP = 12
const LEAST_CONTRAST = 14
const MOST_TILT_DEG = 5

export interface FrameLook {
  /** Share that shows nothing but white. */
  blown: number
  /** Mean brightness. */
  light: number
  /** Spread of brightness: low where light comes flat from above. */
  contrast: number
  /** Spread of the Laplacian: low where the picture is out of focus or was moved. */
  sharp: number
  faults: FrameFault[]
}

/** What is wrong with a frame, worst first. @param tiltDeg from straight down; null: the device does not say. */
export function lookOf({ width, height, light }: Grey, tiltDeg: number | null): FrameLook {
  const n = width * height
  let [sum, squares, blown] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    const v = light[i]!
    sum += v
    squares += v * v
    if (v >= BLOWN) blown += 1
  }
  const mean = sum / n
  const contrast = Math.sqrt(Math.max(0, squares / n - mean * mean))
  let [edges, edgeSquares, m] = [0, 0, 0]
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x
      const l = 4 * light[i]! - light[i - 1]! - light[i + 1]! - light[i - width]! - light[i + width]!
      edges += l
      edgeSquares += l * l
      m += 1
    }
  const sharp = m > 0 ? edgeSquares / m - (edges / m) ** 2 : 0
  const share = blown / n
  const faults: FrameFault[] = []
  if (share > MOST_BLOWN) faults.push('blown_out')
  else if (share > GLARE_BLOWN) faults.push('glare')
  if (mean < DARK) faults.push('too_dark')
  if (sharp < LEAST_SHARP) faults.push('blurred')
  else if (contrast < LEAST_CONTRAST) faults.push('flat_light')
  if (tiltDeg !== null && tiltDeg > MOST_TILT_DEG) faults.push('tilted')
  return { blown: share, light: mean, contrast, sharp, faults }
}

/** How far a device is from looking straight down, °, from what it says of itself (W3C Device Orientation: β, γ). */
export function tiltFromDownDeg(betaDeg: number, gammaDeg: number): number {
  const [b, g] = [(betaDeg * Math.PI) / 180, (gammaDeg * Math.PI) / 180]
  return (Math.acos(Math.min(1, Math.max(-1, Math.cos(b) * Math.cos(g)))) * 180) / Math.PI
}

/** How far from a traced point an edge is looked for, px, and how much steeper it must be than what is around. */
const SNAP_PX = 12
const LEAST_STEP = 18

/** The nearest strong edge along the normal of a traced line; the point itself where there is none. */
export function snapped(
  grey: Grey,
  at: { x: number; y: number },
  normal: { x: number; y: number },
): { x: number; y: number } {
  const light = (x: number, y: number) => {
    const [i, j] = [Math.round(x), Math.round(y)]
    return i < 0 || j < 0 || i >= grey.width || j >= grey.height ? undefined : grey.light[j * grey.width + i]!
  }
  const steps = Array.from({ length: 2 * SNAP_PX + 1 }, (_, i) => {
    const d = i - SNAP_PX
    const a = light(at.x + (d - 1) * normal.x, at.y + (d - 1) * normal.y)
    const b = light(at.x + (d + 1) * normal.x, at.y + (d + 1) * normal.y)
    return a === undefined || b === undefined ? 0 : Math.abs(a - b)
  })
  // Farther away an edge must be the stronger for it.
  const worth = steps.map((step, i) => step * (1 - Math.abs(i - SNAP_PX) / (2 * SNAP_PX)))
  const best = worth.indexOf(Math.max(...worth))
  if (worth[best]! <= LEAST_STEP) return at
  // An edge is some pixels wide: its middle counts.
  const near = [-2, -1, 0, 1, 2].map((k) => ({ d: best + k - SNAP_PX, step: steps[best + k] ?? 0 }))
  const whole = near.reduce((sum, n) => sum + n.step, 0)
  const d = near.reduce((sum, n) => sum + n.d * n.step, 0) / whole
  return { x: at.x + d * normal.x, y: at.y + d * normal.y }
}
