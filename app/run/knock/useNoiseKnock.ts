import { useIntervalFn, useUserMedia } from '@vueuse/core'
import { onScopeDispose, ref, watch } from 'vue'
import { isSounding } from '~/parts/show/speech'
import { usePreferences } from '~/parts/show/usePreferences'
import { NO_KNOCK, hearKnock, levelOf } from './noise'

const LOOK_MS = 40

/**
 * A bang on the bench is a knock: only how loud it is here is looked at, nothing is kept or sent. Off until it is
 * switched on. @returns how loud it is, 0–1, and why it cannot be heard, if it cannot.
 */
export function useNoiseKnock(knock: () => void) {
  const { noiseKnock, noiseLevel } = usePreferences()
  const level = ref(0)
  const refused = ref(false)
  const media = useUserMedia({
    constraints: { audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } },
  })
  let audio: AudioContext | undefined
  let analyser: AnalyserNode | undefined
  let heard = NO_KNOCK

  async function listen() {
    refused.value = false
    const stream = await media.start().catch(() => undefined)
    if (!stream) {
      refused.value = true
      return
    }
    audio = new AudioContext()
    analyser = audio.createAnalyser()
    analyser.fftSize = 2048
    audio.createMediaStreamSource(stream).connect(analyser)
  }
  function stop() {
    media.stop()
    void audio?.close()
    audio = analyser = undefined
    level.value = 0
  }
  useIntervalFn(() => {
    if (!analyser) return
    const samples = new Float32Array(analyser.fftSize)
    analyser.getFloatTimeDomainData(samples)
    level.value = levelOf(samples)
    const before = heard
    heard = hearKnock(before, isSounding() ? 0 : level.value, noiseLevel.value)
    if (heard.isKnock) knock()
  }, LOOK_MS)
  watch(noiseKnock, (on) => (on ? void listen() : stop()), { immediate: true })
  onScopeDispose(stop)
  return { level, refused }
}
