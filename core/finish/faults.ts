/** What can be wrong with a piece, as casters name it (common practice, no source). */
export const FAULT_KINDS = [
  'air_holes',
  'voids',
  'bumps',
  'soft',
  'lumps',
  'crack',
  'streaks',
  'flow_lines',
  'short_fill',
  'warped',
  'off_size',
  'detail_lost',
  'stuck',
  'stains',
  'crystals',
  'crumbled_edge',
  'broke',
] as const
export type FaultKind = (typeof FAULT_KINDS)[number]

/** Where on the piece. */
export const FAULT_PLACES = ['face', 'edge', 'back', 'inside', 'all_over'] as const
export type FaultPlace = (typeof FAULT_PLACES)[number]

/** A spot on a picture, as shares of its width and height from its upper left corner, 0–1. */
export interface Spot {
  x: number
  y: number
}

/** One fault as somebody saw it. */
export interface Fault {
  kind: FaultKind
  place?: FaultPlace
  /** Across, mm: of a bubble, a crack's length, the part that is missing. */
  sizeMm?: number
  spot?: Spot
  /** The photograph that `spot` is on; on the drawn section where it is not said. */
  photoId?: string
}
