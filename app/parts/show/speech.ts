/** What a window says and rings. */

/** Three rising tones. */
export function beep(): void {
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
export function say(words: string): void {
  const voice = window.speechSynthesis?.getVoices().find((v) => v.localService)
  if (!voice) return
  const utterance = new SpeechSynthesisUtterance(words)
  utterance.voice = voice
  window.speechSynthesis.speak(utterance)
}
