/** When a scale last stood at nothing with the bowl on it: from there what it shows is what went in. */
export interface Zero {
  /** It was asked to zero itself and has not been seen to: when it can have heard of that, ms. Null: not asked. */
  heardMs: number | null
  /** Since when it has stood at nothing after it was asked, ms. */
  standsMs: number | null
  /** Null where it never was, or has lost it. */
  atMs: number | null
}
export const NO_ZERO: Zero = { heardMs: null, standsMs: null, atMs: null }

/** Shown as nothing by any scale that a bench has. */
export const NOTHING_G = 0.05

interface Says {
  massG: number | null
  stable: boolean
  /** Null where it does not say. */
  tared: boolean | null
}
const isAtNothing = ({ massG, stable }: Says): boolean =>
  massG !== null && stable && Math.abs(massG) <= NOTHING_G

/**
 * Asked anew, what it stood at before does not count any more. What it shows before it can have heard of that is of its
 * old zero: another bowl of the same weight stands at nothing, too, and what went in until it zeroes would be lost.
 * @param heardMs from when on what it says is said by one that was asked, ms.
 * @param last what it said last: one that sends only what has changed says nothing more where it stands at nothing.
 */
export const askedToZero = (askedMs: number, heardMs: number, last?: Says): Zero => ({
  heardMs,
  standsMs: last && isAtNothing(last) ? askedMs : null,
  atMs: null,
})

/**
 * What a scale's next line makes of it. An empty scale stands at nothing as well, and a bowl that is put on it then would
 * count as water: so only where it says that it is tared or, of one that cannot say, once after it was asked to.
 */
export function watchZero(before: Zero, says: Says, atMs: number): Zero {
  // Switched off and on it counts from elsewhere.
  if (says.tared === false) return { ...before, standsMs: null, atMs: null }
  if (!isAtNothing(says)) return { ...before, standsMs: null }
  if (before.heardMs !== null) return zeroStanding({ ...before, standsMs: before.standsMs ?? atMs }, atMs)
  return says.tared ? { ...before, atMs } : before
}

/** It has said nothing else meanwhile: one that still stands at nothing when it must have heard is zeroed. */
export const zeroStanding = (before: Zero, nowMs: number): Zero =>
  before.heardMs !== null && before.standsMs !== null && nowMs >= before.heardMs
    ? { heardMs: null, standsMs: null, atMs: before.standsMs }
    : before

/** What is left of it once the line was cut: only one that says that it is still tared has kept it. */
export const zeroAfterSilence = (before: Zero, tared: boolean | null): Zero =>
  tared ? before : { ...before, standsMs: null, atMs: null }
