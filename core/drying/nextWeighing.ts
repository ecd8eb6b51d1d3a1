import { leftOfCourse } from './course'
import {
  MODEL_SPREAD_OF_LOSS,
  PRIOR_DRY_SPREAD,
  PRIOR_WATER_SPREAD,
  timeToFractionS,
  type DryingForecast,
  type Weighing,
} from './forecast'

/** When to weigh a drying piece so that it tells most. */
export interface NextWeighing {
  atS: number
  /** σ of ln(drying speed) now, and as it is expected after that weighing. */
  sigmaLn: number
  afterSigmaLn: number
}

/** Pace, dry mass and water, in this order: a symmetric matrix of what is known of the three. */
type Information = [ss: number, sd: number, sw: number, dd: number, dw: number, ww: number]

/** What one weighing tells, by how the mass would change with pace, dry mass and water. */
function told(forecast: DryingForecast, scaleSdG: number, atS: number): Information {
  const { course, lnSpeed } = forecast.shapes[0]!
  const { waterAtStartG } = forecast
  const H = 1e-3
  const at = (ln: number) => leftOfCourse(course, Math.exp(lnSpeed + ln), atS)
  const left = at(0)
  const byPace = (waterAtStartG * (at(H) - at(-H))) / (2 * H)
  const precision = 1 / (scaleSdG ** 2 + (MODEL_SPREAD_OF_LOSS * waterAtStartG * (1 - left)) ** 2)
  const g = [byPace, 1, left] as const
  return [
    precision * g[0] * g[0],
    precision * g[0] * g[1],
    precision * g[0] * g[2],
    precision * g[1] * g[1],
    precision * g[1] * g[2],
    precision * g[2] * g[2],
  ]
}

const sum = (a: Information, b: Information) => a.map((v, i) => v + b[i]!) as Information

/** σ of ln(pace) with both masses integrated out. */
function sigmaOfPace([ss, sd, sw, dd, dw, ww]: Information): number {
  const ofMasses = dd * ww - dw * dw
  const lost = (sd * sd * ww - 2 * sd * sw * dw + sw * sw * dd) / ofMasses
  return 1 / Math.sqrt(ss - lost)
}

/** Candidates looked at between now and dry. */
const STEPS = 24
/** Sooner is better where it tells nearly as much. */
const NEARLY = 0.9
/** Less than this narrower, and it is not worth the walk. */
const WORTHWHILE = 0.95

/**
 * The moment between now and dry at which weighing narrows the forecast most, the earliest that does nearly as much;
 * undefined where none would tell much any more. Linear in pace and masses about what is believed now.
 * @param nowS s since it started to dry. @param leastS it is not weighed again sooner than that.
 * @param isUp whether somebody is up then to weigh it, s since it started to dry.
 */
export function nextWeighing(
  forecast: DryingForecast,
  weighings: readonly Weighing[],
  scaleSdG: number,
  targetLeft: number,
  nowS: number,
  leastS: number,
  isUp: (atS: number) => boolean = () => true,
): NextWeighing | undefined {
  const { shapes, dryMassG, waterAtStartG } = forecast
  const prior: Information = [
    shapes[0]!.course.sigmaLn ** -2,
    0,
    0,
    (PRIOR_DRY_SPREAD * dryMassG) ** -2,
    0,
    (PRIOR_WATER_SPREAD * waterAtStartG) ** -2,
  ]
  const known = weighings.reduce((info, w) => sum(info, told(forecast, scaleSdG, w.timeS)), prior)
  const sigmaLn = sigmaOfPace(known)
  const fromS = Math.max(nowS, (weighings.at(-1)?.timeS ?? -leastS) + leastS)
  const untilS = timeToFractionS(forecast, targetLeft).mid
  if (!(untilS > fromS)) return undefined
  const candidates = Array.from({ length: STEPS + 1 }, (_, i) => fromS + ((untilS - fromS) * i) / STEPS)
    .filter(isUp)
    .map((atS) => ({ atS, sigmaLn, afterSigmaLn: sigmaOfPace(sum(known, told(forecast, scaleSdG, atS))) }))
  const best = Math.min(...candidates.map((c) => c.afterSigmaLn))
  if (best > WORTHWHILE * sigmaLn) return undefined
  return candidates.find((c) => sigmaLn - c.afterSigmaLn >= NEARLY * (sigmaLn - best))
}
