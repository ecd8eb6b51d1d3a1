import { GROUND_FIRMNESS, PRINT_COVER_MM } from '../../field'
import { between, keyOf, lengthMm, oneOf, type Method } from './figures'
import { extent, found, warning } from './finding'
import { way } from './way'

const figures = {
  dam: oneOf('ring', 'frame'),
  diameterMm: lengthMm,
  lengthMm,
  widthMm: lengthMm,
  printDepthMm: lengthMm,
  /** Share of the dammed floor that the print takes up, %. */
  printSharePct: between(0, 100),
  coverMm: lengthMm,
  ground: keyOf(GROUND_FIRMNESS),
} as const
type Ground = Method<'ground', typeof figures>

/** A dammed floor of this size and more counts as large, mm²: a ring of 250 mm. */
const LARGE_PRINT_MM2 = 50_000

export function damAreaMm2(m: Ground): number {
  return m.dam === 'ring' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
}

/** Cover that a print of this size on this ground asks for, mm. */
export function wantedCoverMm(m: Ground): number {
  return m.ground === 'soft' || damAreaMm2(m) >= LARGE_PRINT_MM2 ? PRINT_COVER_MM.large : PRINT_COVER_MM.small
}

/** A print in the ground, dammed. */
export const ground = way({
  by: 'ground',
  figures,
  find: (m) => {
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
  },
  extent: (m) =>
    m.dam === 'ring'
      ? extent(m.printDepthMm + m.coverMm, m.diameterMm)
      : extent(m.printDepthMm + m.coverMm, m.lengthMm, m.widthMm),
  slabMm: (m) => m.coverMm + m.printDepthMm / 2,
})
