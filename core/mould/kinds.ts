/**
 * What the plaster sets against. Decides how long it must stay in (core/demould) and how it comes out.
 */
export const MOULD_KINDS = [
  'silicone',
  'rigid_plastic',
  'plaster_piece',
  'box',
  'latex',
  'waste_clay',
  'alginate',
  'impression_tray',
  'shell',
  'ground',
] as const
export type MouldKind = (typeof MOULD_KINDS)[number]
