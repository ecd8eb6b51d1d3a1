import type { Air } from '../drying'
import type { WallMaterial } from './materials'

/** Where a piece is one-dimensional, and what it lies in: what the heat model needs to know of it. */
export interface HeatPiece {
  shape: 'slab' | 'cylinder' | 'sphere'
  /** Thickness of a slab; radius of the others, mm. Volume over surface: slab 2V/A, cylinder 2V/A, sphere 3V/A. */
  sizeMm: number
  /** Mould about it, from the piece outwards; under a slab, around the others. */
  walls: { material: WallMaterial; thicknessMm: number }[]
  /** What the mould stands on: a bench of wood over air, the ground itself, or nothing. */
  standsOn: 'bench' | 'air' | 'dry_sand' | 'wet_sand' | 'wet_silt'
  /** A slab's upper face: open to the air and wet, or shut in as its underside is. */
  top: 'open' | 'covered'
}

export interface HeatSurroundings {
  airTempC: number
  rhPct: Air['rhPct']
  speedMS: Air['speedMS']
  mouldTempC: number
  groundTempC: number
  /** Sun taken up by an open face, W/m²: white plaster takes up about .3 of what shines on it. */
  sunWM2: number
}
