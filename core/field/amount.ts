import { mean } from './geometry'

/** The ground that a print lies in; each has words and cautions of its own. */
export const FIELD_GROUNDS = ['sand', 'mud', 'silt', 'snow'] as const
export type FieldGround = (typeof FIELD_GROUNDS)[number]

/** What the floor of a print is like: its volume as a share of area times greatest depth. A bowl is a paraboloid. */
export const PRINT_FORMS = { bowl: 0.5, between: 0.6, flat: 1 } as const
export type PrintForm = keyof typeof PRINT_FORMS
/** How far that share may be off [E], and from this many depths on they speak for themselves. */
const FORM_SIGMA = 0.15
export const DEPTHS_ENOUGH = 3
/** A stick is read to this, mm [E]; and so many places speak for the whole floor within this share [E]. */
const STICK_MM = 1
const PLACES_SHARE = 0.1
const EIGHT_IN_TEN = 1.2816

export interface PrintVolume {
  volumeMl: number
  /** Half its 80 % range. */
  plusMinusMl: number
  /** Of the floor, on average. */
  meanDepthMm: number
  /** How it was found. */
  by: 'form' | 'depths'
}

/**
 * What a print itself holds, up to the ground around it.
 * @param area mm², with half its 90 % range. @param depthsMm by stick, one or more; the greatest counts where there are
 * fewer than three.
 */
export function printVolume(
  area: { areaMm2: number; plusMinusMm2: number },
  depthsMm: readonly number[],
  form: PrintForm,
): PrintVolume {
  const deepest = Math.max(...depthsMm)
  const areaShare = area.plusMinusMm2 / 1.6449 / area.areaMm2
  if (depthsMm.length < DEPTHS_ENOUGH) {
    const share = PRINT_FORMS[form]
    const volumeMl = (area.areaMm2 * deepest * share) / 1000
    const sigma = Math.hypot(areaShare, FORM_SIGMA / share, STICK_MM / deepest)
    return {
      volumeMl,
      plusMinusMl: EIGHT_IN_TEN * sigma * volumeMl,
      meanDepthMm: deepest * share,
      by: 'form',
    }
  }
  const depth = mean(depthsMm)
  const n = depthsMm.length
  const spread = Math.sqrt(depthsMm.reduce((s, d) => s + (d - depth) ** 2, 0) / (n - 1))
  const volumeMl = (area.areaMm2 * depth) / 1000
  const sigma = Math.hypot(
    areaShare,
    spread / Math.sqrt(n) / depth,
    STICK_MM / Math.sqrt(n) / depth,
    PLACES_SHARE,
  )
  return { volumeMl, plusMinusMl: EIGHT_IN_TEN * sigma * volumeMl, meanDepthMm: depth, by: 'depths' }
}

/** Extra plaster that soft ground takes as the ring is pressed in, as a share of the whole, and how far the cover may be off [E]. */
export const GROUND_FIRMNESS = {
  firm: { spread: 0, offBy: 0.12 },
  damp: { spread: 0.05, offBy: 0.16 },
  soft: { spread: 0.12, offBy: 0.22 },
} as const
export type GroundFirmness = keyof typeof GROUND_FIRMNESS

/** What a print takes to be filled and covered, ml, and half its 80 % range. @param coverMl over all the ring holds. */
export function pouredOver(
  print: Pick<PrintVolume, 'volumeMl' | 'plusMinusMl'>,
  coverMl: number,
  firmness: GroundFirmness,
): { volumeMl: number; plusMinusMl: number } {
  const { spread, offBy } = GROUND_FIRMNESS[firmness]
  return {
    volumeMl: (print.volumeMl + coverMl) * (1 + spread),
    plusMinusMl: Math.hypot(print.plusMinusMl, offBy * coverMl),
  }
}

/** Between the edge of a print and the ring round it, mm, and how far the ring stands over the plaster (common practice, no source). */
export const RING_CLEAR_MM = 20
export const RING_OVER_MM = 15
/** By which a strip laps over itself, mm (common practice, no source). */
export const RING_LAP_MM = 30
/** A print that is longer than this wants more plaster over it, mm (common practice, no source). */
export const LARGE_PRINT_MM = 150

export interface Ring {
  /** Across and along what it goes round, mm. */
  lengthMm: number
  widthMm: number
  heightMm: number
  /** What to cut, mm: once round it and the lap. */
  stripMm: number
  /** Of the ground within it, mm². */
  areaMm2: number
}

/** The ring that a print of this size asks for: an oval with room to its edge. */
export function ringFor(
  print: { lengthMm: number; widthMm: number; depthMm: number },
  coverMm: number,
): Ring {
  const [a, b] = [print.lengthMm / 2 + RING_CLEAR_MM, print.widthMm / 2 + RING_CLEAR_MM]
  const h = ((a - b) / (a + b)) ** 2
  // Ramanujan's second formula: within a few parts in a million of an ellipse's own.
  const around = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
  return {
    lengthMm: 2 * a,
    widthMm: 2 * b,
    heightMm: Math.ceil(print.depthMm + coverMm + RING_OVER_MM),
    stripMm: Math.ceil(around + RING_LAP_MM),
    areaMm2: Math.PI * a * b,
  }
}

/** Plaster over the highest point of a print, mm (common practice, no source): small and firm; large or soft. */
export const PRINT_COVER_MM = { small: 12, large: 25 } as const

/** Cover that a print so long asks for, mm. */
export const coverFor = (longestMm: number, isSoft: boolean): number =>
  isSoft || longestMm > LARGE_PRINT_MM ? PRINT_COVER_MM.large : PRINT_COVER_MM.small
