import { ArgumentError } from '../errors'
import type { Range } from '../provenance'
import { wetSurface, type WetSurface } from './air'
import { curveFrom, type DryingCurve, type DryingInput } from './curve'

export interface Weighing {
  /** s since the piece started to dry. */
  timeS: number
  massG: number
}

export interface DryingForecast {
  /** Factor on drying speed against the uncalibrated model, middle and 80 % range. */
  speedFactor: Range
  sigmaLnSpeed: number
  /** Mass it will settle at, g, and the standard deviation of that. */
  dryMassG: number
  dryMassSdG: number
  weighingsUsed: number
  /** Time to reach `fractionLeft`, s since the piece started to dry, with its 80 % range. */
  timeToFractionS(fractionLeft: number): Range
  /** Expected mass, g, at a time, s. */
  massAtG(timeS: number): number
}

/** ln-spread of drying speed before a place has been calibrated (estimate; still air is worst). */
export const PRIOR_SIGMA_LN_SPEED = 0.35
const PRIOR_DRY_MASS_SPREAD = 0.02
const MODEL_SPREAD_OF_LOSS = 0.02
const GRID_POINTS = 81

/** The piece in its air, with the balance of its wet face found once for all speeds. */
interface DryingPiece {
  input: Omit<DryingInput, 'speedFactor'>
  surface: WetSurface
}

function curveAtSpeed({ input, surface }: DryingPiece, lnSpeed: number): DryingCurve {
  return curveFrom({ ...input, speedFactor: Math.exp(lnSpeed) }, surface)
}

interface GridPoint {
  lnSpeed: number
  logPosterior: number
  dryMassG: number
  dryMassVarG2: number
}

/** Marginal likelihood of the weighings at one drying speed, the dry mass integrated out in closed form. */
function evaluate(
  lnSpeed: number,
  piece: DryingPiece,
  weighings: readonly Weighing[],
  priorDryMassG: number,
  scaleSdG: number,
): GridPoint {
  const curve = curveAtSpeed(piece, lnSpeed)
  const [first, ...later] = weighings as [Weighing, ...Weighing[]]
  const firstLeft = curve.fractionLeft(first.timeS)
  const priorSdG = PRIOR_DRY_MASS_SPREAD * priorDryMassG
  let precision = 1 / priorSdG ** 2
  let weighted = priorDryMassG / priorSdG ** 2
  let logLikelihood = -0.5 * (lnSpeed / PRIOR_SIGMA_LN_SPEED) ** 2
  let quadratic = priorDryMassG ** 2 / priorSdG ** 2
  for (const { timeS, massG } of later) {
    // M(t) = M∞ + (M₀ − M∞)·f  ⇒  M − f·M₀ = (1 − f)·M∞, linear in the dry mass M∞.
    const f = curve.fractionLeft(timeS) / firstLeft
    const variance =
      scaleSdG ** 2 * (1 + f ** 2) + (MODEL_SPREAD_OF_LOSS * Math.max(0, first.massG - massG)) ** 2
    const a = 1 - f
    const y = massG - f * first.massG
    precision += a ** 2 / variance
    weighted += (a * y) / variance
    quadratic += y ** 2 / variance
    logLikelihood -= 0.5 * Math.log(variance)
  }
  const dryMassG = weighted / precision
  logLikelihood -= 0.5 * (quadratic - precision * dryMassG ** 2) + 0.5 * Math.log(precision)
  return { lnSpeed, logPosterior: logLikelihood, dryMassG, dryMassVarG2: 1 / precision }
}

function moments(points: readonly GridPoint[]) {
  const top = Math.max(...points.map((p) => p.logPosterior))
  const weights = points.map((p) => Math.exp(p.logPosterior - top))
  const total = weights.reduce((a, b) => a + b, 0)
  const mean = (f: (p: GridPoint) => number) =>
    points.reduce((sum, p, i) => sum + weights[i]! * f(p), 0) / total
  const lnSpeed = mean((p) => p.lnSpeed)
  const dryMassG = mean((p) => p.dryMassG)
  return {
    lnSpeed,
    sigma: Math.sqrt(mean((p) => (p.lnSpeed - lnSpeed) ** 2)),
    dryMassG,
    dryMassSdG: Math.sqrt(mean((p) => p.dryMassVarG2 + (p.dryMassG - dryMassG) ** 2)),
  }
}

