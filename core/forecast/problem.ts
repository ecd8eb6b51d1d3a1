import {
  DEMOULD_RULES,
  GREEN_MARKS,
  GREEN_MARK_IDS,
  alphaOfStrength,
  type DemouldForecast,
  type GreenMark,
} from '../demould'
import {
  alphaTimeS,
  feltWarmth,
  heatMarks,
  solveHeat,
  type HeatMarks,
  type HeatMix,
  type HeatOptions,
  type HeatPiece,
  type HeatRun,
  type HeatSurroundings,
} from '../heat'
import type { MouldKind } from '../mould'
import {
  ageAtMin,
  equivalentAgeMin,
  eventAlpha,
  halfHydrationOf,
  mapEvents,
  settingForecast,
  timeInBowlS,
  type SettingEvent,
  type SettingForecast,
  type SettingInput,
} from '../setting'
import { logNormalRange, type Range } from '../provenance'
import { normalQuantile } from './normal'

/** All that the setting of one bowl's slurry in its mould follows from. Plain data: it crosses to a worker. */
export interface SetProblem {
  setting: SettingInput
  mix: HeatMix
  /** The place that gets hottest, and the thinnest where that is another. */
  piece: HeatPiece
  thin: HeatPiece | undefined
  around: HeatSurroundings
  /** When it is in the mould, s since mid-sprinkle, and whether it is there: until then its working time is the bowl's. */
  pouredAtS: number
  isPoured: boolean
  /** σ of ln t before anything was seen: bag, ratio, stirring, and a form that is not one-dimensional. */
  sigmaLn: number
  /** The form is known and even; where it is not, the range is wider for it. */
  even: boolean
  kind: MouldKind
  /** Taken elsewhere on the way. */
  later?: { fromS: number; around: HeatSurroundings }
}

/** Nothing is followed further than this. */
const LONGEST_S = 24 * 3600

/** Cues are heard by these: the mean of the piece for what is felt of it, the slowest place for what it must bear. */
const RINGS_ALPHA = 0.95

/** What one pace of the bucket comes to, s since mid-sprinkle. */
export interface PaceTimes {
  events: Record<SettingEvent, number>
  /** Slowest place strong enough for this mould, and the core past its peak where the mould asks for that. */
  readyS: number
  ringsS: number
  /** Slowest place strong enough to be handled so. */
  greenS: Record<GreenMark, number>
  marks: HeatMarks
  run: HeatRun
}

function heatInputOf(problem: SetProblem, factor: number, piece: HeatPiece, untilS: number) {
  const { setting, mix, around, pouredAtS } = problem
  return {
    mix,
    piece,
    around,
    mixTempC: setting.mixTempC,
    halfHydrationMin: factor * halfHydrationOf(setting),
    pouredAtS,
    ageAtPourMin: ageAtMin(setting, pouredAtS),
    untilS,
    ...(problem.later ? { later: problem.later } : {}),
  }
}

/** The piece at this pace from the pour until `untilS`, s since mid-sprinkle. */
export function runAtPace(problem: SetProblem, factor: number, untilS: number, depths = false): HeatRun {
  return solveHeat(heatInputOf(problem, factor, problem.piece, untilS), { depths })
}

/**
 * When this slurry gets so far, s since mid-sprinkle: in its bowl as long as it is there, then in the mould.
 * A place that never gets there in a day is given a day.
 */
function timeToAlphaS(
  problem: SetProblem,
  factor: number,
  run: HeatRun,
  alpha: number,
  where: 'mean' | 'slowest',
) {
  const { setting, pouredAtS } = problem
  const age = equivalentAgeMin(alpha, factor * halfHydrationOf(setting))
  if (age <= ageAtMin(setting, pouredAtS)) return timeInBowlS(setting, alpha, factor)
  return alphaTimeS(run, alpha, where) ?? LONGEST_S
}

function eventTimeS(problem: SetProblem, factor: number, run: HeatRun, event: SettingEvent): number {
  const alpha = eventAlpha(event, problem.setting)
  if (event === 'work_end' && !problem.isPoured) return timeInBowlS(problem.setting, alpha, factor)
  return timeToAlphaS(problem, factor, run, alpha, 'mean')
}

/**
 * One setting event alone, with its range, s since mid-sprinkle: as `forecastSet` has it, for a fraction of the work.
 * @param fineness of its heat run, where that of `forecastSet` is more than is looked at.
 */
