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
  return saturationPressurePa(tempC) / (WATER_VAPOUR_GAS_CONSTANT * (tempC + 273.15))
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

/** Temperature and evaporation of a wet face in still balance with the air (bisection to 1e-6 K). */
export function wetSurface(air: Air): WetSurface {
  const hm = massTransferMS(air.speedMS)
  const vapourInAir = (air.rhPct / 100) * saturatedVapourKgM3(air.tempC)
  const flux = (surfaceC: number) => WET_FACE_FACTOR * hm * (saturatedVapourKgM3(surfaceC) - vapourInAir)
  const imbalance = (surfaceC: number) =>
    (convectionWM2K(air.speedMS) + RADIATION_W_M2K) * (air.tempC - surfaceC) -
    (2.501e6 - 2361 * surfaceC) * flux(surfaceC)
  let low = air.tempC - 40
  let high = air.tempC
  while (high - low > 1e-6) {
    const mid = (low + high) / 2
    if (imbalance(mid) > 0) low = mid
    else high = mid
  }
  const surfaceTempC = (low + high) / 2
  return { surfaceTempC, fluxKgM2S: flux(surfaceTempC) }
}
