/** Contact time to full-thickness skin damage, s (Moritz & Henriques 1947, ±50 %, from memory). */
const CONTACT: readonly (readonly [tempC: number, contactS: number])[] = [
  [44, 21_600],
  [45, 10_800],
  [46, 5400],
  [47, 2700],
  [48, 960],
  [49, 540],
  [51, 240],
  [53, 75],
  [55, 30],
  [60, 5],
  [65, 1.5],
  [70, 1],
]

/** How long skin bears a surface, s; undefined under 44 °C, where no such time is known. */
export function contactToBurnS(tempC: number): number | undefined {
  if (tempC < CONTACT[0]![0]) return undefined
  const above = CONTACT.findIndex(([c]) => c > tempC)
  if (above < 0) return CONTACT.at(-1)![1]
  const [[c0, s0], [c1, s1]] = [CONTACT[above - 1]!, CONTACT[above]!]
  return Math.exp(Math.log(s0) + ((tempC - c0) / (c1 - c0)) * Math.log(s1 / s0))
}

export const BURN_HAZARDS = ['none', 'do_not_hold', 'burns_in_minutes', 'burns_at_once'] as const
export type BurnHazard = (typeof BURN_HAZARDS)[number]

/** What a surface does to skin. It says nothing of skin shut in plaster: that burns at any of these, and at less. */
export function burnHazard(surfaceC: number): BurnHazard {
  if (surfaceC >= 55) return 'burns_at_once'
  if (surfaceC >= 50) return 'burns_in_minutes'
  return surfaceC >= 44 ? 'do_not_hold' : 'none'
}
