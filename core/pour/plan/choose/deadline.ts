import { chanceBy, type SetForecast } from '../../../forecast'
import { MAX_WATER_TEMP_C } from '../../../mix'
import { coverFor } from '../../../field'
import { wantedCoverMm } from '../../../mould'
import { MS_PER } from '../../../units'
import { coverOf, covered, planMould, type Deadline, type PourPlan } from '../plan'
import { evaluatePlan } from './evaluatePlan'

/** Getting it free, and packing up, s (common practice, no source). */
export const FREEING_S = 300
export const PACKING_S = 300
const LEAVING_S = FREEING_S + PACKING_S

type Set = Pick<SetForecast, 'setting' | 'demould'>

/** When it may come out, s since mid-sprinkle: likely with its range, what is advised, and the least that is asked for. */
function outOf({ setting, demould }: Set, withGround: boolean) {
  // Held by its ground it breaks under nothing but its own weight: it must be hard, and need not be strong.
  if (withGround) return { range: setting.timeS.final_set, advisedS: setting.timeS.final_set.high, leastS: 0 }
  return { range: demould.strongEnoughS, advisedS: demould.recommendedS, leastS: demould.floorS }
}

export interface DeadlineAnswer {
  /** The latest that powder may be half in, and be out in time as it is advised. */
  mixByMs: number
  /** When it is advised to come out: of a pour under way, or of one mixed at that moment. */
  outAtMs: number
  /** As it stands the advice is reached in time. */
  fits: boolean
  /** What is left over, s; below nought what is missing. */
  spareS: number
  /** That it will have become ready by then, 0–1. */
  chance: number
}

/**
 * How a deadline stands.
 * @param mixedAtMs when half the powder was in; of a plan, when it will be at the soonest.
 */
export function deadlineOf(deadline: Deadline, forecast: Set, mixedAtMs: number): DeadlineAnswer {
  const { range, advisedS, leastS } = outOf(forecast, deadline.withGround)
  const freeByMs = deadline.leaveAtMs - LEAVING_S * MS_PER.s
  const hasS = (freeByMs - mixedAtMs) / MS_PER.s
  return {
    mixByMs: freeByMs - advisedS * MS_PER.s,
    outAtMs: mixedAtMs + advisedS * MS_PER.s,
    fits: hasS >= advisedS,
    spareS: hasS - advisedS,
    chance: hasS < leastS ? 0 : chanceBy(range, hasS),
  }
}

/** What makes a deadline fit that does not, in the order one tries it. */
export type DeadlineWay =
  | { id: 'with_ground' }
  | { id: 'warmer_water'; waterTempC: number }
  | { id: 'thinner_cover'; coverMm: number }
  | { id: 'other_plaster'; key: string; name: string }

export interface DeadlineRemedy {
  way: DeadlineWay
  /** By how much sooner it is out, s. */
  gainS: number
  answer: DeadlineAnswer
}

const WARMER_C = 10
/** Warmer than this it sets no faster any more (science.md: setting). */
const WARMEST_MIX_C = 38
const LEAST_GAIN_S = 60

/** The thinnest cover that this print may have, where it has more; undefined where there is nothing to save. */
function thinnerCover({ mould }: PourPlan): number | undefined {
  const methods = (mould.members ?? []).flatMap((m) => m.volume.parts.map((p) => p.method))
  const covers = (mould.members ?? []).flatMap((m) => coverOf(m.volume) ?? [])
  if (covers.length === 0) return undefined
  const wanted = methods.map((m) =>
    m.by === 'traced'
      ? coverFor(m.printLengthMm, m.ground === 'soft')
      : m.by === 'ground'
        ? wantedCoverMm(m)
        : 0,
  )
  const least = Math.max(...wanted)
  return Math.max(...covers) > least + 1 ? least : undefined
}

function withCover(plan: PourPlan, coverMm: number): PourPlan | undefined {
  const { thicknessMm } = plan.mould
  const mould = planMould((plan.mould.members ?? []).map((m) => covered({ ...m, thicknessMm }, coverMm)))
  return mould && { ...plan, mould }
}

/**
 * What would make a deadline fit, each fully worked out, those that gain nothing left out.
 * @param others the same job in other plasters that are at hand, by a key of the caller's.
 */
export function deadlineRemedies(
  plan: PourPlan,
  deadline: Deadline,
  mixedAtMs: number,
  others: readonly { key: string; name: string; plan: PourPlan }[] = [],
): DeadlineRemedy[] {
  const answerOf = (changed: PourPlan, of = deadline) => {
    const found = evaluatePlan(changed)
    return found.ok ? { outcome: found.outcome, answer: deadlineOf(of, found.outcome, mixedAtMs) } : undefined
  }
  const now = answerOf(plan)
  if (!now) return []
  const tries: [DeadlineWay, DeadlineAnswer | undefined][] = []
  if (!deadline.withGround)
    tries.push([{ id: 'with_ground' }, answerOf(plan, { ...deadline, withGround: true })?.answer])
  const warm = Math.min(MAX_WATER_TEMP_C, plan.waterTempC + WARMER_C)
  if (!plan.taps && now.outcome.mixTempC < WARMEST_MIX_C - 2)
    tries.push([{ id: 'warmer_water', waterTempC: warm }, answerOf({ ...plan, waterTempC: warm })?.answer])
  const coverMm = thinnerCover(plan)
  const thinner = coverMm === undefined ? undefined : withCover(plan, coverMm)
  if (thinner) tries.push([{ id: 'thinner_cover', coverMm: coverMm! }, answerOf(thinner)?.answer])
  for (const { key, name, plan: other } of others)
    tries.push([{ id: 'other_plaster', key, name }, answerOf(other)?.answer])
  return tries.flatMap(([way, answer]) => {
    const gainS = answer ? answer.spareS - now.answer.spareS : 0
    return answer && gainS >= LEAST_GAIN_S ? [{ way, gainS, answer }] : []
  })
}
