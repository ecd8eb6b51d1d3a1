import type { Provenance, Sourced } from '../provenance'

export const PLASTER_CLASS_IDS = [
  'pop',
  'pottery',
  'gc',
  'lowexp',
  'hsgc',
  'dental2',
  'dental3',
  'dental4',
  'investment',
] as const
export type PlasterClassId = (typeof PLASTER_CLASS_IDS)[number]

/** How powder got into the measure: shaken through a sieve, dug out with the scoop, or knocked down. */
export const PACKINGS = ['sifted', 'scooped', 'tapped'] as const
export type Packing = (typeof PACKINGS)[number]

type Spread = Sourced & { low: number; high: number }

/** Everything the models need to know of a powder, each value with its range and where it came from. */
export interface PlasterClass {
  id: PlasterClassId
  /** Crystal form of the hemihydrate: decides density, heat and how it packs. */
  form: 'alpha' | 'beta'
  /** Parts of water to 100 parts of plaster by weight. Range: where the class is normally used. */
  consistency: Sourced & { low: number; high: number }
  /** Consistency, as the plaster itself feels it, at which halfHydrationMin holds. Differs only for filled mixes. */
  referenceConsistency: number
  particleDensityKgM3: Sourced
  /** Hemihydrate as a mass fraction of the powder, 0–1. */
  hemihydrateFraction: Sourced
  /** Linear setting expansion, % of length. */
  expansionPct: Sourced
  /** Equivalent age at half hydration, min at 20 °C, hand mixed 2 min at the class's consistency. */
  halfHydrationMin: Sourced
  /** Dry strength against the common porosity curve, dimensionless. */
  strengthFactor: Sourced
  /** Bulk density of the powder by how it was measured out, kg/m³. */
  bulkDensityKgM3: Readonly<Record<Packing, Spread>>
  /** Bulk density of the bed that settles under water when it is sprinkled in, kg/m³. */
  settledDensityKgM3: Spread
  /** Inert filler, kg for each kg of plaster powder, and its particle density. 0 where there is none. */
  fillerRatio: number
  fillerDensityKgM3: number
}

const MAKERS: Provenance = {
  kind: 'class_default',
  source: 'typical published maker’s data, from memory',
}
const HANDBOOK: Provenance = {
  kind: 'class_default',
  source: 'Ullmann’s Encyclopedia, calcium sulfate; CRC Handbook; from memory',
}
const ESTIMATE: Provenance = {
  kind: 'class_default',
  source: 'estimate tuned to published setting times; no source',
}
const STRENGTH: Provenance = {
  kind: 'class_default',
  source: 'residual of published class strengths against porosity',
}

const POWDER_DENSITY = {
  beta: { value: 2640, low: 2600, high: 2680, provenance: HANDBOOK },
  alpha: { value: 2740, low: 2700, high: 2760, provenance: HANDBOOK },
} as const

/** kg/m³. Scoop habits differ by about 13 %; the middle of scooped is the figure to use. */
const spread = (low: number, high: number): Spread => ({
  value: (low + high) / 2,
  low,
  high,
  provenance: ESTIMATE,
})
const PACKS = {
  beta: {
    bulk: { sifted: spread(600, 750), scooped: spread(750, 950), tapped: spread(1050, 1250) },
    settled: spread(850, 1050),
  },
  alpha: {
    bulk: { sifted: spread(800, 950), scooped: spread(950, 1150), tapped: spread(1300, 1500) },
    settled: spread(1200, 1450),
  },
  dense: {
    bulk: { sifted: spread(850, 1000), scooped: spread(1000, 1200), tapped: spread(1350, 1600) },
    settled: spread(1350, 1600),
  },
}

type Row = [
  form: 'alpha' | 'beta',
  consistency: [use: number, low: number, high: number],
  hemihydrateFraction: number,
  expansionPct: number,
  halfHydrationMin: number,
  strengthFactor: number,
  packs: keyof typeof PACKS,
  fillerRatio: number,
]

const ROWS: Record<PlasterClassId, Row> = {
  pop: ['beta', [60, 45, 100], 0.95, 0.2, 23, 0.95, 'beta', 0],
  pottery: ['beta', [70, 55, 100], 0.97, 0.2, 32, 1.05, 'beta', 0],
  gc: ['alpha', [45, 36, 60], 0.97, 0.39, 23, 1.0, 'alpha', 0],
  lowexp: ['alpha', [38, 34, 45], 0.93, 0.08, 30, 0.9, 'alpha', 0],
  hsgc: ['alpha', [32, 26, 40], 0.97, 0.24, 22, 1.1, 'dense', 0],
  dental2: ['beta', [50, 42, 60], 0.95, 0.2, 17, 0.9, 'beta', 0],
  dental3: ['alpha', [30, 26, 36], 0.96, 0.12, 15, 0.7, 'dense', 0],
  dental4: ['alpha', [23, 20, 27], 0.96, 0.08, 14, 0.9, 'dense', 0],
  // 1 : 1 : 1 by weight, so 100 parts of water to 100 of plaster; strength halves again with the silica.
  investment: ['beta', [100, 90, 110], 0.95, 0.2, 23, 0.475, 'beta', 1],
}

export const SILICA_DENSITY_KG_M3 = 2650

/** The plaster in the investment is plaster of Paris: its setting time is stated at that class's consistency. */
const INVESTMENT_REFERENCE_CONSISTENCY = 60

function classFromRow(id: PlasterClassId): PlasterClass {
  const [form, [use, low, high], fraction, expansionPct, halfHydrationMin, strengthFactor, packs, filler] =
    ROWS[id]
  return {
    id,
    form,
    consistency: { value: use, low, high, provenance: MAKERS },
    referenceConsistency: filler > 0 ? INVESTMENT_REFERENCE_CONSISTENCY : use,
    particleDensityKgM3: POWDER_DENSITY[form],
    hemihydrateFraction: {
      value: fraction,
      low: fraction - 0.03,
      high: Math.min(1, fraction + 0.03),
      provenance: ESTIMATE,
    },
    expansionPct: { value: expansionPct, provenance: MAKERS },
    halfHydrationMin: {
      value: halfHydrationMin,
      low: halfHydrationMin * 0.7,
      high: halfHydrationMin * 1.3,
      provenance: ESTIMATE,
    },
    strengthFactor: { value: strengthFactor, provenance: STRENGTH },
    bulkDensityKgM3: PACKS[packs].bulk,
    settledDensityKgM3: PACKS[packs].settled,
    fillerRatio: filler,
    fillerDensityKgM3: SILICA_DENSITY_KG_M3,
  }
}

/** The class table, in the order a caster meets them. Status and origin of every value: docs/science.md. */
export const PLASTER_CLASSES: readonly PlasterClass[] = PLASTER_CLASS_IDS.map(classFromRow)

export function plasterClass(id: PlasterClassId): PlasterClass {
  return PLASTER_CLASSES.find((c) => c.id === id)!
}
