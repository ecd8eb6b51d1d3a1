import type { ReadingToKeep } from '../services/devices'

/** Kept at the least this often while anything is read, and at most once a second. */
const LONGEST_MS = 10_000
const SHORTEST_MS = 1000
/** What is no change: half a gram, a twentieth of a degree. */
const SAME = { mass: 0.5, temperature: 0.05 }

/** Of many readings the few that tell something: on change, when a scale comes to rest, and each ten seconds. */
export class Thinning {
  private readonly last = new Map<string, ReadingToKeep>()

  /** Whether this one is kept. */
  take(reading: ReadingToKeep): boolean {
    const key = `${reading.device} ${reading.channel}`
    const before = this.last.get(key)
    if (before) {
      const sinceMs = reading.atMs - before.atMs
      const same = reading.channel === 'mass' ? SAME.mass : SAME.temperature
      const changed = Math.abs(reading.value - before.value) >= same
      const cameToRest = reading.stable && !before.stable
      if (sinceMs < LONGEST_MS && !cameToRest && !(changed && sinceMs >= SHORTEST_MS)) return false
    }
    this.last.set(key, reading)
    return true
  }
}
