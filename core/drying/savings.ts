import type { Air } from './air'
import { dryingCourses, leftOfCourse, timeOfCourse, type DryingCourse, type DryingStretch } from './course'
import { dryingDepths, type Exposure } from './curve'
import { timeToFractionS, type DryingForecast } from './forecast'

/** No surface may get warmer: dry gypsum gives up water of its own (ASTM C472 dries at 45 °C, from memory), °C. */
export const WARMEST_SURFACE_C = 45

/** What can be changed about where a piece dries. */
export const DRYING_CHANGES = ['fan', 'rack', 'warmer', 'cabinet'] as const
export type DryingChange = (typeof DRYING_CHANGES)[number]

/** How the change makes the air and how it lies; undefined where it already is so, or nothing would come of it. */
const CHANGE: Record<DryingChange, (air: Air, lies: Exposure) => { air: Air; lies: Exposure } | undefined> = {
  fan: (air, lies) => (air.speedMS < 1 ? { air: { ...air, speedMS: 1.5 }, lies } : undefined),
  rack: (air, lies) => (lies === 'both_faces' ? undefined : { air, lies: 'both_faces' }),
  // Warmed air holds as much water as before, and so is drier.
  warmer: (air, lies) => (air.tempC < 25 ? { air: warmed(air, air.tempC + 8), lies } : undefined),
  cabinet: (air) =>
    air.tempC < 35 ? { air: { tempC: 40, rhPct: 20, speedMS: 1 }, lies: 'both_faces' } : undefined,
}

/** Saturation rises about 6.2 % a kelvin near room temperature: as much vapour is a smaller share of it. */
function warmed(air: Air, tempC: number): Air {
  return { ...air, tempC, rhPct: Math.max(5, air.rhPct * 1.062 ** (air.tempC - tempC)) }
}

export interface DryingSaving {
  change: DryingChange
  /** From now until dry enough as it is, and with the change, s; middles of the forecast. */
  asIsS: number
  withS: number
}

/**
 * What a change from now on would save, for each that makes a difference worth the trouble: a tenth of what is left.
 * @param now the stretch it dries in. @param nowS s since it started to dry.
 */
export function savingsFrom(
  forecast: DryingForecast,
  now: DryingStretch,
  lies: Exposure,
  thicknessMm: number,
  targetLeft: number,
  nowS: number,
): DryingSaving[] {
  const { shape, course: asItIs, lnSpeed } = forecast.shapes[0]!
  const speed = Math.exp(lnSpeed)
  const left = leftOfCourse(asItIs, speed, nowS)
  const asIsS = timeToFractionS(forecast, targetLeft).mid - nowS
  const likeliestS = timeOfCourse(asItIs, speed, targetLeft) - nowS
  if (!(asIsS > 0 && likeliestS > 0)) return []
  return DRYING_CHANGES.flatMap((change) => {
    const made = CHANGE[change](now.air, lies)
    if (!made || made.air.tempC > WARMEST_SURFACE_C) return []
    const { freeWaterKgM3, pace } = now
    // Another place's pace is another's: only what stays where it is keeps what was learnt of it.
    const isHere = change === 'rack'
    const depths = dryingDepths(thicknessMm, made.lies)
    const stretch = {
      fromS: 0,
      freeWaterKgM3,
      ...depths,
      air: made.air,
      ...(isHere && now.nightAir ? { nightAir: now.nightAir } : {}),
      pace: change === 'cabinet' ? { ...pace, meanLn: 0 } : pace,
    }
    const [course] = dryingCourses([stretch], [shape]) as [DryingCourse]
    const ownSpeed = change === 'cabinet' ? 1 : speed
    // By the likeliest shape both ways, and so many times what the forecast as a whole says.
    const changedS = timeOfCourse(course, ownSpeed, targetLeft) - timeOfCourse(course, ownSpeed, left)
    const withS = asIsS * (changedS / likeliestS)
    return withS < 0.9 * asIsS ? [{ change, asIsS, withS }] : []
  })
}
