import { LEAST_VOLUME_ML, MOST_VOLUME_ML } from '../bounds'
import type { Issue } from '../errors'
import { mixProperties, waterDensityKgM3 } from '../mix'
import { plasterProperties, type PlasterClassId } from '../plaster'
import type { Provenance } from '../provenance'
import {
  findUndercuts,
  flattenProfile,
  profileFault,
  revolvedSurfaceMm2,
  revolvedVolumeMl,
  wallThickness,
  type ProfileFaultCode,
  type ProfileNode,
} from './profile'
import {
  cavitySurfaceMm2,
  cavityVolumeMl,
  shapeFault,
  thinnestMm,
  type CavityShape,
  type ShapeIssueCode,
} from './shapes'

/** Every way the volume of a cavity can be found. Lengths mm, volumes ml, areas mm², masses g. */
export type VolumeMethod =
  | { by: 'known'; volumeMl: number; plusMinusPct: number }
  | {
      by: 'water_fill'
      reading: 'weighed' | 'measured'
      massG: number
      volumeMl: number
      waterTempC: number
    }
  | { by: 'dry_fill'; grain: Grain; pouredMl: number; narrowestMm: number }
  | { by: 'shape'; shape: CavityShape }
  | { by: 'profile'; outer: ProfileNode[]; inner: ProfileNode[]; fillHeightMm: number | null }
  | {
      by: 'ground'
      dam: 'ring' | 'frame'
      diameterMm: number
      lengthMm: number
      widthMm: number
      printDepthMm: number
      /** Share of the dammed floor that the print takes up, %. */
      printSharePct: number
      coverMm: number
      ground: GroundFirmness
    }
  | {
      by: 'displacement'
      container: 'round' | 'square'
      diameterMm: number
      lengthMm: number
      widthMm: number
      fillDepthMm: number
      object: 'displaced' | 'typical'
      displacedMl: number
      typical: TypicalPart
      objectWidthMm: number
      objectDepthMm: number
      gelRatio: 'by_volume' | 'by_label'
      gelPowderGPer100Ml: number
      gelWorkMin: number
    }
  | {
      by: 'shell'
      object: 'block' | 'round' | 'ball' | 'area'
      lengthMm: number
      widthMm: number
      diameterMm: number
      heightMm: number
      areaMm2: number
      thicknessMm: number
      /** Stands on a board, so that its base is not covered. */
      onBoard: boolean
      layerMm: number
      /** Slurry that one bowl gives before it stiffens, ml. */
      batchMl: number
    }
  | {
      by: 'top_up'
      outline: 'rectangle' | 'round' | 'area'
      lengthMm: number
      widthMm: number
      diameterMm: number
      areaMm2: number
      depthMm: number
      below: LayerBelow
    }
  | {
      by: 'weighed_cast'
      massG: number
      state: 'dry' | 'wet'
      classId: PlasterClassId
      consistency: number
    }

export const VOLUME_METHODS = [
  'water_fill',
  'dry_fill',
  'shape',
  'profile',
  'ground',
  'displacement',
  'shell',
  'top_up',
  'weighed_cast',
  'known',
] as const satisfies readonly VolumeMethod['by'][]

/** Grain size, mm: the least gap it flows through is twice this. Sizes as bought; estimates. */
export const GRAINS = { sand: 0.6, beads: 3, rice: 3, gravel: 8 } as const
export type Grain = keyof typeof GRAINS

/** Extra plaster that soft ground takes, as a share of the whole, and how far the figure may be off. Estimates. */
export const GROUND_FIRMNESS = {
  firm: { spread: 0, offBy: 0.12 },
  damp: { spread: 0.05, offBy: 0.16 },
  soft: { spread: 0.12, offBy: 0.22 },
} as const
export type GroundFirmness = keyof typeof GROUND_FIRMNESS

