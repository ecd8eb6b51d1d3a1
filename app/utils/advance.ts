import type { EventBody, PourFacts, StepId } from '#core/pour'
import { roundToDivision } from '#core/units'

/** What the lower half of the live run is for at this moment. */
export type PoolMode = 'knock' | 'wait' | 'demould' | 'dry' | 'ended'

export function poolModeOf(step: StepId | undefined, stage: string): PoolMode {
  if (step === undefined) return 'ended'
  if (step === 'dry') return 'dry'
  if (step === 'demould') return stage === 'set' ? 'wait' : 'demould'
  return 'knock'
}

export function isWeighStep(
  step: StepId | undefined,
): step is 'weigh_water' | 'weigh_powder' | 'weigh_filler' {
  return step === 'weigh_water' || step === 'weigh_powder' || step === 'weigh_filler'
}

/**
 * The mass to weigh at this step, g. If the water came out a little different, the powder follows it, so that the
 * consistency stays as planned.
 */
export function massToWeighG(step: StepId | undefined, facts: PourFacts): number | undefined {
  const { waterG, powderG, fillerG } = facts.planned
  const weighedWater = facts.live.findLast((e) => e.body.type === 'weighed' && e.body.what === 'water')?.body
  const scale = weighedWater?.type === 'weighed' ? weighedWater.massG / waterG : 1
  if (step === 'weigh_water') return waterG
  const onScale = (massG: number) => roundToDivision(massG * scale, facts.plan.scaleDivisionG)
  if (step === 'weigh_powder') return onScale(powderG)
  if (step === 'weigh_filler') return onScale(fillerG)
  return undefined
}

/** The event that a knock records at this step; undefined where a knock must do nothing. */
export function advanceBody(
  step: StepId | undefined,
  facts: PourFacts,
  massG: number,
): EventBody | undefined {
  switch (step) {
    case 'prepare':
      return { type: 'mould_ready' }
    case 'weigh_water':
      return { type: 'weighed', what: 'water', massG }
    case 'weigh_powder':
      return { type: 'weighed', what: 'powder', massG }
    case 'weigh_filler':
      return { type: 'weighed', what: 'filler', massG }
    case 'start_sift':
      return { type: 'sift_started' }
    case 'sift':
      return { type: 'sifted' }
    case 'soak':
      return { type: 'soaked' }
    case 'stir':
      return { type: 'stirred', manner: facts.plan.stirManner }
    case 'face_coat':
      return { type: 'face_coated' }
    case 'part_fill':
      return { type: 'part_filled' }
    case 'pour':
      return { type: 'poured' }
    case 'tap':
      return { type: 'tapped' }
    case 'demould':
      return { type: 'demoulded', outcome: 'whole' }
    default:
      return undefined
  }
}
