export { PACKINGS, PLASTER_CLASSES, PLASTER_CLASS_IDS, SILICA_DENSITY_KG_M3, plasterClass } from './classes'
export type { Packing, PlasterClass, PlasterClassId } from './classes'
export { UNSEEN_BAG_SIGMA_LN, plasterProperties } from './properties'
export type { LabelValues, PlasterProperties } from './properties'
export { parseRatioLabel } from './label'
export type { LabelAnswer, LabelError, LabelReading } from './label'
export {
  ADDITIONS,
  ADDITION_IDS,
  LEAST_ADDITION_PCT,
  WATER_KINDS,
  blend,
  checkAdditions,
  timingOf,
  weighAdditions,
} from './additions'
export type { Addition, AdditionId, AdditionIssueCode, AdditionMass, WaterKind } from './additions'
