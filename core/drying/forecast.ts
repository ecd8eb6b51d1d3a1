import { ArgumentError } from '../errors'
import type { Range } from '../provenance'
import { dryingCourse, leftOfCourse, timeOfCourse, type DryingCourse, type DryingStretch } from './course'

export interface Weighing {
  /** s since the piece started to dry. */
  timeS: number
  massG: number
}

/** What a hand said of it: cold and clammy, or not any more. */
export interface FeltDry {
  /** s since the piece started to dry. */
  timeS: number
  clammy: boolean
}

export interface DryingForecast {
  /** Factor on drying speed against what was expected of its places, middle and 80 % range. */
  speedFactor: Range
  sigmaLnSpeed: number
  /** Mass it will settle at, g, and the standard deviation of that. */
  dryMassG: number
  dryMassSdG: number
  /** Free water it held when it started to dry, g. */
  waterAtStartG: number
  weighingsUsed: number
  /** Until when it was weighed, s; 0 where it was not. */
  seenUntilS: number
  /** How far each weighing lies from what the others say, in standard deviations, in the order given. */
  z: number[]
  /** Where and how it dries; any speed is that course with its pace scaled. */
  course: DryingCourse
}

/**
 * Time to reach `fractionLeft`, s since the piece started to dry, with its 80 % range. What was weighed holds; of what is
 * still to come, the curve itself may be of another shape than the piece's, and that is part of the range.
 */
export function timeToFractionS(
  { course, speedFactor, sigmaLnSpeed, seenUntilS }: DryingForecast,
  fractionLeft: number,
): Range {
  const at = (speed: number) => timeOfCourse(course, speed, fractionLeft)
  const mid = at(speedFactor.mid)
  const unseenS = Math.max(0, mid - seenUntilS)
  // Before anything is weighed the doubt about the pace is about the shape as well.
  const shapeSigmaLn = SHAPE_SIGMA_LN * Math.sqrt(Math.max(0, 1 - (sigmaLnSpeed / course.sigmaLn) ** 2))
  /** Both doubts together, in their squares; each end by itself, for the range is lopsided. */
  const end = (byPaceS: number, sign: 1 | -1) => {
    const byShapeS = unseenS * Math.expm1(sign * 1.2816 * shapeSigmaLn)
    return mid + sign * Math.hypot(byPaceS - mid, byShapeS)
  }
  return { low: Math.max(0, end(at(speedFactor.high), -1)), mid, high: end(at(speedFactor.low), 1) }
}

/** Expected mass of the piece at a time, g. @param timeS since it started to dry. @param speed its middle where it is not given. */
export function massAtG(
  { course, speedFactor, dryMassG, waterAtStartG }: DryingForecast,
  timeS: number,
  speed = speedFactor.mid,
): number {
  return dryMassG + waterAtStartG * leftOfCourse(course, speed, timeS)
}

/** How well the mix tells the dry mass and the water of the piece. */
export const PRIOR_DRY_SPREAD = 0.02
export const PRIOR_WATER_SPREAD = 0.04
/** What the curve itself is off by, as a share of the water lost. */
export const MODEL_SPREAD_OF_LOSS = 0.02
/**
 * σ of ln of the time still to go, for the shape of the curve: found by pieces that dry by other laws (the test on Page's
 * and Sherwood's).
 */
const SHAPE_SIGMA_LN = 0.45
/** A weighing this far out is worth a question. */
export const DOUBTFUL_Z = 3

const GRID_POINTS = 81
const ZOOMS = 4
const MOST_ROUNDS = 40

/** Prior of the two masses, and the way the piece dries. */
interface Model {
  course: DryingCourse
  dryG: number
  waterG: number
  scaleSdG: number
  weighings: readonly Weighing[]
  felt: readonly FeltDry[]
}

interface Posterior {
  lnSpeed: number
  sigma: number
  dryG: number
  drySdG: number
  waterG: number
}

interface GridPoint extends Omit<Posterior, 'sigma' | 'drySdG'> {
  logWeight: number
  dryVarG2: number
}

const leftAt = ({ course }: Model, lnSpeed: number, timeS: number) =>
  leftOfCourse(course, Math.exp(lnSpeed), timeS)

const varianceOf = ({ scaleSdG, waterG }: Model, left: number) =>
  scaleSdG ** 2 + (MODEL_SPREAD_OF_LOSS * waterG * (1 - left)) ** 2

/** A hand finds a piece cold and clammy down to about so much of its water, and is seldom sure within a factor of two. */
const CLAMMY_LEFT = 0.12
const CLAMMY_SPREAD_LN = 0.35

/** ln of the chance that a hand says so of a piece with this share of its water left (logistic in its logarithm, estimate). */
function lnChanceFelt(left: number, clammy: boolean): number {
  const x = Math.log(left / CLAMMY_LEFT) / CLAMMY_SPREAD_LN
  return -Math.log1p(Math.exp(clammy ? -x : x))
}

/** One drying speed: dry mass and water integrated out of the weighings in closed form (a 2 × 2 Gaussian). */
function evaluate(model: Model, weight: readonly number[], lnSpeed: number): GridPoint {
  const { dryG, waterG, weighings } = model
  const [priorDry, priorWater] = [(PRIOR_DRY_SPREAD * dryG) ** -2, (PRIOR_WATER_SPREAD * waterG) ** -2]
  // Deviations from the prior's means keep the numbers small.
  let [a, b, c] = [priorDry, 0, priorWater]
  let [u, v, quadratic] = [0, 0, 0]
  let logWeight = -0.5 * (lnSpeed / model.course.sigmaLn) ** 2
  for (const { timeS, clammy } of model.felt) logWeight += lnChanceFelt(leftAt(model, lnSpeed, timeS), clammy)
  for (const [i, { timeS, massG }] of weighings.entries()) {
    const f = leftAt(model, lnSpeed, timeS)
    const precision = weight[i]! / varianceOf(model, f)
    const off = massG - dryG - waterG * f
    a += precision
    b += precision * f
    c += precision * f * f
    u += precision * off
    v += precision * off * f
    quadratic += precision * off * off
    logWeight += 0.5 * Math.log(precision)
  }
  const determinant = a * c - b * b
  const [dDry, dWater] = [(c * u - b * v) / determinant, (a * v - b * u) / determinant]
  logWeight -= 0.5 * (quadratic - u * dDry - v * dWater) + 0.5 * Math.log(determinant)
  return { lnSpeed, logWeight, dryG: dryG + dDry, waterG: waterG + dWater, dryVarG2: c / determinant }
}

