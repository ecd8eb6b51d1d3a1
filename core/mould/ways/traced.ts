import {
  DEPTHS_ENOUGH,
  FIELD_GROUNDS,
  GROUND_FIRMNESS,
  PRINT_FORMS,
  coverFor,
  mean,
  pouredOver,
  printVolume,
  ringFor,
  type FieldGround,
  type GroundFirmness,
  type PrintForm,
} from '../../field'
import { areaMm2, keyOf, lengthMm, lengthMmOrNone, oneOf, type Method } from './figures'
import { extent, found, warning } from './finding'
import { way } from './way'

const figures = {
  /** Within the print's own outline, and half the range that holds it nine times in ten. */
  areaMm2,
  areaPlusMinusMm2: areaMm2,
  /** At its longest. */
  printLengthMm: lengthMm,
  /** By a stick, the greatest; and on average, where three places and more were tried. */
  printDepthMm: lengthMm,
  meanDepthMm: lengthMmOrNone,
  form: keyOf(PRINT_FORMS),
  /** The oval that the ring goes round. */
  ringLengthMm: lengthMm,
  ringWidthMm: lengthMm,
  coverMm: lengthMm,
  ground: keyOf(GROUND_FIRMNESS),
  /** What it lies in. */
  soil: oneOf(...FIELD_GROUNDS),
} as const
type Traced = Method<'traced', typeof figures>

/** How each ground holds the ring that is pressed into it [E]. */
const FIRMNESS: Record<FieldGround, GroundFirmness> = {
  sand: 'damp',
  mud: 'soft',
  silt: 'soft',
  snow: 'firm',
}

/** What is known of a print's size, by eye or by its outline; the area with half its 90 % range. */
export interface PrintSize {
  lengthMm: number
  widthMm: number
  areaMm2: number
  areaPlusMinusMm2: number
}

/** The way of finding a print's volume that follows from its size and its depths by stick, one or more: with the ring and the cover it asks for. */
export function tracedWay(
  size: PrintSize,
  depthsMm: readonly number[],
  form: PrintForm,
  soil: FieldGround,
): Traced {
  const deepest = Math.max(...depthsMm)
  const ground = FIRMNESS[soil]
  const coverMm = coverFor(size.lengthMm, ground === 'soft')
  const ring = ringFor({ ...size, depthMm: deepest }, coverMm)
  const round = (mm: number) => Math.round(mm * 10) / 10
  return {
    by: 'traced',
    areaMm2: Math.round(size.areaMm2),
    areaPlusMinusMm2: Math.round(size.areaPlusMinusMm2),
    printLengthMm: round(size.lengthMm),
    printDepthMm: deepest,
    meanDepthMm: depthsMm.length >= DEPTHS_ENOUGH ? round(mean(depthsMm)) : null,
    form,
    ringLengthMm: round(ring.lengthMm),
    ringWidthMm: round(ring.widthMm),
    coverMm,
    ground,
    soil,
  }
}

export const ringAreaMm2 = (m: Pick<Traced, 'ringLengthMm' | 'ringWidthMm'>): number =>
  (Math.PI * m.ringLengthMm * m.ringWidthMm) / 4

/** The print itself, without what lies over the ground round it. */
export function tracedPrint(m: Traced) {
  const area = { areaMm2: m.areaMm2, plusMinusMm2: m.areaPlusMinusMm2 }
  // A mean is what three depths and more came to: it stands for all of them.
  const depths =
    m.meanDepthMm === null ? [m.printDepthMm] : Array.from({ length: DEPTHS_ENOUGH }, () => m.meanDepthMm!)
  return printVolume(area, depths, m.form)
}

/** A print whose outline was traced on a photograph, with a depth or more by stick: its own volume, and the cover over it. */
export const traced = way({
  by: 'traced',
  figures,
  find: (m) => {
    const print = tracedPrint(m)
    const ringMm2 = ringAreaMm2(m)
    const coverMl = (ringMm2 * m.coverMm) / 1000
    const { volumeMl, plusMinusMl } = pouredOver(print, coverMl, m.ground)
    const wanted = coverFor(m.printLengthMm, m.ground === 'soft')
    const around = Math.PI * ((m.ringLengthMm + m.ringWidthMm) / 2)
    return found(
      volumeMl,
      plusMinusMl,
      { kind: 'model', source: 'traced on a photograph' },
      [
        m.meanDepthMm === null ? 'print_by_its_form' : 'print_by_depths',
        ...(GROUND_FIRMNESS[m.ground].spread > 0 ? (['ground_spreads'] as const) : []),
      ],
      { surfaceMm2: 2 * ringMm2 + around * m.coverMm, thinnestMm: m.coverMm },
      m.coverMm < wanted ? [warning('cover_too_thin', 'coverMm', m.coverMm, wanted, 'mm')] : [],
    )
  },
  extent: (m) => extent(m.printDepthMm + m.coverMm, m.ringLengthMm, m.ringWidthMm),
  slabMm: (m) => m.coverMm + tracedPrint(m).meanDepthMm,
})