/** Typical volumes of what is cast through gel, ml, with their usual range. Estimates; no source. */
export const TYPICAL_PARTS = {
  finger: { volumeMl: 15, low: 9, high: 25 },
  ear: { volumeMl: 30, low: 18, high: 50 },
  hand: { volumeMl: 400, low: 280, high: 540 },
  child_hand: { volumeMl: 150, low: 80, high: 230 },
  foot: { volumeMl: 950, low: 700, high: 1300 },
  baby_foot: { volumeMl: 70, low: 45, high: 110 },
} as const
export type TypicalPart = keyof typeof TYPICAL_PARTS

export const LAYERS_BELOW = ['still_soft', 'set_today', 'dry'] as const
export type LayerBelow = (typeof LAYERS_BELOW)[number]

export type VolumeNote =
  | 'water_to_fill_line'
  | 'drain_before_casting'
  | 'grains_pack_alike'
  | 'grains_loosen_at_walls'
  | 'grains_miss_fine_detail'
  | 'form_taken_as_ideal'
  | 'wall_between_profiles'
  | 'print_taken_half_as_deep'
  | 'ground_spreads'
  | 'typical_size_only'
  | 'rounded_corners_counted'
  | 'area_taken_as_flat'
  | 'expansion_taken_off'
  | 'damp_cast_weighs_more'

export type VolumeIssueCode =
  | ShapeIssueCode
  | ProfileFaultCode
  | 'grain_too_large'
  | 'fill_outside_profile'
  | 'wall_uneven'
  | 'cover_too_thin'
  | 'object_larger_than_container'
  | 'object_wider_than_container'
  | 'object_deeper_than_container'
  | 'clearance_too_small'
  | 'clearance_below_too_small'
  | 'shell_without_thickness'
  | 'holds_too_little'
  | 'holds_too_much'

export interface VolumeFinding {
  volumeMl: number
  /** Half the range that holds the truth four times in five, ml. */
  plusMinusMl: number
  provenance: Provenance
  /** Whole surface of the piece, mm², where its form is known. */
  surfaceMm2: number | undefined
  /** Thinnest part of the piece, mm, where its form is known. */
  thinnestMm: number | undefined
  /** Deepest place where the form narrows towards its opening, mm; undefined where the form is not known. */
  undercutMm: number | undefined
  notes: VolumeNote[]
}

export type VolumeIssue = Issue<VolumeIssueCode>
export type VolumeResult =
  { ok: true; finding: VolumeFinding; issues: VolumeIssue[] } | { ok: false; issues: VolumeIssue[] }

const fault = (
  code: VolumeIssueCode,
  path: string,
  actual: number,
  limit: number,
  unit: string,
): VolumeIssue => ({
  code,
  severity: 'error',
  path,
  actual,
  limit,
  unit,
})
const warning = (...of: Parameters<typeof fault>): VolumeIssue => ({ ...fault(...of), severity: 'warning' })

const MEASURED: Provenance = { kind: 'measured' }
const TAPED: Provenance = { kind: 'model', source: 'from its inside measurements' }
const DRAWN: Provenance = { kind: 'model', source: 'from its drawn profile' }

/** A tape or rule inside a mould is read to about this, mm (common practice, no source). */
const TAPE_MM = 1.5
/** A real mould departs from its ideal form by about this share of volume (common practice, no source). */
const FORM_SHARE = 0.02

function found(
  volumeMl: number,
  plusMinusMl: number,
  provenance: Provenance,
  notes: VolumeNote[],
  more: Partial<Pick<VolumeFinding, 'surfaceMm2' | 'thinnestMm' | 'undercutMm'>> = {},
  issues: VolumeIssue[] = [],
): VolumeResult {
  if (volumeMl < LEAST_VOLUME_ML)
    return { ok: false, issues: [fault('holds_too_little', '', volumeMl, LEAST_VOLUME_ML, 'ml')] }
  if (volumeMl > MOST_VOLUME_ML)
    return { ok: false, issues: [fault('holds_too_much', '', volumeMl, MOST_VOLUME_ML, 'ml')] }
  return {
    ok: true,
    issues,
    finding: {
      volumeMl,
      plusMinusMl,
      provenance,
      surfaceMm2: undefined,
      thinnestMm: undefined,
      undercutMm: undefined,
      notes,
      ...more,
    },
  }
}