function moments(points: readonly GridPoint[]): Posterior {
  const top = Math.max(...points.map((p) => p.logWeight))
  const weights = points.map((p) => Math.exp(p.logWeight - top))
  const total = weights.reduce((sum, w) => sum + w, 0)
  const mean = (of: (p: GridPoint) => number) =>
    points.reduce((sum, p, i) => sum + weights[i]! * of(p), 0) / total
  const lnSpeed = mean((p) => p.lnSpeed)
  const dryG = mean((p) => p.dryG)
  return {
    lnSpeed,
    sigma: Math.sqrt(mean((p) => (p.lnSpeed - lnSpeed) ** 2)),
    dryG,
    drySdG: Math.sqrt(mean((p) => p.dryVarG2 + (p.dryG - dryG) ** 2)),
    waterG: mean((p) => p.waterG),
  }
}

/** Posterior moments over ln speed: a wide grid first, then closer around what it found. */
function posterior(model: Model, weight: readonly number[]): Posterior {
  const onGrid = (centre: number, halfWidth: number) =>
    moments(
      Array.from({ length: GRID_POINTS }, (_, i) =>
        evaluate(model, weight, centre + halfWidth * ((2 * i) / (GRID_POINTS - 1) - 1)),
      ),
    )
  let halfWidth = 5 * model.course.sigmaLn
  let result = onGrid(0, halfWidth)
  for (let zoom = 0; zoom < ZOOMS; zoom++) {
    const wanted = Math.min(halfWidth, 5 * Math.max(result.sigma, halfWidth / GRID_POINTS))
    if (wanted > 0.9 * halfWidth) break
    halfWidth = wanted
    result = onGrid(result.lnSpeed, halfWidth)
  }
  return result
}

function zOf(model: Model, found: Posterior): number[] {
  return model.weighings.map(({ timeS, massG }) => {
    const f = leftAt(model, found.lnSpeed, timeS)
    return (massG - found.dryG - found.waterG * f) / Math.sqrt(varianceOf(model, f))
  })
}

/** Student weights (ν = 4), so that one slip of the scale does not move the forecast: iterated until they hold. */
function robust(model: Model): { found: Posterior; z: number[] } {
  let weight = model.weighings.map(() => 1)
  let found = posterior(model, weight)
  let z = zOf(model, found)
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = z.map((zi) => Math.min(1, 5 / (4 + zi * zi)))
    const moved = Math.max(0, ...next.map((w, i) => Math.abs(w - weight[i]!)))
    if (moved < 1e-4) break
    weight = next
    found = posterior(model, weight)
    z = zOf(model, found)
  }
  return { found, z }
}

/**
 * When the piece will be dry: the closed-form curve, its pace and its masses learnt from the weighings. Each of them,
 * the first too, observes M(t) = D + W·f(t; s). docs/science.md#drying.
 * @param stretches where it dries, one after another; what is known of each place's pace is the prior.
 * @param expectedDryMassG what the mix says the dry piece weighs, g. @param expectedWaterG its free water, g.
 * @param weighings any order of time; those before the piece started to dry are the caller's to leave out.
 * @param scaleSdG standard deviation of one weighing, g, > 0.
 * @param felt by hand: weak, and it says nothing of the masses.
 * @throws ArgumentError on a non-positive mass or scale error.
 */
export function forecastDrying(
  stretches: readonly DryingStretch[],
  expectedDryMassG: number,
  expectedWaterG: number,
  weighings: readonly Weighing[],
  scaleSdG: number,
  felt: readonly FeltDry[] = [],
): DryingForecast {
  const masses = [expectedDryMassG, expectedWaterG, scaleSdG, ...weighings.map((w) => w.massG)]
  if (masses.some((m) => !(m > 0))) throw new ArgumentError('masses and scaleSdG must be positive')
  const model: Model = {
    course: dryingCourse(stretches),
    dryG: expectedDryMassG,
    waterG: expectedWaterG,
    scaleSdG,
    weighings,
    felt,
  }
  const unweighed: Posterior = {
    lnSpeed: 0,
    sigma: model.course.sigmaLn,
    dryG: expectedDryMassG,
    drySdG: PRIOR_DRY_SPREAD * expectedDryMassG,
    waterG: expectedWaterG,
  }
  const { found, z } = weighings.length + felt.length === 0 ? { found: unweighed, z: [] } : robust(model)
  const speed = (sigmas: number) => Math.exp(found.lnSpeed + sigmas * found.sigma)
  const speedFactor = { low: speed(-1.2816), mid: speed(0), high: speed(1.2816) }
  return {
    speedFactor,
    sigmaLnSpeed: found.sigma,
    dryMassG: found.dryG,
    dryMassSdG: found.drySdG,
    waterAtStartG: found.waterG,
    weighingsUsed: weighings.length,
    seenUntilS: weighings.length < 2 ? 0 : Math.max(...weighings.map((w) => w.timeS)),
    z,
    course: model.course,
  }
}
