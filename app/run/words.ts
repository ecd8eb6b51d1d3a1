import type { CorrectionKind } from '#core/pour'

/** What only the live run says. */

/** What to do, before the amount. */
export const FIX_WORDS: Record<CorrectionKind, string> = {
  water_out: 'Sponge out',
  water_in: 'Add water',
  powder_in: 'Add plaster',
  powder_out: 'Take out plaster',
}

export const MAY_WORDS = {
  freely: 'Nothing is lost yet.',
  with_care: 'Only just stirred: add it all at once, let it soak a minute, stir gently.',
  never: 'It has begun to thicken: nothing goes in any more. Pour it as it is, or give it up.',
} as const

/** Said instead of the step while the piece only has to be left alone. */
export const SETTING_WORDS = {
  title: 'Leave it alone',
  how: 'It thickens, loses its shine, warms, then cools. Do not move it.',
}
