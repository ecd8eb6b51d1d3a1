import { requireFinite } from '../errors'
import type { Point } from './polyline'

/** A cavity described by its inside measurements, mm. Depths are to the fill line. */
export type CavityShape =
  | { kind: 'box'; lengthMm: number; widthMm: number; depthMm: number }
  | { kind: 'slab'; lengthMm: number; widthMm: number; thicknessMm: number; cornerRadiusMm: number }
  | { kind: 'cylinder'; diameterMm: number; depthMm: number }
  | { kind: 'frustum'; topDiameterMm: number; bottomDiameterMm: number; depthMm: number }
  | { kind: 'bowl'; rimDiameterMm: number; depthMm: number }
  | { kind: 'footed_bowl'; rimDiameterMm: number; footDiameterMm: number; depthMm: number }
  | { kind: 'ring'; outerDiameterMm: number; innerDiameterMm: number; depthMm: number }
  | { kind: 'half_round'; lengthMm: number; diameterMm: number; depthMm: number }
  | { kind: 'prism'; sides: number; sideMm: number; depthMm: number }

export const SHAPE_KINDS = [
  'box',
  'slab',
  'cylinder',
  'frustum',
  'bowl',
  'footed_bowl',
  'ring',
  'half_round',
  'prism',
] as const satisfies readonly CavityShape['kind'][]

export type ShapeIssueCode =
  | 'ring_inside_out'
  | 'deeper_than_half_round'
  | 'corner_larger_than_slab'
  | 'nothing_left'

/** Measurements that cannot belong together; undefined when the form can exist. */
export function shapeFault(
  shape: CavityShape,
): { code: ShapeIssueCode; path: string; actual: number; limit: number } | undefined {
  switch (shape.kind) {
    case 'ring':
      return shape.innerDiameterMm >= shape.outerDiameterMm
        ? {
            code: 'ring_inside_out',
            path: 'innerDiameterMm',
            actual: shape.innerDiameterMm,
            limit: shape.outerDiameterMm,
          }
        : undefined
    case 'half_round':
      return shape.depthMm > shape.diameterMm / 2
        ? {
            code: 'deeper_than_half_round',
            path: 'depthMm',
            actual: shape.depthMm,
            limit: shape.diameterMm / 2,
          }
        : undefined
    case 'slab': {
      const limit = Math.min(shape.lengthMm, shape.widthMm) / 2
      return shape.cornerRadiusMm > limit
        ? { code: 'corner_larger_than_slab', path: 'cornerRadiusMm', actual: shape.cornerRadiusMm, limit }
        : undefined
    }
    case 'box':
    case 'cylinder':
    case 'frustum':
    case 'bowl':
    case 'footed_bowl':
    case 'prism':
      return undefined
  }
}

function measurementsOf(shape: CavityShape): Record<string, number> {
  return Object.fromEntries(Object.entries(shape).filter(([key]) => key !== 'kind')) as Record<string, number>
}

/** Outline of a form with straight walls: area mm², perimeter mm. */
function outlineOf(
  shape: CavityShape,
): { areaMm2: number; perimeterMm: number; depthMm: number } | undefined {
  switch (shape.kind) {
    case 'box':
      return {
        areaMm2: shape.lengthMm * shape.widthMm,
        perimeterMm: 2 * (shape.lengthMm + shape.widthMm),
        depthMm: shape.depthMm,
      }
    case 'slab': {
      const r = shape.cornerRadiusMm
      return {
        areaMm2: shape.lengthMm * shape.widthMm - (4 - Math.PI) * r ** 2,
        perimeterMm: 2 * (shape.lengthMm + shape.widthMm) - (8 - 2 * Math.PI) * r,
        depthMm: shape.thicknessMm,
      }
    }
    case 'cylinder':
      return {
        areaMm2: (Math.PI * shape.diameterMm ** 2) / 4,
        perimeterMm: Math.PI * shape.diameterMm,
        depthMm: shape.depthMm,
      }
    case 'ring':
      return {
        areaMm2: (Math.PI * (shape.outerDiameterMm ** 2 - shape.innerDiameterMm ** 2)) / 4,
        perimeterMm: Math.PI * (shape.outerDiameterMm + shape.innerDiameterMm),
        depthMm: shape.depthMm,
      }
    case 'half_round': {
      // A circular segment, lying: its "depth" as a prism is the length.
      const radius = shape.diameterMm / 2
      const half = Math.acos(1 - shape.depthMm / radius)
      return {
        areaMm2: radius ** 2 * (half - Math.sin(half) * Math.cos(half)),
        perimeterMm: 2 * radius * (half + Math.sin(half)),
        depthMm: shape.lengthMm,
      }
    }
    case 'prism':
      return {
        areaMm2: (shape.sides * shape.sideMm ** 2) / (4 * Math.tan(Math.PI / shape.sides)),
        perimeterMm: shape.sides * shape.sideMm,
        depthMm: shape.depthMm,
      }
    case 'frustum':
    case 'bowl':
    case 'footed_bowl':
      return undefined
  }
}

/** Radii of the two circles that end a form of revolution, mm. */
function endRadii(shape: Extract<CavityShape, { kind: 'frustum' | 'bowl' | 'footed_bowl' }>) {
  if (shape.kind === 'frustum') return { top: shape.topDiameterMm / 2, bottom: shape.bottomDiameterMm / 2 }
  if (shape.kind === 'bowl') return { top: shape.rimDiameterMm / 2, bottom: 0 }
  return { top: shape.rimDiameterMm / 2, bottom: shape.footDiameterMm / 2 }
}

