import { PLACE_SD_K, RISE_SD, adiabaticRiseK, type HeatRun } from '../heat'
import { isFeltWarm } from './cues'
import type { Pace, PaceTable } from './pace'
import type { SetProblem } from './problem'

/** A thermometer's reading: s since mid-sprinkle, °C. */
export interface ProbeReading {
  timeS: number
  tempC: number
}

/** Why a thermometer says nothing of the piece it is put to. */
export const PROBE_FAULTS = [
  'dead',
  'fahrenheit',
  'too_hot',
  'too_cold',
  'in_air',
  'stuck',
  'jumps',
  'elsewhere',
] as const
export type ProbeFault = (typeof PROBE_FAULTS)[number]

export interface ProbeSeries {
  /** Where the readings are of: inside, unless it is said. */
  of?: 'core' | 'surface'
  /** By what whoever gives it knows it again. */
  knownBy?: string
  /** Somebody has said that it is right: it is not doubted. */
  trusted?: boolean
  /** In order of time; `null` is a channel that answered with nothing. */
  readings: { timeS: number; tempC: number | null }[]
}

/** Readings further apart than this are as good as independent; closer ones are thinned to it, and more yet where they are many. */
const APART_S = 60
const MOST_READINGS = 120
/** Noise of a reading, K. */
const READING_SD_K = 0.6
/** How long a thermometer in its sheath lags behind, s, each as likely as another (estimate): a shift of the curve, near enough. */
const LAGS_S = [0, 20, 45, 75]
/** The shape of a setting curve is not known better, σ of ln t, whatever the readings say (estimate: JMAK exponents of 2.5–4). */
const SHAPE_SIGMA_LN = 0.06

/** A thermometer is doubted against every pace within this many σ of what bag and mix say. */
const DOUBT_SIGMAS = 3
const IMPOSSIBLE_K = 5
const ELSEWHERE_K = 8
/** As °F they must be as near to some pace, and fit better by so much in ln-likelihood. */
const FAHRENHEIT_WITHIN_K = 4
const FAHRENHEIT_LN = 6
/** Two readings may be a slip of the hand. */
const IMPOSSIBLE_READINGS = 3

const STUCK_FOR_S = 600
const STUCK_WITHIN_K = 0.05
/** The model must have moved by this meanwhile for standing still to mean anything. */
const MODEL_MOVES_K = 3
const JUMP_K = 8
const JUMP_WITHIN_S = 30
const JUMPS_FOR_S = 600
const AIR_WITHIN_K = 2
const AIR_FOR_S = 300

/** A hand, an infrared eye or a probe laid on reads a surface less well, K and share of the rise (estimate). */
const SURFACE_SD_K = 2.5
const SURFACE_RISE_SD = 0.15

/** Readings of a piece once it is in the mould, thinned; none of a dead channel. */
export function usableReadings(series: ProbeSeries, pouredAtS: number): ProbeReading[] {
  const known = series.readings.filter((r): r is ProbeReading => r.tempC !== null && r.timeS >= pouredAtS)
  const spanS = (known.at(-1)?.timeS ?? 0) - (known[0]?.timeS ?? 0)
  const apartS = Math.max(APART_S, spanS / MOST_READINGS)
  const kept: ProbeReading[] = []
  for (const reading of known) {
    const last = kept.at(-1)
    if (!last || reading.timeS - last.timeS >= apartS) kept.push(reading)
  }
  return kept
}

/** What the model says of where a thermometer is, and how well that is read there. */
interface Curve {
  timeS: ArrayLike<number>
  tempC: ArrayLike<number>
  offSdK: number
  riseSd: number
}

function curveOf({ of = 'core' }: Pick<ProbeSeries, 'of'>, { timeS, coreC, surfaceC }: HeatRun): Curve {
  return of === 'core'
    ? { timeS, tempC: coreC, offSdK: PLACE_SD_K, riseSd: RISE_SD }
    : { timeS, tempC: surfaceC, offSdK: SURFACE_SD_K, riseSd: SURFACE_RISE_SD }
}

/** A curve at times in rising order, straight between its steps, its ends held. */
function alongCurve({ timeS, tempC }: Curve, atS: (i: number) => number, count: number): Float64Array {
  const last = timeS.length - 1
  const found = new Float64Array(count)
  let i = 0
  for (let k = 0; k < count; k++) {
    const t = atS(k)
    while (i < last - 1 && timeS[i + 1]! < t) i++
    const share = Math.min(1, Math.max(0, (t - timeS[i]!) / (timeS[i + 1]! - timeS[i]!)))
    found[k] = tempC[i]! + share * (tempC[i + 1]! - tempC[i]!)
  }
  return found
}

const mean = (of: ArrayLike<number>, from: number, to: number) => {
  let sum = 0
  for (let i = from; i < to; i++) sum += of[i]!
  return sum / (to - from)
}
const median = (of: readonly number[]) => [...of].sort((a, b) => a - b)[of.length >> 1]!

