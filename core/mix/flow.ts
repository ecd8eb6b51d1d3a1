/** Effective viscosity while the slurry is vibrated, Pa·s, at a consistency (estimates, times or divided by 3). */
const VISCOSITY: Record<'alpha' | 'beta', readonly (readonly [consistency: number, paS: number])[]> = {
  beta: [
    [50, 2],
    [60, 0.6],
    [70, 0.3],
    [80, 0.1],
  ],
  alpha: [
    [32, 2],
    [38, 0.6],
    [45, 0.3],
  ],
}

/** Log-linear between the known consistencies, carried on at the ends; never under that of water. */
export function vibratedViscosityPaS(form: 'alpha' | 'beta', consistency: number): number {
  const points = VISCOSITY[form]
  const above = points.findIndex(([c]) => c >= consistency)
  const next = above === -1 ? points.length - 1 : Math.max(1, above)
  const [c0, v0] = points[next - 1]!
  const [c1, v1] = points[next]!
  const slope = Math.log(v1 / v0) / (c1 - c0)
  return Math.max(0.002, v0 * Math.exp(slope * (consistency - c0)))
}

export interface TappingAdvice {
  /** Seconds of tapping worth doing. */
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
 * between 15 s and 2 min, and not past 60 % of the working time. Bubbles of half a millimetre will not leave.
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
  return { tapS: Math.min(worth, Math.max(LEAST_S, untilStiffS)), riseS, heldBy }
}
