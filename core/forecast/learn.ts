import type { CueSeen } from './cues'
import { contradictions, nextLook, type NextLook } from './look'
import { normalCdf } from './normal'
import { cueOnGrid, paceGrid, paceTableSteps, posteriorOf, type Pace } from './pace'
import {
  probeFault,
  probeOnGrid,
  probeTells,
  usableReadings,
  withModelError,
  type ProbeFault,
  type ProbeSeries,
} from './probe'
import { forecastAt, type SetForecast, type SetProblem } from './problem'

/** One bowl's slurry in its mould and what was seen of it. */
export interface EvidenceOf {
  problem: SetProblem
  cues: readonly CueSeen[]
  probes: readonly ProbeSeries[]
}

/** What the last thing seen did to the advice. */
export interface Moved {
  /** The record of the cue; undefined where it was a thermometer. */
  cue: CueSeen | undefined
  /** Factor on the setting times against what bag and mix say: under 1 is faster. */
  factor: number
  /** Out at, s since mid-sprinkle, with it and without it. */
  outS: number
  withoutS: number
}

export interface LearntForecast extends SetForecast {
  pace: Pace
  /** How sure the bucket's pace was before anything was seen. */
  prior: Pace
  next: NextLook | undefined
  moved: Moved | undefined
  contradicting: CueSeen[]
  probeFaults: ProbeFault[]
}

/** Coolness proves something only of a piece that was felt to be warm. */
export function cuesThatCount(cues: readonly CueSeen[]): CueSeen[] {
  const warmAtS = Math.min(
    ...cues
      .filter((c) => (c.cue === 'warm' || c.cue === 'hottest') && c.answer !== 'not_yet')
      .map((c) => c.atS),
  )
  return cues.filter((c) => c.cue !== 'cool_again' || c.answer === 'not_yet' || warmAtS <= c.atS)
}

/**
 * The forecast of one bowl's slurry from everything seen of it: the pace F of the bucket on a grid of 401 points, each
 * cue with a heavy tail, each thermometer through the heat model. Method and worked figures: docs/science.md#forecast.
 * Pauses between heat runs, yielding how much of the work is done, 0–1, so that it can be given up.
 * @param nowS the present, s since mid-sprinkle: only what to look at next hangs on it.
 */
export function* learnSteps(of: EvidenceOf, nowS: number): Generator<number, LearntForecast> {
  const { problem, probes } = of
  const airTempC = problem.around.airTempC
  const prior: Pace = { meanLn: 0, sigmaLn: problem.sigmaLn }
  const lastS = Math.max(0, ...of.cues.map((c) => c.atS), ...probes.map((p) => p.readings.at(-1)?.timeS ?? 0))
  const table = yield* paceTableSteps(problem, prior, lastS)
  const grid = paceGrid(prior)
  const cues = cuesThatCount(of.cues)
  const ofCues = cues.map((c) => cueOnGrid(table, grid, c))
  const byCues = posteriorOf(prior, grid, ofCues)
  const here = forecastAt(problem, Math.exp(byCues.meanLn), byCues.sigmaLn, lastS)
  const faults = probes.map((p) => probeFault(p, here.times.run, airTempC))
  const readings = probes.flatMap((p, i) => (faults[i] ? [] : [usableReadings(p, problem.pouredAtS)]))
  const usable = probeTells(table) ? readings.filter((r) => r.length > 0) : []
  yield 1
  const ofProbes = usable.map((r) => probeOnGrid(table, grid, r, airTempC))
  const pace = usable.length > 0 ? withModelError(posteriorOf(prior, grid, [...ofCues, ...ofProbes])) : byCues
  const found = usable.length > 0 ? forecastAt(problem, Math.exp(pace.meanLn), pace.sigmaLn) : here
  const { times, ...forecast } = found
  const lastCue = cues.at(-1)
  const without = lastCue
    ? posteriorOf(prior, grid, [...ofCues.slice(0, -1), ...ofProbes])
    : usable.length > 0
      ? prior
      : undefined
  return {
    ...forecast,
    pace,
    prior,
    next: nextLook(table, pace, times, of.cues, nowS, forecast.demould.recommendedS),
    moved: without && {
      cue: lastCue,
      factor: Math.exp(pace.meanLn),
      outS: forecast.demould.recommendedS,
      withoutS: forecastAt(problem, Math.exp(without.meanLn), without.sigmaLn).demould.recommendedS,
    },
    contradicting: contradictions(table, pace, cues),
    probeFaults: faults.filter((f) => f !== undefined),
  }
}

/** The same in one go. */
export function learnPace(of: EvidenceOf, nowS: number): LearntForecast {
  const steps = learnSteps(of, nowS)
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}

/** Chance that the piece is strong enough at a time, 0–1. @param timeS s since mid-sprinkle, > 0. */
export function readyChance(
  { demould }: Pick<SetForecast, 'demould'>,
  sigmaLn: number,
  timeS: number,
): number {
  return normalCdf((Math.log(Math.max(1, timeS)) - Math.log(demould.strongEnoughS.mid)) / sigmaLn)
}
