import { timesAtPace, demouldForecast, type Pace, type SetForecast, type SetProblem } from '../../../forecast'
import { problemIf } from './whatIf'
import type { PourPlan } from '../plan'

/** What of place, weather and size asks for care while it sets. */
export const CONDITIONS = [
  'cold_ground',
  'cold_room',
  'hot_place',
  'strong_heat',
  'heavy',
  'never_warm',
  'untried',
] as const
export type Condition = (typeof CONDITIONS)[number]

/** Under this setting takes so long that haste breaks casts; above that it runs away (common practice, no source). */
const COLD_C = 10
const HOT_C = 30
/** Inside hotter than this it strains itself as it cools, and its set is slowed by its own heat. */
const STRONG_HEAT_C = 65
const HEAVY_G = 5000

/** @param massG of the piece, wet. */
export function conditionsOf(
  problem: SetProblem,
  { marks, setting }: Omit<SetForecast, 'green'>,
  massG: number,
): Condition[] {
  const { around, kind, piece } = problem
  const inGround = kind === 'ground' || !['bench', 'air'].includes(piece.standsOn)
  const found: Record<Condition, boolean> = {
    cold_ground: inGround && around.groundTempC < COLD_C,
    cold_room: !inGround && Math.min(around.airTempC, problem.setting.mixTempC) < COLD_C,
    hot_place: around.airTempC >= HOT_C || around.sunWM2 > 0,
    strong_heat: marks.peakC >= STRONG_HEAT_C,
    heavy: massG > HEAVY_G,
    never_warm: marks.warmS === undefined,
    untried: setting.outsideTestedRange,
  }
  return CONDITIONS.filter((c) => found[c])
}

/** Something that can still be done, and when the piece would then be out, s since mid-sprinkle. */
export interface Act {
  id: 'to_the_warm' | 'warmer_water' | 'cooler_water'
  outS: number
}

const WARM_ROOM_C = 20
const WATER_STEP_K = 10
const WARMEST_WATER_C = 40
const COLDEST_WATER_C = 4
/** Less than this is no reason to carry anything. */
const WORTH_S = 180

/** What taking a piece that sets in the cold to a warm room now would do. */
export function actNow(
  problem: SetProblem,
  pace: Pace,
  conditions: readonly Condition[],
  nowS: number,
): Act | undefined {
  if (!conditions.includes('cold_ground') && !conditions.includes('cold_room')) return undefined
  const warm = { ...problem.around, airTempC: WARM_ROOM_C, groundTempC: WARM_ROOM_C, mouldTempC: WARM_ROOM_C }
  const outOf = (of: SetProblem) =>
    demouldForecast(timesAtPace(of, Math.exp(pace.meanLn)).readyS, pace.sigmaLn, of.kind).recommendedS
  const outS = outOf({ ...problem, later: { fromS: nowS, around: warm } })
  return outOf(problem) - outS > WORTH_S ? { id: 'to_the_warm', outS } : undefined
}

/** What other water would do to a plan in the cold or the heat. */
export function actBefore(
  problem: SetProblem,
  plan: PourPlan,
  conditions: readonly Condition[],
): Act | undefined {
  const isCold = conditions.includes('cold_ground') || conditions.includes('cold_room')
  if (!isCold && !conditions.includes('hot_place')) return undefined
  const waterTempC = isCold
    ? Math.min(WARMEST_WATER_C, plan.waterTempC + WATER_STEP_K)
    : Math.max(COLDEST_WATER_C, plan.waterTempC - WATER_STEP_K)
  if (Math.abs(waterTempC - plan.waterTempC) < 1) return undefined
  const changed = problemIf(problem, plan, { waterTempC })
  const { recommendedS } = demouldForecast(timesAtPace(changed, 1).readyS, changed.sigmaLn, changed.kind)
  return { id: isCold ? 'warmer_water' : 'cooler_water', outS: recommendedS }
}
