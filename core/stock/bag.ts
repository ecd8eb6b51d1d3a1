import { LEARN_ALL, learnFrom, type LearnChoice, type LearntFactor, type Prior, type Seen } from '../learn'
import { UNSEEN_BAG_SIGMA_LN, type PlasterProperties } from '../plaster'
import type { Range } from '../provenance'
import { isothermalSetting } from '../setting'

/** How a bag is kept; what damp air it sees. */
export const BAG_KEEPINGS = ['sealed', 'dry_open', 'damp'] as const
export type BagKeeping = (typeof BAG_KEEPINGS)[number]

export interface BagState {
  keeping: BagKeeping
  /** Days since it was opened; null: not opened yet. */
  openDays: number | null
}

/** Days open after which a bag is old, by how it is kept (common practice, no source). */
const OLD_AFTER_DAYS: Record<Exclude<BagKeeping, 'damp'>, number> = { sealed: 365, dry_open: 120 }

/** Old or damp powder can be lumpy and slow or seeded and fast: no shift, only doubt (common practice). */
const OLD_SIGMA_LN = 0.3

export function bagDoubt({ keeping, openDays }: BagState): 'none' | 'old' | 'damp' {
  if (openDays === null) return 'none'
  if (keeping === 'damp') return 'damp'
  return openDays > OLD_AFTER_DAYS[keeping] ? 'old' : 'none'
}

/** σ of ln(setting time) for a bag nobody has tested. */
export function bagSpread(state: BagState): number {
  return bagDoubt(state) === 'none' ? UNSEEN_BAG_SIGMA_LN : Math.hypot(UNSEEN_BAG_SIGMA_LN, OLD_SIGMA_LN)
}

/** A spoonful mixed and timed until a knife cut stays open. */
export interface SpoonTest {
  consistency: number
  waterTempC: number
  stirS: number
  tookS: number
}

/** A spoonful is weighed or scooped, watched by eye, and warms less than a bowl. */
const SPOON_SIGMA_LN = 0.1

/** When a knife cut in a spoonful should stay open, s from powder meeting water, if the bag is like its card. */
export function spoonTestForecastS(plaster: PlasterProperties, test: Omit<SpoonTest, 'tookS'>): Range {
  const forecast = isothermalSetting({
    plaster,
    consistency: test.consistency,
    mixTempC: test.waterTempC,
    stirS: test.stirS,
    stirManner: 'hand',
    restS: 0,
    ratioSigmaLn: 0.02,
  })
  return forecast.timeS.initial_set
}

/** What the spoonful took over what this powder should take. */
export function spoonTestRatio(plaster: PlasterProperties, test: SpoonTest): number {
  return test.tookS / spoonTestForecastS(plaster, test).mid
}

/** A spoon test and when it was made. */
export type TimedSpoonTest = SpoonTest & { atMs: number }

/** Everything seen of a bag's pace. */
export interface BagEvidence {
  tests: readonly TimedSpoonTest[]
  /** What pours out of it showed, against its card. */
  seen?: readonly Seen[]
  choice?: LearnChoice
  /** What a bag of the same plaster before it showed. */
  before?: Prior
}

export interface BagKnowledge {
  /** Multiplier on the setting time of its card. */
  factor: number
  /** σ of ln(setting time) for the next pour from it. */
  sigmaLn: number
  tests: number
  /** Pours that count. */
  pours: number
  learned: LearntFactor
}

/** Differs from pour to pour by this much even out of one bag (estimate). */
const PER_POUR_SIGMA_LN = 0.12

/** What a bag's pours and spoon tests have taught; without any it is the card's time, and the doubt of its age. */
export function learnBag(
  plaster: PlasterProperties,
  state: BagState,
  { tests, seen = [], choice = LEARN_ALL, before }: BagEvidence,
  nowMs: number,
): BagKnowledge {
  const prior: Prior = before ?? { meanLn: 0, sigmaLn: bagSpread(state), perPourSigmaLn: PER_POUR_SIGMA_LN }
  const spoons = tests.map((t) => ({
    atMs: t.atMs,
    ratio: spoonTestRatio(plaster, t),
    sigmaLn: SPOON_SIGMA_LN,
  }))
  const learned = learnFrom('set_time', seen, nowMs, choice, prior, spoons)
  const taught = !choice.off && learned.pours + tests.length > 0
  return {
    factor: learned.factor,
    sigmaLn: taught ? learned.nextSigmaLn : Math.max(bagSpread(state), before?.sigmaLn ?? 0),
    tests: tests.length,
    pours: choice.off ? 0 : learned.pours,
    learned,
  }
}

/** A spoonful is worth the five minutes: the bag is in doubt and nobody has tried it since. */
export function wantsSpoonTest(state: BagState, tests: number): boolean {
  return bagDoubt(state) !== 'none' && tests === 0
}
