import { kelvinFromCelsius } from '../units'

const WATER_VAPOUR_GAS_CONSTANT = 461.5

export interface Air {
  tempC: number
  /** Relative humidity, %. */
  rhPct: number
  /** Air speed over the piece, m/s: 0.1 still room, 1 a breeze, 1.5 a fan. */
  speedMS: number
}

/** Saturation vapour pressure over water, Pa. Magnus form of Alduchov & Eskridge (from memory), −40–50 °C. */
export function saturationPressurePa(tempC: number): number {
  return 610.94 * Math.exp((17.625 * tempC) / (tempC + 243.04))
}

/** Density of saturated water vapour, kg/m³. */
export function saturatedVapourKgM3(tempC: number): number {
  return saturationPressurePa(tempC) / (WATER_VAPOUR_GAS_CONSTANT * kelvinFromCelsius(tempC))
}

/** Convective heat transfer, W/m²K, for objects of .05–.4 m in air up to 4 m/s (estimate between plate theory and McAdams). */
export function convectionWM2K(speedMS: number): number {
  return 4 + 6.5 * speedMS ** 0.6
}

const RADIATION_W_M2K = 5
const VOLUMETRIC_HEAT_AIR = 1207
const LEWIS_FACTOR = 0.905
/** A wet gypsum face evaporates a little slower than open water (estimate). */
const WET_FACE_FACTOR = 0.9

/** Mass transfer coefficient, m/s, from the Lewis relation. */
export function massTransferMS(speedMS: number): number {
  return convectionWM2K(speedMS) / (VOLUMETRIC_HEAT_AIR * LEWIS_FACTOR)
}

export interface WetSurface {
  surfaceTempC: number
  /** Evaporation, kg/(m² s). */
  fluxKgM2S: number
}

/** Temperature and evaporation of a wet face in still balance with the air, to 1e-6 K. */
export function wetSurface(air: Air): WetSurface {
  const hm = massTransferMS(air.speedMS)
  const vapourInAir = (air.rhPct / 100) * saturatedVapourKgM3(air.tempC)
  const conductance = WET_FACE_FACTOR * hm
  const h = convectionWM2K(air.speedMS) + RADIATION_W_M2K
  // Newton from the air's own temperature: the balance falls and bends down there, so it comes in from one side.
  let surfaceTempC = air.tempC
  for (let step = 0; step < 40; step++) {
    const vapour = saturatedVapourKgM3(surfaceTempC)
    const vapourPerK =
      vapour * ((17.625 * 243.04) / (surfaceTempC + 243.04) ** 2 - 1 / kelvinFromCelsius(surfaceTempC))
    const latent = 2.501e6 - 2361 * surfaceTempC
    const fluxHere = conductance * (vapour - vapourInAir)
    const imbalance = h * (air.tempC - surfaceTempC) - latent * fluxHere
    const slope = -h + 2361 * fluxHere - latent * conductance * vapourPerK
    const moved = imbalance / slope
    surfaceTempC -= moved
    if (Math.abs(moved) < 1e-7) break
  }
  return { surfaceTempC, fluxKgM2S: conductance * (saturatedVapourKgM3(surfaceTempC) - vapourInAir) }
}

/** What air does to a drying piece: to its wet face, and to the vapour that comes out of its pores. */
export interface DryingAir extends WetSurface {
  /** What the air can still take up, kg/m³. */
  deficitKgM3: number
}

/**
 * Air by day, and where it differs, by night for half of the time: the mean of what both would do. Good to a few percent
 * once it dries for two days or more (test against steps of an hour); for less it matters whether it is day or night.
 */
export function dryingAir(day: Air, night?: Air): DryingAir {
  const of = (air: Air): DryingAir => ({
    ...wetSurface(air),
    deficitKgM3: saturatedVapourKgM3(air.tempC) * (1 - air.rhPct / 100),
  })
  if (!night) return of(day)
  const [a, b] = [of(day), of(night)]
  const mean = (key: keyof DryingAir) => (a[key] + b[key]) / 2
  return {
    surfaceTempC: mean('surfaceTempC'),
    fluxKgM2S: mean('fluxKgM2S'),
    deficitKgM3: mean('deficitKgM3'),
  }
}
