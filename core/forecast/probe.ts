import { seriesAt } from '../heat'
import { isFeltWarm } from './cues'
import type { Pace, PaceTable } from './pace'

/** A thermometer's reading: s since mid-sprinkle, °C. */
export interface ProbeReading {
  timeS: number
  tempC: number
}

/** Why a thermometer says nothing of the piece it is put to. */
export const PROBE_FAULTS = ['dead', 'stuck', 'in_air', 'jumps'] as const
export type ProbeFault = (typeof PROBE_FAULTS)[number]

export interface ProbeSeries {
  /** In order of time; `null` is a channel that answered with nothing. */
  readings: { timeS: number; tempC: number | null }[]
}

/** Readings further apart than this are as good as independent; closer ones are thinned to it. */
const APART_S = 60
/** Noise and lag of a reading, K. */
const READING_SD_K = 0.6
/** By how much the model's rise is off, as a share, and where the probe sits against where it was reckoned, K (estimates). */
const RISE_SD = 0.1
const OFFSET_SD_K = 1
/** Pace is not one number for a whole setting: what even a perfect curve leaves open. */
const MODEL_SIGMA_LN = 0.02

const STUCK_FOR_S = 600
const STUCK_WITHIN_K = 0.05
/** The model must have moved by this meanwhile for standing still to mean anything. */
const MODEL_MOVES_K = 3
const JUMP_K = 8
const JUMP_WITHIN_S = 30
const JUMPS_FOR_S = 600
const AIR_WITHIN_K = 2
const AIR_FOR_S = 300

/** Readings of a piece once it is in the mould, thinned; none of a dead channel. */
export function usableReadings(series: ProbeSeries, pouredAtS: number): ProbeReading[] {
  const kept: ProbeReading[] = []
  for (const { timeS, tempC } of series.readings) {
    if (tempC === null || timeS < pouredAtS) continue
    const last = kept.at(-1)
    if (!last || timeS - last.timeS >= APART_S) kept.push({ timeS, tempC })
  }
  return kept
}

/** What is wrong with a thermometer, by the model at the likeliest pace; undefined where nothing is. */
export function probeFault(
  series: ProbeSeries,
  core: { timeS: Float64Array; coreC: Float64Array },
  airTempC: number,
): ProbeFault | undefined {
  const { readings } = series
  const last = readings.at(-1)
  if (!last) return undefined
  if (last.tempC === null) return 'dead'
  const known = readings.filter((r): r is ProbeReading => r.tempC !== null && r.timeS >= core.timeS[0]!)
  const since = (s: number) => known.filter((r) => r.timeS >= last.timeS - s)
  const spans = (of: ProbeReading[], s: number) => of.length > 1 && last.timeS - of[0]!.timeS >= 0.9 * s
  const modelAt = (timeS: number) => seriesAt(core.timeS, core.coreC, timeS)
  const nearAir = since(AIR_FOR_S)
  if (
    spans(nearAir, AIR_FOR_S) &&
    nearAir.every(
      (r) =>
        Math.abs(r.tempC - airTempC) < AIR_WITHIN_K &&
        Math.abs(modelAt(r.timeS) - airTempC) > 2 * AIR_WITHIN_K + MODEL_MOVES_K,
    )
  )
    return 'in_air'
  const still = since(STUCK_FOR_S)
  if (spans(still, STUCK_FOR_S)) {
    const [mine, models] = [still.map((r) => r.tempC), still.map((r) => modelAt(r.timeS))]
    const span = (of: number[]) => Math.max(...of) - Math.min(...of)
    if (span(mine) <= STUCK_WITHIN_K && span(models) > MODEL_MOVES_K) return 'stuck'
  }
  const lately = since(JUMPS_FOR_S)
  const jumps = lately.filter((r, i) => {
    const before = lately[i - 1]
    return before && r.timeS - before.timeS <= JUMP_WITHIN_S && Math.abs(r.tempC - before.tempC) > JUMP_K
  })
  return jumps.length >= 2 ? 'jumps' : undefined
}