/** Half range of a volume whose measurements each may be off by the tape, and whose form is not quite ideal. */
function tapedPlusMinusMl(dims: Record<string, number>, volumeOf: (dims: Record<string, number>) => number) {
  const volumeMl = volumeOf(dims)
  let sum = (FORM_SHARE * volumeMl) ** 2
  for (const [name, value] of Object.entries(dims)) {
    if (!name.endsWith('Mm')) continue
    const off = Math.min(TAPE_MM, value / 4)
    sum += (volumeOf({ ...dims, [name]: value + off }) - volumeMl) ** 2
  }
  return Math.sqrt(sum)
}

function fromWater(m: Extract<VolumeMethod, { by: 'water_fill' }>): VolumeResult {
  const notes: VolumeNote[] = ['water_to_fill_line', 'drain_before_casting']
  // A scale is good to a gram or half a per cent here, for drops stay behind; a kitchen jug to three per cent.
  if (m.reading === 'measured') return found(m.volumeMl, Math.max(5, 0.03 * m.volumeMl), MEASURED, notes)
  const volumeMl = (m.massG / waterDensityKgM3(m.waterTempC)) * 1000
  return found(volumeMl, Math.max(2, 0.007 * volumeMl), MEASURED, notes)
}

/** Width of the jug that the grains are measured in, mm. */
const JUG_MM = 90

/**
 * Voids between grains of size d in a space D across: 0.4 + 0.05 d/D + 0.412 (d/D)², for d/D up to one half.
 * Source: Dixon 1988, Can. J. Chem. Eng., spheres in tubes; from memory.
 */
export function voidFraction(grainMm: number, acrossMm: number): number {
  const ratio = grainMm / acrossMm
  return 0.4 + 0.05 * ratio + 0.412 * ratio ** 2
}

function fromGrains(m: Extract<VolumeMethod, { by: 'dry_fill' }>): VolumeResult {
  const grainMm = GRAINS[m.grain]
  if (m.narrowestMm < 2 * grainMm)
    return {
      ok: false,
      issues: [fault('grain_too_large', 'narrowestMm', m.narrowestMm, 2 * grainMm, 'mm')],
    }
  const packing = (1 - voidFraction(grainMm, JUG_MM)) / (1 - voidFraction(grainMm, m.narrowestMm))
  const volumeMl = m.pouredMl * packing
  const plusMinusMl = Math.hypot(0.05 * volumeMl, 0.5 * (volumeMl - m.pouredMl))
  return found(volumeMl, plusMinusMl, MEASURED, [
    'grains_pack_alike',
    'grains_loosen_at_walls',
    'grains_miss_fine_detail',
  ])
}

function fromShape(shape: CavityShape): VolumeResult {
  const wrong = shapeFault(shape)
  if (wrong)
    return { ok: false, issues: [fault(wrong.code, `shape.${wrong.path}`, wrong.actual, wrong.limit, 'mm')] }
  const { kind, ...dims } = shape
  const volumeOf = (changed: Record<string, number>) => cavityVolumeMl({ kind, ...changed } as CavityShape)
  const narrows =
    shape.kind === 'frustum'
      ? (shape.bottomDiameterMm - shape.topDiameterMm) / 2
      : shape.kind === 'footed_bowl'
        ? (shape.footDiameterMm - shape.rimDiameterMm) / 2
        : shape.kind === 'bowl'
          ? shape.depthMm > shape.rimDiameterMm / 2
            ? (shape.rimDiameterMm ** 2 / 4 + shape.depthMm ** 2) / (2 * shape.depthMm) -
              shape.rimDiameterMm / 2
            : 0
          : 0
  return found(
    cavityVolumeMl(shape),
    tapedPlusMinusMl(dims as Record<string, number>, volumeOf),
    TAPED,
    ['form_taken_as_ideal'],
    {
      surfaceMm2: cavitySurfaceMm2(shape),
      thinnestMm: thinnestMm(shape),
      undercutMm: Math.max(0, narrows),
    },
  )
}

