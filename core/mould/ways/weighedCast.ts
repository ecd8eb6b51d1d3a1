import { mixProperties } from '../../mix'
import { PLASTER_CLASS_IDS, plasterProperties } from '../../plaster'
import { between, massG, oneOf } from './figures'
import { found } from './finding'
import { FORMLESS, way } from './way'

/** By the weight of a cast that this mould gave before. */
export const weighedCast = way({
  by: 'weighed_cast',
  figures: {
    massG,
    state: oneOf('dry', 'wet'),
    classId: oneOf(...PLASTER_CLASS_IDS),
    consistency: between(19, 200),
  },
  find: (m) => {
    const plaster = plasterProperties(m.classId)
    const mix = mixProperties({ plaster, consistency: m.consistency, waterTempC: 20, airFraction: 0.01 })
    const perPowderG =
      m.state === 'dry' ? mix.dryMassPerPowder : mix.dryMassPerPowder + mix.freeWaterPerPowder
    // Slurry volume, not set volume: the cast has grown by its setting expansion since it filled the mould.
    const volumeMl = (m.massG / perPowderG) * mix.slurryMlPerG
    return found(
      volumeMl,
      (m.state === 'dry' ? 0.05 : 0.04) * volumeMl,
      { kind: 'model', source: 'from the weight of an earlier cast' },
      m.state === 'dry' ? ['expansion_taken_off', 'damp_cast_weighs_more'] : ['expansion_taken_off'],
    )
  },
  ...FORMLESS,
})