export function forecastEvent(
  problem: SetProblem,
  event: SettingEvent,
  fineness: Pick<HeatOptions, 'stepS' | 'castCells'> = {},
): Range {
  const untilAlpha = eventAlpha(event, problem.setting)
  const input = heatInputOf(problem, 1, problem.piece, problem.pouredAtS + LONGEST_S)
  const run = solveHeat(input, { untilAlpha, pastPeak: false, ...fineness })
  return logNormalRange(eventTimeS(problem, 1, run, event), problem.sigmaLn)
}

/**
 * @param factor on the bucket's setting times; 1 is what bag and mix say.
 * @param atLeastS how far its run must reach, s since mid-sprinkle; further where it takes longer to be ready.
 */
export function timesAtPace(problem: SetProblem, factor: number, atLeastS = 0): PaceTimes {
  const rule = DEMOULD_RULES[problem.kind]
  const untilAlpha = Math.max(rule.alpha, RINGS_ALPHA)
  const until = (piece: HeatPiece, options: HeatOptions) =>
    solveHeat(heatInputOf(problem, factor, piece, problem.pouredAtS + LONGEST_S), { untilAlpha, ...options })
  // Until its surface is cool again: what the run does not reach would count as what never happens.
  const run = until(problem.piece, { atLeastS, untilCool: feltWarmth(problem.around.airTempC) })
  const marks = heatMarks(run, problem.around.airTempC)
  const at = (alpha: number, where: 'mean' | 'slowest', of = run) =>
    timeToAlphaS(problem, factor, of, alpha, where)
  const thin = problem.thin && until(problem.thin, {})
  const slowestS = (alpha: number) => Math.max(at(alpha, 'slowest'), thin ? at(alpha, 'slowest', thin) : 0)
  const strongS = slowestS(rule.alpha)
  return {
    events: mapEvents((event) => eventTimeS(problem, factor, run, event)),
    readyS: rule.pastPeak ? Math.max(strongS, marks.peakS) : strongS,
    ringsS: at(RINGS_ALPHA, 'mean'),
    greenS: mapGreen((mark) => slowestS(alphaOfStrength(GREEN_MARKS[mark]))),
    marks,
    run,
  }
}

/** One figure for each way of handling it. */
export const mapGreen = <T>(of: (mark: GreenMark) => T) =>
  Object.fromEntries(GREEN_MARK_IDS.map((mark) => [mark, of(mark)])) as Record<GreenMark, T>

/** How sure one wants to be before it is taken out. */
export const READY_ENOUGH = 0.9

/** Advice for a piece ready at `readyS` give or take σ of its logarithm: P(ready) reached, and the mould's floor. */
export function demouldForecast(readyS: number, sigmaLn: number, kind: MouldKind): DemouldForecast {
  const floorS = DEMOULD_RULES[kind].floorMin * 60
  const at = (p: number) => readyS * Math.exp(normalQuantile(p) * sigmaLn)
  const sureS = at(READY_ENOUGH)
  return {
    strongEnoughS: { low: at(0.1), mid: readyS, high: sureS },
    recommendedS: Math.max(sureS, floorS),
    floorS,
    heldByFloor: floorS > sureS,
    looksHoldS: 0,
  }
}

/** What is said of a slurry's setting. */
export interface SetForecast {
  setting: SettingForecast
  demould: DemouldForecast
  /** When it may be handled so, s since mid-sprinkle: likely, and its 80 % range; the late end is what to go by. */
  green: Record<GreenMark, Range>
  marks: HeatMarks
}

/** The forecast at one pace, and how well that is known. */
export function forecastAt(
  problem: SetProblem,
  factor: number,
  sigmaLn: number,
  atLeastS = 0,
): SetForecast & { times: PaceTimes } {
  const times = timesAtPace(problem, factor, atLeastS)
  return {
    setting: settingForecast(
      problem.setting,
      times.events,
      factor * halfHydrationOf(problem.setting),
      sigmaLn,
    ),
    demould: demouldForecast(times.readyS, sigmaLn, problem.kind),
    green: mapGreen((mark) => logNormalRange(times.greenS[mark], sigmaLn)),
    marks: times.marks,
    times,
  }
}

/** Whatever is recorded of a pour, most of its bowls are what they were: the last few answers are kept. */
const lately = new Map<string, SetForecast>()
const MOST_KEPT = 64

/** The forecast before anything of the bucket was seen. */
export function forecastSet(problem: SetProblem): SetForecast {
  const key = JSON.stringify(problem)
  const known = lately.get(key)
  if (known) return known
  const { times: _, ...forecast } = forecastAt(problem, 1, problem.sigmaLn)
  if (lately.size >= MOST_KEPT) lately.delete(lately.keys().next().value!)
  lately.set(key, forecast)
  return forecast
}
