import { NOTHING_G } from '../../core/mix'
import type { ReadingToKeep } from '../services/devices'

/** Kept at the least this often while anything is read, and at most once a second. */
const LONGEST_MS = 10_000
const SHORTEST_MS = 1000
/** What is no change: half a gram, a twentieth of a degree. */
const SAME = { mass: 0.5, temperature: 0.05 }

/**
 * Of many readings the few that tell something: on change, when a scale comes to rest or to nothing, and each ten seconds.
 */
export class Thinning {
  private readonly last = new Map<string, ReadingToKeep>()
  /** Of each scale whether it lay still at nothing when it last lay still. */
  private readonly atNothing = new Map<string, boolean>()

  /** Whether this one is kept. */
  take(reading: ReadingToKeep): boolean {
    const key = `${reading.device} ${reading.channel}`
    const cameToNothing = this.cameToNothing(reading)
    const before = this.last.get(key)
    if (before) {
      const sinceMs = reading.atMs - before.atMs
      const same = reading.channel === 'mass' ? SAME.mass : SAME.temperature
      const changed = Math.abs(reading.value - before.value) >= same
      const cameToRest = reading.stable && !before.stable
      const tells = cameToNothing || cameToRest || (changed && sinceMs >= SHORTEST_MS)
      if (sinceMs < LONGEST_MS && !tells) return false
    }
    this.last.set(key, reading)
    return true
  }

  /** From there a bowl is counted: of a zero that lasted for half a second nothing else would be left after a restart. */
  private cameToNothing({ device, channel, value, stable }: ReadingToKeep): boolean {
    if (channel !== 'mass' || !stable) return false
    const before = this.atNothing.get(device) ?? false
    const now = Math.abs(value) <= NOTHING_G
    this.atNothing.set(device, now)
    return now && !before
  }
}
