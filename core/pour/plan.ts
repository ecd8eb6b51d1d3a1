import type { DryTarget, Air } from '../drying'
import type { MouldKind } from '../mould'
import type { PlasterProperties } from '../plaster'
import type { Provenance } from '../provenance'
import type { RatioMethod, StirManner } from '../setting'

/**
 * What the caster decided, as a snapshot: nothing in it refers to a card that may change later.
 * Names and units are the ones stored and sent.
 */
export interface PourPlan {
  schemaVersion: 1
  piece: string
  mould: {
    name: string
    kind: MouldKind
    cavityMl: number
    volumeProvenance: Provenance
    /** Thickness of the piece as it dries, mm. */
    thicknessMm: number
  }
  plaster: { name: string; properties: PlasterProperties }
  consistency: number
  ratioMethod: RatioMethod
  sparePct: number
  airFraction: number
  waterTempC: number
  powderTempC: number
  soakS: number
  stirS: number
  stirManner: StirManner
  /** Air where it sets and dries. */
  air: Air
  dryingExposure: 'both_faces' | 'one_face'
  dryTarget: DryTarget
  scaleDivisionG: number
}

/** Time to sift a batch in, s: about a minute a kilogram, never under 40 s; filled mixes go in at once (common practice). */
export function siftTimeS(powderG: number, fillerRatio: number): number {
  return fillerRatio > 0 ? 30 : Math.max(40, (powderG / 1000) * 60)
}

/** Tapping after filling, s (common practice: about a minute). */
export const TAP_TIME_S = 60
