export { settingRate } from './rate'
export {
  INDUCTION_SHARE,
  SETTING_EVENTS,
  STIR_INTENSITY,
  effectiveConsistency,
  ageAtMin,
  equivalentAgeMin,
  eventAlpha,
  halfHydrationOf,
  hydration,
  isothermalSetting,
  mapEvents,
  mixingMultiplier,
  settingForecast,
  settingSigmaLn,
  timeInBowlS,
  workingTimeS,
} from './setting'
export type { SettingEvent, SettingForecast, SettingInput, StirManner } from './setting'
