import { GRAMS_PER, ML_PER, MM2_PER, MM_PER, fahrenheitFromCelsius } from './factors'
import type { UnitSystem } from './unitNames'

/** How this workshop likes its numbers. `scaleDivisionG` is the smallest step of its scale, g. */
export interface UnitPrefs {
  system: UnitSystem
  scaleDivisionG: number
}

function fixed(value: number, decimals: number): string {
  return value.toFixed(decimals)
}

/** Rounds to `figures` significant figures: models here are never good to more than three. */
function significant(value: number, figures: number): string {
  if (value === 0) return '0'
  const decimals = Math.max(0, figures - 1 - Math.floor(Math.log10(Math.abs(value))))
  return fixed(value, decimals)
}

/** Rounds a mass, g, to what the scale can show. */
export function roundToDivision(massG: number, scaleDivisionG: number): number {
  const steps = Math.round(massG / scaleDivisionG)
  return Number((steps * scaleDivisionG).toPrecision(12))
}

function formatGrams(massG: number, divisionG: number): string {
  // Above 100 g a caster reads whole grams, however fine the scale.
  const stepG = massG >= 100 ? Math.max(1, divisionG) : divisionG
  const decimals = stepG >= 1 ? 0 : Math.min(2, Math.ceil(-Math.log10(stepG)))
  return `${fixed(roundToDivision(massG, stepG), decimals)} g`
}

/** Steps that a scale in ounces shows; none of them has a decimal that the step does not fill. */
const OUNCE_STEPS = [0.01, 0.1, 0.2, 0.5, 1, 2] as const

function formatPoundsOunces(massG: number, divisionG: number): string {
  const divisionOz = divisionG / GRAMS_PER.oz
  const finest = OUNCE_STEPS.find((s) => s >= divisionOz * 0.999) ?? 4
  // As with grams: past a quarter pound nobody reads hundredths.
  const stepOz = massG >= GRAMS_PER.lb / 4 ? Math.max(0.1, finest) : finest
  const totalOz = Math.round(massG / GRAMS_PER.oz / stepOz) * stepOz
  const pounds = Math.floor(totalOz / 16 + 1e-9)
  const ounces = Math.max(0, totalOz - pounds * 16)
  const ouncesText = `${Number(fixed(ounces, stepOz < 0.1 ? 2 : 1))} oz`
  return pounds === 0 ? ouncesText : `${pounds} lb ${ouncesText}`
}

/** Mass to weigh or as weighed, at the scale's division. */
export function formatMass(massG: number, prefs: UnitPrefs): string {
  return prefs.system === 'metric'
    ? formatGrams(massG, prefs.scaleDivisionG)
    : formatPoundsOunces(massG, prefs.scaleDivisionG)
}

/** The same mass in the other family of units, for labels and recipes that use it. */
export function formatMassOther(massG: number, prefs: UnitPrefs): string {
  return prefs.system === 'metric'
    ? formatPoundsOunces(massG, prefs.scaleDivisionG)
    : formatGrams(massG, prefs.scaleDivisionG)
}

/** A mass in stock, not to be weighed out: three figures. */
export function formatRoughMass(massG: number, prefs: UnitPrefs): string {
  if (prefs.system !== 'metric') return `${significant(massG / GRAMS_PER.lb, 3)} lb`
  return massG < 1000 ? `${fixed(massG, 0)} g` : `${significant(massG / 1000, 3)} kg`
}

function volumeUnit(volumeMl: number, system: UnitSystem): { name: string; ml: number } {
  if (system === 'metric') return volumeMl >= 1000 ? { name: 'l', ml: 1000 } : { name: 'ml', ml: 1 }
  const quart = system === 'us' ? ML_PER.usQuart : ML_PER.impQuart
  const ounce = system === 'us' ? ML_PER.usFlOz : ML_PER.impFlOz
  return volumeMl >= quart ? { name: 'qt', ml: quart } : { name: 'fl oz', ml: ounce }
}

