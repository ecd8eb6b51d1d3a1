import type { CavityDescription } from './describe'
import type { VolumeMethod } from './methods'
import { flattenProfile } from './profile'
import type { CavityShape } from './shapes'

/** How long and how deep a cavity is, mm, as far as its description tells. */
export interface Extent {
  longestMm: number
  depthMm: number
}

function extentOfShape(shape: CavityShape): Extent {
  switch (shape.kind) {
    case 'box':
      return of(shape.depthMm, shape.lengthMm, shape.widthMm)
    case 'slab':
      return of(shape.thicknessMm, shape.lengthMm, shape.widthMm)
    case 'cylinder':
      return of(shape.depthMm, shape.diameterMm)
    case 'frustum':
      return of(shape.depthMm, shape.topDiameterMm, shape.bottomDiameterMm)
    case 'bowl':
    case 'footed_bowl':
      return of(shape.depthMm, shape.rimDiameterMm)
    case 'ring':
      return of(shape.depthMm, shape.outerDiameterMm)
    case 'half_round':
      return of(shape.depthMm, shape.lengthMm, shape.diameterMm)
    case 'prism':
      // Across the corners.
      return of(shape.depthMm, shape.sideMm / Math.sin(Math.PI / shape.sides))
  }
}

const of = (depthMm: number, ...acrossMm: number[]): Extent => ({
  depthMm,
  longestMm: Math.max(depthMm, ...acrossMm),
})

function extentOfMethod(m: VolumeMethod): Extent | undefined {
  switch (m.by) {
    case 'shape':
      return extentOfShape(m.shape)
    case 'profile': {
      const points = flattenProfile(m.outer)
      const heights = points.map(([, heightMm]) => heightMm)
      const bottom = Math.min(...heights)
      const top = m.fillHeightMm === null ? Math.max(...heights) : bottom + m.fillHeightMm
      return of(top - bottom, 2 * Math.max(...points.map(([radiusMm]) => radiusMm)))
    }
    case 'ground':
      return m.dam === 'ring'
        ? of(m.printDepthMm + m.coverMm, m.diameterMm)
        : of(m.printDepthMm + m.coverMm, m.lengthMm, m.widthMm)
    case 'top_up':
      if (m.outline === 'area') return undefined
      return m.outline === 'round' ? of(m.depthMm, m.diameterMm) : of(m.depthMm, m.lengthMm, m.widthMm)
    case 'water_fill':
    case 'dry_fill':
    case 'displacement':
    case 'shell':
    case 'weighed_cast':
    case 'known':
      return undefined
  }
}

/** Extent of the largest part that tells; undefined where none does. */
export function extentOf(volume: CavityDescription): Extent | undefined {
  const known = volume.parts
    .filter((p) => p.role === 'add')
    .map((p) => extentOfMethod(p.method))
    .filter((e) => e !== undefined)
  if (known.length === 0) return undefined
  return {
    longestMm: Math.max(...known.map((e) => e.longestMm)),
    depthMm: Math.max(...known.map((e) => e.depthMm)),
  }
}
