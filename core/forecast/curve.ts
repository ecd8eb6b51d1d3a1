import { seriesAt, type HeatRun } from '../heat'
import type { Pace } from './pace'
import { runAtPace, type SetProblem } from './problem'

/** A piece's temperature and hydration over time, ready to be drawn. Plain data; s since mid-sprinkle, °C, 0–1. */
export interface SetCurve {
  timeS: number[]
  coreC: number[]
  surfaceC: number[]
  /** Where the core is likely to be, by how well the bucket's pace is known: 80 %. */
  lowC: number[]
  highC: number[]
  meanAlpha: number[]
  /** By depth, from the open face or the centre outwards, one row a time. */
  alphaByDepth: number[][]
  tempByDepth: number[][]
}

/** More points than this nobody sees. */
const POINTS = 160
const BAND_SIGMAS = [-1.2816, -0.64, 0.64, 1.2816]

/** The curve at the pace believed, with its band, from the pour until `untilS`. */
export function setCurve(problem: SetProblem, pace: Pace, untilS: number): SetCurve {
  const middle = runAtPace(problem, Math.exp(pace.meanLn), untilS, true)
  const others = BAND_SIGMAS.map((z) => runAtPace(problem, Math.exp(pace.meanLn + z * pace.sigmaLn), untilS))
  const fromS = problem.pouredAtS
  const timeS = Array.from({ length: POINTS + 1 }, (_, i) => fromS + ((untilS - fromS) * i) / POINTS)
  const along = (run: HeatRun, series: Float64Array) => timeS.map((t) => seriesAt(run.timeS, series, t))
  const coreC = along(middle, middle.coreC)
  const bands = others.map((run) => along(run, run.coreC))
  const rows = timeS.map((t) => {
    const i = middle.timeS.findIndex((x) => x >= t)
    return i < 0 ? middle.timeS.length - 1 : i
  })
  const byDepth = (field: Float32Array) =>
    rows.map((i) => [...field.subarray(i * middle.castCells, (i + 1) * middle.castCells)])
  return {
    timeS,
    coreC,
    surfaceC: along(middle, middle.surfaceC),
    lowC: coreC.map((c, i) => Math.min(c, ...bands.map((b) => b[i]!))),
    highC: coreC.map((c, i) => Math.max(c, ...bands.map((b) => b[i]!))),
    meanAlpha: along(middle, middle.meanAlpha),
    alphaByDepth: byDepth(middle.alpha),
    tempByDepth: byDepth(middle.tempC),
  }
}

/** How far a curve is worth drawing, s since mid-sprinkle: until it is out and, where it is felt, cool. */
export function curveUntilS(recommendedS: number, coolS: number | undefined): number {
  return Math.min(8 * 3600, Math.max(3600, 1.12 * recommendedS, 1.05 * (coolS ?? 0)))
}
