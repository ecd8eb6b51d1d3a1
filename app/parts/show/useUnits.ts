import {
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
  parseQuantity,
  type QuantityKind,
} from '#core/units'
import { useWorkshop } from '~/stores/workshop'

const DEFAULT_UNIT = {
  metric: { mass: 'g', volume: 'ml', length: 'mm', area: 'cm2', temp: 'c', number: '' },
  us: { mass: 'lb', volume: 'qt', length: 'in', area: 'in2', temp: 'f', number: '' },
  imperial: { mass: 'lb', volume: 'pt', length: 'in', area: 'in2', temp: 'c', number: '' },
} as const

/** Quantities in the units this workshop chose, with its own sign before decimals. */
export function useUnits() {
  const workshop = useWorkshop()
  const system = () => workshop.settings.system
  const own = (text: string) =>
    workshop.settings.decimalSign === 'comma' ? text.replaceAll(/(?<=\d)\.(?=\d)/g, ',') : text
  return {
    system,
    mass: (massG: number) => own(formatMass(massG, workshop.settings)),
    roughMass: (massG: number) => own(formatRoughMass(massG, workshop.settings)),
    massOther: (massG: number) => own(formatMassOther(massG, workshop.settings)),
    volume: (volumeMl: number) => own(formatVolume(volumeMl, system())),
    roughVolume: (volumeMl: number) => own(formatRoughVolume(volumeMl, system())),
    /** [volume, how far it may be off], to the figures that make sense. */
    volumeRange: (volumeMl: number, plusMinusMl: number) =>
      formatVolumeRange(volumeMl, plusMinusMl, system()).map(own) as [string, string],
    length: (lengthMm: number) => own(formatLength(lengthMm, system())),
    area: (areaMm2: number) => own(formatArea(areaMm2, system())),
    temp: (tempC: number) => own(formatTemp(tempC, system())),
    /** A difference of temperature. */
    tempStep: (stepC: number) => own(formatTempStep(stepC, system())),
    /** A growth or a bubble: too short for a rule. */
    shortLength: (lengthMm: number) => own(formatShortLength(lengthMm, system())),
    density: (densityKgM3: number) => own(formatDensity(densityKgM3, system())),
    strength: (strengthMPa: number) => own(formatStrength(strengthMPa, system())),
    /** A bare number with its digits as they are. */
    figure: own,
    parse: (text: string, kind: QuantityKind) =>
      parseQuantity(text, kind, DEFAULT_UNIT[system()][kind], workshop.settings),
    /** How this workshop writes, for reading what is typed. */
    habits: () => workshop.settings,
  }
}
