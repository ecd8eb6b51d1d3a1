import type { Issue } from '../errors'
import { logNormalRange, type Range } from '../provenance'
import { UNSEEN_BAG_SIGMA_LN, type PlasterProperties } from './properties'

/** What goes into a mix besides plaster and water. */
export const ADDITION_IDS = [
  'silica',
  'sand',
  'fibre',
  'pigment',
  'acrylic',
  'liquid_paint',
  'salt',
  'potassium_sulfate',
  'set_gypsum',
  'borax',
  'citric_acid',
  'gelatine',
] as const
export type AdditionId = (typeof ADDITION_IDS)[number]

export interface Addition {
  id: AdditionId
  /** Percent by weight of the plaster, or of the water, as ADDITIONS says. */
  pct: number
}

export type AdditionIssueCode =
  | 'pigment_above_limit'
  | 'liquid_paint_splits'
  | 'retarder_weakens'
  | 'surface_stays_soft'
  | 'salt_rusts_and_blooms'
  | 'addition_beyond_known'

type Point = readonly [pct: number, multiplier: number]

interface AdditionNature {
  of: 'powder' | 'water'
  /** Goes in dry with the plaster, or dissolved or stirred into the water first. */
  into: 'powder' | 'water'
  maxPct: number
  /** Solid that takes up room and stays: its density, kg/m³, and share of what is weighed. */
  solid?: { densityKgM3: number; share: number }
  /** Dissolves, and stays in the piece: its own density, kg/m³. */
  dissolvesKgM3?: number
  /** Share of what is weighed that is water and counts as such. */
  waterShare?: number
  /** Multiplier on setting time at percentages in order; log-linear between them, held beyond the last. */
  timing?: { points: readonly Point[]; sigmaLn: number }
  /** Halves strength at equal weight with the plaster. */
  inert?: boolean
  caution?: { code: AdditionIssueCode; abovePct: number }
}

/** Less of anything than this is not put in, %. */
export const LEAST_ADDITION_PCT = 0.001

const setGypsum = (pct: number): Point => [pct, Math.max(0.4, (1 + 8 * pct) ** -0.3)]

/** Sizes of effects are estimates, directions from the dental and cement literature (docs/science.md#additions). */
export const ADDITIONS: Readonly<Record<AdditionId, AdditionNature>> = {
  silica: {
    of: 'powder',
    into: 'powder',
    maxPct: 300,
    solid: { densityKgM3: 2650, share: 1 },
    inert: true,
  },
  sand: { of: 'powder', into: 'powder', maxPct: 300, solid: { densityKgM3: 2650, share: 1 }, inert: true },
  fibre: { of: 'powder', into: 'powder', maxPct: 3, solid: { densityKgM3: 2600, share: 1 } },
  pigment: {
    of: 'powder',
    into: 'powder',
    maxPct: 20,
    solid: { densityKgM3: 4000, share: 1 },
    inert: true,
    caution: { code: 'pigment_above_limit', abovePct: 5 },
  },
  acrylic: {
    of: 'powder',
    into: 'water',
    maxPct: 40,
    solid: { densityKgM3: 1100, share: 0.5 },
    waterShare: 0.5,
    timing: {
      points: [
        [5, 1.07],
        [20, 1.14],
      ],
      sigmaLn: 0.1,
    },
  },
  liquid_paint: {
    of: 'powder',
    into: 'water',
    maxPct: 20,
    solid: { densityKgM3: 1800, share: 0.5 },
    waterShare: 0.5,
    caution: { code: 'liquid_paint_splits', abovePct: 0 },
  },
  salt: {
    of: 'water',
    into: 'water',
    maxPct: 6,
    dissolvesKgM3: 2165,
    timing: {
      points: [
        [0.5, 0.85],
        [1, 0.75],
        [2, 0.65],
        [5, 1],
      ],
      // Some sources mean percent of the powder: both are inside this.
      sigmaLn: 0.3,
    },
    caution: { code: 'salt_rusts_and_blooms', abovePct: 0 },
  },
  potassium_sulfate: {
    of: 'water',
    into: 'water',
    maxPct: 4,
    dissolvesKgM3: 2660,
    timing: {
      points: [
        [0.5, 0.75],
        [1, 0.6],
        [2, 0.4],
      ],
      sigmaLn: 0.2,
    },
  },
  set_gypsum: {
    of: 'powder',
    into: 'powder',
    maxPct: 5,
    solid: { densityKgM3: 2320, share: 1 },
    timing: { points: [0.05, 0.1, 0.25, 0.5, 1, 2, 5].map(setGypsum), sigmaLn: 0.2 },
  },
  borax: {
    of: 'powder',
    into: 'water',
    maxPct: 2,
    dissolvesKgM3: 1730,
    timing: {
      points: [
        [0.2, 1.3],
        [0.5, 1.7],
        [1, 2.5],
        [2, 4],
      ],
      sigmaLn: 0.4,
    },
    caution: { code: 'addition_beyond_known', abovePct: 1 },
  },
  citric_acid: {
    of: 'powder',
    into: 'water',
    maxPct: 0.3,
    dissolvesKgM3: 1665,
    timing: {
      points: [
        [0.02, 1.3],
        [0.05, 2.2],
        [0.1, 4],
        [0.2, 6],
      ],
      sigmaLn: 0.5,
    },
    caution: { code: 'retarder_weakens', abovePct: 0 },
  },
  gelatine: {
    of: 'powder',
    into: 'water',
    maxPct: 1,
    dissolvesKgM3: 1350,
    timing: {
      points: [
        [0.1, 1.5],
        [0.25, 2.5],
      ],
      sigmaLn: 0.5,
    },
    caution: { code: 'surface_stays_soft', abovePct: 0 },
  },
}

