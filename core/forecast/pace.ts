import { CUES, type CueAnswer, type CueSeen, type TouchCue } from './cues'
import { lnStudentCdf, lnStudentDensity } from './normal'
import { timesAtPace, type PaceTimes, type SetProblem } from './problem'

/** What is believed of ln F, F being the factor on all of a bucket's setting times: its middle and half its 80 % band, in σ. */
export interface Pace {
  meanLn: number
  sigmaLn: number
}

/** Heat runs along ln F, in σ of the prior; between them ln t is interpolated straight: within 0.6 % of a run of its own (test). */
const RUN_EVERY_SIGMA = 0.625
const REACH_SIGMAS = 5
/** Points of the grid to a σ. */
const GRID_PER_SIGMA = 40
/** Where what was seen leans on an end of the grid, so many runs are put on there, but no pace is this far from any other. */
const RUNS_MORE = 4
const FURTHEST_LN = Math.log(12)
const LEANS_SHARE = 0.01

/** Between two runs a curve is stretched by up to this, and must still be there. */
const REACH = 1.3

/** The prior is Student's (ν = 4) with the 80 % band of the σ it is given: his is 1.1963 times as wide as a normal's. */
const PRIOR_SCALE = 1 / 1.1963

/** Times of a problem at several paces, evenly apart. */
export interface PaceTable {
  lnF: number[]
  times: PaceTimes[]
}

/**
 * The runs, one after another: it pauses after each, so that whoever drives it can give up or say how far it is.
 * @param lastS the latest time that anything was seen, s since mid-sprinkle: the runs reach so far.
 */
export function* paceTableSteps(
  problem: SetProblem,
  prior: Pace,
  lastS: number,
): Generator<number, PaceTable> {
  const runs = (2 * REACH_SIGMAS) / RUN_EVERY_SIGMA + 1
  const lnF = Array.from(
    { length: runs },
    (_, i) => prior.meanLn + prior.sigmaLn * (RUN_EVERY_SIGMA * i - REACH_SIGMAS),
  )
  const times: PaceTimes[] = []
  for (const ln of lnF) {
    times.push(timesAtPace(problem, Math.exp(ln), REACH * lastS))
    yield times.length / runs
  }
  return { lnF, times }
}

/** On which side what was seen asks for paces that the table has not got; undefined where it reaches far enough. */
export function leansOut(
  table: PaceTable,
  prior: Pace,
  grid: Float64Array,
  weight: Float64Array,
): 'slow' | 'fast' | undefined {
  const total = weight.reduce((a, b) => a + b, 0)
  const edge = RUN_EVERY_SIGMA * prior.sigmaLn
  const share = (isIn: (x: number) => boolean) =>
    weight.reduce((sum, w, i) => (isIn(grid[i]!) ? sum + w : sum), 0) / total
  const [first, last] = [table.lnF[0]!, table.lnF.at(-1)!]
  if (last < FURTHEST_LN && share((x) => x > last - edge) > LEANS_SHARE) return 'slow'
  if (first > -FURTHEST_LN && share((x) => x < first + edge) > LEANS_SHARE) return 'fast'
  return undefined
}

/** A table with some more runs at an end. */
export function widened(
  problem: SetProblem,
  { lnF, times }: PaceTable,
  side: 'slow' | 'fast',
  lastS: number,
): PaceTable {
  const step = lnF[1]! - lnF[0]!
  const more = Array.from({ length: RUNS_MORE }, (_, i) =>
    side === 'slow' ? lnF.at(-1)! + step * (i + 1) : lnF[0]! - step * (RUNS_MORE - i),
  )
  const runs = more.map((ln) => timesAtPace(problem, Math.exp(ln), REACH * lastS))
  return side === 'slow'
    ? { lnF: [...lnF, ...more], times: [...times, ...runs] }
    : { lnF: [...more, ...lnF], times: [...runs, ...times] }
}

/** ln of a time at ln F, from the runs on either side; undefined where one of them does not have it. */
export function lnTimeAt(
  table: PaceTable,
  lnF: number,
  of: (times: PaceTimes) => number | undefined,
): number | undefined {
  const { lnF: xs, times } = table
  const above = xs.findIndex((x) => x > lnF)
  const i = above < 0 ? xs.length - 2 : Math.max(0, above - 1)
  const [a, b] = [of(times[i]!), of(times[i + 1]!)]
  if (a === undefined || b === undefined) return undefined
  return Math.log(a) + ((lnF - xs[i]!) / (xs[i + 1]! - xs[i]!)) * Math.log(b / a)
}

