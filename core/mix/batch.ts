import { ArgumentError } from '../errors'
import { roundToDivision } from '../units'
import { mixProperties, type MixInput, type MixProperties } from './properties'

export interface WeighOut {
  waterG: number
  powderG: number
  fillerG: number
  /** Slurry this makes, ml. */
  slurryMl: number
  /** Consistency really reached once both are rounded to the scale's division. */
  consistency: number
  /** Smallest bowl that leaves room to sift and stir, ml. */
  bowlMl: number
  properties: MixProperties
}

/** Smallest bowl, ml: three times the water, or the slurry at 70 % full (docs/science.md#mix). */
export function bowlVolumeMl(waterMl: number, slurryMl: number): number {
  return Math.max(3 * waterMl, slurryMl / 0.7)
}

function assemble(input: MixInput, powderG: number, waterG: number, fillerG: number): WeighOut {
  const consistency = (100 * waterG) / powderG
  const properties = mixProperties({ ...input, consistency })
  const slurryMl = powderG * properties.slurryMlPerG
  return {
    waterG,
    powderG,
    fillerG,
    slurryMl,
    consistency,
    bowlMl: bowlVolumeMl(waterG, slurryMl),
    properties,
  }
}

/**
 * Water and powder for a volume wanted.
 * @param cavityMl mould volume, ml, > 0. @param sparePct extra slurry, % of cavity, ≥ 0.
 * @param scaleDivisionG smallest step of the scale, g; amounts are rounded to it, but never to zero.
 * @throws ArgumentError when a volume or division is not positive.
 */
export function weighOutForVolume(
  input: MixInput,
  cavityMl: number,
  sparePct: number,
  scaleDivisionG: number,
): WeighOut {
  if (!(cavityMl > 0) || !(sparePct >= 0) || !(scaleDivisionG > 0)) {
    throw new ArgumentError(
      `cavityMl, sparePct, scaleDivisionG out of range: ${cavityMl}, ${sparePct}, ${scaleDivisionG}`,
    )
  }
  const exactPowderG = (cavityMl * (1 + sparePct / 100)) / mixProperties(input).slurryMlPerG
  const round = (massG: number) => Math.max(scaleDivisionG, roundToDivision(massG, scaleDivisionG))
  const filler = exactPowderG * input.plaster.fillerRatio
  return assemble(
    input,
    round(exactPowderG),
    round((exactPowderG * input.consistency) / 100),
    filler === 0 ? 0 : round(filler),
  )
}

/** What actual masses make: the inverse of weighOutForVolume, nothing rounded. */
export function weighOutFromMasses(input: MixInput, powderG: number, waterG: number): WeighOut {
  if (!(powderG > 0) || !(waterG > 0)) {
    throw new ArgumentError(`powderG and waterG must be positive: ${powderG}, ${waterG}`)
  }
  return assemble(input, powderG, waterG, powderG * input.plaster.fillerRatio)
}

const CP_WATER = 4.18
const CP_POWDER = 0.83
const CP_FILLER = 0.75

/**
 * Temperature of the mix, °C, from water, powder and filler (powder and filler at one temperature).
 * Heat of wetting and of the bucket neglected: expect 1 K.
 */
export function mixTempC(
  consistency: number,
  waterTempC: number,
  powderTempC: number,
  fillerRatio: number,
): number {
  const waterHeat = (CP_WATER * consistency) / 100
  const dryHeat = CP_POWDER + CP_FILLER * fillerRatio
  return (waterHeat * waterTempC + dryHeat * powderTempC) / (waterHeat + dryHeat)
}
