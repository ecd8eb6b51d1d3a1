import { Droplets } from '@lucide/vue'
import { standIn } from './drawing'
import { choice, mass, ofWater, volume } from './fields'
import type { ShownWay } from './way'

export const waterFill: ShownWay<'water_fill'> = {
  name: 'Water',
  how: 'Fill it with water to the pour line, then weigh or measure what went in.',
  icon: Droplets,
  first: { by: 'water_fill', reading: 'weighed', massG: 1000, volumeMl: 1000, waterTempC: 15 },
  fields: (m) => [
    choice('reading', 'The water was', { weighed: 'Weighed', measured: 'Measured in a jug' }),
    ofWater(
      m.reading === 'weighed'
        ? mass('massG', 'Water that went in')
        : volume('volumeMl', 'Water that went in'),
    ),
    ...(m.reading === 'weighed'
      ? [
          {
            is: 'quantity',
            path: 'waterTempC',
            label: 'Its temperature',
            quantity: 'temp',
            min: 0,
            max: 60,
          } as const,
        ]
      : []),
  ],
  section: (_, volumeMl) => standIn(volumeMl, 'water'),
  knowsForm: false,
  hint: () => ({}),
}