/** By how much a series' last third lies off its first. */
const movedBy = (of: ArrayLike<number>) => {
  const third = Math.max(1, Math.floor(of.length / 3))
  return Math.abs(mean(of, of.length - third, of.length) - mean(of, 0, third))
}

/** Noise of a series, by what each reading lies off the one before. */
function noiseOf(of: readonly number[]): number {
  const steps = of.slice(1).map((v, i) => Math.abs(v - of[i]!))
  // Of a normal, the middle step is .954 σ.
  return steps.length === 0 ? 0 : median(steps) / 0.954
}

/**
 * What is wrong with a thermometer, by the models at every pace within 3 σ of what bag and mix say; undefined where
 * nothing is. One that is doubted teaches nothing until somebody has seen to it.
 */
export function probeFault(
  series: ProbeSeries,
  problem: SetProblem,
  table: PaceTable,
  prior: Pace,
): ProbeFault | undefined {
  const { readings } = series
  const last = readings.at(-1)
  if (!last) return undefined
  if (last.tempC === null) return 'dead'
  if (series.trusted) return undefined
  const { around, mix, setting, pouredAtS } = problem
  const { airTempC } = around
  const all = readings.filter((r): r is ProbeReading => r.tempC !== null && r.timeS >= pouredAtS)
  const runs = table.times
    .filter((_, i) => Math.abs(table.lnF[i]! - prior.meanLn) <= DOUBT_SIGMAS * prior.sigmaLn + 1e-9)
    .map((t) => curveOf(series, t.run))
  const modelled = (of: readonly ProbeReading[], by: readonly Curve[] = runs) =>
    by.map((run) => alongCurve(run, (i) => of[i]!.timeS, of.length))
  /** Where the readings until then have told of a rise, only the paces that fit it best are still believed. */
  const believedAt = (timeS: number): readonly Curve[] => {
    const before = usableReadings({ readings: all.filter((r) => r.timeS < timeS) }, pouredAtS)
    if (before.length < IMPOSSIBLE_READINGS || movedBy(before.map((r) => r.tempC)) < MODEL_MOVES_K)
      return runs
    const fit = runs.map((run) => curveLogLikelihood(before, run, airTempC))
    const best = fit.indexOf(Math.max(...fit))
    return runs.slice(Math.max(0, best - 1), best + 2)
  }
  const offAtBest = (of: readonly ProbeReading[]) =>
    Math.min(...modelled(of).map((m) => median(of.map((r, i) => Math.abs(r.tempC - m[i]!)))))

  const thinned = usableReadings(series, pouredAtS)
  const inC = thinned.map((r) => ({ ...r, tempC: (r.tempC - 32) / 1.8 }))
  const bestFit = (of: readonly ProbeReading[]) =>
    Math.max(...runs.map((run) => curveLogLikelihood(of, run, airTempC)))
  if (thinned.length >= IMPOSSIBLE_READINGS && offAtBest(inC) < FAHRENHEIT_WITHIN_K)
    if (bestFit(inC) > bestFit(thinned) + FAHRENHEIT_LN) return 'fahrenheit'

  const hottestC = Math.max(setting.mixTempC + adiabaticRiseK(mix, setting.mixTempC), airTempC) + IMPOSSIBLE_K
  const coldestC = Math.min(setting.mixTempC, airTempC, around.mouldTempC, around.groundTempC) - IMPOSSIBLE_K
  const many = (is: (r: ProbeReading) => boolean) =>
    all.filter(is).length >= Math.min(IMPOSSIBLE_READINGS, all.length) && all.some(is)

  const since = (of: ProbeReading[], s: number) => of.filter((r) => r.timeS >= last.timeS - s)
  const spans = (of: ProbeReading[], s: number) => of.length > 1 && last.timeS - of[0]!.timeS >= 0.9 * s
  const lately = since(all, JUMPS_FOR_S)
  const jumps = lately.filter((r, i) => {
    const before = lately[i - 1]
    return before && r.timeS - before.timeS <= JUMP_WITHIN_S && Math.abs(r.tempC - before.tempC) > JUMP_K
  })
  if (jumps.length >= 2) return 'jumps'
  // The sun on a mould makes it hotter than its own heat could.
  if (around.sunWM2 === 0 && many((r) => r.tempC > hottestC)) return 'too_hot'
  if (many((r) => r.tempC < coldestC)) return 'too_cold'

  const nearAir = since(all, AIR_FOR_S)
  if (
    spans(nearAir, AIR_FOR_S) &&
    nearAir.every((r) => Math.abs(r.tempC - airTempC) < AIR_WITHIN_K) &&
    modelled(nearAir, believedAt(nearAir[0]!.timeS)).every((m) =>
      m.every((c) => Math.abs(c - airTempC) > 2 * AIR_WITHIN_K + MODEL_MOVES_K),
    )
  )
    return 'in_air'
  const spanS = last.timeS - (all[0]?.timeS ?? last.timeS)
  for (let windowS = STUCK_FOR_S; windowS < 2 * spanS; windowS *= 2) {
    const still = since(all, windowS)
    if (!spans(still, Math.min(windowS, spanS)) || spanS < 0.9 * STUCK_FOR_S) continue
    const mine = still.map((r) => r.tempC)
    // Three standard errors of the difference of two thirds' means.
    const within = STUCK_WITHIN_K + 3 * noiseOf(mine) * Math.sqrt(6 / mine.length)
    if (movedBy(mine) > within) continue
    const models = modelled(still, believedAt(still[0]!.timeS))
    if (models.every((m) => Math.max(...m) - Math.min(...m) > MODEL_MOVES_K + within)) return 'stuck'
  }
  const recent = since(thinned, STUCK_FOR_S)
  return spans(recent, STUCK_FOR_S) && offAtBest(recent) > ELSEWHERE_K ? 'elsewhere' : undefined
}

