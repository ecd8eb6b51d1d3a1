import { kelvinFromCelsius } from '../units'

const GAS_CONSTANT = 8.314
const ACTIVATION_J_MOL = 53_700
const REFERENCE_K = 293.15

/**
 * Rate of hydration against 20 °C, dimensionless: Arrhenius growth times a driving force that vanishes at 98 °C,
 * where hemihydrate and gypsum are equally soluble. Peak 1.253 at 38 °C. Exponent 4 is an estimate
 * (docs/science.md#setting); extrapolation above about 65 °C.
 * @returns 0 at or above 98 °C and at or below −10 °C.
 */
export function settingRate(tempC: number): number {
  if (tempC >= 98 || tempC <= -10) return 0
  const arrhenius = Math.exp(
    (ACTIVATION_J_MOL / GAS_CONSTANT) * (1 / REFERENCE_K - 1 / kelvinFromCelsius(tempC)),
  )
  return arrhenius * ((98 - tempC) / 78) ** 4
}
