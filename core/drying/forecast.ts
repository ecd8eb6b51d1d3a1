import { ArgumentError } from '../errors'
import type { Range } from '../provenance'
import { dryingCourses, leftOfCourse, timesOfCourse, type DryingCourse, type DryingStretch } from './course'
import { SHAPE_SPREAD_LN, type DryingShape } from './curve'

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

/** One shape the curve of a piece may have, and what its weighings say of the rest if it has. */
export interface ShapeFound {
  /** How much is believed of it, 0–1. */
  share: number
  shape: DryingShape
  /** Where and how it dries; any speed is that course with its pace scaled. */
  course: DryingCourse
  lnSpeed: number
  sigma: number
  dryG: number
  waterG: number
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
  /** How far each weighing lies from what the others say, in standard deviations, in the order given. */
  z: number[]
  /** Shapes that its curve may have, the likeliest first. */
  shapes: ShapeFound[]
}

/** Points of a normal and how much of it lies below each: what is asked for, the tenths and the middle, is among them. */
const NORMAL_AT = [-3, -2, -1.28155157, -0.8, -0.4, 0, 0.4, 0.8, 1.28155157, 2, 3] as const
const NORMAL_BELOW = [
  0.0013499, 0.0227501, 0.1, 0.2118554, 0.3445783, 0.5, 0.6554217, 0.7881446, 0.9, 0.9772499, 0.9986501,
] as const
const [TENTH, HALF, NINE_TENTHS] = [2, 5, 8]
const MOST_STEPS = 40
const SURE_ENOUGH = 1e-10

/**
 * Middle and 80 % range of a figure that falls with the speed, over shapes and speeds: of each shape's, straight between
 * its points, the sum. What makes every shape quicker makes the sum so. Asked for all along the curve under a slider.
 */
function rangeOver(
  shapes: readonly ShapeFound[],
  of: (shape: ShapeFound) => (speed: number) => number,
): Range {
  const points = NORMAL_AT.length
  const values = new Float64Array(shapes.length * points)
  for (const [s, shape] of shapes.entries()) {
    const valueAt = of(shape)
    for (let i = 0; i < points; i++)
      values[s * points + i] = valueAt(Math.exp(shape.lnSpeed - NORMAL_AT[i]! * shape.sigma))
  }
  /** @param near about which point of each it lies. */
  const below = (value: number, near: number) => {
    let sum = 0
    for (let s = 0; s < shapes.length; s++) {
      const first = s * points
      let i = near
      while (i < points && values[first + i]! <= value) i++
      while (i > 0 && values[first + i - 1]! > value) i--
      if (i === points) sum += shapes[s]!.share
      else if (i > 0) {
        const before = values[first + i - 1]!
        const along = (value - before) / (values[first + i]! - before)
        sum += shapes[s]!.share * ((1 - along) * NORMAL_BELOW[i - 1]! + along * NORMAL_BELOW[i]!)
      }
    }
    return sum
  }
  const all = shapes.reduce((sum, { share }) => sum + share, 0)
  /**
   * It lies between that of one shape and that of another: from there by false position, an end that stays twice counted half
   * as far (Illinois).
   */
  const at = (point: number) => {
    const share = NORMAL_BELOW[point]! * all
    let [low, high] = [Infinity, -Infinity]
    for (let s = point; s < values.length; s += points) {
      low = Math.min(low, values[s]!)
      high = Math.max(high, values[s]!)
    }
    let [under, over] = [below(low, point) - share, below(high, point) - share]
    if (under >= 0) return low
    let last = 0
    for (let i = 0; i < MOST_STEPS && high - low > 1e-9 * high; i++) {
      const mid = low + ((high - low) * under) / (under - over)
      const off = below(mid, point) - share
      if (Math.abs(off) < SURE_ENOUGH) return mid
      const side = Math.sign(off)
      if (off < 0) {
        low = mid
        under = off
        if (side === last) over /= 2
      } else {
        high = mid
        over = off
        if (side === last) under /= 2
      }
      last = side
    }
    return high
  }
  return { low: at(TENTH), mid: at(HALF), high: at(NINE_TENTHS) }
}

/** Dates are asked for at every turn of the clock, and follow from the forecast alone. */
const told = new WeakMap<readonly ShapeFound[], Map<number, Range>>()

