/**
 * What a piece is to be dry enough for. Most go by free water over dry mass; the pottery mould by the fraction of its free
 * water left, the kiln by no more than a face without a shine (common practice, no source).
 */
export const DRY_TARGETS = [
  'handle',
  'kiln',
  'paint',
  'sand',
  'seal',
  'pottery_mould',
  'full_strength',
] as const
export type DryTarget = (typeof DRY_TARGETS)[number]

/** Free water over dry mass that a piece may have at most. */
export const MAX_WATER_OF_DRY_MASS: Record<Exclude<DryTarget, 'pottery_mould' | 'kiln'>, number> = {
  handle: 0.2,
  paint: 0.05,
  sand: 0.03,
  seal: 0.01,
  full_strength: 0.005,
}

/** No piece is wetter than this once its face has lost its shine. */
const MOST_LEFT = 0.95

/** Fraction of the free water that may still be left when the piece is dry enough, 0–1. */
export function targetFractionLeft(target: DryTarget, freeWaterOfDryMass: number): number {
  if (target === 'pottery_mould') return 0.15
  // It need not be dry: what is left goes in a hold at 100–110 °C, by the kiln's schedule (common practice, no source).
  if (target === 'kiln') return MOST_LEFT
  return Math.min(MOST_LEFT, MAX_WATER_OF_DRY_MASS[target] / freeWaterOfDryMass)
}
