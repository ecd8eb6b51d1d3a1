import type { HeatRun } from './solve'

/** From here on a piece feels warm, and no longer does, °C. */
const WARM_C = 32
const COOL_C = 29
const FELT_ABOVE_AIR_K = 2

/** When something happens, s since mid-sprinkle; undefined where it does not, or not within the run. */
export interface HeatMarks {
  peakC: number
  peakS: number
  surfacePeakC: number
  surfacePeakS: number
  warmS: number | undefined
  coolS: number | undefined
  /** Where it is hottest at the peak: share of the way from the open face or the centre outwards, 0–1. */
  hottestAt: number
}

/** Time at which a series that never falls reaches a value, interpolated; undefined where it does not. */
export function reachedS(timeS: Float64Array, series: Float64Array, value: number): number | undefined {
  const at = series.findIndex((v) => v >= value)
  if (at < 0) return undefined
  if (at === 0) return timeS[0]!
  const [v0, v1] = [series[at - 1]!, series[at]!]
  return timeS[at - 1]! + ((value - v0) / (v1 - v0)) * (timeS[at]! - timeS[at - 1]!)
}

/** A series' value at a time, straight between its steps, its ends held. Both in order of time, of one length. */
export function seriesAt(timeS: ArrayLike<number>, series: ArrayLike<number>, atS: number): number {
  let [low, high] = [0, timeS.length - 1]
  if (atS <= timeS[low]!) return series[low]!
  if (atS >= timeS[high]!) return series[high]!
  while (high - low > 1) {
    const mid = (low + high) >> 1
    if (timeS[mid]! <= atS) low = mid
    else high = mid
  }
  const share = (atS - timeS[low]!) / (timeS[high]! - timeS[low]!)
  return series[low]! + share * (series[high]! - series[low]!)
}

/** When hydration reaches `alpha`: on average, or at the place furthest behind. s since mid-sprinkle. */
export function alphaTimeS(run: HeatRun, alpha: number, where: 'mean' | 'slowest'): number | undefined {
  return reachedS(run.timeS, where === 'mean' ? run.meanAlpha : run.slowAlpha, alpha)
}

/** The top of a curve between its steps, by the parabola through the highest three. */
function peakOf(timeS: Float64Array, series: Float64Array): [timeS: number, tempC: number] {
  let at = 0
  for (let i = 1; i < series.length; i++) if (series[i]! > series[at]!) at = i
  const [a, b, c] = [series[at - 1], series[at]!, series[at + 1]]
  if (a === undefined || c === undefined) return [timeS[at]!, b]
  const [h, k] = [timeS[at]! - timeS[at - 1]!, timeS[at + 1]! - timeS[at]!]
  const bend = a - 2 * b + c
  if (bend >= 0 || h !== k) return [timeS[at]!, b]
  const shift = (0.5 * (a - c)) / bend
  return [timeS[at]! + shift * h, b - 0.25 * (a - c) * shift]
}

/** From where a surface feels warm in this air, and below which it no longer does. */
export const feltWarmth = (airTempC: number) => ({
  warmFromC: Math.max(WARM_C, airTempC + FELT_ABOVE_AIR_K),
  coolBelowC: Math.max(COOL_C, airTempC + FELT_ABOVE_AIR_K),
})

/** What can be felt of a run's heat, and when. */
export function heatMarks(run: HeatRun, airTempC: number): HeatMarks {
  const { timeS, coreC, surfaceC } = run
  const [peakS, peakC] = peakOf(timeS, coreC)
  const [surfacePeakS, surfacePeakC] = peakOf(timeS, surfaceC)
  const { warmFromC, coolBelowC } = feltWarmth(airTempC)
  const warmS = surfacePeakC >= warmFromC ? reachedS(timeS, surfaceC, warmFromC) : undefined
  const cooled = timeS.findIndex((t, i) => t > surfacePeakS && surfaceC[i]! < coolBelowC)
  let coolS: number | undefined
  if (warmS !== undefined && cooled > 0) {
    const [c0, c1] = [surfaceC[cooled - 1]!, surfaceC[cooled]!]
    const share = c0 <= c1 ? 1 : Math.min(1, Math.max(0, (c0 - coolBelowC) / (c0 - c1)))
    coolS = timeS[cooled - 1]! + share * (timeS[cooled]! - timeS[cooled - 1]!)
  }
  return { peakC, peakS, surfacePeakC, surfacePeakS, warmS, coolS, hottestAt: run.hottestAt }
}
