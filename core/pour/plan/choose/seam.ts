import { castsOf, soakTimeS, type PourPlan } from '../plan'
import type { PlanOutcome } from './evaluatePlan'

/** Several bowls for one mould. */
export interface Seam {
  /** From one bowl poured to the next one stirred, where the next is begun then, s. */
  gapS: number
  /** For how long the last one still runs, s: its early end. */
  runsS: number
  /** The next is in before the last stops running. */
  runs: boolean
}

/**
 * Whether bowls that go into one mould one after the other run together: plaster on plaster that has stopped running leaves
 * a seam, and breaks there first (common practice, no source). Undefined where each fills moulds of its own, is meant as a
 * layer, or several pairs of hands mix at once.
 */
export function seamOf(
  plan: PourPlan,
  { batching, siftS, pourWindowS }: Pick<PlanOutcome, 'batching' | 'siftS' | 'pourWindowS'>,
): Seam | undefined {
  const by = plan.batching?.split.by ?? 'need'
  const isOneMould = castsOf(plan) === 1 && (by === 'need' || by === 'bowls')
  if (!isOneMould || batching.batches.length < 2 || (plan.hands ?? 1) > 1) return undefined
  const gapS = siftS + soakTimeS(plan) + plan.stirS
  const runsS = Math.max(0, pourWindowS.low)
  return { gapS, runsS, runs: gapS <= runsS }
}
