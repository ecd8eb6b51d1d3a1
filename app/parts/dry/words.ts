import type { DryingChange } from '#core/drying'

/** What would be quicker, as an offer. */
export const CHANGE_WORDS: Record<DryingChange, string> = {
  fan: 'A fan on it',
  rack: 'Up on a rack, air at both faces',
  warmer: 'Somewhere 8 degrees warmer',
  cabinet: 'A cabinet at 40 °C, never above 45',
}
