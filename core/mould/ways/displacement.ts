import { between, keyOf, lengthMm, oneOf, volumeMl, type Method } from './figures'
import { MEASURED, fault, found, warning, type VolumeIssue } from './finding'
import { FORMLESS, way } from './way'

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

const figures = {
  container: oneOf('round', 'square'),
  diameterMm: lengthMm,
  lengthMm,
  widthMm: lengthMm,
  fillDepthMm: lengthMm,
  object: oneOf('displaced', 'typical'),
  displacedMl: volumeMl,
  typical: keyOf(TYPICAL_PARTS),
  objectWidthMm: lengthMm,
  objectDepthMm: lengthMm,
  gelRatio: oneOf('by_volume', 'by_label'),
  gelPowderGPer100Ml: between(1, 200),
  gelWorkMin: between(0.5, 30),
} as const
export type Displacement = Method<'displacement', typeof figures>

/** Gel all round the object and below it, mm (common practice, no source). */
export const GEL_CLEARANCE_MM = 25

export function containerVolumeMl(m: Displacement): number {
  const areaMm2 = m.container === 'round' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
  return (areaMm2 * m.fillDepthMm) / 1000
}

export function objectVolumeMl(m: Displacement): number {
  return m.object === 'displaced' ? m.displacedMl : TYPICAL_PARTS[m.typical].volumeMl
}

/** Cast through gel: a container of it, and what was held in it. */
export const displacement = way({
  by: 'displacement',
  figures,
  find: (m) => {
    const containerMl = containerVolumeMl(m)
    const volumeMl = objectVolumeMl(m)
    const acrossMm = m.container === 'round' ? m.diameterMm : Math.min(m.lengthMm, m.widthMm)
    const errors: VolumeIssue[] = []
    if (volumeMl >= containerMl)
      errors.push(fault('object_larger_than_container', 'displacedMl', volumeMl, containerMl, 'ml'))
    if (m.objectWidthMm >= acrossMm)
      errors.push(fault('object_wider_than_container', 'objectWidthMm', m.objectWidthMm, acrossMm, 'mm'))
    if (m.objectDepthMm >= m.fillDepthMm)
      errors.push(
        fault('object_deeper_than_container', 'objectDepthMm', m.objectDepthMm, m.fillDepthMm, 'mm'),
      )
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
  },
  ...FORMLESS,
})