/** Multiplier on setting time of one addition: 1 at nothing, log-linear between its points, held beyond the last. */
function timingMultiplier(points: readonly Point[], pct: number): number {
  let [fromPct, fromLn] = [0, 0]
  for (const [toPct, multiplier] of points) {
    const toLn = Math.log(multiplier)
    if (pct <= toPct) return Math.exp(fromLn + ((toLn - fromLn) * (pct - fromPct)) / (toPct - fromPct))
    ;[fromPct, fromLn] = [toPct, toLn]
  }
  return Math.exp(fromLn)
}

/** What an addition does to the setting time, as a multiplier with its 80 % range; undefined where it does nothing known. */
export function timingOf({ id, pct }: Addition): Range | undefined {
  const { timing } = ADDITIONS[id]
  return timing && logNormalRange(timingMultiplier(timing.points, pct), timing.sigmaLn)
}

/** The water as it comes. */
export const WATER_KINDS = ['soft', 'hard', 'sea'] as const
export type WaterKind = (typeof WATER_KINDS)[number]

/** Salts in sea water, % by weight. */
const SEA_SALT_PCT = 3.5
/** Hard tap water sets it in .93–1 of the time (estimate). */
const HARD_WATER = { multiplier: 0.965, sigmaLn: 0.03 }

/** What goes in, the salt of sea water with it. */
function withWater(additions: readonly Addition[], water: WaterKind): Addition[] {
  const used = additions.filter((a) => a.pct > 0)
  if (water !== 'sea') return used
  const salt = used.find((a) => a.id === 'salt')?.pct ?? 0
  return [...used.filter((a) => a.id !== 'salt'), { id: 'salt', pct: salt + SEA_SALT_PCT }]
}

/**
 * The powder as the mix will feel it: fillers share the water and the room, a dispersion brings water of its own, salts
 * and retarders move the clock and make it less certain, and so does the water as it comes. Nothing added to soft water
 * gives the same values back.
 */
