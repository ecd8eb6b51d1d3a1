import {
  STEP,
  followsWaterBy,
  type EventBody,
  type PourFacts,
  type PourPlan,
  type ReadingRef,
  type Scoops,
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

/** The event that a knock records at this step; undefined where a knock must do nothing. */
export function advanceBody(
  step: StepId | undefined,
  facts: PourFacts,
  massG: number,
  from: { reading?: ReadingRef; scoops?: Scoops } = {},
): EventBody | undefined {
  const inBatch = facts.batch > 0 ? { batch: facts.batch } : {}
  switch (step) {
    case 'prepare':
      return { type: 'mould_ready' }
    case 'weigh_water':
    case 'weigh_admix':
    case 'weigh_powder':
    case 'weigh_filler':
      return { type: 'weighed', what: step.slice('weigh_'.length) as WeighedWhat, massG, ...inBatch, ...from }
    case 'start_sift':
      return { type: 'sift_started', ...inBatch }
    case 'sift':
      return { type: 'sifted', ...inBatch }
    case 'soak':
      return { type: 'soaked', ...inBatch }
    case 'stir':
      return { type: 'stirred', manner: facts.plan.stirManner, ...inBatch }
    case 'key_layer':
      return { type: 'layer_keyed' }
    case 'check_air':
      return { type: 'extraction_checked' }
    case 'face_coat':
      return { type: 'face_coated', ...inBatch }
    case 'bond_coat':
      return { type: 'bond_coated', ...inBatch }
    case 'squeeze':
      return { type: 'squeezed', ...inBatch }
    case 'part_fill':
      return { type: 'part_filled', ...inBatch }
    case 'thicken':
      return { type: 'thickened', ...inBatch }
    case 'reinforce':
      return { type: 'reinforced', ...inBatch }
    case 'pour':
      return { type: 'poured', ...inBatch }
    case 'build':
      return { type: 'built', ...inBatch }
    case 'turn':
      return { type: 'turned', ...inBatch }
    case 'vibrate':
      return { type: 'vibrated' }
    case 'roughen':
      return { type: 'roughened', ...inBatch }
    case 'tap':
      return { type: 'tapped', ...inBatch }
    case 'level':
      return { type: 'levelled', ...inBatch }
    case 'own': {
      const own = facts.next?.own
      return (
        own && {
          type: 'own_done',
          own: own.id,
          ...(facts.next!.batch > 0 ? { batch: facts.next!.batch } : {}),
        }
      )
    }
    // How it came out is asked, and whether it is dry enough is looked at: neither is knocked at.
    case 'demould':
    case 'dry':
    case undefined:
      return undefined
  }
}