/** So often readings that lie far out are turned down anew. */
const TURNED_DOWN = 2

/**
 * Log-likelihood of readings against a curve: T = curve + offset + scale · rise, offset and scale of the rise integrated
 * out (a 2 × 2 Gaussian), so that a probe near the skin or a model that is too hot tells of time alone. Readings are turned
 * down where they lie far out (Student, ν = 4).
 */
function logLikelihood(
  readings: readonly ProbeReading[],
  { offSdK, riseSd }: Curve,
  model: Float64Array,
  airTempC: number,
): number {
  const n = readings.length
  const weight = new Float64Array(n).fill(1)
  for (let round = 0; ; round++) {
    let [a, b, c] = [offSdK ** -2, 0, riseSd ** -2]
    let [u, v, quadratic] = [0, 0, 0]
    for (let i = 0; i < n; i++) {
      const precision = weight[i]! / READING_SD_K ** 2
      const rise = model[i]! - airTempC
      const off = readings[i]!.tempC - model[i]!
      a += precision
      b += precision * rise
      c += precision * rise * rise
      u += precision * off
      v += precision * off * rise
      quadratic += precision * off * off
    }
    const determinant = a * c - b * b
    const [offset, scale] = [(c * u - b * v) / determinant, (a * v - b * u) / determinant]
    if (round === TURNED_DOWN) {
      const lnWeights = weight.reduce((sum, w) => sum + Math.log(w), 0)
      return 0.5 * (lnWeights - quadratic + u * offset + v * scale - Math.log(determinant))
    }
    for (let i = 0; i < n; i++) {
      const z = (readings[i]!.tempC - model[i]! - offset - scale * (model[i]! - airTempC)) / READING_SD_K
      weight[i] = Math.min(1, 5 / (4 + z * z))
    }
  }
}

/** Lags of a thermometer integrated out: what it says now is the curve of so many seconds ago. */
function overLags(ofLag: (lagS: number) => number): number {
  const ln = LAGS_S.map(ofLag)
  const top = Math.max(...ln)
  return top + Math.log(ln.reduce((sum, v) => sum + Math.exp(v - top), 0) / ln.length)
}

function curveLogLikelihood(readings: readonly ProbeReading[], run: Curve, airTempC: number): number {
  return overLags((lagS) =>
    logLikelihood(
      readings,
      run,
      alongCurve(run, (i) => readings[i]!.timeS - lagS, readings.length),
      airTempC,
    ),
  )
}

/**
 * A thermometer's log-likelihood over the grid of ln F. The curve at a pace between two runs is theirs, stretched along
 * ln t by as much as the pace differs and mixed: within 0.15 K of a run of its own (test).
 */
export function probeOnGrid(
  table: PaceTable,
  grid: Float64Array,
  series: Pick<ProbeSeries, 'of'>,
  readings: readonly ProbeReading[],
  { around: { airTempC } }: Pick<SetProblem, 'around'>,
): Float64Array {
  if (readings.length === 0) return new Float64Array(grid.length)
  const { lnF } = table
  const curves = table.times.map((t) => curveOf(series, t.run))
  return grid.map((x) => {
    const above = lnF.findIndex((v) => v > x)
    const i = above < 0 ? lnF.length - 2 : Math.max(0, above - 1)
    const share = (x - lnF[i]!) / (lnF[i + 1]! - lnF[i]!)
    const [fa, fb] = [Math.exp(lnF[i]! - x), Math.exp(lnF[i + 1]! - x)]
    const n = readings.length
    return overLags((lagS) => {
      const a = alongCurve(curves[i]!, (k) => (readings[k]!.timeS - lagS) * fa, n)
      const b = alongCurve(curves[i + 1]!, (k) => (readings[k]!.timeS - lagS) * fb, n)
      return logLikelihood(
        readings,
        curves[i]!,
        a.map((v, k) => (1 - share) * v + share * b[k]!),
        airTempC,
      )
    })
  })
}

/** What a curve leaves open, whatever the readings say. */
export function withModelError(pace: Pace): Pace {
  return { meanLn: pace.meanLn, sigmaLn: Math.hypot(pace.sigmaLn, SHAPE_SIGMA_LN) }
}

/** Whether a curve can tell anything yet: a piece that never warms has none. */
export function probeTells(table: PaceTable): boolean {
  return table.times.some((t) => t.marks.peakC - t.run.coreC[0]! > 2 || isFeltWarm(t.marks))
}
