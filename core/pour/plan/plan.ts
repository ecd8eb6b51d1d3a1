import type { Air, DryTarget, DryingSpot, Exposure } from '../../drying'
import { DEMOULD_RULES } from '../../demould'
import type { CauseId } from '../../finish'
import {
  AIR_TACTICS,
  airTactics,
  describeCavity,
  extentOf,
  mouldKindOf,
  preparationOf,
  type AirTactic,
  type CavityDescription,
  type MouldFacts,
  type MouldKind,
  type Preparation,
  type Purpose,
  type SpillMould,
} from '../../mould'
import type { WaterKind } from '../../plaster'
import { weakestProvenance, type Provenance } from '../../provenance'
import type { BatchLimits, LearntShare, RatioMethod, Scoop, SiftStage } from '../../mix'
import type { StirManner } from '../../setting'
import type { PlanPlaster } from './plaster'
import type { FillingWay, KnownStep, ScriptEdits } from './steps'

/** One mould of the plan as it was described when the plan was made; a set has several. */
export interface PlanMember {
  /** Its card on the shelf; null where it was described for this pour only. */
  mouldId: string | null
  name: string
  /** Nobody gave it a name: `name` only stands in. */
  unnamed?: boolean
  /** How many of it are filled. */
  count: number
  /** All of them together, ml. */
  cavityMl: number
  purpose: Purpose
  /** Thinnest part of the piece, mm, where its form is known. */
  thinnestMm: number | null
  facts: MouldFacts
  volume: CavityDescription
}

/** Sun on an open face, W/m² (common practice, no source): what a hazy and a clear day give at noon. */
export const SUN_W_M2 = { hazy: 450, full: 900 } as const
export type Sun = keyof typeof SUN_W_M2
export const SUNS = Object.keys(SUN_W_M2) as [Sun, ...Sun[]]

/** What one has to be gone for. */
export const DEADLINE_WHYS = ['tide', 'dusk', 'transport', 'other'] as const
export type DeadlineWhy = (typeof DEADLINE_WHYS)[number]

/** By when one must have left, with the cast. */
export interface Deadline {
  leaveAtMs: number
  why: DeadlineWhy
  /** It is lifted with the ground it lies in, and freed at home: then it need only have set. */
  withGround: boolean
}

/** How the powder meets the water. */
export const ADDING_WAYS = ['sifted', 'tipped_in', 'kneaded'] as const
export type AddingWay = (typeof ADDING_WAYS)[number]

/** How hot this bag gets, how whoever sifts sifts, and what the bowl gives, against the models. */
export interface PlanLearnt {
  heat?: LearntShare
  sprinkled?: LearntShare
  slurryYield?: LearntShare
}

/** Two taps, and what the mix is to come to. */
export interface WaterTaps {
  coldTempC: number
  hotTempC: number
  targetTempC: number
}

/**
 * What the caster decided, as a snapshot: nothing in it refers to a card that may change later.
 * Names and units are the ones stored and sent.
 */
