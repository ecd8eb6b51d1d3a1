/** Quieter than this is silence here, dB below the loudest there is. */
const SILENCE_DB = -60

/** How loud samples of −1 to 1 are at their peak, 0–1 in steps of loudness. */
export function levelOf(samples: Float32Array): number {
  let peak = 0
  for (const s of samples) peak = Math.max(peak, Math.abs(s))
  if (peak === 0) return 0
  return Math.min(1, Math.max(0, 1 - (20 * Math.log10(peak)) / SILENCE_DB))
}

export interface Heard {
  /** It was that loud the time before as well: the same bang still. */
  loud: boolean
  isKnock: boolean
}
export const NO_KNOCK: Heard = { loud: false, isKnock: false }

/** A noise has to fall well below the threshold before the next one counts. */
const FALLS_BY = 0.1

export function hearKnock(before: Heard, level: number, threshold: number): Heard {
  if (level >= threshold) return { loud: true, isKnock: !before.loud }
  return { loud: before.loud && level > threshold - FALLS_BY, isKnock: false }
}
