import { requireFinite } from '../errors'

/** A cavity described by its inside measurements, mm. */
export type CavityShape =
  | { kind: 'box'; lengthMm: number; widthMm: number; depthMm: number }
  | { kind: 'cylinder'; diameterMm: number; depthMm: number }
  | { kind: 'bowl'; rimDiameterMm: number; depthMm: number }

/**
 * Volume of a cavity, ml, from inside measurements in mm.
 * A bowl is a spherical cap of the given rim diameter and depth; a depth beyond the rim radius is allowed
 * (a deep bowl that narrows towards its rim).
 * Exact for the ideal form; a taped measurement is good to about 5 % of volume (common practice, no source).
 * @throws ArgumentError on a non-finite measurement.
 */
export function cavityVolumeMl(shape: CavityShape): number {
  switch (shape.kind) {
    case 'box':
      requireFinite({ lengthMm: shape.lengthMm, widthMm: shape.widthMm, depthMm: shape.depthMm })
      return (shape.lengthMm * shape.widthMm * shape.depthMm) / 1000
    case 'cylinder':
      requireFinite({ diameterMm: shape.diameterMm, depthMm: shape.depthMm })
      return (Math.PI * (shape.diameterMm / 2) ** 2 * shape.depthMm) / 1000
    case 'bowl': {
      requireFinite({ rimDiameterMm: shape.rimDiameterMm, depthMm: shape.depthMm })
      const rimRadiusMm = shape.rimDiameterMm / 2
      return ((Math.PI * shape.depthMm) / 6) * (3 * rimRadiusMm ** 2 + shape.depthMm ** 2) * 1e-3
    }
  }
}

/**
 * Thickness of the slab that would heat and dry like the cavity, mm: 2 × volume / whole surface.
 * For a thin plate it is nearly the plate's own thickness.
 */
export function equivalentThicknessMm(shape: CavityShape): number {
  const volumeMm3 = cavityVolumeMl(shape) * 1000
  switch (shape.kind) {
    case 'box': {
      const { lengthMm: l, widthMm: w, depthMm: d } = shape
      return (2 * volumeMm3) / (2 * (l * w + l * d + w * d))
    }
    case 'cylinder': {
      const radiusMm = shape.diameterMm / 2
      return (2 * volumeMm3) / (2 * Math.PI * radiusMm * (radiusMm + shape.depthMm))
    }
    case 'bowl': {
      const rimRadiusMm = shape.rimDiameterMm / 2
      const capAreaMm2 = Math.PI * (rimRadiusMm ** 2 + shape.depthMm ** 2)
      return (2 * volumeMm3) / (capAreaMm2 + Math.PI * rimRadiusMm ** 2)
    }
  }
}