/** A volume to three figures. */
export function formatVolume(volumeMl: number, system: UnitSystem): string {
  const { name, ml } = volumeUnit(volumeMl, system)
  return `${significant(volumeMl / ml, 3)} ${name}`
}

/** A volume and how far it may be off, in one unit and to one place: the range decides how many figures make sense. */
export function formatVolumeRange(
  volumeMl: number,
  plusMinusMl: number,
  system: UnitSystem,
): [string, string] {
  const { name, ml } = volumeUnit(volumeMl, system)
  const off = Math.max(plusMinusMl / ml, 1e-3)
  const lead = Math.floor(Math.log10(off))
  // One figure of the range, two where it begins with a one.
  const place = off / 10 ** lead < 2 ? lead - 1 : lead
  const decimals = Math.max(0, -place)
  const step = 10 ** place
  const show = (value: number) => `${fixed(Math.round(value / step) * step, decimals)} ${name}`
  return [show(volumeMl / ml), show(off)]
}

/** A volume that is only an estimate: two figures. */
export function formatRoughVolume(volumeMl: number, system: UnitSystem): string {
  const { name, ml } = volumeUnit(volumeMl, system)
  const value = volumeMl / ml
  const lead = value > 0 ? 10 ** (Math.floor(Math.log10(value)) - 1) : 1
  return `${Number((Math.round(value / lead) * lead).toPrecision(2))} ${name}`
}

/** An area to three figures. */
export function formatArea(areaMm2: number, system: UnitSystem): string {
  if (system === 'metric')
    return areaMm2 >= 0.1 * MM2_PER.m2
      ? `${significant(areaMm2 / MM2_PER.m2, 3)} m²`
      : `${significant(areaMm2 / MM2_PER.cm2, 3)} cm²`
  return areaMm2 >= MM2_PER.ft2
    ? `${significant(areaMm2 / MM2_PER.ft2, 3)} ft²`
    : `${significant(areaMm2 / MM2_PER.in2, 3)} in²`
}

/** Whole degrees: no bench thermometer here is better. */
export function formatTemp(tempC: number, system: UnitSystem): string {
  return system === 'us' ? `${fixed(fahrenheitFromCelsius(tempC), 0)} °F` : `${fixed(tempC, 0)} °C`
}

/** A difference of temperature. */
export function formatTempStep(stepC: number, system: UnitSystem): string {
  return system === 'us' ? `${fixed(stepC * 1.8, 0)} °F` : `${fixed(stepC, 0)} °C`
}

/** A length too short for a rule: two figures. */
export function formatShortLength(lengthMm: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(lengthMm, lengthMm < 0.095 ? 2 : 1)} mm`
  const inches = lengthMm / MM_PER.in
  return `${fixed(inches, inches < 0.0095 ? 4 : 3)} in`
}

const KG_M3_PER_LB_FT3 = GRAMS_PER.lb / ML_PER.ft3 / 1e-3

/** Three figures: densities here are good to about 3 %. */
export function formatDensity(densityKgM3: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(Math.round(densityKgM3 / 10) / 100, 2)} g/ml`
  return `${fixed(densityKgM3 / KG_M3_PER_LB_FT3, 0)} lb/ft³`
}

const PSI_PER_MPA = 145.037738

/** Strength as cubes in a press give it. */
export function formatStrength(strengthMPa: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(strengthMPa, 0)} MPa`
  return `${fixed(Math.round((strengthMPa * PSI_PER_MPA) / 100) * 100, 0)} psi`
}

/** Millimetres, or inches to the nearest sixteenth. */
export function formatLength(lengthMm: number, system: UnitSystem): string {
  if (system === 'metric') return `${fixed(lengthMm, lengthMm < 10 ? 1 : 0)} mm`
  const sixteenths = Math.round((lengthMm / MM_PER.in) * 16)
  const whole = Math.floor(sixteenths / 16)
  let top = sixteenths % 16
  if (top === 0) return `${whole} in`
  let bottom = 16
  while (top % 2 === 0) {
    top /= 2
    bottom /= 2
  }
  return `${whole === 0 ? '' : `${whole} `}${top}/${bottom} in`
}