/** Posterior moments over ln speed: a wide grid first, then four times closer around what it found. */
function posterior(
  piece: DryingPiece,
  ordered: readonly Weighing[],
  priorDryMassG: number,
  scaleSdG: number,
) {
  const onGrid = (centre: number, halfWidth: number) =>
    moments(
      Array.from({ length: GRID_POINTS }, (_, i) =>
        evaluate(
          centre + halfWidth * ((2 * i) / (GRID_POINTS - 1) - 1),
          piece,
          ordered,
          priorDryMassG,
          scaleSdG,
        ),
      ),
    )
  let halfWidth = 5 * PRIOR_SIGMA_LN_SPEED
  let result = onGrid(0, halfWidth)
  for (let zoom = 0; zoom < 4; zoom++) {
    halfWidth = Math.min(halfWidth, 5 * Math.max(result.sigma, halfWidth / GRID_POINTS))
    result = onGrid(result.lnSpeed, halfWidth)
  }
  return result
}

function build(
  piece: DryingPiece,
  lnSpeed: number,
  sigma: number,
  dryMassG: number,
  dryMassSdG: number,
  waterMassAtStartG: number,
  weighingsUsed: number,
): DryingForecast {
  const at = (z: number): DryingCurve => curveAtSpeed(piece, lnSpeed + z * sigma)
  const slow = at(-1.2816)
  const middle = at(0)
  const fast = at(1.2816)
  return {
    speedFactor: {
      low: Math.exp(lnSpeed - 1.2816 * sigma),
      mid: Math.exp(lnSpeed),
      high: Math.exp(lnSpeed + 1.2816 * sigma),
    },
    sigmaLnSpeed: sigma,
    dryMassG,
    dryMassSdG,
    weighingsUsed,
    timeToFractionS: (left) => ({ low: fast.timeS(left), mid: middle.timeS(left), high: slow.timeS(left) }),
    massAtG: (timeS) => dryMassG + waterMassAtStartG * middle.fractionLeft(timeS),
  }
}

/**
 * When the piece will be dry: the closed-form curve, its speed learnt from the weighings once there are two.
 * Grid over ln speed (81 points, zoomed four times), dry mass integrated out. docs/science.md#drying.
 * @param expectedDryMassG what the mix says the dry piece weighs, g. @param expectedWaterG its free water, g.
 * @param weighings any order of time; those before the piece started to dry are the caller's to leave out.
 * @param scaleSdG standard deviation of one weighing, g, > 0.
 * @throws ArgumentError on a non-positive mass or scale error.
 */
export function forecastDrying(
  input: Omit<DryingInput, 'speedFactor'>,
  expectedDryMassG: number,
  expectedWaterG: number,
  weighings: readonly Weighing[],
  scaleSdG: number,
): DryingForecast {
  if (!(expectedDryMassG > 0) || !(scaleSdG > 0) || weighings.some((w) => !(w.massG > 0))) {
    throw new ArgumentError('masses and scaleSdG must be positive')
  }
  const piece: DryingPiece = { input, surface: wetSurface(input.air) }
  const ordered = [...weighings].sort((a, b) => a.timeS - b.timeS)
  if (ordered.length < 2) {
    return build(piece, 0, PRIOR_SIGMA_LN_SPEED, expectedDryMassG, 0.02 * expectedDryMassG, expectedWaterG, 0)
  }
  const result = posterior(piece, ordered, expectedDryMassG, scaleSdG)
  const first = ordered[0]!
  const curve = curveAtSpeed(piece, result.lnSpeed)
  const waterAtStartG = Math.max(0, first.massG - result.dryMassG) / curve.fractionLeft(first.timeS)
  return build(
    piece,
    result.lnSpeed,
    result.sigma,
    result.dryMassG,
    result.dryMassSdG,
    waterAtStartG,
    ordered.length,
  )
}
