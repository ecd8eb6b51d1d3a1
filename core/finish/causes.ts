import type { FaultKind } from './faults'

/**
 * What makes a piece fail. Of each: how often it happens to a hand-cast pour nobody knows anything else of (`base`), and
 * with what chance it alone would show as each fault. Common practice for what causes what; the figures are estimates,
 * no source (docs/science.md#diagnosis).
 */
interface CauseDefinition {
  base: number
  shows: Partial<Record<FaultKind, number>>
}

export const CAUSE = {
  too_thin: {
    base: 0.1,
    shows: { soft: 0.6, crumbled_edge: 0.35, broke: 0.25, crack: 0.15, streaks: 0.15, warped: 0.05 },
  },
  too_thick: {
    base: 0.1,
    shows: { air_holes: 0.4, voids: 0.35, flow_lines: 0.3, short_fill: 0.2, lumps: 0.2, detail_lost: 0.2 },
  },
  soak_short: { base: 0.12, shows: { air_holes: 0.4, lumps: 0.4, streaks: 0.1, soft: 0.1 } },
  sifted_fast: { base: 0.08, shows: { lumps: 0.6, air_holes: 0.3 } },
  stirred_little: { base: 0.06, shows: { lumps: 0.5, streaks: 0.4, soft: 0.3, flow_lines: 0.05 } },
  stirred_long: {
    base: 0.08,
    shows: { soft: 0.3, flow_lines: 0.25, short_fill: 0.25, air_holes: 0.2, crumbled_edge: 0.15 },
  },
  stirred_hard: { base: 0.08, shows: { air_holes: 0.6, voids: 0.1 } },
  past_working: {
    base: 0.07,
    shows: {
      flow_lines: 0.5,
      voids: 0.35,
      soft: 0.35,
      short_fill: 0.25,
      air_holes: 0.2,
      crumbled_edge: 0.2,
      streaks: 0.15,
      detail_lost: 0.2,
    },
  },
  poured_high: { base: 0.08, shows: { air_holes: 0.4, voids: 0.15, flow_lines: 0.1 } },
  no_tap: { base: 0.08, shows: { air_holes: 0.45, voids: 0.35 } },
  air_in_form: { base: 0.1, shows: { voids: 0.5, air_holes: 0.3 } },
  layers_late: { base: 0.06, shows: { flow_lines: 0.6, crack: 0.25, broke: 0.2 } },
  leaked: { base: 0.05, shows: { short_fill: 0.7, voids: 0.2 } },
  mixed_short: { base: 0.06, shows: { short_fill: 0.8 } },
  water_film: { base: 0.06, shows: { soft: 0.45, streaks: 0.25, air_holes: 0.15 } },
  dirty_bowl: { base: 0.07, shows: { lumps: 0.3, flow_lines: 0.25, soft: 0.1, stains: 0.1 } },
  old_bag: { base: 0.08, shows: { soft: 0.45, lumps: 0.3, crumbled_edge: 0.25 } },
  salts: { base: 0.05, shows: { crystals: 0.7, stains: 0.25 } },
  cold: { base: 0.06, shows: { soft: 0.4, crumbled_edge: 0.2, stuck: 0.15, broke: 0.15 } },
  ground_cold: { base: 0.06, shows: { soft: 0.5, crumbled_edge: 0.3, broke: 0.15, stuck: 0.1 } },
  colour_split: { base: 0.05, shows: { streaks: 0.5, soft: 0.4, stains: 0.2, crumbled_edge: 0.1 } },
  additions_weaken: { base: 0.05, shows: { soft: 0.5, crumbled_edge: 0.3, broke: 0.1, stuck: 0.1 } },
  moved: { base: 0.05, shows: { crack: 0.4, warped: 0.15, off_size: 0.1, soft: 0.1, flow_lines: 0.1 } },
  release_missing: { base: 0.06, shows: { stuck: 0.6, broke: 0.35, crumbled_edge: 0.25 } },
  release_smeared: { base: 0.08, shows: { streaks: 0.5, stains: 0.25, air_holes: 0.25, flow_lines: 0.1 } },
  release_thick: { base: 0.06, shows: { detail_lost: 0.6, streaks: 0.3, air_holes: 0.2, stains: 0.15 } },
  undercut_forced: { base: 0.05, shows: { stuck: 0.7, broke: 0.6, crack: 0.3, crumbled_edge: 0.2 } },
  thin_section: { base: 0.06, shows: { broke: 0.5, crack: 0.4, warped: 0.3 } },
  uneven_wall: { base: 0.06, shows: { crack: 0.4, warped: 0.35, broke: 0.25, off_size: 0.1 } },
  early_out: {
    base: 0.1,
    shows: {
      crumbled_edge: 0.4,
      broke: 0.35,
      warped: 0.35,
      soft: 0.3,
      crack: 0.25,
      stuck: 0.2,
      detail_lost: 0.1,
    },
  },
  mould_flaws: {
    base: 0.08,
    shows: { bumps: 0.7, detail_lost: 0.3, off_size: 0.2, streaks: 0.1, stains: 0.1 },
  },
  mould_colours: { base: 0.05, shows: { stains: 0.7 } },
  gel_shrank: { base: 0.06, shows: { off_size: 0.6, warped: 0.35, detail_lost: 0.1 } },
  gel_softens: { base: 0.06, shows: { soft: 0.5, bumps: 0.15, air_holes: 0.1 } },
  dried_hot: { base: 0.05, shows: { soft: 0.4, crack: 0.3, warped: 0.25, crumbled_edge: 0.2 } },
  dried_uneven: { base: 0.07, shows: { warped: 0.5, crystals: 0.25, stains: 0.2, off_size: 0.1 } },
  knocked: { base: 0.05, shows: { broke: 0.5, crumbled_edge: 0.4, crack: 0.4 } },
} as const satisfies Record<string, CauseDefinition>

export type CauseId = keyof typeof CAUSE
export const CAUSES = Object.keys(CAUSE) as [CauseId, ...CauseId[]]

/** Chance that this cause alone shows as this fault, 0–1. */
export function showsAs(cause: CauseId, fault: FaultKind): number {
  const { shows }: CauseDefinition = CAUSE[cause]
  return shows[fault] ?? 0
}
