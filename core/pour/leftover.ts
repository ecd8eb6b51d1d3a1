import { placeLeftover, type LeftoverPlan, type SpillMould } from '../mould'
import { EVENT, batchOf, type EventBody } from './events'
import { givesMl } from './plan/mix/mixing'
import type { PourOutlook } from './outlook'
import type { PourPlan } from './plan/plan'

/**
 * Slurry that is over once the mould is full, ml; below nothing it is missing. From what was weighed, where it was.
 * @param lostMl what ran out of the mould.
 */
export function overMl({ plan, actual, planned, lostMl }: PourOutlook, moreLostMl = 0): number {
  return givesMl(plan, (actual ?? planned).slurryMl) - plan.mould.cavityMl - lostMl - moreLostMl
}

export interface LeftoverNow extends LeftoverPlan {
  /** Still thin enough to be poured anywhere. */
  flows: boolean
}

/** Where what is left over can go, as long as it flows; spill moulds that were filled already are not offered again. */
export function leftoverNow(facts: PourOutlook, nowMs: number): LeftoverNow {
  const poured = facts.live.flatMap(({ body }) => (body.type === 'leftover_poured' ? [body] : []))
  const leftMl = poured.reduce((left, b) => left - b.fillMl, overMl(facts))
  const free = (facts.plan.spill ?? []).filter((s) => !poured.some((b) => b.mouldId === s.mouldId))
  const { settingStartMs, setting } = facts
  const flows = settingStartMs !== undefined && nowMs < settingStartMs + setting.timeS.work_end.mid * 1000
  return { ...placeLeftover(leftMl, free), flows }
}

/**
 * A small pour of its own, made of what another left over: the same mix at the same times, its share of the masses.
 * @param mould the spill mould, described as any plan's mould.
 * @returns the plan, and its record up to the pouring.
 */
export function leftoverPour(
  facts: PourOutlook,
  pourId: string,
  mould: PourPlan['mould'],
  spill: SpillMould & { fillMl: number },
  nowMs: number,
): { plan: PourPlan; events: { atMs: number; body: EventBody }[] } {
  const { kept: _, spill: _s, batching: _b, script: _e, filling: _f, ...mix } = facts.plan
  const share = spill.fillMl / (facts.inHand.actual ?? facts.inHand.planned).slurryMl
  const events = facts.live.flatMap(({ body, occurredAtMs: atMs }) => {
    if (!EVENT[body.type].mixes || batchOf(body) !== facts.batch) return []
    const { batch: _1, reading: _2, ...own } = body as EventBody & { batch?: number; reading?: unknown }
    return [
      {
        atMs,
        // A jug that was weighed says the same of any part of the bowl.
        body: (own.type === 'weighed' || own.type === 'corrected'
          ? { ...own, massG: own.massG * share }
          : own) as EventBody,
      },
    ]
  })
  return {
    plan: {
      ...mix,
      piece: `${spill.name}, from ${mix.piece}`.slice(0, 120),
      mould,
      sparePct: 0,
      leftoverOf: { pourId, piece: mix.piece },
    },
    events: [...events, { atMs: nowMs, body: { type: 'poured' } }],
  }
}