/**
 * Log-likelihood of a thermometer's readings at one run: T = model + offset + scale · rise, offset and scale of the rise
 * integrated out (a 2 × 2 Gaussian), so that a probe near the skin or a model that is too hot tells of time alone.
 * Readings are turned down where they lie far out (Student, ν = 4), twice over.
 */
function runLogLikelihood(
  readings: readonly ProbeReading[],
  run: { timeS: Float64Array; coreC: Float64Array },
  airTempC: number,
): number {
  const model = readings.map((r) => seriesAt(run.timeS, run.coreC, r.timeS))
  let weight = readings.map(() => 1)
  let result = 0
  for (let round = 0; round < 3; round++) {
    let [a, b, c] = [OFFSET_SD_K ** -2, 0, RISE_SD ** -2]
    let [u, v, quadratic, logW] = [0, 0, 0, 0]
    readings.forEach((r, i) => {
      const precision = weight[i]! / READING_SD_K ** 2
      const rise = model[i]! - airTempC
      const off = r.tempC - model[i]!
      a += precision
      b += precision * rise
      c += precision * rise * rise
      u += precision * off
      v += precision * off * rise
      quadratic += precision * off * off
      logW += 0.5 * Math.log(weight[i]!)
    })
    const determinant = a * c - b * b
    const [offset, scale] = [(c * u - b * v) / determinant, (a * v - b * u) / determinant]
    result = logW - 0.5 * (quadratic - u * offset - v * scale) - 0.5 * Math.log(determinant)
    weight = readings.map((r, i) => {
      const z = (r.tempC - model[i]! - offset - scale * (model[i]! - airTempC)) / READING_SD_K
      return Math.min(1, 5 / (4 + z * z))
    })
  }
  return result
}

/**
 * A thermometer's log-likelihood over the grid of ln F. The curve at a pace between two runs is theirs, stretched along
 * ln t by as much as the pace differs and mixed: within 0.15 K of a run of its own (test).
 */
export function probeOnGrid(
  table: PaceTable,
  grid: Float64Array,
  readings: readonly ProbeReading[],
  airTempC: number,
): Float64Array {
  if (readings.length === 0) return new Float64Array(grid.length)
  const { lnF, times } = table
  return grid.map((x) => {
    const above = lnF.findIndex((v) => v > x)
    const i = above < 0 ? lnF.length - 2 : Math.max(0, above - 1)
    const share = (x - lnF[i]!) / (lnF[i + 1]! - lnF[i]!)
    const at = stretched(times[i]!.run, times[i + 1]!.run, x - lnF[i]!, x - lnF[i + 1]!, share, readings)
    return runLogLikelihood(readings, at, airTempC)
  })
}

/** The curve between two runs, at the readings' own times. */
function stretched(
  a: { timeS: Float64Array; coreC: Float64Array },
  b: { timeS: Float64Array; coreC: Float64Array },
  lnFromA: number,
  lnFromB: number,
  share: number,
  readings: readonly ProbeReading[],
) {
  const [fa, fb] = [Math.exp(-lnFromA), Math.exp(-lnFromB)]
  const timeS = Float64Array.from(readings, (r) => r.timeS)
  const coreC = timeS.map(
    (t) => (1 - share) * seriesAt(a.timeS, a.coreC, t * fa) + share * seriesAt(b.timeS, b.coreC, t * fb),
  )
  return { timeS, coreC }
}

/** What a curve leaves open, whatever the readings say. */
export function withModelError(pace: Pace): Pace {
  return { meanLn: pace.meanLn, sigmaLn: Math.hypot(pace.sigmaLn, MODEL_SIGMA_LN) }
}

/** Whether a curve can tell anything yet: a piece that never warms has none. */
export function probeTells(table: PaceTable): boolean {
  return table.times.some((t) => t.marks.peakC - t.run.coreC[0]! > 2 || isFeltWarm(t.marks))
}
