/** Chances that come again for the same seed (mulberry32). */
export function diceOf(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** A normal deviate of σ 1 (Box and Muller). */
export function normal(dice: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - dice())) * Math.cos(2 * Math.PI * dice())
}
