import { ArgumentError } from '../errors'
import type { Range } from '../provenance'
import type { MixInput } from './properties'
import { waterDensityKgM3 } from '../water'

/**
 * Consistency of a slurry from its density, free of every habit of measuring: a known volume of it, weighed.
 * @param densityKgM3 of the slurry with its air. A percent of air more than assumed reads about 3 units too high.
 * @returns Infinity or a negative figure never: undefined where no slurry of this plaster weighs that.
 */
export function consistencyFromDensity(
  input: Omit<MixInput, 'consistency'>,
  densityKgM3: number,
): number | undefined {
  const { plaster, waterTempC, airFraction } = input
  const airless = densityKgM3 / (1 - airFraction)
  const { gPerPowder = 0, mlPerPowder = 0, gPerWater = 0, mlPerWater = 0 } = plaster.dissolved ?? {}
  const admix = plaster.admixWaterRatio ?? 0
  // Mass and volume of a kg of plaster's slurry are both linear in its water: solved for it.
  const solidsMass = 1 + plaster.fillerRatio + gPerPowder - gPerWater * admix
  const solidsM3 =
    1 / plaster.particleDensityKgM3 +
    plaster.fillerRatio / plaster.fillerDensityKgM3 +
    (mlPerPowder - mlPerWater * admix) / 1000
  const excess = airless * (1 / waterDensityKgM3(waterTempC) + mlPerWater / 1000) - (1 + gPerWater)
  if (excess <= 0) return undefined
  const c = (solidsMass - airless * solidsM3) / excess
  return c > 0 && Number.isFinite(c) ? 100 * c : undefined
}

/** A jug is read to about a percent, and the air in a hand-stirred mix is not known better than half of itself. */
const JUG_OFF_BY = 0.01

/** How many units thinner the same weighed slurry reads for each percent of air more than assumed. */
export function unitsPerAirPct(
  input: Omit<MixInput, 'consistency'>,
  massG: number,
  volumeMl: number,
): number | undefined {
  const at = (airFraction: number) =>
    consistencyFromDensity({ ...input, airFraction }, (1000 * massG) / volumeMl)
  const [assumed, more] = [at(input.airFraction), at(input.airFraction + 0.01)]
  return assumed === undefined || more === undefined ? undefined : assumed - more
}

/**
 * The slurry check: net mass of a known volume.
 * @throws ArgumentError when a mass or volume is not positive.
 */
export function checkSlurry(
  input: Omit<MixInput, 'consistency'>,
  massG: number,
  volumeMl: number,
): Range | undefined {
  if (!(massG > 0) || !(volumeMl > 0)) throw new ArgumentError(`mass and volume must be positive`)
  const densityKgM3 = (1000 * massG) / volumeMl
  const at = (factor: number) => consistencyFromDensity(input, densityKgM3 * factor)
  const [low, mid, high] = [at(1 + JUG_OFF_BY), at(1), at(1 - JUG_OFF_BY)]
  return low === undefined || mid === undefined || high === undefined ? undefined : { low, mid, high }
}
