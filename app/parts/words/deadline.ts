import type { DeadlineWhy } from '#core/pour'

export const DEADLINE_WORDS: Record<DeadlineWhy, string> = {
  tide: 'The tide',
  dusk: 'Dusk',
  transport: 'The bus or boat',
  other: 'Something else',
}

/** Never all or none: no plan is as sure as that. */
export function chanceWords(chance: number): string {
  const tenths = Math.round(10 * chance)
  if (tenths > 9) return 'more than 9 times in 10'
  return tenths < 1 ? 'less than once in 10' : `about ${tenths} times in 10`
}
