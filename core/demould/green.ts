/** Below this a setting piece has nothing that holds it together. */
const NO_STRENGTH_ALPHA = 0.1

/**
 * Strength of a setting piece as a share of what it has once it is set and still wet, 0–1 (docs/science.md#strength-on-the-way).
 * @param alpha hydration of the place furthest behind, 0–1.
 */
export function greenStrength(alpha: number): number {
  return (Math.max(0, alpha - NO_STRENGTH_ALPHA) / (1 - NO_STRENGTH_ALPHA)) ** 2
}

/** How far it has to be set to be so strong. @param share 0–1. */
export function alphaOfStrength(share: number): number {
  return NO_STRENGTH_ALPHA + (1 - NO_STRENGTH_ALPHA) * Math.sqrt(share)
}

/**
 * What a piece bears, and how strong it has to be for it: turned over in its mould; lifted by its body; held by an edge or
 * peeled from undercuts; drilled, hung or trimmed hard (estimates after common practice, no source).
 */
export const GREEN_MARKS = { turned_over: 0.3, lifted: 0.5, by_edge: 0.65, drilled: 0.8 } as const
export type GreenMark = keyof typeof GREEN_MARKS
export const GREEN_MARK_IDS = Object.keys(GREEN_MARKS) as [GreenMark, ...GreenMark[]]
