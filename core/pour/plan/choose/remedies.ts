import { blend, type Addition } from '../../../plaster'
import { evaluatePlan, type PlanOutcome } from './evaluatePlan'
import { consistencySpan } from './compare'
import { soakTimeS, type PourPlan } from '../plan'

/** What gives time to pour, in the order a caster tries it. */
export const REMEDY_IDS = [
  'colder_water',
  'shorter_stir',
  'shorter_soak',
  'smaller_bowls',
  'more_hands',
  'thinner',
  'retarder',
] as const
export type RemedyId = (typeof REMEDY_IDS)[number]

/** What a remedy changes of the plan, in the plan's own terms. */
export type RemedyChange =
  | { id: 'colder_water'; waterTempC: number }
  | { id: 'shorter_stir'; stirS: number }
  | { id: 'shorter_soak'; soakS: number }
  | { id: 'smaller_bowls'; count: number }
  | { id: 'more_hands'; hands: number }
  | { id: 'thinner'; consistency: number }
  | { id: 'retarder'; additions: Addition[] }

/** A figure before and after. */
export interface Effect {
  from: number
  to: number
}

/** One way out, with what it gains and what it costs. */
export interface Remedy {
  change: RemedyChange
  /** Time to pour, early end, s. */
  pourS: Effect
  /** Pouring then fits. */
  enough: boolean
  bowls: Effect
  /** When it may come out, s since mid-sprinkle. */
  demouldS: Effect
  dryMPa: Effect
  /** Longer stirring frees it of lumps; less leaves some (common practice). */
  lumps: boolean
}

const COLDER_C = 10
const COLDEST_WATER_C = 4
const LEAST_STIR_S = 60
const LEAST_SOAK_S = 60
const THINNER_BY = 0.1
/**
 * Weighable on a bench scale, and enough that its own uncertainty does not eat up what it gains: the second step of its
 * table (docs/science.md#additions).
 */
const RETARDER: Addition = { id: 'borax', pct: 0.5 }
/** A gain smaller than this is no remedy, s. */
const LEAST_GAIN_S = 10

/** The plan with a remedy taken. */
function withChange(plan: PourPlan, change: RemedyChange): PourPlan {
  switch (change.id) {
    case 'colder_water': {
      const untapped = { ...plan, waterTempC: change.waterTempC }
      delete untapped.taps
      return untapped
    }
    case 'shorter_stir':
      return { ...plan, stirS: change.stirS }
    case 'shorter_soak':
      return { ...plan, soakS: change.soakS }
    case 'more_hands':
      return { ...plan, hands: change.hands }
    case 'thinner':
      return { ...plan, consistency: change.consistency }
    case 'smaller_bowls':
      return {
        ...plan,
        batching: {
          bowl: null,
          pourRateMlMin: null,
          scaleCapacityG: null,
          ...plan.batching,
          split: { by: 'bowls', count: change.count },
        },
      }
    case 'retarder': {
      const { plaster } = plan
      // The plan's values have all else worked in already: only the retarder is laid over them.
      return {
        ...plan,
        plaster: {
          ...plaster,
          additions: change.additions,
          properties: blend(plaster.properties, [RETARDER]),
        },
      }
    }
  }
}

/** Changes worth trying for this plan, whatever they come to. */
function changesFor(plan: PourPlan, outcome: PlanOutcome): RemedyChange[] {
  const changes: RemedyChange[] = []
  const coldC = Math.max(COLDEST_WATER_C, plan.waterTempC - COLDER_C)
  if (coldC < plan.waterTempC - 1) changes.push({ id: 'colder_water', waterTempC: coldC })
  const stirS = Math.max(LEAST_STIR_S, plan.stirS / 2)
  if (stirS < plan.stirS) changes.push({ id: 'shorter_stir', stirS })
  const soaks = soakTimeS(plan) > LEAST_SOAK_S
  if (soaks) changes.push({ id: 'shorter_soak', soakS: Math.max(LEAST_SOAK_S, plan.soakS / 2) })
  const by = plan.batching?.split.by ?? 'need'
  const count = outcome.batching.batches.length * 2
  if ((by === 'need' || by === 'bowls') && count <= 60) changes.push({ id: 'smaller_bowls', count })
  if ((plan.hands ?? 1) < 6) changes.push({ id: 'more_hands', hands: (plan.hands ?? 1) + 1 })
  const thin = Math.min(plan.plaster.properties.consistencyHigh, plan.consistency * (1 + THINNER_BY))
  const consistency = Math.min(consistencySpan(plan).max, Math.round(thin))
  if (consistency > plan.consistency + 0.5) changes.push({ id: 'thinner', consistency })
  const { additions = [] } = plan.plaster
  if (!additions.some((a) => a.id === RETARDER.id))
    changes.push({ id: 'retarder', additions: [...additions, RETARDER] })
  return changes
}

/**
 * What would help where soak, stirring and pouring do not fit the working time: each by itself, fully worked out, those
 * that gain nothing left out. Empty where the time is enough.
 */
export function remediesFor(plan: PourPlan, outcome: PlanOutcome): Remedy[] {
  if (outcome.pourWindowS.low >= outcome.pourNeedsS) return []
  return changesFor(plan, outcome).flatMap((change): Remedy[] => {
    const after = evaluatePlan(withChange(plan, change))
    if (!after.ok) return []
    const of = (figure: (o: PlanOutcome) => number): Effect => ({
      from: figure(outcome),
      to: figure(after.outcome),
    })
    const pourS = of((o) => o.pourWindowS.low)
    // Less to pour, or more hands to pour it, is time gained as well.
    const gainS = pourS.to - pourS.from + outcome.pourNeedsS - after.outcome.pourNeedsS
    if (gainS < LEAST_GAIN_S) return []
    return [
      {
        change,
        pourS,
        enough: after.outcome.pourWindowS.low >= after.outcome.pourNeedsS,
        bowls: of((o) => o.batching.batches.length),
        demouldS: of((o) => o.demould.recommendedS),
        dryMPa: of((o) => o.strength.dry.mid),
        lumps: change.id === 'shorter_stir' || change.id === 'shorter_soak',
      },
    ]
  })
}
