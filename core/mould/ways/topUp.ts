import { areaMm2, lengthMm, oneOf, type Method } from './figures'
import { FORM_SHARE, TAPED, extent, found } from './finding'
import { way } from './way'

export const LAYERS_BELOW = ['still_soft', 'set_today', 'dry'] as const
export type LayerBelow = (typeof LAYERS_BELOW)[number]

const figures = {
  outline: oneOf('rectangle', 'round', 'area'),
  lengthMm,
  widthMm: lengthMm,
  diameterMm: lengthMm,
  areaMm2,
  depthMm: lengthMm,
  below: oneOf(...LAYERS_BELOW),
} as const
type TopUp = Method<'top_up', typeof figures>

export function topUpAreaMm2(m: TopUp): number {
  if (m.outline === 'area') return m.areaMm2
  return m.outline === 'round' ? (Math.PI * m.diameterMm ** 2) / 4 : m.lengthMm * m.widthMm
}

/** A second layer, by its area and depth. */
export const topUp = way({
  by: 'top_up',
  figures,
  find: (m) => {
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
  },
  extent: (m) => {
    if (m.outline === 'area') return undefined
    return m.outline === 'round' ? extent(m.depthMm, m.diameterMm) : extent(m.depthMm, m.lengthMm, m.widthMm)
  },
  slabMm: (m) => m.depthMm,
})
