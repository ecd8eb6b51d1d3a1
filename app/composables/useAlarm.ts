import { useLocalStorage } from '@vueuse/core'
import { watch, type Ref } from 'vue'
import type { Clock as PourClock } from '#core/pour'
import { CLOCK_WORDS } from '~/utils/words'
import { useNow } from './useClock'

function beep(): void {
  const audio = new AudioContext()
  for (const [i, hz] of [523, 659, 784].entries()) {
    const tone = audio.createOscillator()
    const gain = audio.createGain()
    tone.frequency.value = hz
    gain.gain.setValueAtTime(0.25, audio.currentTime + i * 0.22)
    gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + i * 0.22 + 0.2)
    tone.connect(gain).connect(audio.destination)
    tone.start(audio.currentTime + i * 0.22)
    tone.stop(audio.currentTime + i * 0.22 + 0.21)
    if (i === 2) tone.onended = () => void audio.close()
  }
}

/** Only with a voice of this machine's own: others send the words away to be spoken. */
function say(words: string): void {
  const voice = window.speechSynthesis?.getVoices().find((v) => v.localService)
  if (!voice) return
  const utterance = new SpeechSynthesisUtterance(words)
  utterance.voice = voice
  window.speechSynthesis.speak(utterance)
}

/** Rings and says what falls due while the run is open, if the caster wants to hear it. */
export function useAlarm(current: Ref<PourClock | undefined>) {
  const sound = useLocalStorage('nine-ripples.sound', true)
  const now = useNow()
  watch(
    () =>
      current.value ? `${current.value.id} ${current.value.startMs} ${now.value >= current.value.dueMs}` : '',
    (key, before) => {
      const rang = key.endsWith('true') && before === key.replace(/true$/, 'false')
      if (!rang || !sound.value || !current.value) return
      beep()
      say(CLOCK_WORDS[current.value.id])
    },
  )
  return { sound }
}