export interface PourPlan {
  schemaVersion: 2
  piece: string
  mould: {
    name: string
    kind: MouldKind
    /** All moulds of the plan together, ml, and half its 80 % range. */
    cavityMl: number
    plusMinusMl?: number
    volumeProvenance: Provenance
    /** Thickness of the piece as it dries, mm; of a set, the thickest. */
    thicknessMm: number
    /** The moulds one by one; plans from before moulds were described have none. */
    members?: PlanMember[]
  }
  /** Small moulds kept ready for what is left over. */
  spill?: SpillMould[]
  plaster: PlanPlaster
  consistency: number
  ratioMethod: RatioMethod
  /** With what it is scooped, where the ratio is met by volume. */
  scoop?: Scoop
  /** To what look it is sifted, where the ratio is met by eye. */
  siftStage?: SiftStage
  /** How the job is cut into bowls; one bowl, large enough, where it is not given. */
  batching?: BatchLimits
  /** Sifted where it is not given. */
  addingWay?: AddingWay
  /** How the mould is filled; poured where it is not given. */
  filling?: FillingWay
  /** What the caster changed in the steps that follow from all this. */
  script?: ScriptEdits
  /** The recipe it was begun from, by the name it had. */
  recipe?: { recipeId: string; name: string }
  /** Made of what another pour left over: mixed with it, and nothing of it drawn from a bag anew. */
  leftoverOf?: { pourId: string; piece: string }
  /** Where the water is mixed from two taps; `waterTempC` is then what they give. */
  taps?: WaterTaps
  /** The water as it comes; soft where it is not given. Its effect is worked into the plaster's properties. */
  water?: WaterKind
  /** How many sift and pour at once; one where it is not given. */
  hands?: number
  sparePct: number
  airFraction: number
  waterTempC: number
  powderTempC: number
  /** Mould, or the ground that is the mould; as the air where it is not given. */
  mouldTempC?: number
  /** What shines on it while it sets; nothing where it is not given. */
  sun?: Sun
  soakS: number
  stirS: number
  stirManner: StirManner
  /** Air where it sets. */
  air: Air
  /** Where it is carried to dry; in the air it sets in where it is not given. */
  dryingPlace?: DryingSpot
  dryingExposure: Exposure
  dryTarget: DryTarget
  scaleDivisionG: number
  /** What the workshop's own pours have taught; bag, scoop and drying place keep theirs with them. */
  learnt?: PlanLearnt
  /** What went wrong with an earlier one, to be kept in mind where it can happen again. */
  heed?: CauseId[]
  /** By when one must have left with it; nothing presses where it is not given. */
  deadline?: Deadline
}

/** A mould to be poured, as its card or the caster describes it. */
export type DescribedMould = Pick<
  PlanMember,
  'mouldId' | 'name' | 'unnamed' | 'count' | 'purpose' | 'facts' | 'volume'
> & {
  thicknessMm: number
}

/** How much plaster lies over the print that this describes, mm; undefined where it is no print. */
export function coverOf(volume: CavityDescription): number | undefined {
  const covers = volume.parts.flatMap(({ method }) =>
    method.by === 'ground' || method.by === 'traced' ? [method.coverMm] : [],
  )
  return covers.length > 0 ? Math.max(...covers) : undefined
}

/** A print with so much plaster over it, and as much thinner or thicker for it; as it is where it is no print. */
export function covered<T extends Pick<DescribedMould, 'volume' | 'thicknessMm'>>(
  mould: T,
  coverMm: number,
): T {
  const was = coverOf(mould.volume)
  if (was === undefined) return mould
  const parts = mould.volume.parts.map((part) =>
    part.method.by === 'ground' || part.method.by === 'traced'
      ? { ...part, method: { ...part.method, coverMm } }
      : part,
  )
  return {
    ...mould,
    volume: { ...mould.volume, parts },
    thicknessMm: Math.max(1, mould.thicknessMm + coverMm - was),
  }
}

/**
 * The plan's mould from one or several described ones: volumes add up, the thickest piece decides drying, and the one
 * that must stay in longest decides demoulding. Undefined where one of them cannot be cast.
 */
export function planMould(moulds: readonly DescribedMould[]): PourPlan['mould'] | undefined {
  const described = moulds.map(({ mouldId, name, unnamed, count, purpose, facts, volume }) => {
    const result = describeCavity(volume)
    if (!result.ok) return undefined
    const { volumeMl, plusMinusMl, provenance, thinnestMm = null } = result.finding
    const member: PlanMember = {
      mouldId,
      name,
      ...(unnamed ? { unnamed } : {}),
      count,
      cavityMl: volumeMl * count,
      purpose,
      thinnestMm,
      facts,
      volume,
    }
    return { member, plusMinusMl: plusMinusMl * count, provenance }
  })
  const known = described.filter((d) => d !== undefined)
  if (known.length === 0 || known.length < moulds.length) return undefined
  const kinds = known.map(({ member }) => mouldKindOf(member.facts, member.volume))
  const patience = (kind: MouldKind) => DEMOULD_RULES[kind].floorMin + DEMOULD_RULES[kind].alpha
  return {
    name: known
      .map(({ member }) => (member.count === 1 ? member.name : `${member.name} × ${member.count}`))
      .join(' + ')
      .slice(0, 120),
    kind: kinds.reduce((a, b) => (patience(b) > patience(a) ? b : a)),
    cavityMl: known.reduce((sum, { member }) => sum + member.cavityMl, 0),
    plusMinusMl: Math.hypot(...known.map((d) => d.plusMinusMl)),
    volumeProvenance: weakestProvenance(known.map((d) => d.provenance)),
    thicknessMm: Math.max(...moulds.map((m) => m.thicknessMm)),
    members: known.map((d) => d.member),
  }
}

