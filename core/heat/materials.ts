/** What heat passes through on its way out of a piece. */
export const WALL_MATERIALS = [
  'silicone',
  'latex',
  'plastic',
  'dry_plaster',
  'damp_plaster',
  'wet_clay',
  'dry_sand',
  'wet_sand',
  'wet_silt',
  'alginate',
  'wood',
  'card',
  'metal',
] as const
export type WallMaterial = (typeof WALL_MATERIALS)[number]

interface Conduction {
  conductivityWMK: number
  /** Volumetric heat capacity, J/(m³ K). */
  capacityJM3K: number
}

/** Estimates from handbook ranges, no single source (docs/science.md#heat). */
export const WALLS: Readonly<Record<WallMaterial, Conduction>> = {
  silicone: { conductivityWMK: 0.22, capacityJM3K: 1.5e6 },
  latex: { conductivityWMK: 0.16, capacityJM3K: 1.81e6 },
  plastic: { conductivityWMK: 0.25, capacityJM3K: 1.77e6 },
  dry_plaster: { conductivityWMK: 0.4, capacityJM3K: 1.1e6 },
  damp_plaster: { conductivityWMK: 0.7, capacityJM3K: 2.38e6 },
  wet_clay: { conductivityWMK: 1.2, capacityJM3K: 3.04e6 },
  dry_sand: { conductivityWMK: 0.3, capacityJM3K: 1.2e6 },
  wet_sand: { conductivityWMK: 1.8, capacityJM3K: 2.83e6 },
  wet_silt: { conductivityWMK: 1.4, capacityJM3K: 3.24e6 },
  alginate: { conductivityWMK: 0.55, capacityJM3K: 4.1e6 },
  wood: { conductivityWMK: 0.13, capacityJM3K: 0.8e6 },
  card: { conductivityWMK: 0.1, capacityJM3K: 0.98e6 },
  metal: { conductivityWMK: 50, capacityJM3K: 3.6e6 },
}
