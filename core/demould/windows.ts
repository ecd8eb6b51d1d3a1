import type { MouldKind } from '../mould'

/** Why a piece should not be left in its mould for longer. */
export const LATEST_REASONS = ['gel_dries', 'gel_shrinks', 'clay_dries', 'clay_in_shell_dries'] as const
export type LatestReason = (typeof LATEST_REASONS)[number]

/**
 * How long a piece may stay in, min since mid-sprinkle, and why no longer; moulds that are not named here do not mind
 * (common practice, no source).
 */
export const LATEST_OUT: Readonly<Partial<Record<MouldKind, { latestMin: number; why: LatestReason }>>> = {
  impression_tray: { latestMin: 120, why: 'gel_dries' },
  alginate: { latestMin: 12 * 60, why: 'gel_shrinks' },
  waste_clay: { latestMin: 24 * 60, why: 'clay_dries' },
  shell: { latestMin: 90, why: 'clay_in_shell_dries' },
}