/** What is to be made ready before the water is weighed, for every mould of the plan. */
export function preparationsOf(plan: PourPlan): Preparation[] {
  const all = (plan.mould.members ?? []).map((m) => preparationOf(m.facts, m.volume))
  return [...new Set(all.flat())]
}

/** Ways of filling that the forms of the plan's moulds ask for. */
export function airTacticsOf(plan: PourPlan): AirTactic[] {
  const wanted = new Set((plan.mould.members ?? []).flatMap((m) => airTactics(m.facts)))
  return AIR_TACTICS.filter((t) => wanted.has(t))
}

/** Whether the powder goes in all at once, and should. */
export function goesInAtOnce(plan: Pick<PourPlan, 'addingWay' | 'plaster'>): boolean {
  // Plans from before the way was asked: filled mixes went in at once.
  return plan.addingWay === undefined ? plan.plaster.properties.fillerRatio > 0 : plan.addingWay !== 'sifted'
}

/**
 * Time until the powder is in, s for each g and at least (common practice): about a minute a kilogram when one sifts;
 * several sift at once.
 */
export function siftPace(plan: Pick<PourPlan, 'addingWay' | 'plaster' | 'hands'>): {
  siftSPerG: number
  leastSiftS: number
} {
  return goesInAtOnce(plan)
    ? { siftSPerG: 0, leastSiftS: 30 }
    : { siftSPerG: 0.06 / (plan.hands ?? 1), leastSiftS: 40 }
}

export function siftTimeS(plan: Pick<PourPlan, 'addingWay' | 'plaster' | 'hands'>, powderG: number): number {
  const { siftSPerG, leastSiftS } = siftPace(plan)
  return Math.max(leastSiftS, powderG * siftSPerG)
}

export function leavesOut(plan: Pick<PourPlan, 'script'>, step: KnownStep): boolean {
  return plan.script?.leftOut.includes(step) ?? false
}

/** A kneaded bag is not left to soak, nor is a bowl whose soak was left out. */
export function soakTimeS(plan: Pick<PourPlan, 'addingWay' | 'soakS' | 'script'>): number {
  return plan.addingWay === 'kneaded' || leavesOut(plan, 'soak') ? 0 : plan.soakS
}

/** Casts that this plan makes. */
export function castsOf(plan: PourPlan): number {
  return (plan.mould.members ?? []).reduce((sum, m) => sum + m.count * m.volume.cavities, 0) || 1
}

/** Deepest the slurry stands, mm: what a bubble has to climb. The piece's thickness where no form tells. */
export function depthOf(plan: PourPlan): number {
  const depths = (plan.mould.members ?? []).map((m) => extentOf(m.volume)?.depthMm)
  return Math.max(0, ...depths.map((d) => d ?? 0)) || plan.mould.thicknessMm
}

/** Longest side of the pieces, mm; undefined where no form tells. */
export function longestSideOf(plan: PourPlan): number | undefined {
  const sides = (plan.mould.members ?? []).map((m) => extentOf(m.volume)?.longestMm)
  const known = sides.filter((s) => s !== undefined)
  return known.length === 0 ? undefined : Math.max(...known)
}
