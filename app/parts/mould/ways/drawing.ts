import type { Point } from '#core/mould'

/** What a patch of a drawn section is made of; decides its colour and pattern. */
export type Stuff =
  | 'mould'
  | 'plaster'
  | 'water'
  | 'grains'
  | 'gel'
  | 'object'
  | 'ground'
  | 'set'
  | 'board'
  | 'dam'

export interface Patch {
  stuff: Stuff
  /** Closed rings of points, mm, y up; the even-odd rule cuts holes. */
  rings: Point[][]
}

export interface Dimension {
  from: Point
  to: Point
  /** Which side the line stands off to. */
  side: 'left' | 'right' | 'below' | 'above'
  lengthMm: number
}

/** A section through the middle of a mould, to scale, mm, y up. */
export interface SectionDrawing {
  patches: Patch[]
  dimensions: Dimension[]
  /** Top of what is poured: the pour line runs here. */
  pourLine: { from: Point; to: Point } | undefined
  /** False where only a volume is known and the form is a stand-in. */
  trueForm: boolean
}

export const rect = (x0: number, y0: number, x1: number, y1: number): Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]
export const mirrored = (half: readonly Point[]): Point[] => [
  ...half,
  ...[...half].reverse().map(([x, y]): Point => [-x, y]),
]

/** Walls are drawn a tenth of the size thick, within reason: they hold the picture, they are not measured. */
export const wallOf = (sizeMm: number) => Math.min(40, Math.max(4, sizeMm * 0.08))

export const across = (from: number, to: number, y: number, side: 'below' | 'above'): Dimension => ({
  from: [from, y],
  to: [to, y],
  side,
  lengthMm: Math.abs(to - from),
})
export const up = (x: number, from: number, to: number, side: 'left' | 'right'): Dimension => ({
  from: [x, from],
  to: [x, to],
  side,
  lengthMm: Math.abs(to - from),
})

/** A cavity in a block of mould, filled to its rim. */
export function blockWith(
  cavity: Point[],
  halfWidthMm: number,
  rimMm: number,
  dimensions: Dimension[],
): SectionDrawing {
  const wall = wallOf(Math.max(halfWidthMm * 2, rimMm))
  return {
    patches: [
      { stuff: 'mould', rings: [rect(-halfWidthMm - wall, -wall, halfWidthMm + wall, rimMm), cavity] },
      { stuff: 'plaster', rings: [cavity] },
    ],
    dimensions,
    pourLine: pourLineAt(cavity, rimMm),
    trueForm: true,
  }
}

/** From the leftmost to the rightmost place of the ring at this height. */
export function pourLineAt(ring: readonly Point[], heightMm: number): { from: Point; to: Point } {
  const at = ring.filter(([, y]) => Math.abs(y - heightMm) < 1e-6).map(([x]) => x)
  const xs = at.length > 0 ? at : ring.map(([x]) => x)
  return { from: [Math.min(...xs), heightMm], to: [Math.max(...xs), heightMm] }
}

/** Only the volume is known: a plain tray of that volume, drawn as a stand-in. */
export function standIn(volumeMl: number, stuff: Stuff): SectionDrawing {
  const depth = Math.cbrt(volumeMl * 1000) * 0.6
  const half = Math.sqrt((volumeMl * 1000) / depth) / 2
  const soft = half * 0.25
  const cavity = mirrored([
    [0, 0],
    [half - soft, 0],
    ...Array.from({ length: 7 }, (_, i): Point => {
      const a = (Math.PI / 2) * (i / 6)
      return [half - soft + soft * Math.sin(a), soft * (1 - Math.cos(a))]
    }),
    [half, depth],
  ])
  const block = blockWith(cavity, half, depth, [])
  return { ...block, patches: [block.patches[0]!, { stuff, rings: [cavity] }], trueForm: false }
}
