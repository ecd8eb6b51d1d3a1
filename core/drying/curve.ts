import { ArgumentError } from '../errors'
import { dryingAir, type Air } from './air'

const VAPOUR_DIFFUSIVITY_M2_S = 4e-6
const BASE_CRITICAL_FRACTION = 0.2
/** How much either differs from plaster to plaster, σ of its logarithm (estimate). */
export const SHAPE_SPREAD_LN = 0.35
const CRITICAL_FRACTION_PER_M = 0.8
const MOST_CRITICAL_FRACTION = 0.6

export interface DryingInput {
  /** Water that must leave, kg/m³ of set plaster (mixProperties.freeWaterKgM3). */
  freeWaterKgM3: number
  /** Volume over exposed area, mm: half the thickness with both faces in the air, all of it on a bench. */
  depthMm: number
  /** How far the innermost water has to come, mm; the same where it is not given. */
  poreDepthMm?: number
  air: Air
  /** Where the nights are otherwise: for half of the time. */
  nightAir?: Air
  /** Calibration of the drying speed; 1 before any weighing. */
  speedFactor: number
}

/** What the shape of a curve hangs on besides the piece and the air, as factors on what is usual. */
export interface DryingShape {
  /** On the share of water at which the surface is no longer wet. */
  critical: number
  /** On how well vapour finds its way through the pores. */
  diffusivity: number
}
export const USUAL_SHAPE: DryingShape = { critical: 1, diffusivity: 1 }

/** The two drying periods. Times s, from the moment the piece starts to dry, full of free water. Plain data. */
export interface DryingCurve {
  criticalFraction: number
  criticalTimeS: number
  /** Decay rate of the very end, 1/s. */
  tailRatePerS: number
  surfaceTempC: number
  fluxKgM2S: number
  /** Of the falling period: water at its start, kg/m², and resistances of air film and pores, m² s/kg. */
  storeKgM2: number
  filmResistance: number
  poreResistance: number
}

/** How a piece lies: on a rack with air at both faces, on a bench, or on a bench and turned over every day. */
export const EXPOSURES = ['both_faces', 'turned', 'one_face'] as const
export type Exposure = (typeof EXPOSURES)[number]

/**
 * Depths of a plate as it lies, mm. Edges neglected. Turned over, one face dries at a time as on the bench, but from both
 * sides in turn: its water has half as far to come.
 */
export function dryingDepths(
  thicknessMm: number,
  exposure: Exposure,
): Pick<DryingInput, 'depthMm' | 'poreDepthMm'> {
  if (exposure === 'both_faces') return { depthMm: thicknessMm / 2 }
  return exposure === 'turned'
    ? { depthMm: thicknessMm, poreDepthMm: thicknessMm / 2 }
    : { depthMm: thicknessMm }
}

/**
 * Drying of a slab equivalent: a constant-rate period while the surface stays wet, then a falling rate through
 * air film and pores, joined without a jump in rate. Closed form; docs/science.md#drying.
 * @throws ArgumentError unless depth and free water are positive and the air can take water up (RH < 100 %).
 */
export const dryingCurve = (input: DryingInput): DryingCurve => curvesFrom(input, [USUAL_SHAPE])[0]!

/** The same at several shapes of the curve: what the air does is reckoned once. */
export function curvesFrom(input: DryingInput, shapes: readonly DryingShape[]): DryingCurve[] {
  const { speedFactor: s, freeWaterKgM3: w0 } = input
  const depthM = input.depthMm / 1000
  const poreDepthM = (input.poreDepthMm ?? input.depthMm) / 1000
  const takesUp = [input.air, input.nightAir ?? input.air].every((a) => a.rhPct >= 0 && a.rhPct < 100)
  if (!(depthM > 0) || !(poreDepthM > 0) || !(w0 > 0) || !(s > 0) || !takesUp) {
    throw new ArgumentError(`drying input out of range: ${JSON.stringify(input)}`)
  }
  const air = dryingAir(input.air, input.nightAir)
  const flux = s * air.fluxKgM2S
  const filmResistance = 1 / flux
  return shapes.map((shape) => {
    // By the piece alone: were it by the air, drier or faster air could make it dry later.
    const criticalFraction = Math.min(
      MOST_CRITICAL_FRACTION,
      shape.critical * BASE_CRITICAL_FRACTION + CRITICAL_FRACTION_PER_M * poreDepthM,
    )
    const store = criticalFraction * w0 * depthM
    const poreResistance =
      poreDepthM / (3 * shape.diffusivity * VAPOUR_DIFFUSIVITY_M2_S * air.deficitKgM3 * s)
    return {
      criticalFraction,
      criticalTimeS: ((1 - criticalFraction) * w0 * depthM) / flux,
      tailRatePerS: 1 / (store * (filmResistance + poreResistance)),
      surfaceTempC: air.surfaceTempC,
      fluxKgM2S: flux,
      storeKgM2: store,
      filmResistance,
      poreResistance,
    }
  })
}

/** When so much of the free water is left, s since it started to dry. @param fractionLeft in (0, 1]. */
export function dryingTimeS(curve: DryingCurve, fractionLeft: number): number {
  const { criticalFraction, criticalTimeS, storeKgM2, filmResistance, poreResistance } = curve
  if (fractionLeft >= criticalFraction) return (criticalTimeS * (1 - fractionLeft)) / (1 - criticalFraction)
  const g = fractionLeft / criticalFraction
  return (
    criticalTimeS +
    storeKgM2 * ((filmResistance + poreResistance) * Math.log(1 / g) - poreResistance * (1 - g))
  )
}

/** Share of the free water left at a time. Newton on u = ln(1/g): the falling branch is smooth and monotone there. */
export function fractionLeftAt(curve: DryingCurve, atS: number): number {
  const { criticalFraction, criticalTimeS, storeKgM2, filmResistance, poreResistance } = curve
  if (atS <= 0) return 1
  if (atS <= criticalTimeS) return 1 - ((1 - criticalFraction) * atS) / criticalTimeS
  const target = (atS - criticalTimeS) / storeKgM2
  const total = filmResistance + poreResistance
  let u = target / total
  for (let i = 0; i < 50; i++) {
    const g = Math.exp(-u)
    const error = total * u - poreResistance * (1 - g) - target
    const step = error / (total - poreResistance * g)
    u -= step
    if (Math.abs(step) < 1e-12 * (1 + u)) break
  }
  return criticalFraction * Math.exp(-u)
}
