import { shallowRef } from 'vue'
import type { Settings } from '~~/shared/contracts'

/** How this workshop writes numbers and days. The workshop's store keeps it; whatever words a figure reads it. */
export const habits = shallowRef<Pick<Settings, 'decimalSign' | 'system'>>({
  decimalSign: null,
  system: 'metric',
})

/** From ten in the evening to seven in the morning, where this device is, nobody is asked to weigh (common practice, no source). */
export function isNight(atMs: number): boolean {
  const hour = new Date(atMs).getHours()
  return hour < 7 || hour >= 22
}
