export { waterDensityKgM3 } from '../water'
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
export { WET_STRENGTH_RATIO, compressiveStrengthMPa, strengthOnTheWayMPa } from './strength'
export {
  MAX_WATER_TEMP_C,
  SLURRY_TEMP_C,
  blendWater,
  bowlVolumeMl,
  mixTempC,
  waterTempForMixC,
  weighOutForVolume,
  weighOutFromMasses,
} from './batch'
export type { WaterBlend, WeighOut } from './batch'
export * from './schools'
export * from './look'
export * from './slurry'
export * from './flow'
export * from './correct'
export * from './batches'
export * from './weighing'
export * from './zero'
