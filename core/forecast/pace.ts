import { CUES, type CueAnswer, type CueSeen, type TouchCue } from './cues'
import { lnNormalCdf } from './normal'
import { timesAtPace, type PaceTimes, type SetProblem } from './problem'

/** What is believed of ln F, F being the factor on all of a bucket's setting times. */
export interface Pace {
  meanLn: number
  sigmaLn: number
}

const GRID = 401
const GRID_SIGMAS = 5
/** Heat runs along ln F; between them ln t is interpolated straight: within 0.4 % of a run of its own (test). */
const RUNS = 17

/** Between two runs a curve is stretched by up to this, and must still be there. */
const REACH = 1.3

/** Times of a problem at several paces. */
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
  const lnF = Array.from(
    { length: RUNS },
    (_, i) => prior.meanLn + GRID_SIGMAS * prior.sigmaLn * ((2 * i) / (RUNS - 1) - 1),
  )
  const times: PaceTimes[] = []
  for (const ln of lnF) {
    times.push(timesAtPace(problem, Math.exp(ln), REACH * lastS))
    yield times.length / RUNS
  }
  return { lnF, times }
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

/** ln-likelihood of an answer, q the standardised lateness. Student's tail (ν = 4): one wrong cue cannot rule. */
export function cueLogLikelihood(answer: CueAnswer, q: number): number {
  switch (answer) {
    case 'now':
      return -2.5 * Math.log1p((q * q) / 4)
    // A look that was mistaken happens, too: one in fifty says nothing at all.
    case 'not_yet':
      return lnMixed(lnNormalCdf(-q))
    case 'already':
      return lnMixed(lnNormalCdf(q))
  }
}
const MISTAKEN = 0.02
const lnMixed = (ln: number) => Math.log((1 - MISTAKEN) * Math.exp(ln) + MISTAKEN)

/** The grid of ln F that every likelihood is summed on. */
export function paceGrid({ meanLn, sigmaLn }: Pace): Float64Array {
  return Float64Array.from(
    { length: GRID },
    (_, i) => meanLn + GRID_SIGMAS * sigmaLn * ((2 * i) / (GRID - 1) - 1),
  )
}

/** Mean and σ of ln F from the prior and any log-likelihoods on its grid. */
export function posteriorOf(prior: Pace, grid: Float64Array, likelihoods: readonly Float64Array[]): Pace {
  const ln = grid.map((x, i) => {
    const z = (x - prior.meanLn) / prior.sigmaLn
    return -0.5 * z * z + likelihoods.reduce((sum, l) => sum + l[i]!, 0)
  })
  const top = ln.reduce((a, b) => Math.max(a, b), -Infinity)
  const weight = ln.map((v) => Math.exp(v - top))
  const total = weight.reduce((a, b) => a + b, 0)
  const meanLn = weight.reduce((sum, w, i) => sum + w * grid[i]!, 0) / total
  const variance = weight.reduce((sum, w, i) => sum + w * (grid[i]! - meanLn) ** 2, 0) / total
  return { meanLn, sigmaLn: Math.sqrt(variance) }
}

/** A pace at which the piece would never do what was seen of it is as unlikely as a cue four σ off. */
const LN_NEVER = cueLogLikelihood('now', 4)

/** One cue's log-likelihood over the grid. */
export function cueOnGrid(
  table: PaceTable,
  grid: Float64Array,
  seen: Pick<CueSeen, 'cue' | 'answer' | 'atS'>,
): Float64Array {
  const { atS, sigmaLn } = CUES[seen.cue]
  const lnAt = Math.log(Math.max(1, seen.atS))
  return grid.map((lnF) => {
    const lnT = lnTimeAt(table, lnF, atS)
    if (lnT === undefined) return seen.answer === 'not_yet' ? 0 : LN_NEVER
    return cueLogLikelihood(seen.answer, (lnAt - lnT) / sigmaLn)
  })
}

/** How late a cue came against a pace, in its own σ; undefined where the piece never does that. */
export function latenessOf(table: PaceTable, pace: Pace, cue: TouchCue, atS: number): number | undefined {
  const lnT = lnTimeAt(table, pace.meanLn, CUES[cue].atS)
  return lnT === undefined
    ? undefined
    : (Math.log(Math.max(1, atS)) - lnT) / Math.hypot(CUES[cue].sigmaLn, pace.sigmaLn)
}
