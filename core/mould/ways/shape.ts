import { cavitySurfaceMm2, cavityVolumeMl, shapeFault, thinnestMm, type CavityShape } from '../shapes'
import { FORM_SHARE, TAPED, TAPE_MM, extent, fault, found, type Extent } from './finding'
import { way } from './way'

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

function extentOfShape(shape: CavityShape): Extent {
  switch (shape.kind) {
    case 'box':
      return extent(shape.depthMm, shape.lengthMm, shape.widthMm)
    case 'slab':
      return extent(shape.thicknessMm, shape.lengthMm, shape.widthMm)
    case 'cylinder':
      return extent(shape.depthMm, shape.diameterMm)
    case 'frustum':
      return extent(shape.depthMm, shape.topDiameterMm, shape.bottomDiameterMm)
    case 'bowl':
    case 'footed_bowl':
      return extent(shape.depthMm, shape.rimDiameterMm)
    case 'ring':
      return extent(shape.depthMm, shape.outerDiameterMm)
    case 'half_round':
      return extent(shape.depthMm, shape.lengthMm, shape.diameterMm)
    case 'prism':
      // Across the corners.
      return extent(shape.depthMm, shape.sideMm / Math.sin(Math.PI / shape.sides))
  }
}

/** A plain form by its inside measurements. */
export const shape = way({
  by: 'shape',
  figures: { shape: { is: 'shape' } },
  find: ({ shape }) => {
    const wrong = shapeFault(shape)
    if (wrong)
      return {
        ok: false,
        issues: [fault(wrong.code, `shape.${wrong.path}`, wrong.actual, wrong.limit, 'mm')],
      }
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
  },
  extent: (m) => extentOfShape(m.shape),
  slabMm: ({ shape }) => (shape.kind === 'slab' ? shape.thicknessMm : undefined),
})
