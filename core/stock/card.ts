import { compressiveStrengthMPa, mixProperties } from '../mix'
import { plasterClass, plasterProperties, type PlasterClassId, type PlasterProperties } from '../plaster'
import type { Provenance, Sourced } from '../provenance'
import { isothermalSetting } from '../setting'

/** Which moment the label's setting time means. */
export const SET_TESTS = ['initial', 'vicat', 'final'] as const
export type SetTest = (typeof SET_TESTS)[number]

/** What a bag's label says, null where it is silent; the class speaks for the rest. */
export interface CardLabel {
  classId: PlasterClassId
  consistency: number | null
  /** Where the label prints a range. */
  range: { low: number; high: number } | null
  setMin: number | null
  setTest: SetTest
  expansionPct: number | null
  /** Dry compressive strength, MPa. */
  dryStrengthMPa: number | null
}

/** A label's setting time holds at its consistency, near 20 °C, stirred by hand for two minutes. */
function halfHydrationFromLabel(label: CardLabel, at: PlasterProperties): number | undefined {
  if (label.setMin === null) return undefined
  const forecast = isothermalSetting({
    plaster: at,
    consistency: at.useConsistency,
    mixTempC: 20,
    stirS: 120,
    stirManner: 'hand',
    restS: 0,
    ratioSigmaLn: 0.02,
  })
  const event = { initial: 'initial_set', vicat: 'vicat_set', final: 'final_set' } as const
  const modelMin = forecast.timeS[event[label.setTest]].mid / 60
  return Math.min(240, Math.max(2, (at.halfHydrationMin * label.setMin) / modelMin))
}

function strengthFromLabel(label: CardLabel, at: PlasterProperties): number | undefined {
  if (label.dryStrengthMPa === null) return undefined
  const { porosity } = mixProperties({
    plaster: at,
    consistency: at.useConsistency,
    waterTempC: 20,
    airFraction: 0.01,
  })
  return Math.min(3, Math.max(0.05, label.dryStrengthMPa / compressiveStrengthMPa(porosity, 1).dry.mid))
}

/** The class's values with the label's laid over them: its ratio first, since its time and strength hold at that. */
export function propertiesOfCard(label: CardLabel): PlasterProperties {
  const ratio = {
    ...(label.consistency !== null ? { useConsistency: label.consistency } : {}),
    ...(label.expansionPct !== null ? { expansionPct: label.expansionPct } : {}),
  }
  const at = plasterProperties(label.classId, ratio)
  const halfHydrationMin = halfHydrationFromLabel(label, at)
  const strengthFactor = strengthFromLabel(label, at)
  return {
    ...at,
    ...(halfHydrationMin !== undefined ? { halfHydrationMin } : {}),
    ...(strengthFactor !== undefined ? { strengthFactor } : {}),
  }
}

/** A card that says nothing but its class. */
export function labelOfClass(classId: PlasterClassId): CardLabel {
  return {
    classId,
    consistency: null,
    range: null,
    setMin: null,
    setTest: 'vicat',
    expansionPct: null,
    dryStrengthMPa: null,
  }
}

export interface SourcedValue extends Sourced {
  what:
    | 'consistency'
    | 'half_set'
    | 'expansion'
    | 'strength'
    | 'hemihydrate'
    | 'grain_density'
    | 'scoop_density'
}

/** Every value of a card with its range and origin, in the order a caster asks for them. */
export function sourcesOfCard(label: CardLabel): SourcedValue[] {
  const c = plasterClass(label.classId)
  const p = propertiesOfCard(label)
  const from = (what: SourcedValue['what'], said: unknown, ofClass: Sourced, value: number): SourcedValue => {
    const provenance: Provenance = said === null ? ofClass.provenance : { kind: 'label' }
    return said === null ? { what, ...ofClass, value } : { what, value, provenance }
  }
  return [
    { ...from('consistency', label.consistency, c.consistency, p.useConsistency), ...label.range },
    from('half_set', label.setMin, c.halfHydrationMin, p.halfHydrationMin),
    from('expansion', label.expansionPct, c.expansionPct, p.expansionPct),
    from('strength', label.dryStrengthMPa, c.strengthFactor, p.strengthFactor),
    from('hemihydrate', null, c.hemihydrateFraction, p.hemihydrateFraction),
    from('grain_density', null, c.particleDensityKgM3, p.particleDensityKgM3),
    from('scoop_density', null, c.bulkDensityKgM3.scooped, c.bulkDensityKgM3.scooped.value),
  ]
}
