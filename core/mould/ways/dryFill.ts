import { keyOf, lengthMm, volumeMl } from './figures'
import { MEASURED, fault, found } from './finding'
import { FORMLESS, way } from './way'

/** Grain size, mm: the least gap it flows through is twice this. Sizes as bought; estimates. */
export const GRAINS = { sand: 0.6, beads: 3, rice: 3, gravel: 8 } as const
export type Grain = keyof typeof GRAINS

/** Width of the jug that the grains are measured in, mm. */
const JUG_MM = 90

/**
 * Voids between grains of size d in a space D across: 0.4 + 0.05 d/D + 0.412 (d/D)², for d/D up to one half.
 * Source: Dixon 1988, Can. J. Chem. Eng., spheres in tubes; from memory.
 */
export function voidFraction(grainMm: number, acrossMm: number): number {
  const ratio = grainMm / acrossMm
  return 0.4 + 0.05 * ratio + 0.412 * ratio ** 2
}

/** Filled with grains, for what must not get wet. */
export const dryFill = way({
  by: 'dry_fill',
  figures: { grain: keyOf(GRAINS), pouredMl: volumeMl, narrowestMm: lengthMm },
  find: (m) => {
    const grainMm = GRAINS[m.grain]
    if (m.narrowestMm < 2 * grainMm)
      return {
        ok: false,
        issues: [fault('grain_too_large', 'narrowestMm', m.narrowestMm, 2 * grainMm, 'mm')],
      }
    const packing = (1 - voidFraction(grainMm, JUG_MM)) / (1 - voidFraction(grainMm, m.narrowestMm))
    const volumeMl = m.pouredMl * packing
    const plusMinusMl = Math.hypot(0.05 * volumeMl, 0.5 * (volumeMl - m.pouredMl))
    return found(volumeMl, plusMinusMl, MEASURED, [
      'grains_pack_alike',
      'grains_loosen_at_walls',
      'grains_miss_fine_detail',
    ])
  },
  ...FORMLESS,
})
