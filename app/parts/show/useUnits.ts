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
import { ownSign, plain } from './figures'
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
  return {
    system,
    mass: (massG: number) => ownSign(formatMass(massG, workshop.settings)),
    roughMass: (massG: number) => ownSign(formatRoughMass(massG, workshop.settings)),
    massOther: (massG: number) => ownSign(formatMassOther(massG, workshop.settings)),
    volume: (volumeMl: number) => ownSign(formatVolume(volumeMl, system())),
    roughVolume: (volumeMl: number) => ownSign(formatRoughVolume(volumeMl, system())),
    /** [volume, how far it may be off], to the figures that make sense. */
    volumeRange: (volumeMl: number, plusMinusMl: number) =>
      formatVolumeRange(volumeMl, plusMinusMl, system()).map(ownSign) as [string, string],
    length: (lengthMm: number) => ownSign(formatLength(lengthMm, system())),
    /** As somebody measured it by eye: no figure more than was said. */
    size: (lengthMm: number) =>
      system() === 'metric' ? `${plain(lengthMm, 1)} mm` : ownSign(formatLength(lengthMm, system())),
    area: (areaMm2: number) => ownSign(formatArea(areaMm2, system())),
    temp: (tempC: number) => ownSign(formatTemp(tempC, system())),
    /** A difference of temperature. */
    tempStep: (stepC: number) => ownSign(formatTempStep(stepC, system())),
    /** A growth or a bubble: too short for a rule. */
    shortLength: (lengthMm: number) => ownSign(formatShortLength(lengthMm, system())),
    density: (densityKgM3: number) => ownSign(formatDensity(densityKgM3, system())),
    strength: (strengthMPa: number) => ownSign(formatStrength(strengthMPa, system())),
    parse: (text: string, kind: QuantityKind) =>
      parseQuantity(text, kind, DEFAULT_UNIT[system()][kind], workshop.settings),
    /** How this workshop writes, for reading what is typed. */
    habits: () => workshop.settings,
  }
}
