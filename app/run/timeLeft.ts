import { MS_PER } from '#core/units'
import { counted } from '~/parts/show/counted'

/** Every minute from here on; before that only the half. */
const MINUTES_FROM = 5
/** A clock that runs for longer is nothing to listen to. */
const LONGEST_MS = 20 * MS_PER.min
/** Of a shorter one the half is no news. */
const HALF_FROM_MS = 2 * MS_PER.min

/**
 * What is to be said of a clock between two looks at it: half of it gone, or so many minutes left. Undefined where none of
 * that fell between; of several that did, the last.
 * @param beforeMs the look before, ms; now where there was none.
 */
export function timeLeftToSay(
  clock: { startMs: number; dueMs: number },
  beforeMs: number,
  nowMs: number,
): string | undefined {
  const wholeMs = clock.dueMs - clock.startMs
  if (wholeMs > LONGEST_MS) return undefined
  const passed = (atMs: number) => beforeMs < atMs && atMs <= nowMs
  for (let minutes = 1; minutes <= MINUTES_FROM; minutes++) {
    const atMs = clock.dueMs - minutes * MS_PER.min
    if (atMs > clock.startMs && passed(atMs)) return `${counted(minutes, 'minute')} left`
  }
  const isHalf = wholeMs >= HALF_FROM_MS && passed(clock.startMs + wholeMs / 2)
  return isHalf ? 'Half of it is over' : undefined
}