/** Walls of a cast should be even to a fifth (common practice, no source). */
const WALL_EVENNESS = 0.2

function fromProfile(m: Extract<VolumeMethod, { by: 'profile' }>): VolumeResult {
  const outer = flattenProfile(m.outer)
  const inner = flattenProfile(m.inner)
  const wrong = profileFault(outer, inner)
  if (wrong) {
    const path = wrong.code === 'inner_outside_outer' ? 'inner' : 'outer'
    return { ok: false, issues: [fault(wrong.code, path, wrong.at[1], wrong.at[0], 'mm')] }
  }
  const floorMm = Math.min(...outer.map((p) => p[1]))
  const rimMm = outer.at(-1)![1]
  const levelMm = m.fillHeightMm === null ? rimMm : floorMm + m.fillHeightMm
  if (levelMm <= floorMm || levelMm > rimMm + 1e-6)
    return {
      ok: false,
      issues: [fault('fill_outside_profile', 'fillHeightMm', levelMm - floorMm, rimMm - floorMm, 'mm')],
    }
  const volumeMl = revolvedVolumeMl(outer, levelMm) - revolvedVolumeMl(inner, levelMm)
  const grown = outer.map(([r, z]): [number, number] => [r + TAPE_MM / 2, z])
  const offMl = revolvedVolumeMl(grown, levelMm) - revolvedVolumeMl(outer, levelMm)
  const undercutMm = Math.max(0, ...findUndercuts(outer).map((u) => u.depthMm))
  const surfaceMm2 = revolvedSurfaceMm2(outer) + (inner.length > 0 ? revolvedSurfaceMm2(inner) : 0)
  const wall = inner.length > 0 ? wallThickness(outer, inner) : undefined
  const uneven =
    wall &&
    Math.max(wall.thickestMm - wall.meanMm, wall.meanMm - wall.thinnestMm) > WALL_EVENNESS * wall.meanMm
      ? [warning('wall_uneven', 'inner', wall.thinnestMm, wall.thickestMm, 'mm')]
      : []
  return found(
    volumeMl,
    Math.hypot(offMl, FORM_SHARE * volumeMl),
    DRAWN,
    wall ? ['form_taken_as_ideal', 'wall_between_profiles'] : ['form_taken_as_ideal'],
    { surfaceMm2, undercutMm, thinnestMm: wall?.thinnestMm },
    uneven,
  )
}

/** Plaster over the highest point of a print, mm (common practice, no source): small and firm; large or soft. */
export const PRINT_COVER_MM = { small: 12, large: 25 } as const
/** A dammed floor of this size and more counts as large, mm²: a ring of 250 mm. */
const LARGE_PRINT_MM2 = 50_000

export function damAreaMm2(m: Extract<VolumeMethod, { by: 'ground' }>): number {
  return m.dam === 'ring' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
}

/** Cover that a print of this size on this ground asks for, mm. */
export function wantedCoverMm(m: Extract<VolumeMethod, { by: 'ground' }>): number {
  return m.ground === 'soft' || damAreaMm2(m) >= LARGE_PRINT_MM2 ? PRINT_COVER_MM.large : PRINT_COVER_MM.small
}

function fromGround(m: Extract<VolumeMethod, { by: 'ground' }>): VolumeResult {
  const areaMm2 = damAreaMm2(m)
  const { spread, offBy } = GROUND_FIRMNESS[m.ground]
  // A print's hollow is on average about half as deep as its deepest toe.
  const printMl = (areaMm2 * (m.printSharePct / 100) * m.printDepthMm * 0.5) / 1000
  const volumeMl = ((areaMm2 * m.coverMm) / 1000 + printMl) * (1 + spread)
  const wanted = wantedCoverMm(m)
  const edgeMm = m.dam === 'ring' ? Math.PI * m.diameterMm : 2 * (m.lengthMm + m.widthMm)
  return found(
    volumeMl,
    Math.hypot(offBy * volumeMl, 0.4 * printMl),
    { kind: 'common_practice' },
    ['print_taken_half_as_deep', ...(spread > 0 ? (['ground_spreads'] as const) : [])],
    { surfaceMm2: 2 * areaMm2 + edgeMm * m.coverMm, thinnestMm: m.coverMm },
    m.coverMm < wanted ? [warning('cover_too_thin', 'coverMm', m.coverMm, wanted, 'mm')] : [],
  )
}

