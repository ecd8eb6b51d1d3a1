import { weighOutFromMasses, type Batch, type BatchPlan, type WeighOut } from '../../mix'
import { classValuesOf, type ClassValues } from './mix/classValues'
import { batchesOf, mixInputOf } from './mix/mixing'
import type { PourPlan } from './plan'
import { stepsOf } from './script'
import type { PlanStep } from './steps'

/**
 * Counts changes of the models that change what a plan comes to. A pour keeps the number it was planned with.
 * 1: bowls by the whole job's working time. 2: by each bowl's own. 3: coats with each bowl that fills moulds of its own;
 * extraction looked at for silica alone.
 */
export const MODEL_VERSION = 3

/** What a plan said would be, by the models of its day and all that was learnt by then, s since mid-sprinkle. */
export interface PlanPromise {
  /** Half of it lies before mid-sprinkle. */
  siftS: number
  workEndS: number
  outS: number
}

/** What was planned, as it was taken to the bench: a better model never renumbers a pour under way. */
export interface PlanKept {
  modelVersion: number
  batches: Batch[]
  because: BatchPlan['because'] | null
  steps: PlanStep[]
  classValues: ClassValues
  /** Plans from before it was kept have none: what they said is not known any more. */
  promised?: PlanPromise
}

/** A plan taken to the bench. */
export type KeptPlan = PourPlan & { kept: PlanKept }

export function isKept(plan: PourPlan): plan is KeptPlan {
  return 'kept' in plan
}

/** @param batching the plan's bowls, where they do not follow from the models of today. */
export function keepPlan(
  plan: PourPlan,
  batching: BatchPlan = batchesOf(plan),
  modelVersion = MODEL_VERSION,
): KeptPlan {
  const decided: PourPlan = { ...plan }
  if ('kept' in decided) delete decided.kept
  const { batches, because } = batching
  return {
    ...decided,
    kept: {
      modelVersion,
      // Nothing but what can be written down: kept and read again it is the same.
      batches: batches.map(({ bowlFill, ...b }) => (bowlFill === undefined ? b : { ...b, bowlFill })),
      because: because ?? null,
      steps: stepsOf(decided, batches),
      classValues: classValuesOf(decided),
    },
  }
}

/** A plan's bowls: as they were kept, or as they follow from the models of today. */
export function plannedBowls(plan: PourPlan): BatchPlan {
  if (!isKept(plan)) return batchesOf(plan)
  const { batches, because } = plan.kept
  return { batches, total: keptTotal(plan), because: because ?? undefined, largestMl: Infinity, issues: [] }
}

/** The whole job as it was taken to the bench: its kept bowls together. */
export function keptTotal(plan: KeptPlan): WeighOut {
  const sum = (of: 'waterG' | 'powderG' | 'fillerG') =>
    plan.kept.batches.reduce((total, b) => total + b[of], 0)
  return {
    ...weighOutFromMasses(mixInputOf(plan), sum('powderG'), sum('waterG')),
    fillerG: sum('fillerG'),
  }
}
