export { settingRate } from './rate'
export {
  SETTING_EVENTS,
  STIR_INTENSITY,
  effectiveConsistency,
  equivalentAgeMin,
  forecastSetting,
  hydration,
  mixingMultiplier,
  timeToHydrationS,
  workingTimeS,
} from './setting'
export type { SettingEvent, SettingForecast, SettingInput, StirManner } from './setting'
