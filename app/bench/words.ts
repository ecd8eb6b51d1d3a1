import type { SettlingAct } from '#core/stock'

/** What only the bench says. */

export const SETTLING_WORDS: Record<SettlingAct, string> = {
  filled: 'Filled',
  settled: 'Clear',
  poured_off: 'Poured off',
  emptied: 'Emptied',
}

export const SETTLING_NEXT_WORDS: Record<SettlingAct, string> = {
  filled: 'Ready for the next rinse',
  settled: 'Let it clear',
  poured_off: 'Pour the clear off, slowly; leave what lies below',
  emptied: 'Let the solid dry and put it in the bin, never a drain',
}
