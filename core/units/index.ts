export {
  GRAMS_PER,
  ML_PER,
  MM_PER,
  MS_PER,
  celsiusFromFahrenheit,
  fahrenheitFromCelsius,
  inOtherTempUnit,
  kelvinFromCelsius,
} from './factors'
export { plainNumber, readNumber } from './numbers'
export type { DecimalSign, NumberReading } from './numbers'
export type { KitchenMeasure, KitchenSize, UnitSystem } from './unitNames'
export { parseQuantity, plainText, readEachWay, readTerm } from './parseQuantity'
export type {
  Habits,
  ParsedQuantity,
  QuantityError,
  QuantityKind,
  QuantityNote,
  QuantityReading,
  Term,
} from './parseQuantity'
export {
  formatArea,
  formatDensity,
  formatLength,
  formatMass,
  formatMassOther,
  formatRoughMass,
  formatRoughVolume,
  formatShortLength,
  formatStrength,
  formatTemp,
  formatTempStep,
  formatVolume,
  formatVolumeRange,
  roundToDivision,
} from './format'
export type { UnitPrefs } from './format'
