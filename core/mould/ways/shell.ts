import { areaMm2, between, lengthMm, oneOf, yesNo, type Method } from './figures'
import { TAPED, fault, found } from './finding'
import { FORMLESS, way } from './way'

const figures = {
  object: oneOf('block', 'round', 'ball', 'area'),
  lengthMm,
  widthMm: lengthMm,
  diameterMm: lengthMm,
  heightMm: lengthMm,
  areaMm2,
  thicknessMm: lengthMm,
  /** Stands on a board, so that its base is not covered. */
  onBoard: yesNo,
  layerMm: between(1, 500),
  /** Slurry that one bowl gives before it stiffens, ml. */
  batchMl: between(50, 100_000),
} as const
export type Shell = Method<'shell', typeof figures>

/**
 * Volume, mm³, of an even coat around a convex object: Steiner's formula, area × t + mean curvature × t² + 4/3 π t³, cut
 * at the board where it stands on one. Corners and edges get the rounded coat that hands give them.
 */
export function shellVolumeMm3(m: Shell): number {
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
export function coveredAreaMm2(m: Shell): number {
  if (m.object === 'area') return m.areaMm2
  if (m.object === 'ball') return Math.PI * m.diameterMm ** 2 * (m.onBoard ? 0.5 : 1)
  const round = m.object === 'round'
  const areaMm2 = round ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
  const perimeterMm = round ? Math.PI * m.diameterMm : 2 * (m.lengthMm + m.widthMm)
  return perimeterMm * m.heightMm + areaMm2 * (m.onBoard ? 1 : 2)
}

/** A coat of even thickness around an object. */
export const shell = way({
  by: 'shell',
  figures,
  find: (m) => {
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
  },
  ...FORMLESS,
  slabMm: (m) => m.thicknessMm,
})
