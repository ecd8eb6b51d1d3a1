import type { PlasterClassId } from '../plaster'
import type { Range } from '../provenance'

type Curve = readonly (readonly [consistency: number, paS: number])[]

const BETA: Curve = [
  [50, 2],
  [60, 0.6],
  [70, 0.3],
  [80, 0.1],
]
const GYPSUM_CEMENT: Curve = [
  [38, 0.6],
  [45, 0.3],
]

/**
 * Effective viscosity while the slurry is vibrated, Pa·s, by class: each is ground and dispersed to flow at its own
 * consistency (estimates, docs/science.md#air).
 */
const VISCOSITY: Readonly<Record<PlasterClassId, Curve>> = {
  pop: BETA,
  pottery: BETA,
  dental2: BETA,
  investment: BETA,
  gc: GYPSUM_CEMENT,
  lowexp: GYPSUM_CEMENT,
  hsgc: [
    [28, 2],
    [32, 0.8],
    [40, 0.3],
  ],
  dental3: [
    [27, 1.5],
    [30, 0.8],
    [33, 0.5],
  ],
  dental4: [
    [20, 2.5],
    [23, 1],
    [26, 0.6],
  ],
}
/** Good to times or divided by this. */
const VISCOSITY_FACTOR = 3

/** Log-linear between the known consistencies of the class, held beyond them, with the range it is good to. */
export function vibratedViscosityPaS(classId: PlasterClassId, consistency: number): Range {
  const points = VISCOSITY[classId]
  const next = Math.max(
    1,
    points.findIndex(([c]) => c >= consistency),
  )
  const [[c0, v0], [c1, v1]] = [points[next - 1]!, points[next]!]
  const held = Math.min(points.at(-1)![0], Math.max(points[0]![0], consistency))
  const beyond = consistency > points.at(-1)![0]
  const mid = beyond ? points.at(-1)![1] : v0 * Math.exp((Math.log(v1 / v0) * (held - c0)) / (c1 - c0))
  return { low: mid / VISCOSITY_FACTOR, mid, high: mid * VISCOSITY_FACTOR }
}

export interface TappingAdvice {
  /** Seconds of tapping worth doing; 0 where it is too late for any. */
  tapS: number
  /** Time a 1 mm bubble takes up from the bottom while vibrated, s. */
  riseS: number
  /** Longer would not help: the mix is thickening, or the bubbles are too slow for any tapping. */
  heldBy: 'floor' | 'ceiling' | 'working_time' | undefined
}

const GRAVITY = 9.81
const BUBBLE_M = 0.001
const LEAST_S = 15
const MOST_S = 120

/**
 * How long tapping is worth it: until a 1 mm bubble has risen through the depth, by Stokes with a rigid surface,
 * between 15 s and 2 min, never past 60 % of the working time, and nothing once that is over. Bubbles of half a
 * millimetre will not leave.
 * @param viscosityPaS of the vibrated slurry. @param workLeftS working time left when tapping starts, s.
 */
export function tappingAdvice(of: {
  depthMm: number
  viscosityPaS: number
  densityKgM3: number
  workS: number
  pouredAtS: number
}): TappingAdvice {
  // By mid working time the slurry is twice as thick.
  const thickened = of.viscosityPaS * 2 ** Math.min(1, Math.max(0, of.pouredAtS / (0.5 * of.workS)))
  const riseMS = (of.densityKgM3 * GRAVITY * BUBBLE_M ** 2) / (18 * thickened)
  const riseS = of.depthMm / 1000 / riseMS
  const worth = Math.min(MOST_S, Math.max(LEAST_S, riseS))
  const untilStiffS = Math.max(0, 0.6 * of.workS - of.pouredAtS)
  const heldBy =
    untilStiffS < worth ? 'working_time' : riseS > MOST_S ? 'ceiling' : riseS < LEAST_S ? 'floor' : undefined
  return { tapS: Math.min(worth, untilStiffS), riseS, heldBy }
}
