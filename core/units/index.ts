export { GRAMS_PER, ML_PER, MM_PER, celsiusFromFahrenheit, fahrenheitFromCelsius } from './factors'
export { parseQuantity } from './parseQuantity'
export type { ParsedQuantity, QuantityError, QuantityKind, UnitSystem } from './parseQuantity'
export {
  formatArea,
  formatLength,
  formatMass,
  formatMassOther,
  formatRoughMass,
  formatRoughVolume,
  formatTemp,
  formatVolume,
  formatVolumeRange,
  roundToDivision,
} from './format'
export type { UnitPrefs } from './format'
