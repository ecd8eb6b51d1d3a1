export { waterDensityKgM3 } from './water'
export { BOUND_WATER_RATIO, mixProperties } from './properties'
export type { MixInput, MixProperties } from './properties'
export {
  checkConsistency,
  chemicalMinimumConsistency,
  consistencyFromPartsByVolume,
  consistencyFromPartsByWeight,
  powderPartsByVolume,
  powderPartsByWeight,
  waterFractionOfMould,
} from './consistency'
export type { ConsistencyIssueCode } from './consistency'
export { WET_STRENGTH_RATIO, compressiveStrengthMPa } from './strength'
export { bowlVolumeMl, mixTempC, weighOutForVolume, weighOutFromMasses } from './batch'
export type { WeighOut } from './batch'
