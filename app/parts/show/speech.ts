import { elapsedMs } from '~/stores/clock'

/** What a window says and rings. */

/** What this window sounds like itself until then: no noise from outside. */
let soundingUntilMs = 0
const sounding = (forMs: number) => (soundingUntilMs = Math.max(soundingUntilMs, elapsedMs() + forMs))
export const isSounding = () => elapsedMs() < soundingUntilMs || (window.speechSynthesis?.speaking ?? false)

/** Three rising tones. */
export function beep(): void {
  sounding(1200)
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

let ticking: AudioContext | undefined
/** One short knock of a beat. */
export function tick(): void {
  sounding(250)
  ticking ??= new AudioContext()
  const tone = ticking.createOscillator()
  const gain = ticking.createGain()
  tone.frequency.value = 220
  gain.gain.setValueAtTime(0.3, ticking.currentTime)
  gain.gain.exponentialRampToValueAtTime(0.001, ticking.currentTime + 0.06)
  tone.connect(gain).connect(ticking.destination)
  tone.start()
  tone.stop(ticking.currentTime + 0.07)
}

/** Only with a voice of this machine's own: others send the words away to be spoken. */
export function say(words: string): void {
  const voice = window.speechSynthesis?.getVoices().find((v) => v.localService)
  if (!voice) return
  const utterance = new SpeechSynthesisUtterance(words)
  utterance.voice = voice
  window.speechSynthesis.speak(utterance)
}