/**
 * Volume of a cavity, ml, from inside measurements in mm.
 * A bowl is a spherical cap of the given rim diameter and depth, a footed bowl the spherical segment between foot and
 * rim; a depth beyond the rim radius is allowed (a deep bowl that narrows towards its rim).
 * Exact for the ideal form. Assumes `shapeFault` found nothing.
 * @throws ArgumentError on a non-finite measurement.
 */
export function cavityVolumeMl(shape: CavityShape): number {
  requireFinite(measurementsOf(shape))
  const outline = outlineOf(shape)
  if (outline) return (outline.areaMm2 * outline.depthMm) / 1000
  const of = shape as Extract<CavityShape, { kind: 'frustum' | 'bowl' | 'footed_bowl' }>
  const { top, bottom } = endRadii(of)
  const h = of.depthMm
  return of.kind === 'frustum'
    ? ((Math.PI * h) / 3) * (top ** 2 + top * bottom + bottom ** 2) * 1e-3
    : ((Math.PI * h) / 6) * (3 * top ** 2 + 3 * bottom ** 2 + h ** 2) * 1e-3
}

/** Whole surface of the piece, mm²: walls, floor and the open face. */
export function cavitySurfaceMm2(shape: CavityShape): number {
  const outline = outlineOf(shape)
  if (outline) return 2 * outline.areaMm2 + outline.perimeterMm * outline.depthMm
  const of = shape as Extract<CavityShape, { kind: 'frustum' | 'bowl' | 'footed_bowl' }>
  const { top, bottom } = endRadii(of)
  const h = of.depthMm
  const ends = Math.PI * (top ** 2 + bottom ** 2)
  if (of.kind === 'frustum') return ends + Math.PI * (top + bottom) * Math.hypot(top - bottom, h)
  return ends + 2 * Math.PI * sphereOf(top, bottom, h).radiusMm * h
}

/** The sphere through two parallel circles a height apart; its centre above the lower one. */
function sphereOf(top: number, bottom: number, heightMm: number): { radiusMm: number; centreMm: number } {
  const centreMm = (top ** 2 - bottom ** 2 + heightMm ** 2) / (2 * heightMm)
  return { radiusMm: Math.hypot(bottom, centreMm), centreMm }
}

/** Smallest of the measurements that could be the thin one of the piece, mm. */
export function thinnestMm(shape: CavityShape): number {
  switch (shape.kind) {
    case 'box':
      return Math.min(shape.lengthMm, shape.widthMm, shape.depthMm)
    case 'slab':
      return shape.thicknessMm
    case 'ring':
      return Math.min(shape.depthMm, (shape.outerDiameterMm - shape.innerDiameterMm) / 2)
    case 'cylinder':
    case 'frustum':
    case 'bowl':
    case 'footed_bowl':
    case 'half_round':
    case 'prism':
      return shape.depthMm
  }
}

const ARC_STEPS = 24

/**
 * Half of the section through the deepest line, from the middle of the floor to the rim: [across, up] pairs, mm, floor
 * at 0. For forms of revolution it is the profile; for the others the section across the width.
 */
export function halfSection(shape: CavityShape): Point[] {
  switch (shape.kind) {
    case 'box':
    case 'slab': {
      const half = Math.max(shape.widthMm, shape.lengthMm) / 2
      const up = shape.kind === 'box' ? shape.depthMm : shape.thicknessMm
      return [
        [0, 0],
        [half, 0],
        [half, up],
      ]
    }
    case 'cylinder':
      return [
        [0, 0],
        [shape.diameterMm / 2, 0],
        [shape.diameterMm / 2, shape.depthMm],
      ]
    case 'prism': {
      const across = shape.sideMm / (2 * Math.sin(Math.PI / shape.sides))
      return [
        [0, 0],
        [across, 0],
        [across, shape.depthMm],
      ]
    }
    case 'ring':
      return [
        [shape.innerDiameterMm / 2, shape.depthMm],
        [shape.innerDiameterMm / 2, 0],
        [shape.outerDiameterMm / 2, 0],
        [shape.outerDiameterMm / 2, shape.depthMm],
      ]
    case 'frustum':
      return [
        [0, 0],
        [shape.bottomDiameterMm / 2, 0],
        [shape.topDiameterMm / 2, shape.depthMm],
      ]
    case 'half_round':
      return arc(0, shape.depthMm, { radiusMm: shape.diameterMm / 2, centreMm: shape.diameterMm / 2 })
    case 'bowl':
    case 'footed_bowl': {
      const { top, bottom } = endRadii(shape)
      return [[0, 0] as Point, ...arc(0, shape.depthMm, sphereOf(top, bottom, shape.depthMm))]
    }
  }
}

function arc(fromMm: number, toMm: number, circle: { radiusMm: number; centreMm: number }): Point[] {
  // Stepping the angle, not the height, keeps the flat bottom as smooth as the walls.
  const angleAt = (z: number) => Math.acos(Math.min(1, Math.max(-1, (circle.centreMm - z) / circle.radiusMm)))
  const [start, end] = [angleAt(fromMm), angleAt(toMm)]
  return Array.from({ length: ARC_STEPS + 1 }, (_, i): Point => {
    const angle = start + ((end - start) * i) / ARC_STEPS
    return [circle.radiusMm * Math.sin(angle), circle.centreMm - circle.radiusMm * Math.cos(angle)]
  })
}
