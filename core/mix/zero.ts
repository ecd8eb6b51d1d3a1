/** When a scale last stood at nothing with the bowl on it: from there what it shows is what went in. */
export interface Zero {
  /** It was asked to zero itself and has not been seen to. */
  asked: boolean
  /** Null where it never was, or has lost it. */
  atMs: number | null
}
export const NO_ZERO: Zero = { asked: false, atMs: null }

/** Shown as nothing by any scale that a bench has. */
export const NOTHING_G = 0.05

/** Asked anew, what it stood at before does not count any more. */
export const askedToZero = (): Zero => ({ asked: true, atMs: null })

/**
 * What a scale's next line makes of it. An empty scale stands at nothing as well, and a bowl that is put on it then would
 * count as water: so only where it says that it is tared or, of one that cannot say, once after it was asked to.
 * @param says `tared`: null where it does not say.
 */
export function watchZero(
  before: Zero,
  says: { massG: number | null; stable: boolean; tared: boolean | null },
  atMs: number,
): Zero {
  // Switched off and on it counts from elsewhere.
  if (says.tared === false) return { ...before, atMs: null }
  if (says.massG === null || !says.stable || Math.abs(says.massG) > NOTHING_G) return before
  return says.tared || before.asked ? { asked: false, atMs } : before
}

/** What is left of it once the line was cut: only one that says that it is still tared has kept it. */
export const zeroAfterSilence = (before: Zero, tared: boolean | null): Zero =>
  tared ? before : { ...before, atMs: null }
