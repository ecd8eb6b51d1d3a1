import { ArgumentError } from '../errors'
import { roundToDivision } from '../units'
import { mixProperties, type MixInput, type MixProperties } from './properties'

export interface WeighOut {
  waterG: number
  powderG: number
  /** Everything weighed dry to the plaster: filler and dry additions, g. */
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

function dryAddRatio({ plaster }: MixInput): number {
  return plaster.dryAddRatio ?? plaster.fillerRatio
}

function assemble(input: MixInput, powderG: number, waterG: number, fillerG: number): WeighOut {
  const consistency = 100 * (waterG / powderG + (input.plaster.admixWaterRatio ?? 0))
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
  const filler = exactPowderG * dryAddRatio(input)
  return assemble(
    input,
    round(exactPowderG),
    round(exactPowderG * (input.consistency / 100 - (input.plaster.admixWaterRatio ?? 0))),
    filler === 0 ? 0 : round(filler),
  )
}

/** What actual masses make: the inverse of weighOutForVolume, nothing rounded. */
export function weighOutFromMasses(input: MixInput, powderG: number, waterG: number): WeighOut {
  if (!(powderG > 0) || !(waterG > 0)) {
    throw new ArgumentError(`powderG and waterG must be positive: ${powderG}, ${waterG}`)
  }
  return assemble(input, powderG, waterG, powderG * dryAddRatio(input))
}

/** Hottest water that may meet plaster, °C: above it the mix outruns the hands and these models. */
export const MAX_WATER_TEMP_C = 45
/** A slurry that is read colder or hotter than this is not one that sets as forecast: misread, or in another unit. */
export const SLURRY_TEMP_C = { least: 2, most: MAX_WATER_TEMP_C } as const
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

/** Temperature the water must have for the mix to come to `targetTempC`: the inverse of mixTempC, °C. */
export function waterTempForMixC(
  consistency: number,
  targetTempC: number,
  powderTempC: number,
  fillerRatio: number,
): number {
  const waterHeat = (CP_WATER * consistency) / 100
  const dryHeat = CP_POWDER + CP_FILLER * fillerRatio
  return ((waterHeat + dryHeat) * targetTempC - dryHeat * powderTempC) / waterHeat
}

export interface WaterBlend {
  waterTempC: number
  /** How much of the water comes from the hot tap, g; the rest is cold. */
  hotG: number
  coldG: number
  /** What keeps the target from being met: the water would be too hot, or colder or hotter than either tap gives. */
  limit: 'too_hot' | 'hotter_than_tap' | 'colder_than_tap' | undefined
}

/**
 * Water from two taps for a mix of `targetTempC`. Where the target cannot be had it is the nearest that can, and
 * `limit` says why.
 */
export function blendWater(of: {
  consistency: number
  fillerRatio: number
  targetTempC: number
  powderTempC: number
  coldTempC: number
  hotTempC: number
  waterG: number
}): WaterBlend {
  const wanted = waterTempForMixC(of.consistency, of.targetTempC, of.powderTempC, of.fillerRatio)
  const hottest = Math.min(MAX_WATER_TEMP_C, Math.max(of.coldTempC, of.hotTempC))
  const waterTempC = Math.min(hottest, Math.max(of.coldTempC, wanted))
  const span = of.hotTempC - of.coldTempC
  const hotShare = span > 0 ? (waterTempC - of.coldTempC) / span : 0
  const limit =
    wanted > MAX_WATER_TEMP_C && hottest === MAX_WATER_TEMP_C
      ? 'too_hot'
      : wanted > hottest + 1e-9
        ? 'hotter_than_tap'
        : wanted < of.coldTempC - 1e-9
          ? 'colder_than_tap'
          : undefined
  return { waterTempC, hotG: of.waterG * hotShare, coldG: of.waterG * (1 - hotShare), limit }
}
