import type { KeptCause } from '../core/pour'

/** A cause that stays with a mould, a recipe or a bag, and the pour it was found in. */
export interface HeedLine extends KeptCause {
  pourId: string
  piece: string
}
