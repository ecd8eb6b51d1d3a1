import { LEAST_VOLUME_ML, MOST_VOLUME_ML } from '../bounds'
import type { Issue } from '../errors'
import { weakestProvenance } from '../provenance'
import { findVolume, type VolumeFinding, type VolumeIssueCode, type VolumeMethod } from './ways'

/** One piece of a cavity: a body, a base, a pour reservoir; or a core or well to take off. */
export interface CavityPart {
  role: 'add' | 'subtract'
  count: number
  method: VolumeMethod
}

/** How the volume of a mould was found: its parts, and perhaps a second way to check the whole. */
export interface CavityDescription {
  parts: CavityPart[]
  /** How many such cavities the mould has. */
  cavities: number
  check: VolumeMethod | null
  /** Which to believe where both are given. */
  trust: 'parts' | 'check' | 'both'
}

export type DescriptionIssueCode = VolumeIssueCode | 'methods_disagree'
export type DescriptionIssue = Issue<DescriptionIssueCode>

export interface CavityFinding extends VolumeFinding {
  parts: VolumeFinding[]
  check: VolumeFinding | undefined
  /** What the parts alone come to, ml ±, for all cavities. */
  partsMl: number
  partsPlusMinusMl: number
}

export type DescriptionResult =
  | { ok: true; finding: CavityFinding; issues: DescriptionIssue[] }
  | { ok: false; issues: DescriptionIssue[] }

/** Whether two findings of one volume differ by more than their ranges, taken together, allow. */
function disagree(
  a: { volumeMl: number; plusMinusMl: number },
  b: { volumeMl: number; plusMinusMl: number },
): boolean {
  return Math.abs(a.volumeMl - b.volumeMl) > Math.hypot(a.plusMinusMl, b.plusMinusMl)
}

function sumOf(values: readonly (number | undefined)[]): number | undefined {
  return values.some((v) => v === undefined) ? undefined : values.reduce((sum: number, v) => sum + v!, 0)
}

function pathed(path: string, issues: readonly Issue<VolumeIssueCode>[]): DescriptionIssue[] {
  return issues.map((i) => ({ ...i, path: i.path === '' ? path : `${path}.${i.path}` }))
}

/**
 * The whole cavity: parts added and taken off, times the number of cavities, against a second way where there is one.
 * Parts are independent, so their ranges add as squares; equal cavities share one error, so theirs multiplies.
 * The check is of the same whole. The order of parts does not matter.
 */
export function describeCavity(of: CavityDescription): DescriptionResult {
  const results = of.parts.map((p) => findVolume(p.method))
  const issues = results.flatMap((r, i) => pathed(`parts.${i}.method`, r.issues))
  const checked = of.check === null ? undefined : findVolume(of.check)
  if (checked) issues.push(...pathed('check', checked.issues))
  if (results.some((r) => !r.ok) || (checked && !checked.ok)) return { ok: false, issues }

  const parts = results.map((r) => (r as Extract<typeof r, { ok: true }>).finding)
  let oneMl = 0
  let oneSquare = 0
  parts.forEach((finding, i) => {
    const { role, count } = of.parts[i]!
    oneMl += (role === 'add' ? 1 : -1) * count * finding.volumeMl
    oneSquare += (count * finding.plusMinusMl) ** 2
  })
  const partsMl = oneMl * of.cavities
  const partsPlusMinusMl = Math.sqrt(oneSquare) * of.cavities
  const refuse = (code: DescriptionIssueCode, actual: number, limit: number): DescriptionResult => ({
    ok: false,
    issues: [...issues, { code, severity: 'error', path: 'parts', actual, limit, unit: 'ml' }],
  })
  if (partsMl <= 0) return refuse('nothing_left', partsMl, 0)
  if (partsMl < LEAST_VOLUME_ML) return refuse('holds_too_little', partsMl, LEAST_VOLUME_ML)
  if (partsMl > MOST_VOLUME_ML) return refuse('holds_too_much', partsMl, MOST_VOLUME_ML)

  const check = checked?.ok ? checked.finding : undefined
  const whole = {
    volumeMl: partsMl,
    plusMinusMl: partsPlusMinusMl,
    provenance: weakestProvenance(parts.map((p) => p.provenance)),
  }
  if (check && disagree(whole, check)) {
    issues.push({
      code: 'methods_disagree',
      severity: 'warning',
      path: 'check',
      actual: check.volumeMl,
      limit: partsMl,
      unit: 'ml',
    })
  }
  const surfaces = parts.map((p, i) =>
    p.surfaceMm2 === undefined ? undefined : p.surfaceMm2 * of.parts[i]!.count,
  )
  const known = (values: (number | undefined)[]) => values.filter((v) => v !== undefined)
  const adding = parts.filter((_, i) => of.parts[i]!.role === 'add')
  const formFindings = check ? [...adding, check] : adding
  const thin = known(formFindings.map((p) => p.thinnestMm))
  const undercut = known(formFindings.map((p) => p.undercutMm))
  return {
    ok: true,
    issues,
    finding: {
      ...trusted(of.trust, whole, check),
      surfaceMm2: sumOf(surfaces),
      thinnestMm: thin.length > 0 ? Math.min(...thin) : undefined,
      undercutMm: undercut.length > 0 ? Math.max(...undercut) : undefined,
      notes: [...new Set([...parts, ...(check ? [check] : [])].flatMap((p) => p.notes))],
      parts,
      check,
      partsMl,
      partsPlusMinusMl,
    },
  }
}

type Figure = Pick<VolumeFinding, 'volumeMl' | 'plusMinusMl' | 'provenance'>

/** The figure to go by: one of the two, or both weighted by the inverse squares of their ranges. */
function trusted(trust: CavityDescription['trust'], parts: Figure, check: Figure | undefined): Figure {
  if (!check || trust === 'parts') return parts
  const { volumeMl, plusMinusMl, provenance } = check
  if (trust === 'check') return { volumeMl, plusMinusMl, provenance }
  const [a, b] = [1 / Math.max(1e-9, parts.plusMinusMl) ** 2, 1 / Math.max(1e-9, plusMinusMl) ** 2]
  return {
    volumeMl: (a * parts.volumeMl + b * volumeMl) / (a + b),
    plusMinusMl: 1 / Math.sqrt(a + b),
    provenance: weakestProvenance([parts.provenance, provenance]),
  }
}

/**
 * Thickness that decides drying, mm: of a slab its own, else twice the volume through the surface; undefined where the
 * form is not known.
 */
export function describedThicknessMm(of: CavityDescription, finding: CavityFinding): number | undefined {
  const [only, ...others] = of.parts
  const { method } = only!
  if (others.length === 0 && method.by === 'shape' && method.shape.kind === 'slab')
    return method.shape.thicknessMm
  const known = finding.check?.surfaceMm2 === undefined ? undefined : finding.check
  const surfaceMm2 = finding.surfaceMm2 ?? known?.surfaceMm2
  if (surfaceMm2 === undefined) return undefined
  const oneMl = finding.surfaceMm2 === undefined ? known!.volumeMl : finding.partsMl / of.cavities
  return (2 * oneMl * 1000) / surfaceMm2
}
