export { PLASTER_CLASSES, PLASTER_CLASS_IDS, SILICA_DENSITY_KG_M3, plasterClass } from './classes'
export type { PlasterClass, PlasterClassId } from './classes'
export { plasterProperties } from './properties'
export type { PlasterProperties } from './properties'
