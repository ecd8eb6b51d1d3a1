/** Where something lies, degrees of WGS 84. */
export interface Position {
  latDeg: number
  lonDeg: number
}

/** How finely a position is kept, m: as it comes within ten, within a kilometre, or not at all. */
export const FINENESS_M = [10, 1000] as const
export type FinenessM = (typeof FINENESS_M)[number]

/** Of a degree of latitude, m, on the mean sphere. */
const DEGREE_M = 111_195

/**
 * A position as finely as it may be kept: the middle of a square of that size, on a grid that is the same for everybody, so
 * that nothing of the place itself is left in it.
 */
export function coarsened({ latDeg, lonDeg }: Position, finenessM: FinenessM): Position {
  const stepLat = finenessM / DEGREE_M
  const lat = (Math.floor(latDeg / stepLat) + 0.5) * stepLat
  const stepLon = finenessM / (DEGREE_M * Math.max(0.01, Math.cos((lat * Math.PI) / 180)))
  const lon = (Math.floor(lonDeg / stepLon) + 0.5) * stepLon
  const digits = finenessM < 100 ? 5 : 3
  const rounded = (deg: number) => Number(deg.toFixed(digits))
  return { latDeg: rounded(Math.min(90, Math.max(-90, lat))), lonDeg: rounded(wrapped(lon)) }
}
const wrapped = (lonDeg: number) => ((((lonDeg + 180) % 360) + 360) % 360) - 180

/** East and north of the first, m: for a sketch of a place that one can walk across, on the mean sphere. */
export function offsetsM(positions: readonly Position[]): { eastM: number; northM: number }[] {
  const origin = positions[0]
  if (!origin) return []
  const cos = Math.cos((origin.latDeg * Math.PI) / 180)
  return positions.map(({ latDeg, lonDeg }) => ({
    eastM: wrapped(lonDeg - origin.lonDeg) * DEGREE_M * cos,
    northM: (latDeg - origin.latDeg) * DEGREE_M,
  }))
}

/** A bar for a sketch so wide, in the same unit: the largest of 1, 2 or 5 times a power of ten that fits into a third of it. */
export function scaleBar(width: number): number {
  const third = Math.max(width / 3, 0.1)
  const power = 10 ** Math.floor(Math.log10(third))
  return (third >= 5 * power ? 5 : third >= 2 * power ? 2 : 1) * power
}
