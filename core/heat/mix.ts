import { plasterClass, type PlasterProperties } from '../plaster'

/** What a cubic metre of the mix gives off and takes up; docs/science.md#heat. */
export interface HeatMix {
  /** kg of powder in a m³ of slurry. */
  powderKgM3: number
  /** Of powder and water, J/(m³ K), before anything has set. */
  capacityJM3K: number
  /** By how much that falls when all has set. */
  capacityLossJM3K: number
  /** Hemihydrate, kg/m³. */
  hemihydrateKgM3: number
  /** Heat of hydration at 25 °C, J for each kg of hemihydrate. */
  heatJKg: number
  conductivityWMK: number
}

/** 19.3 and 17.2 kJ/mol of hemihydrate, ±5 % (Kelley, Southard & Anderson 1941; Ullmann; from memory). */
const HEAT_J_KG = { beta: 133_000, alpha: 118_000 } as const
const CP_POWDER = 830
const CP_WATER = 4180
const CP_FILLER = 750
/** What the heat capacity loses on reaction, J/(kg hemihydrate · K) (Kelley et al., from memory). */
export const CP_LOSS = 319
const HEAT_REFERENCE_C = 25

/** Geometric mean of water and gypsum by pores (estimate): 0.86–1.16. */
export function castConductivityWMK(porosity: number): number {
  return 0.6 ** porosity * 1.3 ** (1 - porosity)
}

/** Heat of hydration at a temperature, J/kg hemihydrate (Kirchhoff). */
export function hydrationHeatJKg(mix: Pick<HeatMix, 'heatJKg'>, tempC: number): number {
  return mix.heatJKg + CP_LOSS * (tempC - HEAT_REFERENCE_C)
}

/**
 * @param consistency all its water, admixtures' included, to 100 of plaster.
 * @param slurryMlPerG of slurry for each g of plaster. @param porosity of the dry piece.
 */
export function heatMix(
  plaster: Pick<PlasterProperties, 'classId' | 'hemihydrateFraction' | 'fillerRatio'>,
  consistency: number,
  { slurryMlPerG, porosity }: { slurryMlPerG: number; porosity: number },
): HeatMix {
  const powderKgM3 = 1000 / slurryMlPerG
  const c = consistency / 100
  return {
    powderKgM3,
    capacityJM3K: powderKgM3 * (CP_POWDER + CP_WATER * c + CP_FILLER * plaster.fillerRatio),
    capacityLossJM3K: powderKgM3 * CP_LOSS * plaster.hemihydrateFraction,
    hemihydrateKgM3: powderKgM3 * plaster.hemihydrateFraction,
    heatJKg: HEAT_J_KG[plasterClass(plaster.classId).form],
    conductivityWMK: castConductivityWMK(porosity),
  }
}

/** How far it would warm with nothing lost, K: what a large piece comes near. */
export function adiabaticRiseK(mix: HeatMix, fromC: number): number {
  return (mix.hemihydrateKgM3 * hydrationHeatJKg(mix, fromC)) / (mix.capacityJM3K - mix.capacityLossJM3K)
}
