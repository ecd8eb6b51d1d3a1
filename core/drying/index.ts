export {
  convectionWM2K,
  dryingAir,
  massTransferMS,
  saturatedVapourKgM3,
  saturationPressurePa,
  wetSurface,
} from './air'
export type { Air } from './air'
export { UNKNOWN_PLACE, dryingCourse, leftOfCourse, timeOfCourse } from './course'
export type { DryingCourse, DryingPace, DryingStretch } from './course'
export { EXPOSURES, dryingCurve, dryingDepths, dryingTimeS, fractionLeftAt } from './curve'
export type { DryingCurve, DryingInput, Exposure } from './curve'
export { DOUBTFUL_Z, forecastDrying, leftAt, massAtG, timeToFractionS } from './forecast'
export type { DryingForecast, FeltDry, Weighing } from './forecast'
export { nextWeighing } from './nextWeighing'
export type { NextWeighing } from './nextWeighing'
export { DRYING_CHANGES, WARMEST_SURFACE_C, savingsFrom } from './savings'
export type { DryingChange, DryingSaving } from './savings'
export { DRY_TARGETS, MAX_WATER_OF_DRY_MASS, targetFractionLeft } from './targets'
export type { DryTarget } from './targets'
export type { DryingSpot } from './spot'
