import { useIntervalFn } from '@vueuse/core'
import { effectScope, readonly, ref } from 'vue'

/** Tells the time. The app's only source of it: real time as the workshop's server has it. */
export interface Clock {
  nowMs(): number
}

const offsetMs = ref(0)

export const clock: Clock = { nowMs: () => Date.now() + offsetMs.value }

/** Sets this device by the server, half the round trip allowed for. Keeps the old setting if it cannot be asked. */
export async function syncClock(): Promise<void> {
  try {
    const sentMs = Date.now()
    const { serverTimeMs } = await $fetch<{ serverTimeMs: number }>('/api/time')
    const arrivedMs = Date.now()
    offsetMs.value = serverTimeMs - (sentMs + arrivedMs) / 2
  } catch {
    // Offline: the device's own clock, or the last setting, is the best there is.
  }
}

const now = ref(clock.nowMs())
let ticking = false

/** The present, ms, ticking four times a second so that every clock on screen turns over together. */
export function useNow() {
  if (!ticking) {
    ticking = true
    // Outlives the view that happened to ask first: the others' clocks hang on it too.
    effectScope(true).run(() =>
      useIntervalFn(() => (now.value = clock.nowMs()), 250, { immediateCallback: true }),
    )
  }
  return readonly(now)
}
