import { computed } from 'vue'
import type { PourOutlook } from '#core/pour'
import { momentText } from '~/parts/show/time'

/** The time of a setting piece: when it began, how long ago, and a moment of it in words. */
export function useSettingTime(props: { facts: PourOutlook; nowMs: number }) {
  const startMs = computed(() => props.facts.settingStartMs ?? 0)
  /** Since mid-sprinkle, s. */
  const nowS = computed(() => (props.nowMs - startMs.value) / 1000)
  const at = (s: number) => momentText(startMs.value + s * 1000, props.nowMs)
  return { startMs, nowS, at }
}