/** ln-likelihood of an answer, q the standardised lateness: Student's (ν = 4), so that one wrong look cannot rule. */
export function cueLogLikelihood(answer: CueAnswer, q: number): number {
  switch (answer) {
    case 'now':
      return lnStudentDensity(q)
    case 'not_yet':
      return lnStudentCdf(-q)
    case 'already':
      return lnStudentCdf(q)
  }
}

/** The grid of ln F that every likelihood is summed on: from the table's first run to its last. */
export function paceGrid({ lnF }: Pick<PaceTable, 'lnF'>, prior: Pace): Float64Array {
  const [from, to] = [lnF[0]!, lnF.at(-1)!]
  const steps = Math.max(1, Math.round(((to - from) / prior.sigmaLn) * GRID_PER_SIGMA))
  return Float64Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps)
}

/** How much is believed of each pace on the grid, by the prior and any log-likelihoods; the likeliest is 1. */
export function weightsOf(
  prior: Pace,
  grid: Float64Array,
  likelihoods: readonly Float64Array[],
): Float64Array {
  const ln = grid.map(
    (x, i) =>
      lnStudentDensity((x - prior.meanLn) / (PRIOR_SCALE * prior.sigmaLn)) +
      likelihoods.reduce((sum, l) => sum + l[i]!, 0),
  )
  const top = ln.reduce((a, b) => Math.max(a, b), -Infinity)
  return ln.map((v) => Math.exp(v - top))
}

/** 1.2816 σ to either side hold four in five of a normal. */
const BAND_SIGMAS = 1.2815515655446004

/** Middle and σ of the band that holds four in five of what is believed: each tenth lies outside of it. */
export function paceOf(grid: Float64Array, weight: Float64Array): Pace {
  const total = weight.reduce((a, b) => a + b, 0)
  const below = (share: number) => {
    let sum = 0
    for (let i = 0; i < grid.length; i++) {
      const w = weight[i]! / total
      // Each point stands for the ground halfway to its neighbours.
      if (sum + w >= share) {
        const [left, right] = [grid[Math.max(0, i - 1)]!, grid[Math.min(grid.length - 1, i + 1)]!]
        return grid[i]! + ((share - sum) / w - 0.5) * ((right - left) / 2)
      }
      sum += w
    }
    return grid.at(-1)!
  }
  const [low, high] = [below(0.1), below(0.9)]
  return { meanLn: (low + high) / 2, sigmaLn: (high - low) / (2 * BAND_SIGMAS) }
}

/** A pace at which the piece would never do what was seen of it is as unlikely as a cue four σ off. */
const LN_NEVER = cueLogLikelihood('now', 4)

/** What one hand at one piece misjudges alike in all its looks, σ of ln t (estimate): it does not shrink with more of them. */
const HAND_SIGMA_LN = 0.08
/** In σ, with the weights of a normal: enough to integrate it out. */
const HAND_ERRORS = [-3, -2.25, -1.5, -0.75, 0, 0.75, 1.5, 2.25, 3]
const LN_HAND_WEIGHTS = (() => {
  const weights = HAND_ERRORS.map((z) => Math.exp(-0.5 * z * z))
  const total = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => Math.log(w / total))
})()

type Look = Pick<CueSeen, 'cue' | 'answer' | 'atS'>

/** Log-likelihood over the grid of all that one hand saw of one piece. */
export function cuesOnGrid(table: PaceTable, grid: Float64Array, looks: readonly Look[]): Float64Array {
  if (looks.length === 0) return new Float64Array(grid.length)
  const lnAt = looks.map((l) => Math.log(Math.max(1, l.atS)))
  return grid.map((lnF) => {
    const lnT = looks.map((l) => lnTimeAt(table, lnF, CUES[l.cue].atS))
    const ln = HAND_ERRORS.map((z, k) =>
      looks.reduce((sum, { cue, answer }, i) => {
        const expected = lnT[i]
        if (expected === undefined) return answer === 'not_yet' ? sum : sum + LN_NEVER
        const q = (lnAt[i]! - expected - z * HAND_SIGMA_LN) / CUES[cue].sigmaLn
        return sum + cueLogLikelihood(answer, q)
      }, LN_HAND_WEIGHTS[k]!),
    )
    const top = Math.max(...ln)
    return top + Math.log(ln.reduce((sum, v) => sum + Math.exp(v - top), 0))
  })
}

/** How late a cue came against a pace, in its own σ; undefined where the piece never does that. */
export function latenessOf(table: PaceTable, pace: Pace, cue: TouchCue, atS: number): number | undefined {
  const lnT = lnTimeAt(table, pace.meanLn, CUES[cue].atS)
  return lnT === undefined
    ? undefined
    : (Math.log(Math.max(1, atS)) - lnT) / Math.hypot(CUES[cue].sigmaLn, HAND_SIGMA_LN, pace.sigmaLn)
}
