import type { MouldKind } from '../mould'
import type { Range } from '../provenance'

interface DemouldRule {
  /** Hydration degree the slowest place of the piece must have reached. */
  alpha: number
  /** Never sooner than this, min from the pour's start of setting (common practice, no source). */
  floorMin: number
  /** It must have passed its peak of heat, too. */
  pastPeak: boolean
}

/** What each kind of mould asks of the piece before it lets go (docs/science.md#demould). */
export const DEMOULD_RULES: Readonly<Record<MouldKind, DemouldRule>> = {
  silicone: { alpha: 0.9, floorMin: 30, pastPeak: false },
  rigid_plastic: { alpha: 0.95, floorMin: 30, pastPeak: true },
  plaster_piece: { alpha: 0.95, floorMin: 40, pastPeak: true },
  box: { alpha: 0.95, floorMin: 30, pastPeak: true },
  latex: { alpha: 0.98, floorMin: 120, pastPeak: true },
  waste_clay: { alpha: 0.98, floorMin: 60, pastPeak: true },
  alginate: { alpha: 0.98, floorMin: 180, pastPeak: true },
  impression_tray: { alpha: 0.95, floorMin: 40, pastPeak: true },
  shell: { alpha: 0.9, floorMin: 30, pastPeak: false },
  ground: { alpha: 0.98, floorMin: 30, pastPeak: true },
}

export interface DemouldForecast {
  /** When the piece is strong enough, s since mid-sprinkle, with its range. */
  strongEnoughS: Range
  /** When to take it out, s since mid-sprinkle: ready by then nine times in ten, and never under the floor. */
  recommendedS: number
  floorS: number
  /** The floor, not the chemistry, sets the time. */
  heldByFloor: boolean
  /** Not sooner by a look at which it was not so far, carried on to being ready, s since mid-sprinkle; 0 without one. */
  looksHoldS: number
}
