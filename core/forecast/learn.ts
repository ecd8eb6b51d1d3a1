import { CUES, type CueSeen } from './cues'
import { contradictions, nextLook, type NextLook } from './look'
import { normalCdf } from './normal'
import {
  cuesOnGrid,
  leansOut,
  paceGrid,
  paceOf,
  paceTableSteps,
  weightsOf,
  widened,
  type Pace,
  type PaceTable,
} from './pace'
import {
  probeFault,
  probeOnGrid,
  probeTells,
  usableReadings,
  withModelError,
  type ProbeFault,
  type ProbeSeries,
} from './probe'
import { forecastAt, mapGreen, type PaceTimes, type SetForecast, type SetProblem } from './problem'

/** One bowl's slurry in its mould and what was seen of it. */
export interface EvidenceOf {
  problem: SetProblem
  cues: readonly CueSeen[]
  probes: readonly ProbeSeries[]
}

/** A thermometer that is doubted. */
export interface ProbeDoubt {
  fault: ProbeFault
  /** As it was given. */
  knownBy: string | undefined
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
  /** Thermometers that teach nothing, and why. */
  probeFaults: ProbeDoubt[]
  /** So far from what bag and mix say that one of them is to be asked about: out by those at, s since mid-sprinkle. */
  farOff: { priorOutS: number } | undefined
}

/**
 * The looks that tell something, in order of time. The same answer to the same cue again, from any window or device, is
 * one look: the last *not yet*, the first *already* or *now*. Coolness proves something only of a piece that was felt to
 * be warm.
 */
export function cuesThatCount(cues: readonly CueSeen[]): CueSeen[] {
  const inOrder = [...cues].sort((a, b) => a.atS - b.atS)
  const once = inOrder.filter((c, i) => {
    const others = c.answer === 'not_yet' ? inOrder.slice(i + 1) : inOrder.slice(0, i)
    return !others.some((o) => o.cue === c.cue && o.answer === c.answer)
  })
  const warmAtS = Math.min(
    ...once
      .filter((c) => (c.cue === 'warm' || c.cue === 'hottest') && c.answer !== 'not_yet')
      .map((c) => c.atS),
  )
  return once.filter((c) => c.cue !== 'cool_again' || c.answer === 'not_yet' || warmAtS <= c.atS)
}

/** Looks by whose they are: each hand's error is its own. */
function ofHands(table: PaceTable, grid: Float64Array, cues: readonly CueSeen[]): Float64Array[] {
  const hands = [...new Set(cues.map((c) => c.by))]
  return hands.map((by) =>
    cuesOnGrid(
      table,
      grid,
      cues.filter((c) => c.by === by),
    ),
  )
}

/**
 * Looks at which it was not so far, each with the time before which it cannot be ready, s since mid-sprinkle: what was not
 * there yet comes after the look, and being ready follows by as much as the model has between them. Warmth is felt of some
 * pieces and not of others; and once something that comes later was seen later, an earlier look holds nothing up.
 */
function looksThatHold(
  cues: readonly CueSeen[],
  times: PaceTimes,
): { look: CueSeen; untilS: number; leastPace: number }[] {
  const passed = (look: CueSeen, expectedS: number) =>
    cues.some((c) => {
      const itsS = CUES[c.cue].atS(times)
      return c.answer !== 'not_yet' && c.atS >= look.atS && itsS !== undefined && itsS >= expectedS
    })
  return cues.flatMap((look) => {
    const expectedS = CUES[look.cue].atS(times)
    const isFelt = look.cue === 'warm' || look.cue === 'cool_again'
    if (look.answer !== 'not_yet' || isFelt || expectedS === undefined || passed(look, expectedS)) return []
    const leastPace = look.atS / expectedS
    return [{ look, untilS: Math.max(look.atS, leastPace * times.readyS), leastPace }]
  })
}

/** The advice at a pace, not before the looks that hold it up. */
function advised(problem: SetProblem, pace: Pace, cues: readonly CueSeen[], atLeastS = 0) {
  const forecast = forecastAt(problem, Math.exp(pace.meanLn), pace.sigmaLn, atLeastS)
  const holding = looksThatHold(cues, forecast.times)
  const looksHoldS = Math.max(0, ...holding.map((h) => h.untilS))
  const leastPace = Math.max(0, ...holding.map((h) => h.leastPace))
  const { demould, green, times } = forecast
  const { low, mid, high } = demould.strongEnoughS
  return {
    ...forecast,
    demould: {
      ...demould,
      strongEnoughS: {
        low: Math.max(low, looksHoldS),
        mid: Math.max(mid, looksHoldS),
        high: Math.max(high, looksHoldS),
      },
      recommendedS: Math.max(demould.recommendedS, looksHoldS),
      looksHoldS,
    },
    green: mapGreen((mark) => {
      const heldS = leastPace * times.greenS[mark]
      const { low, mid, high } = green[mark]
      return { low: Math.max(low, heldS), mid: Math.max(mid, heldS), high: Math.max(high, heldS) }
    }),
    holding: holding.map((h) => h.look),
  }
}

