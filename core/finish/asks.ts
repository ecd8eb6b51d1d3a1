import type { SignId } from './signs'

/** What each answer comes to, as the figures of its signs (`SIGN`). */
export type Answers = Record<string, Partial<Record<SignId, number>>>

/**
 * What a record often leaves out and whoever was there still knows. A figure that stands for a remembered "a little" or
 * "thin" is an estimate, well inside what a measured one may say (docs/science.md#diagnosis).
 */
export const ASK = {
  ratio: {
    thin: { ratio_over: 1.13, ratio_under: 1.13 },
    right: { ratio_over: 1, ratio_under: 1 },
    thick: { ratio_over: 0.88, ratio_under: 0.88 },
  },
  sifted: { evenly: { sift_pace: 60 }, fast: { sift_pace: 20 } },
  soaked: { through: { soaked: 120 }, short: { soaked: 40 }, none: { soaked: 10 } },
  stirred: {
    little: { stirred_effort_low: 40, stirred_effort_high: 40 },
    well: { stirred_effort_low: 120, stirred_effort_high: 120 },
    long: { stirred_effort_low: 480, stirred_effort_high: 480 },
  },
  powder: { fine: { bag_lumpy: 0 }, lumpy: { bag_lumpy: 1 } },
  bowl: { clean: { bowl_crumbs: 0 }, crumbs: { bowl_crumbs: 1 } },
  flowing: { flowed: { full_at: 0.7 }, thickening: { full_at: 1.15 } },
  poured: { low: { poured_from_high: 0 }, high: { poured_from_high: 1 } },
  tapped: { well: { tapped: 40 }, little: { tapped: 10 }, none: { tapped: 0 } },
  air: { freed: { traps_left: 0 }, partly: { traps_left: 0.5 }, none: { traps_left: 1 } },
  leak: { none: { leaked_share: 0 }, some: { leaked_share: 0.02 }, much: { leaked_share: 0.1 } },
  mould_dry: { dry: { not_drained: 0 }, wet: { not_drained: 1 } },
  water_on_top: { none: { water_stood: 0 }, stood: { water_stood: 1 } },
  mould_whole: {
    whole: { mould_not_looked_at: 0, mould_damaged: 0 },
    flawed: { mould_not_looked_at: 0, mould_damaged: 1 },
    not_looked: { mould_not_looked_at: 1 },
  },
  sealed: { sealed: { mould_unsealed: 0 }, bare: { mould_unsealed: 1 } },
  release: {
    thin: { release_undone: 0, film_smeared: 0, film_thick: 0 },
    smeared: { release_undone: 0, film_smeared: 1, film_thick: 0 },
    thick: { release_undone: 0, film_smeared: 0, film_thick: 1 },
    none: { release_undone: 1, film_smeared: 0, film_thick: 0 },
  },
  gripped: { let_go: { gripped: 0 }, gripped: { gripped: 1 } },
  gel: { fresh: { gel_not_fresh: 0 }, old: { gel_not_fresh: 1 } },
  ground: { dry: { ground_wet: 0 }, damp: { ground_wet: 0.5 }, wet: { ground_wet: 1 } },
  wall: { even: { wall_spread: 1.3 }, uneven: { wall_spread: 6 } },
  moved: { still: { was_moved: 0 }, moved: { was_moved: 1 } },
  knocked: { no: { was_knocked: 0 }, knocked: { was_knocked: 1 } },
} as const satisfies Record<string, Answers>

export type AskId = keyof typeof ASK
export const ASKS = Object.keys(ASK) as [AskId, ...AskId[]]

/** A question with what somebody answered. */
export type Recalled = { [A in AskId]: `${A}:${keyof (typeof ASK)[A] & string}` }[AskId]

export function answersTo(ask: AskId): Recalled[] {
  return Object.keys(ASK[ask]).map((answer) => `${ask}:${answer}` as Recalled)
}
export const RECALLED = ASKS.flatMap(answersTo) as [Recalled, ...Recalled[]]

export function askOf(recalled: Recalled): AskId {
  return recalled.split(':')[0] as AskId
}

/** The signs that a question is about. */
export function signsAsked(ask: AskId): SignId[] {
  const answers: Answers = ASK[ask]
  return [...new Set(Object.values(answers).flatMap((said) => Object.keys(said) as SignId[]))]
}
