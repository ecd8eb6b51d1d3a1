/**
 * What the piece must be dry enough for. `freeWaterOfDryMass` is an upper limit on free water over dry mass;
 * the pottery mould goes by the fraction of its free water left (common practice, no source).
 */
export const DRY_TARGETS = ['handle', 'paint', 'sand', 'seal', 'pottery_mould', 'full_strength'] as const
export type DryTarget = (typeof DRY_TARGETS)[number]

const MAX_WATER_OF_DRY_MASS: Record<Exclude<DryTarget, 'pottery_mould'>, number> = {
  handle: 0.2,
  paint: 0.05,
  sand: 0.03,
  seal: 0.01,
  full_strength: 0.005,
}

/** Fraction of the free water that may still be left when the piece is dry enough, 0–1. */
export function targetFractionLeft(target: DryTarget, freeWaterOfDryMass: number): number {
  if (target === 'pottery_mould') return 0.15
  return Math.min(0.95, MAX_WATER_OF_DRY_MASS[target] / freeWaterOfDryMass)
}
