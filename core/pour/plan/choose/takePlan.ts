import { keepPlan, type KeptPlan } from '../kept'
import type { PourPlan } from '../plan'
import { evaluatePlan } from './evaluatePlan'

/** A plan as it is taken to the bench now: its bowls are kept with it, and what it promises. */
export function takePlan(plan: PourPlan): KeptPlan {
  const taken = keepPlan(plan)
  const evaluation = evaluatePlan(plan)
  if (!evaluation.ok) return taken
  const { siftS, setting, demould } = evaluation.outcome
  const promised = { siftS, workEndS: setting.timeS.work_end.mid, outS: demould.recommendedS }
  // What never comes is no promise, and cannot be written down.
  if (!Object.values(promised).every(Number.isFinite)) return taken
  return { ...taken, kept: { ...taken.kept, promised } }
}
