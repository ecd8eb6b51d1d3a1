import { LEAST_VOLUME_ML, MOST_VOLUME_ML } from '../../bounds'
import type { Issue } from '../../errors'
import type { Provenance } from '../../provenance'
import type { ProfileFaultCode } from '../profile'
import type { ShapeIssueCode } from '../shapes'

export type VolumeNote =
  | 'water_to_fill_line'
  | 'drain_before_casting'
  | 'grains_pack_alike'
  | 'grains_loosen_at_walls'
  | 'grains_miss_fine_detail'
  | 'form_taken_as_ideal'
  | 'wall_between_profiles'
  | 'print_taken_half_as_deep'
  | 'print_by_its_form'
  | 'print_by_depths'
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
  | { ok: true; finding: VolumeFinding; issues: VolumeIssue[] }
  | { ok: false; issues: VolumeIssue[] }

export const fault = (
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
export const warning = (...of: Parameters<typeof fault>): VolumeIssue => ({
  ...fault(...of),
  severity: 'warning',
})

export const MEASURED: Provenance = { kind: 'measured' }
export const TAPED: Provenance = { kind: 'model', source: 'from its inside measurements' }

/** A tape or rule inside a mould is read to about this, mm (common practice, no source). */
export const TAPE_MM = 1.5
/** A real mould departs from its ideal form by about this share of volume (common practice, no source). */
export const FORM_SHARE = 0.02

/** A volume that holds enough and not too much to be cast, or why it does not. */
export function found(
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

/** How long and how deep a cavity is, mm, as far as its description tells. */
export interface Extent {
  longestMm: number
  depthMm: number
}

export const extent = (depthMm: number, ...acrossMm: number[]): Extent => ({
  depthMm,
  longestMm: Math.max(depthMm, ...acrossMm),
})
