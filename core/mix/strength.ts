import type { Range } from '../provenance'

/** 1-h wet strength over dry strength (makers' data for gypsum cements, from memory: .36–.55). */
export const WET_STRENGTH_RATIO = 0.45

/** Water that a piece loses last holds its crystals apart: strength comes back by e for each so much, g/g (estimate). */
const STRENGTH_PER_WATER = 0.03

/**
 * Strength of a set piece on its way to dry, between its 1-h wet and its dry strength, MPa (docs/science.md#mix).
 * @param waterOfDryMass free water over dry mass, g/g, from 0.
 */
export function strengthOnTheWayMPa(
  { dry, wetOneHour }: { dry: Range; wetOneHour: Range },
  waterOfDryMass: number,
): Range {
  const share = Math.exp(-waterOfDryMass / STRENGTH_PER_WATER)
  const at = (end: keyof Range) => wetOneHour[end] + (dry[end] - wetOneHour[end]) * share
  return { low: at('low'), mid: at('mid'), high: at('high') }
}

/**
 * Dry and 1-h wet compressive strength, MPa, with ±25 %: cube tests, hand-cast pieces are lower.
 * Balshin power law 158·(1−φ)^3.09 fitted to published class values (docs/science.md#mix).
 * @param porosity 0–1, from mixProperties. @param strengthFactor class factor, includes filler.
 */
export function compressiveStrengthMPa(
  porosity: number,
  strengthFactor: number,
): { dry: Range; wetOneHour: Range } {
  const dry = strengthFactor * 158 * (1 - porosity) ** 3.09
  const spread = (mid: number): Range => ({ low: mid * 0.75, mid, high: mid * 1.25 })
  return { dry: spread(dry), wetOneHour: spread(dry * WET_STRENGTH_RATIO) }
}
