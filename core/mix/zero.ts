/** When a scale last stood at nothing with the bowl on it: from there what it shows is what went in. */
export interface Zero {
  /** When it was asked to zero itself, ms, where it has not been seen to. */
  askedAtMs: number | null
  /** Null where it never was, or has lost it. */
  atMs: number | null
}
export const NO_ZERO: Zero = { askedAtMs: null, atMs: null }

/** Shown as nothing by any scale that a bench has. */
export const NOTHING_G = 0.05

/** Asked anew, what it stood at before does not count any more. */
export const askedToZero = (askedAtMs: number): Zero => ({ askedAtMs, atMs: null })

/** A line that comes this soon after was on its way before the scale heard of it, ms. */
export const CROSSING_MS = 300

/**
 * What a scale's next line makes of it. An empty scale stands at nothing as well, and a bowl that is put on it then would
 * count as water: so only where it says that it is tared or, of one that cannot say, once after it was asked to. Asked to, it
 * is not at nothing before it has heard: what goes in until then would be zeroed away.
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
  const isAsked = before.askedAtMs !== null
  if (isAsked && atMs - before.askedAtMs! < CROSSING_MS) return before
  return says.tared || isAsked ? { askedAtMs: null, atMs } : before
}

/** What is left of it once the line was cut: only one that says that it is still tared has kept it. */
export const zeroAfterSilence = (before: Zero, tared: boolean | null): Zero =>
  tared ? before : { ...before, atMs: null }