/** Gel all round the object and below it, mm (common practice, no source). */
export const GEL_CLEARANCE_MM = 25

export function containerVolumeMl(m: Extract<VolumeMethod, { by: 'displacement' }>): number {
  const areaMm2 = m.container === 'round' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
  return (areaMm2 * m.fillDepthMm) / 1000
}

export function objectVolumeMl(m: Extract<VolumeMethod, { by: 'displacement' }>): number {
  return m.object === 'displaced' ? m.displacedMl : TYPICAL_PARTS[m.typical].volumeMl
}

function fromDisplacement(m: Extract<VolumeMethod, { by: 'displacement' }>): VolumeResult {
  const containerMl = containerVolumeMl(m)
  const volumeMl = objectVolumeMl(m)
  const acrossMm = m.container === 'round' ? m.diameterMm : Math.min(m.lengthMm, m.widthMm)
  const errors: VolumeIssue[] = []
  if (volumeMl >= containerMl)
    errors.push(fault('object_larger_than_container', 'displacedMl', volumeMl, containerMl, 'ml'))
  if (m.objectWidthMm >= acrossMm)
    errors.push(fault('object_wider_than_container', 'objectWidthMm', m.objectWidthMm, acrossMm, 'mm'))
  if (m.objectDepthMm >= m.fillDepthMm)
    errors.push(fault('object_deeper_than_container', 'objectDepthMm', m.objectDepthMm, m.fillDepthMm, 'mm'))
  if (errors.length > 0) return { ok: false, issues: errors }
  const sideMm = (acrossMm - m.objectWidthMm) / 2
  const belowMm = m.fillDepthMm - m.objectDepthMm
  const issues: VolumeIssue[] = []
  if (sideMm < GEL_CLEARANCE_MM)
    issues.push(warning('clearance_too_small', 'objectWidthMm', sideMm, GEL_CLEARANCE_MM, 'mm'))
  if (belowMm < GEL_CLEARANCE_MM)
    issues.push(warning('clearance_below_too_small', 'objectDepthMm', belowMm, GEL_CLEARANCE_MM, 'mm'))
  const typical = TYPICAL_PARTS[m.typical]
  return m.object === 'displaced'
    ? found(volumeMl, Math.max(5, 0.05 * volumeMl), MEASURED, [], {}, issues)
    : found(
        volumeMl,
        (typical.high - typical.low) / 2,
        { kind: 'common_practice' },
        ['typical_size_only'],
        {},
        issues,
      )
}

/**
 * Volume, mm³, of an even coat around a convex object: Steiner's formula, area × t + mean curvature × t² + 4/3 π t³, cut
 * at the board where it stands on one. Corners and edges get the rounded coat that hands give them.
 */
export function shellVolumeMm3(m: Extract<VolumeMethod, { by: 'shell' }>): number {
  const t = m.thicknessMm
  if (m.object === 'area') return m.areaMm2 * t
  if (m.object === 'ball') {
    const whole = (4 / 3) * Math.PI * ((m.diameterMm / 2 + t) ** 3 - (m.diameterMm / 2) ** 3)
    // A ball on a board is a dome: the half of it that stands above.
    return m.onBoard ? whole / 2 : whole
  }
  const round = m.object === 'round'
  const areaMm2 = round ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
  const perimeterMm = round ? Math.PI * m.diameterMm : 2 * (m.lengthMm + m.widthMm)
  const sides = m.heightMm * (perimeterMm * t + Math.PI * t ** 2)
  const cap = areaMm2 * t + (perimeterMm * Math.PI * t ** 2) / 4 + (2 / 3) * Math.PI * t ** 3
  return sides + (m.onBoard ? cap : 2 * cap)
}

