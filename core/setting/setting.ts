import { UNSEEN_BAG_SIGMA_LN, type PlasterProperties } from '../plaster'
import { logNormalRange, type Range } from '../provenance'
import { settingRate } from './rate'

/** Setting events in order. Which test each stands for: docs/science.md#setting. */
export const SETTING_EVENTS = ['work_end', 'initial_set', 'vicat_set', 'final_set', 'hardened'] as const
export type SettingEvent = (typeof SETTING_EVENTS)[number]

/** Hydration degree at which each event falls, at the class's own consistency. */
const THRESHOLD: Record<SettingEvent, number> = {
  work_end: 0.02,
  initial_set: 0.1,
  vicat_set: 0.42,
  final_set: 0.55,
  hardened: 0.9,
}

/** How hard a minute of stirring is on the mix, against stirring by hand. */
export const STIR_INTENSITY = { gentle: 0.5, hand: 1, whisk: 1.5, drill: 3 } as const
export type StirManner = keyof typeof STIR_INTENSITY

/**
 * A thin mix needs more gypsum to reach the same feel, but never all of it: the most each event can ask for, in their
 * order, so that no event overtakes a later one (estimate).
 */
const MOST_HYDRATION: Record<SettingEvent, number> = {
  work_end: 0.3,
  initial_set: 0.5,
  vicat_set: 0.8,
  final_set: 0.85,
  hardened: 0.9,
}

const SIGMA_LN_MIXING = 0.1
const SIGMA_LN_TIME_PER_CONSISTENCY = 1.95

export interface SettingInput {
  plaster: Pick<
    PlasterProperties,
    | 'halfHydrationMin'
    | 'referenceConsistency'
    | 'fillerRatio'
    | 'fillerDensityKgM3'
    | 'particleDensityKgM3'
    | 'timeSigmaLn'
  >
  consistency: number
  mixTempC: number
  stirS: number
  stirManner: StirManner
  /** Time between mid-sprinkle and the start of stirring, s. The mix ages at half speed until it is stirred. */
  restS: number
  /** σ of ln(consistency) for the way the ratio is met. */
  ratioSigmaLn: number
}

export interface SettingForecast {
  /** Time since mid-sprinkle, s, with its 80 % range, for each event. */
  timeS: Record<SettingEvent, Range>
  /** Equivalent age at half hydration, min at 20 °C. */
  halfHydrationMin: number
  sigmaLn: number
  /** Mixing effort was outside .5–16 hand-minutes and has been held at the limit. */
  mixingClipped: boolean
  outsideTestedRange: boolean
}

/** Filler shares the water: the consistency that the plaster itself feels. */
export function effectiveConsistency(
  consistency: number,
  plaster: Pick<PlasterProperties, 'fillerRatio' | 'fillerDensityKgM3' | 'particleDensityKgM3'>,
): number {
  return (
    consistency / (1 + (0.6 * plaster.fillerRatio * plaster.particleDensityKgM3) / plaster.fillerDensityKgM3)
  )
}

/** Multiplier on setting time for stirring: 2 min by hand = 1, longer or harder is faster. */
export function mixingMultiplier(stirS: number, manner: StirManner): number {
  const effortMin = Math.min(16, Math.max(0.5, (stirS / 60) * STIR_INTENSITY[manner]))
  return (effortMin / 2) ** -0.35
}

/** Nothing sets for this share of the age at half hydration (estimate). */
export const INDUCTION_SHARE = 0.1

/** Equivalent age, min at 20 °C, at which hydration reaches `alpha` (0 < alpha < 1). JMAK, exponent 3. */
export function equivalentAgeMin(alpha: number, halfHydrationMin: number): number {
  const induction = INDUCTION_SHARE * halfHydrationMin
  return induction + (halfHydrationMin - induction) * Math.cbrt(-Math.log(1 - alpha) / Math.LN2)
}

/** Hydration degree, 0–1, at an equivalent age in min at 20 °C. The inverse of equivalentAgeMin. */
export function hydration(ageMin: number, halfHydrationMin: number): number {
  const induction = INDUCTION_SHARE * halfHydrationMin
  if (ageMin <= induction) return 0
  return 1 - Math.exp(-Math.LN2 * ((ageMin - induction) / (halfHydrationMin - induction)) ** 3)
}