/** Time to reach `fractionLeft`, s since the piece started to dry, with its 80 % range. */
export function timeToFractionS({ shapes }: DryingForecast, fractionLeft: number): Range {
  const known = told.get(shapes) ?? new Map<number, Range>()
  told.set(shapes, known)
  const before = known.get(fractionLeft)
  if (before) return before
  const range = rangeOver(shapes, ({ course }) => timesOfCourse(course, fractionLeft))
  known.set(fractionLeft, range)
  return range
}

/** Expected mass of the piece at a time, g, with its 80 % range by pace and shape. @param timeS since it started to dry. */
export function massAtG({ shapes }: DryingForecast, timeS: number): Range {
  return rangeOver(
    shapes,
    ({ course, dryG, waterG }) =>
      (speed) =>
        dryG + waterG * leftOfCourse(course, speed, timeS),
  )
}

/** Share of its free water left at a time, with its 80 % range by pace and shape. @param timeS since it started to dry. */
export function leftAt({ shapes }: DryingForecast, timeS: number): Range {
  return rangeOver(
    shapes,
    ({ course }) =>
      (speed) =>
        leftOfCourse(course, speed, timeS),
  )
}

/** How well the mix tells the dry mass and the water of the piece. */
export const PRIOR_DRY_SPREAD = 0.02
export const PRIOR_WATER_SPREAD = 0.04
/** What the curve itself is off by, as a share of the water lost. */
export const MODEL_SPREAD_OF_LOSS = 0.02
/** A weighing this far out is worth a question. */
export const DOUBTFUL_Z = 3

/** Five points of a normal with their weights (Gauss and Hermite): shapes are tried on five by five. */
const SHAPE_POINTS = [
  [-2.85697, 0.01125741132772071],
  [-1.355626, 0.2220759220056126],
  [0, 0.5333333333333333],
  [1.355626, 0.2220759220056126],
  [2.85697, 0.01125741132772071],
] as const
const SHAPES = SHAPE_POINTS.flatMap(([c, shareC]) =>
  SHAPE_POINTS.map(([d, shareD]) => ({
    share: shareC * shareD,
    shape: { critical: Math.exp(SHAPE_SPREAD_LN * c), diffusivity: Math.exp(SHAPE_SPREAD_LN * d) },
  })),
)
/** Believed less, and it changes no figure. */
const LEAST_SHARE = 1e-3
const GRID_POINTS = 41
const ZOOMS = 4
const MOST_ROUNDS = 40

/** Prior of the two masses, and the way the piece dries. */
interface Model {
  shape: DryingShape
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
  /** How well all of it fits, ln, but for what every shape has in common. */
  lnEvidence: number
}

interface GridPoint extends Omit<Posterior, 'sigma' | 'drySdG' | 'lnEvidence'> {
  logWeight: number
  dryVarG2: number
}

const leftOf = ({ course }: Model, lnSpeed: number, timeS: number) =>
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
  for (const { timeS, clammy } of model.felt) logWeight += lnChanceFelt(leftOf(model, lnSpeed, timeS), clammy)
  for (const [i, { timeS, massG }] of weighings.entries()) {
    const f = leftOf(model, lnSpeed, timeS)
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

function moments(points: readonly GridPoint[], step: number): Posterior {
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
    lnEvidence: top + Math.log(total * step),
  }
}

/** Posterior moments over ln speed: a wide grid first, then closer around what it found. */
function posterior(model: Model, weight: readonly number[]): Posterior {
  const onGrid = (centre: number, halfWidth: number) =>
    moments(
      Array.from({ length: GRID_POINTS }, (_, i) =>
        evaluate(model, weight, centre + halfWidth * ((2 * i) / (GRID_POINTS - 1) - 1)),
      ),
      (2 * halfWidth) / (GRID_POINTS - 1),
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
    const f = leftOf(model, found.lnSpeed, timeS)
    return (massG - found.dryG - found.waterG * f) / Math.sqrt(varianceOf(model, f))
  })
}

