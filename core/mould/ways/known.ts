import { between, volumeMl } from './figures'
import { MEASURED, found } from './finding'
import { FORMLESS, way } from './way'

/** The caster knows what it holds. */
export const known = way({
  by: 'known',
  figures: { volumeMl, plusMinusPct: between(0, 50) },
  find: (m) => found(m.volumeMl, (m.volumeMl * m.plusMinusPct) / 100, MEASURED, []),
  ...FORMLESS,
})
