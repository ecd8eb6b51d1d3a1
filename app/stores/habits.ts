import { shallowRef } from 'vue'
import type { Settings } from '~~/shared/contracts'

/** How this workshop writes numbers and days. The workshop's store keeps it; whatever words a figure reads it. */
export const habits = shallowRef<Pick<Settings, 'decimalSign' | 'system'>>({
  decimalSign: null,
  system: 'metric',
})
