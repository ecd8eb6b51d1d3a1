import { MAX_WATER_TEMP_C } from '#core/mix'
import { isForKiln, silicaRatioOf, type PourPlan, type StepId } from '#core/pour'

export type CautionId =
  | 'dust'
  | 'hot_water'
  | 'silica'
  | 'skin'
  | 'body'
  | 'drain'
  | 'hot'
  | 'airway'
  | 'sanding'
  | 'kiln'

/** A caution stands at the step where the harm is. In full: the safety page. */
type Temp = (tempC: number) => string

/** @param temp temperatures in the workshop's own degrees. */
export const CAUTIONS: Record<CautionId, { title: string; text: (temp: Temp) => string }> = {
  dust: {
    title: 'Dust',
    text: () =>
      'Fitted dust respirator on, air moving, while dry powder is open. It comes off once all powder is wet, and goes on again for the bag.',
  },
  hot_water: {
    title: 'Hot water',
    text: (temp) =>
      `Cold into the bowl first, then hot. Never hotter than ${temp(MAX_WATER_TEMP_C)} with plaster: it sets in the hands.`,
  },
  silica: {
    title: 'Silica flour',
    text: () =>
      'Never without a fitted respirator: it does not leave the lungs. Separate clothes, damp cleaning, no sweeping.',
  },
  skin: {
    title: 'Skin and eyes',
    text: () =>
      'Wet plaster dries and irritates. Gloves and glasses; rinse eyes at once with plenty of water and see a doctor if it goes on.',
  },
  body: {
    title: 'It burns',
    text: () =>
      'Setting plaster gets hot and grips. Never put a hand or any part of a body in it or let it set around one. Large pieces are hotter.',
  },
  drain: {
    title: 'Never into a drain',
    text: () =>
      'It sets under water. Rinse in a bucket, let it settle, pour off the clear, bin the solid. Not on soil or grass.',
  },
  hot: {
    title: 'It may still be hot',
    text: () =>
      'Feel near it before you touch it. What is too warm to hold is held in a cloth, or left to cool.',
  },
  airway: {
    title: 'Casting from a person',
    text: () =>
      'Only in a skin-safe impression material, with airways open, by someone trained. Plaster goes into that mould afterwards, never onto the person.',
  },
  kiln: {
    title: 'Steam bursts it',
    text: (temp) =>
      `In the kiln hold it at ${temp(100)}–${temp(110)} until no more water comes off; then the kiln’s and the material’s own schedule.`,
  },
  sanding: {
    title: 'Dust again',
    text: () => 'Respirator on for sanding and sweeping; better still, work it damp.',
  },
}

/** @param ready whether the piece may come out; before that there is nothing to hold. */
export function cautionsOf(step: StepId, plan: PourPlan, ready: boolean): CautionId[] {
  const silica = silicaRatioOf(plan) > 0
  switch (step) {
    case 'prepare':
      return plan.mould.kind === 'alginate' ? ['airway'] : []
    case 'weigh_water':
      return plan.taps ? ['hot_water'] : []
    case 'key_layer':
    case 'weigh_admix':
    case 'own':
      return []
    case 'check_air':
      return silica ? ['silica'] : ['dust']
    case 'weigh_powder':
    case 'weigh_filler':
    case 'start_sift':
    case 'sift':
      return silica ? ['silica'] : ['dust']
    case 'soak':
      return ['skin']
    case 'stir':
      return ['skin', 'body']
    case 'face_coat':
    case 'bond_coat':
    case 'squeeze':
    case 'part_fill':
    case 'pour':
    case 'turn':
      return ['body']
    case 'thicken':
    case 'roughen':
    case 'vibrate':
      return []
    case 'reinforce':
    case 'build':
      return ['skin', 'body']
    case 'tap':
    case 'level':
      return ['drain']
    case 'demould':
      return ready ? ['hot'] : ['body']
    case 'dry':
      return isForKiln(plan) ? ['kiln', 'silica'] : ['sanding']
  }
}

/** A piece of this size holds its heat: the caution belongs to the plan already (common practice, no source). */
const LARGE_PIECE_ML = 2000

/** What a plan asks one to have ready before anything is opened. */
export function cautionsOfPlan(plan: PourPlan): CautionId[] {
  const cautions: CautionId[] = [silicaRatioOf(plan) > 0 ? 'silica' : 'dust']
  if (plan.mould.kind === 'alginate') cautions.push('airway')
  if (plan.taps) cautions.push('hot_water')
  if (plan.mould.cavityMl >= LARGE_PIECE_ML) cautions.push('body')
  return cautions
}
