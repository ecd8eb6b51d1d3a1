import type { CauseId } from './causes'

/**
 * What a pour's record can say for or against a cause: one figure each, and what that figure is worth as a natural
 * logarithm of the likelihood ratio, between the points in a straight line and level beyond them. Below nothing it speaks
 * against the cause, but never rules it out. Directions are common practice, the weights estimates, no source
 * (docs/science.md#diagnosis).
 */
interface SignDefinition {
  cause: CauseId
  unit: SignUnit
  worth: readonly (readonly [value: number, lnRatio: number])[]
  /** Nothing records it: it is known only where somebody tells it afterwards (`ASK`). */
  toldOnly?: true
}

/** What a sign's figure is in: `share` of its limit, `yes` 1 or 0. */
export type SignUnit =
  | 's'
  | 'h'
  | 'tempC'
  | 'parts'
  | 'mm'
  | 'ml'
  | 'share'
  | 'pct'
  | 'days'
  | 's_per_kg'
  | 'yes'

export const SIGN = {
  /** Water to plaster as weighed, against the plaster's use consistency. */
  ratio_over: {
    cause: 'too_thin',
    unit: 'parts',
    worth: [
      [0.9, -2],
      [1, -0.6],
      [1.06, 0],
      [1.15, 1.5],
      [1.3, 3],
    ],
  },
  ratio_under: {
    cause: 'too_thick',
    unit: 'parts',
    worth: [
      [0.75, 3],
      [0.87, 1.5],
      [0.94, 0],
      [1, -0.6],
      [1.1, -2],
    ],
  },
  /** How surely the ratio was met, σ of its logarithm: a scoop or the eye leaves room for either. */
  ratio_unsure_thin: {
    cause: 'too_thin',
    unit: 'share',
    worth: [
      [0.03, 0],
      [0.12, 0.5],
    ],
  },
  ratio_unsure_thick: {
    cause: 'too_thick',
    unit: 'share',
    worth: [
      [0.03, 0],
      [0.12, 0.5],
    ],
  },
  soaked: {
    cause: 'soak_short',
    unit: 's',
    worth: [
      [10, 2.2],
      [45, 1.4],
      [75, 0.4],
      [100, 0],
      [120, -0.7],
      [180, -1.5],
    ],
  },
  sift_pace: {
    cause: 'sifted_fast',
    unit: 's_per_kg',
    worth: [
      [8, 2],
      [25, 1],
      [45, 0],
      [70, -1],
    ],
  },
  /** Stirring as minutes by hand: a drill's count threefold. */
  stirred_effort_low: {
    cause: 'stirred_little',
    unit: 's',
    worth: [
      [20, 2.2],
      [45, 1],
      [75, 0],
      [120, -1],
    ],
  },
  stirred_effort_high: {
    cause: 'stirred_long',
    unit: 's',
    worth: [
      [120, -1],
      [240, 0],
      [480, 1.2],
      [900, 2.2],
    ],
  },
  /** When stirring ended, against the end of working time. */
  stirred_until: {
    cause: 'stirred_long',
    unit: 'share',
    worth: [
      [0.5, -0.7],
      [0.8, 0],
      [1, 1.2],
      [1.3, 2.5],
    ],
  },
  /** How hard a minute of stirring was, against one by hand. */
  stirred_manner: {
    cause: 'stirred_hard',
    unit: 'share',
    worth: [
      [0.5, -1.5],
      [1, -0.6],
      [1.5, 1],
      [3, 2.2],
    ],
  },
  /** When the mould was full, against the end of working time. */
  full_at: {
    cause: 'past_working',
    unit: 'share',
    worth: [
      [0.6, -1.8],
      [0.85, -0.5],
      [1, 0.8],
      [1.2, 2.2],
      [1.5, 3],
    ],
  },
  /** When stirring ended of a bowl that never filled its mould, against the end of working time: the earliest it could. */
  ready_at: {
    cause: 'past_working',
    unit: 'share',
    worth: [
      [0.5, -0.7],
      [0.8, 0],
      [1, 1.2],
      [1.3, 2.5],
    ],
  },
  poured_from_high: {
    cause: 'poured_high',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1.2],
      [1, 1.6],
    ],
  },
  tapped: {
    cause: 'no_tap',
    unit: 's',
    worth: [
      [0, 2],
      [10, 0.8],
      [20, 0],
      [45, -1.2],
    ],
  },
  /** Of what the form asks for against air, how much was not done; nothing asked for is nothing undone. */
  traps_left: {
    cause: 'air_in_form',
    unit: 'share',
    worth: [
      [0, -1.2],
      [0.4, 0.3],
      [1, 1.6],
    ],
  },
  /** When the next bowl went in, against the initial set of the one before. */
  next_bowl_at: {
    cause: 'layers_late',
    unit: 'share',
    worth: [
      [0.5, -1.2],
      [0.85, 0],
      [1.1, 1.5],
      [1.6, 2.5],
    ],
  },
  leaked_share: {
    cause: 'leaked',
    unit: 'share',
    worth: [
      [0, -0.8],
      [0.01, 0.8],
      [0.1, 3],
    ],
  },
  /** Slurry as weighed out, against what the mould holds. */
  slurry_share: {
    cause: 'mixed_short',
    unit: 'share',
    worth: [
      [0.85, 3],
      [0.97, 1.4],
      [1.02, 0],
      [1.1, -1.6],
    ],
  },
  ran_short: {
    cause: 'mixed_short',
    unit: 'yes',
    worth: [
      [0, -0.4],
      [1, 2],
    ],
  },
  water_stood: {
    cause: 'water_film',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -0.5],
      [1, 1.5],
    ],
  },
  not_drained: {
    cause: 'water_film',
    unit: 'yes',
    worth: [
      [0, -0.8],
      [1, 1.2],
    ],
  },
  bowl_crumbs: {
    cause: 'dirty_bowl',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1],
      [1, 1.8],
    ],
  },
  /** Times of setting as they were seen, against bag, ratio and temperatures. */
  set_fast: {
    cause: 'dirty_bowl',
    unit: 'share',
    worth: [
      [0.5, 2.2],
      [0.75, 1],
      [0.9, 0],
      [1.1, -0.7],
    ],
  },
  set_slow: {
    cause: 'old_bag',
    unit: 'share',
    worth: [
      [0.85, -0.7],
      [1.1, 0],
      [1.3, 0.8],
      [1.6, 1.8],
    ],
  },
  bag_open: {
    cause: 'old_bag',
    unit: 'days',
    worth: [
      [20, -1],
      [100, 0],
      [200, 0.8],
      [400, 1.4],
    ],
  },
  bag_damp: {
    cause: 'old_bag',
    unit: 'yes',
    worth: [
      [0, -0.3],
      [1, 1.5],
    ],
  },
  bag_lumpy: {
    cause: 'old_bag',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -0.6],
      [1, 1.8],
    ],
  },
  salty_water: {
    cause: 'salts',
    unit: 'yes',
    worth: [
      [0, -0.6],
      [1, 1.4],
    ],
  },
  /** Ground may hold salts: it makes them likelier, and is no sign that there were any. */
  salty_ground: {
    cause: 'salts',
    unit: 'yes',
    worth: [
      [0, 0],
      [1, 0.6],
    ],
  },
  mix_temp: {
    cause: 'cold',
    unit: 'tempC',
    worth: [
      [4, 2],
      [10, 1],
      [14, 0],
      [18, -0.8],
    ],
  },
  mould_temp: {
    cause: 'cold',
    unit: 'tempC',
    worth: [
      [2, 1.6],
      [8, 0.8],
      [13, 0],
      [18, -0.4],
    ],
  },
  ground_temp: {
    cause: 'ground_cold',
    unit: 'tempC',
    worth: [
      [2, 2],
      [6, 1.2],
      [10, 0.3],
      [14, -0.6],
      [18, -1],
    ],
  },
  /** How wet the ground was, from dry to standing in water. */
  ground_wet: {
    cause: 'ground_cold',
    unit: 'share',
    toldOnly: true,
    worth: [
      [0, -0.8],
      [0.5, 0.3],
      [1, 1.6],
    ],
  },
  /** Liquid colour, of the powder. */
  liquid_colour: {
    cause: 'colour_split',
    unit: 'pct',
    worth: [
      [0, -1.2],
      [2, 0.4],
      [5, 1.2],
      [10, 2],
    ],
  },
  /** Dry colour, against what a mix takes. */
  pigment_over: {
    cause: 'colour_split',
    unit: 'share',
    worth: [
      [0.2, -0.5],
      [1, 0],
      [1.5, 0.8],
      [3, 1.8],
    ],
  },
  /** Something is in the mix that is known to weaken it, or more than is known. */
  weakening_added: {
    cause: 'additions_weaken',
    unit: 'yes',
    worth: [
      [0, -1],
      [1, 1.4],
    ],
  },
  was_moved: {
    cause: 'moved',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1],
      [1, 2],
    ],
  },
  release_undone: {
    cause: 'release_missing',
    unit: 'yes',
    worth: [
      [0, -0.8],
      [1, 1.6],
    ],
  },
  gripped: {
    cause: 'release_missing',
    unit: 'yes',
    worth: [
      [0, -0.6],
      [1, 1.6],
    ],
  },
  film_used: {
    cause: 'release_smeared',
    unit: 'yes',
    worth: [
      [0, -1.6],
      [1, 0.4],
    ],
  },
  film_smeared: {
    cause: 'release_smeared',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1],
      [1, 1.6],
    ],
  },
  /** Whether this mould takes a film at all. */
  film_taken: {
    cause: 'release_thick',
    unit: 'yes',
    worth: [
      [0, -1.6],
      [1, 0.2],
    ],
  },
  film_thick: {
    cause: 'release_thick',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1.2],
      [1, 1.8],
    ],
  },
  undercut_rigid: {
    cause: 'undercut_forced',
    unit: 'yes',
    worth: [
      [0, -1.5],
      [1, 2],
    ],
  },
  /** Where it is thinnest, against what a piece for this purpose needs. */
  thinnest: {
    cause: 'thin_section',
    unit: 'mm',
    worth: [
      [0.4, 2],
      [0.7, 1],
      [1, 0],
      [1.9, -1.5],
    ],
  },
  /** Where it is thickest, against where it is thinnest. */
  wall_spread: {
    cause: 'uneven_wall',
    unit: 'share',
    worth: [
      [1.3, -0.8],
      [2.5, 0],
      [5, 1],
      [10, 1.6],
    ],
  },
  /** When it came out, against the advice. */
  out_at: {
    cause: 'early_out',
    unit: 'share',
    worth: [
      [0.5, 2.5],
      [0.8, 1.2],
      [1, -0.4],
      [1.3, -1.5],
      [2, -2.2],
    ],
  },
  mould_damaged: {
    cause: 'mould_flaws',
    unit: 'yes',
    worth: [
      [0, -0.2],
      [1, 1.6],
    ],
  },
  mould_not_looked_at: {
    cause: 'mould_flaws',
    unit: 'yes',
    worth: [
      [0, -0.4],
      [1, 0.6],
    ],
  },
  gel_not_fresh: {
    cause: 'gel_shrank',
    unit: 'yes',
    worth: [
      [0, -1.2],
      [1, 1.8],
    ],
  },
  mould_unsealed: {
    cause: 'mould_colours',
    unit: 'yes',
    worth: [
      [0, -1],
      [1, 1.4],
    ],
  },
  hours_in_gel: {
    cause: 'gel_softens',
    unit: 'h',
    worth: [
      [1, -0.6],
      [4, 0.2],
      [12, 1.2],
    ],
  },
  drying_temp: {
    cause: 'dried_hot',
    unit: 'tempC',
    worth: [
      [25, -1.5],
      [38, 0],
      [45, 1.2],
      [50, 2.5],
    ],
  },
  one_face_dry: {
    cause: 'dried_uneven',
    unit: 'yes',
    worth: [
      [0, -0.8],
      [1, 1],
    ],
  },
  was_knocked: {
    cause: 'knocked',
    unit: 'yes',
    toldOnly: true,
    worth: [
      [0, -1],
      [1, 2],
    ],
  },
} as const satisfies Record<string, SignDefinition>

export type SignId = keyof typeof SIGN
export const SIGNS = Object.keys(SIGN) as SignId[]
/** Those that a record can show of itself. */
export type RecordedSign = {
  [S in SignId]: (typeof SIGN)[S] extends { toldOnly: true } ? never : S
}[SignId]

/** What a sign's figure is worth, as the logarithm of the likelihood ratio. */
export function worthOf(sign: SignId, value: number): number {
  const { worth }: SignDefinition = SIGN[sign]
  const after = worth.findIndex(([at]) => at >= value)
  if (after === 0) return worth[0]![1]
  if (after < 0) return worth.at(-1)![1]
  const [[x0, y0], [x1, y1]] = [worth[after - 1]!, worth[after]!]
  return y0 + ((y1 - y0) * (value - x0)) / (x1 - x0)
}