/** Everything the event times follow from: the settled half-hydration age, thresholds' scale and rate. */
function kinetics(input: SettingInput) {
  const { plaster } = input
  const felt = effectiveConsistency(input.consistency, plaster)
  const relative = felt / plaster.referenceConsistency
  const halfHydrationMin =
    plaster.halfHydrationMin * relative ** 1.6 * mixingMultiplier(input.stirS, input.stirManner)
  return { relative, halfHydrationMin, rate: settingRate(input.mixTempC) }
}

/** Seconds since mid-sprinkle at which the mix has the given equivalent age, the rest before stirring at half speed. */
function elapsedS(ageMin: number, restS: number, rate: number): number {
  const ageAtStirMin = (0.5 * rate * restS) / 60
  if (ageMin <= ageAtStirMin) return (ageMin * 60) / (0.5 * rate)
  return restS + ((ageMin - ageAtStirMin) * 60) / rate
}

/** σ of ln t of every setting time of this mix: bag, ratio and stirring. */
export const settingSigmaLn = (input: SettingInput): number =>
  Math.hypot(
    input.plaster.timeSigmaLn ?? UNSEEN_BAG_SIGMA_LN,
    SIGMA_LN_TIME_PER_CONSISTENCY * input.ratioSigmaLn,
    SIGMA_LN_MIXING,
  )

/** Hydration at which each event falls for this mix, 0–1: thin mixes need more gypsum to feel the same. */
export function eventAlpha(event: SettingEvent, input: SettingInput): number {
  return Math.min(MOST_HYDRATION[event], THRESHOLD[event] * kinetics(input).relative)
}

/** Equivalent age at half hydration, min at 20 °C, of this mix as it is stirred. */
export function halfHydrationOf(input: SettingInput): number {
  return kinetics(input).halfHydrationMin
}

/** Age at a time, min at 20 °C, while the slurry stands at the mix temperature: at half speed until it is stirred. */
export function ageAtMin(input: SettingInput, timeS: number): number {
  const rate = settingRate(input.mixTempC)
  return (rate * (0.5 * Math.min(timeS, input.restS) + Math.max(0, timeS - input.restS))) / 60
}

/** When the slurry reaches this hydration in its bowl, at the mix temperature: s since mid-sprinkle. */
export function timeInBowlS(input: SettingInput, alpha: number, factor = 1): number {
  const { halfHydrationMin, rate } = kinetics(input)
  return elapsedS(equivalentAgeMin(alpha, factor * halfHydrationMin), input.restS, rate)
}

/** The working time in the bowl, s since mid-sprinkle: cheap enough to search bowls with. */
export function workingTimeS(input: SettingInput): Range {
  return logNormalRange(timeInBowlS(input, eventAlpha('work_end', input)), settingSigmaLn(input))
}

/** The forecast around one time for each event: ranges, and what else there is to say of it. */
export function settingForecast(
  input: SettingInput,
  midS: Record<SettingEvent, number>,
  halfHydrationMin: number,
  sigmaLn: number,
): SettingForecast {
  const effortMin = (input.stirS / 60) * STIR_INTENSITY[input.stirManner]
  return {
    timeS: mapEvents((event) => logNormalRange(midS[event], sigmaLn)),
    halfHydrationMin,
    sigmaLn,
    mixingClipped: effortMin < 0.5 || effortMin > 16,
    outsideTestedRange: input.mixTempC < 2 || input.mixTempC > 40,
  }
}

export function mapEvents<T>(of: (event: SettingEvent) => T): Record<SettingEvent, T> {
  return Object.fromEntries(SETTING_EVENTS.map((event) => [event, of(event)])) as Record<SettingEvent, T>
}

/**
 * The setting events at the mix temperature throughout, as of a slurry that stays in its bowl and gives its heat away.
 * What a piece in a mould does is core/forecast's to say; this is what that is held against.
 */
export function isothermalSetting(input: SettingInput): SettingForecast {
  const midS = mapEvents((event) => timeInBowlS(input, eventAlpha(event, input)))
  return settingForecast(input, midS, halfHydrationOf(input), settingSigmaLn(input))
}
