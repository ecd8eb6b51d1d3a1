import {
  bulkDensityOf,
  weighOutFromMasses,
  type Batch,
  type BatchPlan,
  type Scoop,
  type WeighOut,
} from '../../mix'
import { plasterClass } from '../../plaster'
import { batchesOf, mixInputOf } from './mixing'
import type { PourPlan } from './plan'
import { stepsOf } from './script'
import type { PlanStep } from './steps'

/**
 * Counts changes of the models that change what a plan comes to. A pour keeps the number it was planned with.
 * 1: bowls by the whole job's working time. 2: by each bowl's own.
 */
export const MODEL_VERSION = 2

/** Values of the plaster's class that the plan's figures hang on, as they were. */
export interface ClassValues {
  /** Filler that belongs to the class itself, for each of its plaster. */
  fillerRatio: number
  /** Bulk density of the powder in the scoop, kg/m³. */
  bulkKgM3: number
}

/** What was planned, as it was taken to the bench: a better model never renumbers a pour under way. */
export interface PlanKept {
  modelVersion: number
  batches: Batch[]
  because: BatchPlan['because'] | null
  steps: PlanStep[]
  classValues: ClassValues
}

/** A plan taken to the bench. */
export type KeptPlan = PourPlan & { kept: PlanKept }

/** A cup, dug into the bag. */
export const FIRST_SCOOP: Scoop = { measureMl: 250, packing: 'scooped', weighedKgM3: null }

export function isKept(plan: PourPlan): plan is KeptPlan {
  return 'kept' in plan
}

export function classValuesOf(plan: PourPlan): ClassValues {
  if (isKept(plan)) return plan.kept.classValues
  const { classId } = plan.plaster.properties
  return {
    fillerRatio: plasterClass(classId).fillerRatio,
    bulkKgM3: bulkDensityOf(classId, plan.scoop ?? FIRST_SCOOP).value,
  }
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
