import { Spline } from '@lucide/vue'
import { usualFacts } from '#core/mould'
import { SOIL_WORDS } from '~/parts/words/field'
import { choice, area, length } from './fields'
import { GROUND_WORDS, groundSection } from './ground'
import type { ShownWay } from './way'

export const FORM_WORDS = { bowl: 'Like a bowl', between: 'In between', flat: 'Flat floor' } as const

export const traced: ShownWay<'traced'> = {
  name: 'Print traced on a photograph',
  how: 'Its outline, its depth by a stick, and how much plaster over it.',
  icon: Spline,
  first: {
    by: 'traced',
    areaMm2: 5000,
    areaPlusMinusMm2: 500,
    printLengthMm: 95,
    printDepthMm: 15,
    meanDepthMm: null,
    form: 'between',
    ringLengthMm: 135,
    ringWidthMm: 110,
    coverMm: 12,
    ground: 'damp',
    soil: 'sand',
  },
  fields: (m) => [
    area('areaMm2', 'Within its outline'),
    length('printLengthMm', 'Longest of the print'),
    length('printDepthMm', 'Deepest of the print'),
    ...(m.meanDepthMm === null
      ? [choice('form', 'Its floor', FORM_WORDS)]
      : [length('meanDepthMm', 'On average, by stick')]),
    length('ringLengthMm', 'Ring, along'),
    length('ringWidthMm', 'Ring, across'),
    length('coverMm', 'Cover over the highest point'),
    choice('ground', 'The ground', GROUND_WORDS),
    choice('soil', 'It lies in', SOIL_WORDS),
  ],
  section: (m) =>
    groundSection({
      by: 'ground',
      dam: 'ring',
      diameterMm: m.ringLengthMm,
      lengthMm: m.ringLengthMm,
      widthMm: m.ringWidthMm,
      printDepthMm: m.printDepthMm,
      printSharePct: (100 * m.printLengthMm ** 2) / Math.max(1, m.ringLengthMm ** 2),
      coverMm: m.coverMm,
      ground: m.ground,
    }),
  knowsForm: true,
  hint: () => ({ facts: usualFacts('sand_soil'), purpose: 'print' }),
}
