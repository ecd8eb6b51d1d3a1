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

/** What a slurry bears at rest before it flows, Pa, by its viscosity while it is vibrated (estimates, docs/science.md#air). */
const YIELD_AT_REST: readonly (readonly [paS: number, yieldPa: number])[] = [
  [0.1, 2],
  [0.3, 5],
  [0.8, 12],
  [2, 25],
]
/** Good to times or divided by this. */
const YIELD_FACTOR = 2
/** A bubble at rest moves from d = 14 τ/(ρg) on (Tsamopoulos and others 2008, Dubash and Frigaard 2004: order of magnitude). */
const MOVES_FROM = 14

/** Yield stress of a slurry at rest, Pa, log-linear between the known viscosities and held beyond them, with its range. */
export function yieldAtRestPa(viscosityPaS: number): Range {
  const next = Math.max(
    1,
    YIELD_AT_REST.findIndex(([v]) => v >= viscosityPaS),
  )
  const [[v0, y0], [v1, y1]] = [YIELD_AT_REST[next - 1]!, YIELD_AT_REST[next]!]
  const [first, last] = [YIELD_AT_REST[0]!, YIELD_AT_REST.at(-1)!]
  const held = Math.min(last[0], Math.max(first[0], viscosityPaS))
  const mid =
    viscosityPaS > last[0]
      ? last[1]
      : y0 * Math.exp((Math.log(y1 / y0) * Math.log(held / v0)) / Math.log(v1 / v0))
  return { low: mid / YIELD_FACTOR, mid, high: mid * YIELD_FACTOR }
}

/** A slurry as it stands in its mould. */
export interface SlurryInMould {
  depthMm: number
  /** While it is vibrated, at the pour. */
  viscosityPaS: number
  densityKgM3: number
  workS: number
  pouredAtS: number
}

/** Which bubbles leave a slurry, by their diameters, mm. */
export interface AirThatStays {
  /** Smaller ones do not rise by themselves: at rest the slurry holds them. */
  heldBelowMm: Range
  /** Tapped for as long as it is worth, those from here on come up from the deepest point; Infinity where no tapping helps. */
  tappedFromMm: number
}

const GRAVITY = 9.81
const BUBBLE_M = 0.001
const LEAST_S = 15
const MOST_S = 120

const MM = 1000

/** By mid working time the slurry is twice as thick. */
const thickenedPaS = (of: { viscosityPaS: number; pouredAtS: number; workS: number }) =>
  of.viscosityPaS * 2 ** Math.min(1, Math.max(0, of.pouredAtS / (0.5 * of.workS)))

/** What stays in the slurry, and what tapping brings up. Parameters as `tappingAdvice`; @param tapS what that advises. */
export function airThatStays(of: SlurryInMould, tapS: number): AirThatStays {
  const weight = of.densityKgM3 * GRAVITY
  const heldMm = (yieldPa: number) => (MM * MOVES_FROM * yieldPa) / weight
  const { low, mid, high } = yieldAtRestPa(of.viscosityPaS)
  return {
    heldBelowMm: { low: heldMm(low), mid: heldMm(mid), high: heldMm(high) },
    tappedFromMm:
      tapS > 0 ? MM * Math.sqrt((18 * thickenedPaS(of) * (of.depthMm / MM)) / (weight * tapS)) : Infinity,
  }
}

/**
 * How long tapping is worth it: until a 1 mm bubble has risen through the depth, by Stokes with a rigid surface,
 * between 15 s and 2 min, never past 60 % of the working time, and nothing once that is over. Bubbles of half a
 * millimetre will not leave.
 * @param viscosityPaS of the vibrated slurry. @param workLeftS working time left when tapping starts, s.
 */
export function tappingAdvice(of: SlurryInMould): TappingAdvice {
  const riseMS = (of.densityKgM3 * GRAVITY * BUBBLE_M ** 2) / (18 * thickenedPaS(of))
  const riseS = of.depthMm / 1000 / riseMS
  const worth = Math.min(MOST_S, Math.max(LEAST_S, riseS))
  const untilStiffS = Math.max(0, 0.6 * of.workS - of.pouredAtS)
  const heldBy =
    untilStiffS < worth ? 'working_time' : riseS > MOST_S ? 'ceiling' : riseS < LEAST_S ? 'floor' : undefined
  return { tapS: Math.min(worth, untilStiffS), riseS, heldBy }
}
