import { Scale } from '@lucide/vue'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'
import { standIn } from './drawing'
import { choice, list, mass } from './fields'
import type { ShownWay } from './way'

export const weighedCast: ShownWay<'weighed_cast'> = {
  name: 'Weighed cast',
  how: 'The weight of a cast this mould gave before.',
  icon: Scale,
  first: { by: 'weighed_cast', massG: 1180, state: 'dry', classId: 'pottery', consistency: 70 },
  fields: () => [
    mass('massG', 'The cast weighs'),
    choice('state', 'It is', { dry: 'Dry', wet: 'Just out, wet' }),
    list('classId', 'Cast in', PLASTER_CLASS_WORDS),
    {
      is: 'quantity',
      path: 'consistency',
      label: 'Mixed at',
      quantity: 'number',
      min: 19,
      max: 200,
      suffix: ': 100',
      decimals: 0,
    },
  ],
  section: (_, volumeMl) => standIn(volumeMl, 'plaster'),
  knowsForm: false,
  hint: () => ({}),
}
