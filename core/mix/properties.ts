import type { PlasterProperties } from '../plaster'
import { waterDensityKgM3 } from '../water'

/** Stoichiometry of CaSO₄·½H₂O + 1½ H₂O → CaSO₄·2H₂O: kg of water bound by a kg of hemihydrate. */
export const BOUND_WATER_RATIO = 27.02 / 145.15

const DIHYDRATE_DENSITY_KG_M3 = 2320
const IMPURITY_DENSITY_KG_M3 = 2700

export interface MixInput {
  plaster: Pick<
    PlasterProperties,
    | 'particleDensityKgM3'
    | 'hemihydrateFraction'
    | 'expansionPct'
    | 'fillerRatio'
    | 'fillerDensityKgM3'
    | 'admixWaterRatio'
    | 'dryAddRatio'
    | 'dissolved'
  >
  /** Parts of water to 100 parts of plaster by weight. */
  consistency: number
  waterTempC: number
  /** Entrained air, fraction of slurry volume: 0.01 by hand, 0.003 de-aired, 0.03 whipped (estimates). */
  airFraction: number
}

export interface MixProperties {
  slurryMlPerG: number
  setMlPerG: number
  slurryDensityKgM3: number
  wetSetDensityKgM3: number
  dryDensityKgM3: number
  /** Pore fraction of the dry piece, 0–1, with its air. */
  porosity: number
  /** Water that must leave for the piece to be dry: g per g of plaster, kg per m³, and fraction of dry mass. */
  freeWaterPerPowder: number
  freeWaterKgM3: number
  freeWaterOfDryMass: number
  /** Dry mass for each g of plaster powder, filler included, g/g. */
  dryMassPerPowder: number
}

/** What is dissolved for each g of plaster, g and ml; `c` is all its water, g/g. */
function dissolvedIn({ dissolved, admixWaterRatio = 0 }: MixInput['plaster'], c: number) {
  if (!dissolved) return { gPerG: 0, mlPerG: 0 }
  const weighedWater = c - admixWaterRatio
  return {
    gPerG: dissolved.gPerPowder + dissolved.gPerWater * weighedWater,
    mlPerG: dissolved.mlPerPowder + dissolved.mlPerWater * weighedWater,
  }
}

/**
 * Volumes, densities, porosity and free water of a mix, per gram of plaster powder (filler follows its ratio).
 * Equations and status: docs/science.md#mix. Densities good to about ±3 %.
 * Pure; assumes `checkConsistency` found no error.
 */
export function mixProperties(input: MixInput): MixProperties {
  const { plaster, airFraction } = input
  const c = input.consistency / 100
  const rhoWater = waterDensityKgM3(input.waterTempC)
  const p = plaster.hemihydrateFraction
  const filler = plaster.fillerRatio
  const { gPerG: salts, mlPerG: saltsMl } = dissolvedIn(plaster, c)
  // m³/kg equals ml/g × 1e-3; kept in l/kg = ml/g here.
  const slurryMlPerG =
    (1000 * (1 / plaster.particleDensityKgM3 + c / rhoWater + filler / plaster.fillerDensityKgM3) + saltsMl) /
    (1 - airFraction)
  const setMlPerG = slurryMlPerG * (1 + plaster.expansionPct / 100) ** 3
  const solidsMlPerG =
    1000 *
      ((p * (1 + BOUND_WATER_RATIO)) / DIHYDRATE_DENSITY_KG_M3 +
        (1 - p) / IMPURITY_DENSITY_KG_M3 +
        filler / plaster.fillerDensityKgM3) +
    saltsMl
  const dryMassPerPowder = 1 + BOUND_WATER_RATIO * p + filler + salts
  const freeWaterPerPowder = c - BOUND_WATER_RATIO * p
  return {
    slurryMlPerG,
    setMlPerG,
    slurryDensityKgM3: (1000 * (1 + c + filler + salts)) / slurryMlPerG,
    wetSetDensityKgM3: (1000 * (1 + c + filler + salts)) / setMlPerG,
    dryDensityKgM3: (1000 * dryMassPerPowder) / setMlPerG,
    porosity: 1 - solidsMlPerG / setMlPerG,
    freeWaterPerPowder,
    freeWaterKgM3: (1000 * freeWaterPerPowder) / setMlPerG,
    freeWaterOfDryMass: freeWaterPerPowder / dryMassPerPowder,
    dryMassPerPowder,
  }
}
