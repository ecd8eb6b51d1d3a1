import {
  STEP,
  followsWaterBy,
  type PourFacts,
  type PourPlan,
  type StepId,
  type WeighedWhat,
} from '#core/pour'
import { roundToDivision } from '#core/units'
import { admixG } from '~/parts/mix/weighOut'

/** What the lower half of the live run is for at this moment. */
export type PoolMode = 'knock' | 'wait' | 'demould' | 'dry' | 'ended'

export function poolModeOf(step: StepId | undefined, stage: string): PoolMode {
  if (step === undefined) return 'ended'
  if (step === 'dry') return 'dry'
  if (step === 'demould') return stage === 'set' ? 'wait' : 'demould'
  return 'knock'
}

/** The bowl that a step is for, in words; empty where there is one bowl, or the step is the whole pour's. */
export function bowlNameOf(step: StepId | undefined, { batches, batch, inHand, plan }: PourFacts): string {
  if (batches.length === 1 || step === undefined) return ''
  if (STEP[step].of === 'pour' || STEP[step].of === 'last_bowl') return ''
  // Bags are called by their number, which is said already.
  const name = inHand.topUp ? 'For what is missing' : mixesInBags(plan) ? '' : inHand.planned.name
  return `Bowl ${batch + 1} of ${batches.length}${name ? `: ${name}` : ''}`
}

export function mixesInBags({ batching }: PourPlan): boolean {
  return batching?.split.by === 'casts' || batching?.split.by === 'whole_bags'
}

type WeighStep = `weigh_${WeighedWhat}`

export function isWeighStep(step: StepId | undefined): step is WeighStep {
  return step !== undefined && STEP[step].stage === 'weigh'
}

/**
 * The mass to weigh at this step for the bowl in hand, g. If the water came out a little different, the rest follows
 * it, so that the consistency stays as planned; where it is far off, only once that was said (`RunFollow`).
 */
export function massToWeighG(step: StepId | undefined, facts: PourFacts): number | undefined {
  const { planned } = facts.inHand
  const by = followsWaterBy(facts.inHand)
  const onScale = (massG: number) => roundToDivision(massG * by, facts.plan.scaleDivisionG)
  if (!isWeighStep(step)) return undefined
  switch (step) {
    case 'weigh_water':
      return planned.waterG
    case 'weigh_admix':
      return onScale(admixG(facts.plan, planned))
    case 'weigh_powder':
      return onScale(planned.powderG)
    case 'weigh_filler':
      return onScale(planned.fillerG)
  }
}
