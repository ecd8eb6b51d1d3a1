import { PencilRuler } from '@lucide/vue'
import { standIn } from './drawing'
import { volume } from './fields'
import type { ShownWay } from './way'

export const known: ShownWay<'known'> = {
  name: 'Known',
  how: 'You know what it holds.',
  icon: PencilRuler,
  first: { by: 'known', volumeMl: 1000, plusMinusPct: 5 },
  fields: () => [
    volume('volumeMl', 'It holds'),
    {
      is: 'quantity',
      path: 'plusMinusPct',
      label: 'Give or take',
      quantity: 'number',
      min: 0,
      max: 50,
      suffix: '%',
    },
  ],
  section: (_, volumeMl) => standIn(volumeMl, 'plaster'),
  knowsForm: false,
  hint: () => ({}),
}