/** Student weights (ν = 4), so that one slip of the scale does not move the forecast: iterated until they hold. */
function robustWeights(model: Model): number[] {
  let weight = model.weighings.map(() => 1)
  let z = zOf(model, posterior(model, weight))
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = z.map((zi) => Math.min(1, 5 / (4 + zi * zi)))
    const moved = Math.max(0, ...next.map((w, i) => Math.abs(w - weight[i]!)))
    if (moved < 1e-4) break
    weight = next
    z = zOf(model, posterior(model, weight))
  }
  return weight
}

interface Tried {
  model: Model
  share: number
  found: Posterior
}

/** Every shape with what the weighings say of it, the likeliest first. */
function tryShapes(models: readonly { model: Model; share: number }[], weight: readonly number[]): Tried[] {
  const tried = models.map(({ model, share }) => {
    const found = posterior(model, weight)
    return { model, found, ln: Math.log(share) + found.lnEvidence }
  })
  const top = Math.max(...tried.map((t) => t.ln))
  const total = tried.reduce((sum, t) => sum + Math.exp(t.ln - top), 0)
  return tried
    .map(({ model, found, ln }) => ({ model, found, share: Math.exp(ln - top) / total }))
    .sort((a, b) => b.share - a.share)
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
  return forecastOver(SHAPES, stretches, expectedDryMassG, expectedWaterG, weighings, scaleSdG, felt)
}

/** The same over other shapes than a plaster may have: one alone, where its sums are checked. */
export function forecastOver(
  shapes: readonly { share: number; shape: DryingShape }[],
  stretches: readonly DryingStretch[],
  expectedDryMassG: number,
  expectedWaterG: number,
  weighings: readonly Weighing[],
  scaleSdG: number,
  felt: readonly FeltDry[],
): DryingForecast {
  const masses = [expectedDryMassG, expectedWaterG, scaleSdG, ...weighings.map((w) => w.massG)]
  if (masses.some((m) => !(m > 0))) throw new ArgumentError('masses and scaleSdG must be positive')
  const models = dryingCourses(
    stretches,
    shapes.map((of) => of.shape),
  ).map((course, i) => ({
    share: shapes[i]!.share,
    model: {
      shape: shapes[i]!.shape,
      course,
      dryG: expectedDryMassG,
      waterG: expectedWaterG,
      scaleSdG,
      weighings,
      felt,
    },
  }))
  const unweighed = ({ model, share }: (typeof models)[number]): Tried => ({
    model,
    share,
    found: {
      lnSpeed: 0,
      sigma: model.course.sigmaLn,
      dryG: expectedDryMassG,
      drySdG: PRIOR_DRY_SPREAD * expectedDryMassG,
      waterG: expectedWaterG,
      lnEvidence: 0,
    },
  })
  const nothingSeen = weighings.length + felt.length === 0
  let tried: Tried[]
  if (nothingSeen) tried = models.map(unweighed).sort((a, b) => b.share - a.share)
  else {
    tried = tryShapes(
      models,
      weighings.map(() => 1),
    )
    // What lies far out, lies far out of the likeliest shape.
    const weight = robustWeights(tried[0]!.model)
    if (weight.some((w) => w < 1)) tried = tryShapes(models, weight)
  }
  const mean = (of: (found: Posterior) => number) => tried.reduce((sum, t) => sum + t.share * of(t.found), 0)
  const lnSpeed = mean((f) => f.lnSpeed)
  const dryMassG = mean((f) => f.dryG)
  const sigma = Math.sqrt(mean((f) => f.sigma ** 2 + (f.lnSpeed - lnSpeed) ** 2))
  const speed = (sigmas: number) => Math.exp(lnSpeed + sigmas * sigma)
  return {
    speedFactor: { low: speed(-1.2816), mid: speed(0), high: speed(1.2816) },
    sigmaLnSpeed: sigma,
    dryMassG,
    dryMassSdG: Math.sqrt(mean((f) => f.drySdG ** 2 + (f.dryG - dryMassG) ** 2)),
    waterAtStartG: mean((f) => f.waterG),
    weighingsUsed: weighings.length,
    z: nothingSeen ? [] : zOf(tried[0]!.model, tried[0]!.found),
    shapes: tried
      .filter((t) => t.share > LEAST_SHARE)
      .map(({ model: { shape, course }, share, found }) => ({
        share,
        shape,
        course,
        lnSpeed: found.lnSpeed,
        sigma: found.sigma,
        dryG: found.dryG,
        waterG: found.waterG,
      })),
  }
}
