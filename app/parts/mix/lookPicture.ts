import type { BowlLook } from '#core/mix'

/** The bowl as it is drawn in a view of 120 by 92: its floor, where it is full to, and half its width at a height. */
const FLOOR_Y = 86
const FULL_Y = 36
const MIDDLE = 60
const halfAt = (y: number) => 30 + (15 * (88 - y)) / 75 - 2

const yOf = (share: number) => FLOOR_Y - (FLOOR_Y - FULL_Y) * share
const n = (value: number) => Math.round(value * 10) / 10
const point = (x: number, y: number) => `${n(x)} ${n(y)}`

/** What fills the bowl between two heights. */
function band(fromShare: number, toShare: number): string {
  const [low, high] = [yOf(fromShare), yOf(toShare)]
  if (toShare <= fromShare) return ''
  const corners = [
    point(MIDDLE - halfAt(high), high),
    point(MIDDLE + halfAt(high), high),
    point(MIDDLE + halfAt(low), low),
    point(MIDDLE - halfAt(low), low),
  ]
  return `M${corners.join(' L')} Z`
}

/** Where islands come up first, as shares of the width, and how wide each grows: spread, and always the same. */
const ISLANDS = [
  { at: 0.5, wide: 0.3 },
  { at: 0.2, wide: 0.22 },
  { at: 0.8, wide: 0.2 },
  { at: 0.05, wide: 0.16 },
  { at: 0.95, wide: 0.16 },
]

/** Higher than this it is one heap, however little of the surface is dry. */
const HEAPED = 0.12

/** Powder that stands dry on the wet: islands that grow together into a crust, and a heap over it. */
function dryOn({ level, dryShare, heap }: BowlLook): string[] {
  if (dryShare <= 0.01) return []
  const y = yOf(level)
  const half = halfAt(y)
  const rise = (FLOOR_Y - FULL_Y) * heap
  if (dryShare > 0.85 || heap > HEAPED) {
    // Cracked all over, with the heap in the middle; what is wet through by now has gone from the rim inwards.
    const wide = half * Math.min(1, dryShare / 0.85)
    const top = [0, 0.14, 0.26, 0.38, 0.5, 0.62, 0.74, 0.86, 1].map((at, i) => {
      const cone = rise * (1 - Math.abs(at - 0.5) / 0.5)
      return point(MIDDLE - wide + 2 * wide * at, y - cone - (i % 2 === 0 ? 0.4 : 2))
    })
    return [`M${point(MIDDLE - wide, y + 3)} L${top.join(' L')} L${point(MIDDLE + wide, y + 3)} Z`]
  }
  const shown = ISLANDS.slice(0, Math.max(1, Math.ceil(dryShare * ISLANDS.length)))
  return shown.map(({ at, wide }) => {
    const x = MIDDLE - half + 2 * half * at
    const r = Math.min(half * wide * (0.45 + 0.8 * dryShare), half - Math.abs(x - MIDDLE) + 1)
    return `M${point(x - r, y + 2)} Q${point(x - r / 2, y - 2 - rise)} ${point(x, y - 2 - rise)} T${point(x + r, y + 2)} Z`
  })
}

/** Lumps in the slurry, placed so that no two fall together (steps of the plastic number, which spread evenly). */
const SPREAD = [0.754878, 0.56984] as const
function lumpsIn({ level, lumps }: BowlLook): { x: number; y: number; r: number }[] {
  return Array.from({ length: Math.round(12 * lumps) }, (_, i) => {
    const r = 1.6 + 2.6 * lumps
    const [across, up] = SPREAD.map((step) => ((i + 1) * step) % 1) as [number, number]
    const y = Math.min(FLOOR_Y - r, yOf(level * (0.12 + 0.76 * up)))
    return { x: n(MIDDLE + (2 * across - 1) * (halfAt(y) - 6)), y: n(y), r: n(r) }
  })
}

export interface LookPicture {
  water: string
  bed: string
  dry: string[]
  lumps: { x: number; y: number; r: number }[]
  bleed: string
  surface: string
  glints: string[]
}

/** The paths of one look; all of them inside the bowl. */
export function lookPicture(look: BowlLook): LookPicture {
  const y = yOf(look.level)
  const half = halfAt(y)
  const at = (share: number) => MIDDLE - half + 2 * half * share
  // A trail is drawn in the middle; what is thin has closed it again.
  const dip = 9 * look.trail
  const surface = `M${point(at(0), y)} L${point(at(0.36), y)} Q${point(at(0.43), y - dip / 2)} ${point(at(0.46), y)} Q${point(
    at(0.5),
    y + dip,
  )} ${point(at(0.54), y)} Q${point(at(0.57), y - dip / 2)} ${point(at(0.64), y)} L${point(at(1), y)}`
  const glint = (share: number) => `M${point(at(share), y + 3)} h${n(9 * look.gloss)}`
  return {
    water: band(0, look.level),
    bed: band(0, look.bed),
    dry: dryOn(look),
    lumps: lumpsIn(look),
    bleed: look.bleed > 0.005 ? band(look.level, look.level + look.bleed) : '',
    surface,
    glints: look.gloss > 0.1 && look.dryShare < 0.2 ? [glint(0.1), glint(0.72)] : [],
  }
}
