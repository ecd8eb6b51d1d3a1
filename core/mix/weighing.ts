import { requireFinite } from '../errors'

/** Within a hundredth of what was wanted nobody corrects (common practice, no source), nor finer than the scale shows. */
const TOLERANCE = 0.01
/** From here on slowly. */
const SLOWLY_FROM = 0.9

export type WeighingState = 'empty' | 'filling' | 'nearly' | 'right' | 'over'

export interface Weighing {
  state: WeighingState
  /** Of the target, 0 and up. */
  filled: number
  /** Still to go on, g; negative: too much. */
  toGoG: number
  toleranceG: number
}

/** By how much a weighing may be off, g. */
export function weighingToleranceG(targetG: number, divisionG: number): number {
  return Math.max(divisionG, TOLERANCE * targetG)
}

/**
 * How far a bowl is from what is to go into it.
 * @param netG what the scale shows since it was zeroed, g; a little below zero is nothing yet.
 * @throws ArgumentError for a target that is not above zero.
 */
export function weighingOf(targetG: number, netG: number, divisionG: number): Weighing {
  requireFinite({ targetG, netG, divisionG })
  const toleranceG = weighingToleranceG(targetG, divisionG)
  const toGoG = targetG - netG
  const filled = Math.max(0, netG / targetG)
  const state =
    toGoG < -toleranceG
      ? 'over'
      : toGoG <= toleranceG
        ? 'right'
        : netG <= divisionG
          ? 'empty'
          : filled >= SLOWLY_FROM
            ? 'nearly'
            : 'filling'
  return { state, filled, toGoG, toleranceG }
}