/** A pace so many σ from what bag and mix say is asked about: another bag, another powder, another scale? */
const FAR_OFF_SIGMAS = 3

/**
 * The forecast of one bowl's slurry from everything seen of it: the pace F of the bucket on a grid, each look with a
 * heavy tail and its hand's own error, each thermometer through the heat model. Where what was seen asks for paces beyond
 * the grid, that reaches further. Method and worked figures: docs/science.md#forecast.
 * Pauses between heat runs, yielding how much of the work is done, 0–1, so that it can be given up.
 * @param nowS the present, s since mid-sprinkle: only what to look at next hangs on it.
 */
export function* learnSteps(of: EvidenceOf, nowS: number): Generator<number, LearntForecast> {
  const { problem, probes } = of
  const prior: Pace = { meanLn: 0, sigmaLn: problem.sigmaLn }
  const lastS = Math.max(0, ...of.cues.map((c) => c.atS), ...probes.map((p) => p.readings.at(-1)?.timeS ?? 0))
  let table = yield* paceTableSteps(problem, prior, lastS)
  const cues = cuesThatCount(of.cues)
  const faults = probes.map((p) => probeFault(p, problem, table, prior))
  const usable = probes
    .map((series, i) => ({ series, readings: faults[i] ? [] : usableReadings(series, problem.pouredAtS) }))
    .filter((p) => p.readings.length > 0)
  const readAgainst = (grid: Float64Array) =>
    probeTells(table) ? usable.map((p) => probeOnGrid(table, grid, p.series, p.readings, problem)) : []
  const believe = (seen: readonly CueSeen[], grid = paceGrid(table, prior), ofProbes = readAgainst(grid)) => {
    const all = [...ofHands(table, grid, seen), ...ofProbes]
    const weight = weightsOf(prior, grid, all)
    const pace = all.length === 0 ? prior : paceOf(grid, weight)
    return {
      grid,
      ofProbes,
      weight,
      pace: ofProbes.length > 0 ? withModelError(pace) : pace,
      isSeen: all.length > 0,
    }
  }
  let believed = believe(cues)
  for (;;) {
    const side = believed.isSeen && leansOut(table, prior, believed.grid, believed.weight)
    if (!side) break
    table = widened(problem, table, side, lastS)
    yield 1
    believed = believe(cues)
  }
  yield 1
  const { pace, grid, ofProbes } = believed
  const { times, holding, ...forecast } = advised(problem, pace, cues, lastS)
  const outS = forecast.demould.recommendedS
  const [lastCue, before] = [cues.at(-1), cues.slice(0, -1)]
  const without = lastCue ? believe(before, grid, ofProbes).pace : believed.isSeen ? prior : undefined
  return {
    ...forecast,
    pace,
    prior,
    next: nextLook(table, pace, times, of.cues, nowS, outS),
    moved: without && {
      cue: lastCue,
      factor: Math.exp(pace.meanLn),
      outS,
      withoutS: advised(problem, without, before).demould.recommendedS,
    },
    contradicting: contradictions(table, pace, cues).filter((c) => !holding.includes(c)),
    probeFaults: faults.flatMap((fault, i) => (fault ? [{ fault, knownBy: probes[i]!.knownBy }] : [])),
    farOff:
      Math.abs(pace.meanLn - prior.meanLn) > FAR_OFF_SIGMAS * prior.sigmaLn
        ? { priorOutS: forecastAt(problem, 1, prior.sigmaLn, lastS).demould.recommendedS }
        : undefined,
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

/** While a look holds it up, the chance is no higher than this: somebody has seen that it was not so far. */
const MOST_WHILE_HELD = 0.33

/** Chance that the piece is strong enough at a time, 0–1. @param timeS s since mid-sprinkle, > 0. */
export function readyChance(
  { demould }: Pick<SetForecast, 'demould'>,
  sigmaLn: number,
  timeS: number,
): number {
  const byPace = normalCdf((Math.log(Math.max(1, timeS)) - Math.log(demould.strongEnoughS.mid)) / sigmaLn)
  return timeS < demould.looksHoldS ? Math.min(MOST_WHILE_HELD, byPace) : byPace
}
