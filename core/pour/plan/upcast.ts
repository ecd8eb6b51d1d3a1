import { isKept, keepPlan, type KeptPlan } from './kept'
import { batchesOf, mixInputOf, paceOf } from './mix/mixing'
import { weighOutForVolume } from '../../mix'
import type { PourPlan } from './plan'

/**
 * Plans as they were written down by earlier versions, and the way from each to the next. A version's type never
 * changes any more; what it lacked is filled in as it was meant then.
 */

/** Version 1 kept no bowls: they followed from its models each time it was read. */
export type PlanV1 = Omit<PourPlan, 'schemaVersion'> & { schemaVersion: 1 }

/** The bowls that version 1 cut: all by the working time of the whole job sifted at once. */
function bowlsV1(plan: PourPlan) {
  const { powderG } = weighOutForVolume(
    mixInputOf(plan),
    plan.mould.cavityMl,
    plan.sparePct,
    plan.scaleDivisionG,
  )
  const pace = paceOf(plan, powderG)
  return batchesOf(plan, () => pace)
}

/** What the caster decided, of any version, as today's plans say it. */
export function decisionsOf(plan: PlanV1 | PourPlan): PourPlan {
  return { ...plan, schemaVersion: 2 }
}

/** Any version of a plan that was taken to the bench, as today's: with the bowls it had. */
export function currentPlan(plan: PlanV1 | PourPlan): KeptPlan {
  const decided = decisionsOf(plan)
  if (isKept(decided)) return decided
  return plan.schemaVersion === 1 ? keptV1(decided) : keepPlan(decided)
}

/** Version 1 knew of no look at the extraction: a pour under way does not get it in hindsight. */
function keptV1(plan: PourPlan): KeptPlan {
  const kept = keepPlan(plan, bowlsV1(plan), 1)
  return { ...kept, kept: { ...kept.kept, steps: kept.kept.steps.filter((s) => s.id !== 'check_air') } }
}
