import type { DryTarget, Air } from '../drying'
import { DEMOULD_RULES } from '../demould'
import {
  airTactics,
  describeCavity,
  mouldKindOf,
  preparationOf,
  type AirTactic,
  type CavityDescription,
  type MouldFacts,
  type MouldKind,
  type Preparation,
  type Purpose,
  type SpillMould,
} from '../mould'
import type { PlasterProperties } from '../plaster'
import { weakestProvenance, type Provenance } from '../provenance'
import type { RatioMethod, Scoop, SiftStage } from '../mix'
import type { StirManner } from '../setting'

/** One mould of the plan as it was described when the plan was made; a set has several. */
export interface PlanMember {
  /** Its card on the shelf; null where it was described for this pour only. */
  mouldId: string | null
  name: string
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

/**
 * What the caster decided, as a snapshot: nothing in it refers to a card that may change later.
 * Names and units are the ones stored and sent.
 */
export interface PourPlan {
  schemaVersion: 1
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
  plaster: { name: string; properties: PlasterProperties }
  consistency: number
  ratioMethod: RatioMethod
  /** With what it is scooped, where the ratio is met by volume. */
  scoop?: Scoop
  /** To what look it is sifted, where the ratio is met by eye. */
  siftStage?: SiftStage
  sparePct: number
  airFraction: number
  waterTempC: number
  powderTempC: number
  soakS: number
  stirS: number
  stirManner: StirManner
  /** Air where it sets and dries. */
  air: Air
  dryingExposure: 'both_faces' | 'one_face'
  dryTarget: DryTarget
  scaleDivisionG: number
}

/** A mould to be poured, as its card or the caster describes it. */
export type DescribedMould = Pick<
  PlanMember,
  'mouldId' | 'name' | 'count' | 'purpose' | 'facts' | 'volume'
> & {
  thicknessMm: number
}

/**
 * The plan's mould from one or several described ones: volumes add up, the thickest piece decides drying, and the one
 * that must stay in longest decides demoulding. Undefined where one of them cannot be cast.
 */
export function planMould(moulds: readonly DescribedMould[]): PourPlan['mould'] | undefined {
  const described = moulds.map(({ mouldId, name, count, purpose, facts, volume }) => {
    const result = describeCavity(volume)
    if (!result.ok) return undefined
    const { volumeMl, plusMinusMl, provenance, thinnestMm = null } = result.finding
    const member: PlanMember = {
      mouldId,
      name,
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
  return airTactics((plan.mould.members ?? []).flatMap((m) => m.facts.airTraps))
}

/** Time to sift a batch in, s: about a minute a kilogram, never under 40 s; filled mixes go in at once (common practice). */
export function siftTimeS(powderG: number, fillerRatio: number): number {
  return fillerRatio > 0 ? 30 : Math.max(40, (powderG / 1000) * 60)
}

/** Tapping after filling, s (common practice: about a minute). */
export const TAP_TIME_S = 60