export function blend(
  base: PlasterProperties,
  additions: readonly Addition[],
  water: WaterKind = 'soft',
): PlasterProperties {
  const used = withWater(additions, water)
  if (used.length === 0 && water === 'soft') return base
  let fillerRatio = base.fillerRatio
  let fillerMlPerG = base.fillerRatio / base.fillerDensityKgM3
  let dryAddRatio = base.dryAddRatio ?? base.fillerRatio
  let inertRatio = 0
  let admixWaterRatio = base.admixWaterRatio ?? 0
  let multiplier = water === 'hard' ? HARD_WATER.multiplier : 1
  let variance = (base.timeSigmaLn ?? UNSEEN_BAG_SIGMA_LN) ** 2
  if (water === 'hard') variance += HARD_WATER.sigmaLn ** 2
  const dissolved = { gPerPowder: 0, mlPerPowder: 0, gPerWater: 0, mlPerWater: 0, ...base.dissolved }
  for (const { id, pct } of used) {
    const { solid, waterShare = 0, timing, inert, into, of, dissolvesKgM3 } = ADDITIONS[id]
    const ratio = pct / 100
    if (solid) {
      fillerRatio += ratio * solid.share
      fillerMlPerG += (ratio * solid.share) / solid.densityKgM3
    }
    if (inert) inertRatio += ratio
    if (into === 'powder') dryAddRatio += ratio
    admixWaterRatio += ratio * waterShare
    if (dissolvesKgM3 !== undefined) {
      const ml = (1000 * ratio) / dissolvesKgM3
      if (of === 'powder') {
        dissolved.gPerPowder += ratio
        dissolved.mlPerPowder += ml
      } else {
        dissolved.gPerWater += ratio
        dissolved.mlPerWater += ml
      }
    }
    if (timing) {
      multiplier *= timingMultiplier(timing.points, pct)
      variance += timing.sigmaLn ** 2
    }
  }
  // Solids want water of their own: what counts as stiff or thin moves with them, as effectiveConsistency has it.
  const share = (ratio: number, mlPerG: number) =>
    1 + 0.6 * (ratio > 0 ? base.particleDensityKgM3 * mlPerG : 0)
  const thirst =
    share(fillerRatio, fillerMlPerG) / share(base.fillerRatio, base.fillerRatio / base.fillerDensityKgM3)
  return {
    ...base,
    useConsistency: base.useConsistency * thirst,
    consistencyLow: base.consistencyLow * thirst,
    consistencyHigh: base.consistencyHigh * thirst,
    fillerRatio,
    fillerDensityKgM3: fillerRatio > 0 ? fillerRatio / fillerMlPerG : base.fillerDensityKgM3,
    strengthFactor: base.strengthFactor * 0.5 ** inertRatio,
    admixWaterRatio,
    dryAddRatio,
    ...(dissolved.gPerPowder > 0 || dissolved.gPerWater > 0 ? { dissolved } : {}),
    halfHydrationMin: base.halfHydrationMin * multiplier,
    timeSigmaLn: Math.sqrt(variance),
  }
}

export interface AdditionMass extends Addition {
  massG: number
  into: 'powder' | 'water'
}

/** What to weigh of each addition, g, for a batch of this much plaster and water. */
export function weighAdditions(
  additions: readonly Addition[],
  powderG: number,
  waterG: number,
): AdditionMass[] {
  return additions
    .filter((a) => a.pct > 0)
    .map((a) => {
      const { of, into } = ADDITIONS[a.id]
      return { ...a, into, massG: ((of === 'powder' ? powderG : waterG) * a.pct) / 100 }
    })
}

/** What the caster should hear about what goes in. */
export function checkAdditions(
  additions: readonly Addition[],
  water: WaterKind = 'soft',
): Issue<AdditionIssueCode>[] {
  return withWater(additions, water).flatMap(({ id, pct }) => {
    const { caution } = ADDITIONS[id]
    if (!caution || !(pct > caution.abovePct)) return []
    return [
      {
        code: caution.code,
        severity: 'warning' as const,
        path: 'plaster.additions',
        actual: pct,
        limit: caution.abovePct,
        unit: '%',
      },
    ]
  })
}
