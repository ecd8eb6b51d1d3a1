import { waterDensityKgM3 } from '../../mix'
import { between, massG, oneOf, volumeMl } from './figures'
import { MEASURED, found, type VolumeNote } from './finding'
import { FORMLESS, way } from './way'

/** Filled with water, which is weighed or measured. */
export const waterFill = way({
  by: 'water_fill',
  figures: { reading: oneOf('weighed', 'measured'), massG, volumeMl, waterTempC: between(0, 60) },
  find: (m) => {
    const notes: VolumeNote[] = ['water_to_fill_line', 'drain_before_casting']
    // A scale is good to a gram or half a per cent here, for drops stay behind; a kitchen jug to three per cent.
    if (m.reading === 'measured') return found(m.volumeMl, Math.max(5, 0.03 * m.volumeMl), MEASURED, notes)
    const volumeMl = (m.massG / waterDensityKgM3(m.waterTempC)) * 1000
    return found(volumeMl, Math.max(2, 0.007 * volumeMl), MEASURED, notes)
  },
  ...FORMLESS,
})
