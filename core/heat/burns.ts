/**
 * Contact time until the outer skin is dead through its whole depth, s (Moritz & Henriques 1947, hog and human skin, from
 * memory, ±50 %).
 */
const CONTACT: readonly (readonly [tempC: number, contactS: number])[] = [
  [44, 21_600],
  [45, 10_800],
  [47, 2700],
  [49, 570],
  [51, 240],
  [53, 90],
  [55, 30],
  [60, 5],
  [65, 1.5],
  [70, 1],
]
/** Skin reddens, and gets over it, from a third of that time on (the same study, a third to two thirds). */
const REDDENS_SHARE = 1 / 3

/** How long until skin left on a surface reddens, and until it is burnt through, s; undefined under 44 °C, where no such times are known. */
export function contactTimesS(tempC: number): { reddensS: number; burntS: number } | undefined {
  if (tempC < CONTACT[0]![0]) return undefined
  const above = CONTACT.findIndex(([c]) => c > tempC)
  const burntS = above < 0 ? CONTACT.at(-1)![1] : between(CONTACT[above - 1]!, CONTACT[above]!, tempC)
  return { reddensS: REDDENS_SHARE * burntS, burntS }
}

const between = ([c0, s0]: readonly [number, number], [c1, s1]: readonly [number, number], tempC: number) =>
  Math.exp(Math.log(s0) + ((tempC - c0) / (c1 - c0)) * Math.log(s1 / s0))

/** By how much the model's rise over the air is off, as a share, and a place in it against where it was reckoned, K (estimates). */
export const RISE_SD = 0.1
export const PLACE_SD_K = 1

/** The warm end of a reckoned temperature: one in ten is warmer. What can hurt goes by this. */
export const warmEndC = (tempC: number, airTempC: number): number =>
  tempC + 1.2816 * Math.hypot(RISE_SD * Math.max(0, tempC - airTempC), PLACE_SD_K)

export const BURN_HAZARDS = ['none', 'do_not_hold', 'burns_in_minutes', 'burns_at_once'] as const
export type BurnHazard = (typeof BURN_HAZARDS)[number]

/** What a surface does to skin, by the warm end of what it may be. It says nothing of skin shut in plaster: that burns at any of these, and at less. */
export function burnHazard(surfaceC: number): BurnHazard {
  if (surfaceC >= 55) return 'burns_at_once'
  if (surfaceC >= 50) return 'burns_in_minutes'
  return surfaceC >= 44 ? 'do_not_hold' : 'none'
}