/** Surface of the object that the shell covers, mm². */
export function coveredAreaMm2(m: Extract<VolumeMethod, { by: 'shell' }>): number {
  if (m.object === 'area') return m.areaMm2
  if (m.object === 'ball') return Math.PI * m.diameterMm ** 2 * (m.onBoard ? 0.5 : 1)
  const round = m.object === 'round'
  const areaMm2 = round ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
  const perimeterMm = round ? Math.PI * m.diameterMm : 2 * (m.lengthMm + m.widthMm)
  return perimeterMm * m.heightMm + areaMm2 * (m.onBoard ? 1 : 2)
}

function fromShell(m: Extract<VolumeMethod, { by: 'shell' }>): VolumeResult {
  if (!(m.thicknessMm > 0))
    return { ok: false, issues: [fault('shell_without_thickness', 'thicknessMm', m.thicknessMm, 0, 'mm')] }
  const volumeMl = shellVolumeMm3(m) / 1000
  // A hand-built coat is even to about a fifth at any place and much better over the whole.
  return found(
    volumeMl,
    0.12 * volumeMl,
    TAPED,
    [m.object === 'area' ? 'area_taken_as_flat' : 'rounded_corners_counted'],
    { surfaceMm2: (2 * volumeMl * 1000) / m.thicknessMm, thinnestMm: m.thicknessMm },
  )
}

export function topUpAreaMm2(m: Extract<VolumeMethod, { by: 'top_up' }>): number {
  if (m.outline === 'area') return m.areaMm2
  return m.outline === 'round' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
}

function fromTopUp(m: Extract<VolumeMethod, { by: 'top_up' }>): VolumeResult {
  const areaMm2 = topUpAreaMm2(m)
  const volumeMl = (areaMm2 * m.depthMm) / 1000
  // The depth is the doubtful one: the layer below is never quite flat.
  return found(
    volumeMl,
    volumeMl * Math.hypot(FORM_SHARE, Math.min(0.5, 2 / m.depthMm)),
    TAPED,
    ['form_taken_as_ideal'],
    { surfaceMm2: 2 * areaMm2, thinnestMm: m.depthMm },
  )
}

function fromWeighedCast(m: Extract<VolumeMethod, { by: 'weighed_cast' }>): VolumeResult {
  const plaster = plasterProperties(m.classId)
  const mix = mixProperties({ plaster, consistency: m.consistency, waterTempC: 20, airFraction: 0.01 })
  const perPowderG = m.state === 'dry' ? mix.dryMassPerPowder : mix.dryMassPerPowder + mix.freeWaterPerPowder
  // Slurry volume, not set volume: the cast has grown by its setting expansion since it filled the mould.
  const volumeMl = (m.massG / perPowderG) * mix.slurryMlPerG
  return found(
    volumeMl,
    (m.state === 'dry' ? 0.05 : 0.04) * volumeMl,
    { kind: 'model', source: 'from the weight of an earlier cast' },
    m.state === 'dry' ? ['expansion_taken_off', 'damp_cast_weighs_more'] : ['expansion_taken_off'],
  )
}

/**
 * Volume of a cavity, ml, with half its 80 % range, by the way chosen. What cannot be is an issue of severity `error`,
 * what can be but will go wrong a warning; both are data. Assumes every figure is finite and not negative.
 * Methods, their corrections and sources: docs/science.md#volumes.
 */
export function findVolume(method: VolumeMethod): VolumeResult {
  switch (method.by) {
    case 'known':
      return found(method.volumeMl, (method.volumeMl * method.plusMinusPct) / 100, MEASURED, [])
    case 'water_fill':
      return fromWater(method)
    case 'dry_fill':
      return fromGrains(method)
    case 'shape':
      return fromShape(method.shape)
    case 'profile':
      return fromProfile(method)
    case 'ground':
      return fromGround(method)
    case 'displacement':
      return fromDisplacement(method)
    case 'shell':
      return fromShell(method)
    case 'top_up':
      return fromTopUp(method)
    case 'weighed_cast':
      return fromWeighedCast(method)
  }
}
