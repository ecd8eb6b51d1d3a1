import { ArgumentError } from '../errors'
import { saturatedVapourKgM3, wetSurface, type Air, type WetSurface } from './air'

const VAPOUR_DIFFUSIVITY_M2_S = 4e-6
const BASE_CRITICAL_FRACTION = 0.2
const CRITICAL_FRACTION_PER_M = 0.8
const MOST_CRITICAL_FRACTION = 0.6

export interface DryingInput {
  /** Water that must leave, kg/m³ of set plaster (mixProperties.freeWaterKgM3). */
  freeWaterKgM3: number
  /** Volume over exposed area, mm: half the thickness with both faces in the air, all of it on a bench. */
  depthMm: number
  air: Air
  /** Calibration of the drying speed; 1 before any weighing. */
  speedFactor: number
}

/** The two drying periods, ready to evaluate. Times s, from the moment the piece starts to dry, full of free water. */
export interface DryingCurve {
  criticalFraction: number
  criticalTimeS: number
  /** Decay rate of the very end, 1/s. */
  tailRatePerS: number
  surfaceTempC: number
  fluxKgM2S: number
  timeS(fractionLeft: number): number
  fractionLeft(timeS: number): number
}

/** Depth (volume over exposed area), mm, of a plate standing free or lying on a bench. Edges neglected. */
export function dryingDepthMm(thicknessMm: number, exposed: 'both_faces' | 'one_face'): number {
  return exposed === 'both_faces' ? thicknessMm / 2 : thicknessMm
}

/**
 * Drying of a slab equivalent: a constant-rate period while the surface stays wet, then a falling rate through
 * air film and pores, joined without a jump in rate. Closed form; docs/science.md#drying.
 * @throws ArgumentError unless depth and free water are positive and the air can take water up (RH < 100 %).
 */
export function dryingCurve(input: DryingInput): DryingCurve {
  return curveFrom(input, wetSurface(input.air))
}

/** The same for a surface already in balance: it is the costly part, and does not depend on the speed factor. */
export function curveFrom(input: DryingInput, surface: WetSurface): DryingCurve {
  const { air, speedFactor: s, freeWaterKgM3: w0 } = input
  const depthM = input.depthMm / 1000
  if (!(depthM > 0) || !(w0 > 0) || !(s > 0) || !(air.rhPct >= 0 && air.rhPct < 100)) {
    throw new ArgumentError(`drying input out of range: ${JSON.stringify(input)}`)
  }
  const flux = s * surface.fluxKgM2S
  // By the piece alone: were it by the air, drier or faster air could make it dry later.
  const criticalFraction = Math.min(
    MOST_CRITICAL_FRACTION,
    BASE_CRITICAL_FRACTION + CRITICAL_FRACTION_PER_M * depthM,
  )
  const criticalTimeS = ((1 - criticalFraction) * w0 * depthM) / flux
  const store = criticalFraction * w0 * depthM
  const filmResistance = 1 / flux
  const poreResistance =
    depthM / (3 * VAPOUR_DIFFUSIVITY_M2_S * saturatedVapourKgM3(air.tempC) * (1 - air.rhPct / 100) * s)

  function timeS(fractionLeft: number): number {
    if (fractionLeft >= criticalFraction) {
      return (criticalTimeS * (1 - fractionLeft)) / (1 - criticalFraction)
    }
    const g = fractionLeft / criticalFraction
    return (
      criticalTimeS + store * ((filmResistance + poreResistance) * Math.log(1 / g) - poreResistance * (1 - g))
    )
  }

  /** Newton on u = ln(1/g): the falling branch is smooth and monotone there, a handful of steps suffices. */
  function fractionLeft(atS: number): number {
    if (atS <= 0) return 1
    if (atS <= criticalTimeS) return 1 - ((1 - criticalFraction) * atS) / criticalTimeS
    const target = (atS - criticalTimeS) / store
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

  return {
    criticalFraction,
    criticalTimeS,
    tailRatePerS: 1 / (store * (filmResistance + poreResistance)),
    surfaceTempC: surface.surfaceTempC,
    fluxKgM2S: flux,
    timeS,
    fractionLeft,
  }
}
