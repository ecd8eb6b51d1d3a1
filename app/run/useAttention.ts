import { useWakeLock } from '@vueuse/core'
import { watch } from 'vue'
import { say } from '~/parts/show/speech'
import { usePreferences } from '~/parts/show/usePreferences'
import { timeLeftToSay } from './timeLeft'
import type { Run } from './useRun'

/** While hands are in it: the screen stays awake, and how long is left is said. */
export function useAttention(run: Run): void {
  const { sound } = usePreferences()
  watch([() => run.now, () => run.view?.clock], ([nowMs, clock], [beforeMs, before]) => {
    // Another clock begins anew.
    if (!clock || clock.id !== before?.id || clock.startMs !== before.startMs) return
    const left = timeLeftToSay(clock, beforeMs, nowMs)
    if (left && sound.value) say(left)
  })
  const wakeLock = useWakeLock()
  watch(
    () => run.mode,
    (mode) =>
      mode === 'knock' || mode === 'wait' || mode === 'demould'
        ? wakeLock.request('screen').catch(() => {})
        : wakeLock.release(),
    { immediate: true },
  )
}
