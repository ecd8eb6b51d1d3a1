import { FIELD_GROUNDS, PRINT_FORMS, coverFor, printVolume } from '../../field'
import { areaMm2, keyOf, lengthMm, lengthMmOrNone, oneOf, type Method } from './figures'
import { extent, found, warning } from './finding'
import { GROUND_FIRMNESS } from './ground'
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

export const ringAreaMm2 = (m: Pick<Traced, 'ringLengthMm' | 'ringWidthMm'>): number =>
  (Math.PI * m.ringLengthMm * m.ringWidthMm) / 4

/** The print itself, without what lies over the ground round it. */
export function tracedPrint(m: Traced) {
  const area = { areaMm2: m.areaMm2, plusMinusMm2: m.areaPlusMinusMm2 }
  // A mean is what three depths and more came to: it stands for all of them.
  const depths = m.meanDepthMm === null ? [m.printDepthMm] : Array.from({ length: 3 }, () => m.meanDepthMm!)
  return printVolume(area, depths, m.form)
}

/** A print whose outline was traced on a photograph, with a depth or more by stick: its own volume, and the cover over it. */
export const traced = way({
  by: 'traced',
  figures,
  find: (m) => {
    const { spread, offBy } = GROUND_FIRMNESS[m.ground]
    const print = tracedPrint(m)
    const ringMm2 = ringAreaMm2(m)
    const coverMl = (ringMm2 * m.coverMm) / 1000
    const volumeMl = (print.volumeMl + coverMl) * (1 + spread)
    const wanted = coverFor(m.printLengthMm, m.ground === 'soft')
    const around = Math.PI * ((m.ringLengthMm + m.ringWidthMm) / 2)
    return found(
      volumeMl,
      Math.hypot(print.plusMinusMl, offBy * coverMl),
      { kind: 'model', source: 'traced on a photograph' },
      [
        m.meanDepthMm === null ? 'print_by_its_form' : 'print_by_depths',
        ...(spread > 0 ? (['ground_spreads'] as const) : []),
      ],
      { surfaceMm2: 2 * ringMm2 + around * m.coverMm, thinnestMm: m.coverMm },
      m.coverMm < wanted ? [warning('cover_too_thin', 'coverMm', m.coverMm, wanted, 'mm')] : [],
    )
  },
  extent: (m) => extent(m.printDepthMm + m.coverMm, m.ringLengthMm, m.ringWidthMm),
  slabMm: (m) => m.coverMm + tracedPrint(m).meanDepthMm,
})
