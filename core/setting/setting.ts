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

/** Equivalent age, min at 20 °C, at which hydration reaches `alpha` (0 < alpha < 1). JMAK, exponent 3. */
export function equivalentAgeMin(alpha: number, halfHydrationMin: number): number {
  const induction = 0.1 * halfHydrationMin
  return induction + (halfHydrationMin - induction) * Math.cbrt(-Math.log(1 - alpha) / Math.LN2)
}

/** Hydration degree, 0–1, at an equivalent age in min at 20 °C. The inverse of equivalentAgeMin. */
export function hydration(ageMin: number, halfHydrationMin: number): number {
  const induction = 0.1 * halfHydrationMin
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

const sigmaOf = (input: SettingInput) =>
  Math.hypot(
    input.plaster.timeSigmaLn ?? UNSEEN_BAG_SIGMA_LN,
    SIGMA_LN_TIME_PER_CONSISTENCY * input.ratioSigmaLn,
    SIGMA_LN_MIXING,
  )

function eventTimeS(
  event: SettingEvent,
  { relative, halfHydrationMin, rate }: ReturnType<typeof kinetics>,
  restS: number,
  sigmaLn: number,
): Range {
  const alpha = Math.min(MOST_HYDRATION[event], THRESHOLD[event] * relative)
  return logNormalRange(elapsedS(equivalentAgeMin(alpha, halfHydrationMin), restS, rate), sigmaLn)
}

/** The working time alone, s since mid-sprinkle, as `forecastSetting` has it: cheap enough to search bowls with. */
export function workingTimeS(input: SettingInput): Range {
  return eventTimeS('work_end', kinetics(input), input.restS, sigmaOf(input))
}

/**
 * Isothermal forecast of the setting events at the mix temperature.
 * It leaves out the mix's own heat: a thick piece warms and hurries, and a strong or warm mix passes the temperature of
 * fastest setting and slows down again, so late events may fall on either side. Equations, status and ranges: docs/science.md#setting.
 * Pure. Valid for mixes at 2–40 °C; outside it computes and says so.
 */
export function forecastSetting(input: SettingInput): SettingForecast {
  const settled = kinetics(input)
  const { halfHydrationMin } = settled
  const sigmaLn = sigmaOf(input)
  const timeS = Object.fromEntries(
    SETTING_EVENTS.map((event) => [event, eventTimeS(event, settled, input.restS, sigmaLn)]),
  ) as Record<SettingEvent, Range>
  const effortMin = (input.stirS / 60) * STIR_INTENSITY[input.stirManner]
  return {
    timeS,
    halfHydrationMin,
    sigmaLn,
    mixingClipped: effortMin < 0.5 || effortMin > 16,
    outsideTestedRange: input.mixTempC < 2 || input.mixTempC > 40,
  }
}

/** Seconds since mid-sprinkle at which hydration reaches `alpha`, with its 80 % range. */
export function timeToHydrationS(input: SettingInput, alpha: number, sigmaLn: number): Range {
  const { halfHydrationMin, rate } = kinetics(input)
  return logNormalRange(elapsedS(equivalentAgeMin(alpha, halfHydrationMin), input.restS, rate), sigmaLn)
}
