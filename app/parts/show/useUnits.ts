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
  type ParsedQuantity,
  type QuantityKind,
  type QuantityReading,
} from '#core/units'
import { waterDensityKgM3 } from '#core/mix'
import { ownSign, plain } from './figures'
import { useWorkshop } from '~/stores/workshop'

/** As it is in a workshop. */
const WATER_G_PER_ML = waterDensityKgM3(20) / 1000

const DEFAULT_UNIT = {
  metric: { mass: 'g', volume: 'ml', length: 'mm', area: 'cm2', temp: 'c', number: '' },
  us: { mass: 'lb', volume: 'qt', length: 'in', area: 'in2', temp: 'f', number: '' },
  imperial: { mass: 'lb', volume: 'pt', length: 'in', area: 'in2', temp: 'c', number: '' },
} as const

/** Quantities in the units this workshop chose, with its own sign before decimals. */
export function useUnits() {
  const workshop = useWorkshop()
  const system = () => workshop.settings.system
  const parse = (text: string, kind: QuantityKind) =>
    parseQuantity(text, kind, DEFAULT_UNIT[system()][kind], workshop.settings)
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
    parse,
    /** Of water a volume says the mass, and a mass the volume: in whichever it was measured. */
    parseWater(text: string, kind: 'mass' | 'volume'): ParsedQuantity {
      const read = parse(text, kind)
      if (read.ok || read.code !== 'wrong_kind_of_unit') return read
      const other = parse(text, kind === 'mass' ? 'volume' : 'mass')
      const turned = (r: QuantityReading) => ({
        ...r,
        value: kind === 'mass' ? r.value * WATER_G_PER_ML : r.value / WATER_G_PER_ML,
      })
      if (other.ok) return { ok: true, ...turned(other) }
      return other.code === 'ambiguous' ? { ...other, readings: other.readings.map(turned) } : read
    },
    /** How this workshop writes, for reading what is typed. */
    habits: () => workshop.settings,
  }
}
