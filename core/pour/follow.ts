import { consistencyInBowl } from '../mix'
import type { EventBody } from './events'
import type { PourOutlook } from './outlook'
import { givesMl, mixInputOf } from './plan/mix/mixing'

/** One answer to far more or less water than planned, and what it comes to. */
export type FollowWay = { body: EventBody } & (
  | { way: 'water'; how: 'water_in' | 'water_out'; massG: number }
  /** The same mix: what is over once this bowl's share of the mould is filled; negative is short, ml. */
  | { way: 'follow'; powderG: number; leftMl: number }
  /** Plaster as planned: parts of water to 100 that it comes to. */
  | { way: 'as_planned'; powderG: number; consistency: number }
)

/** What is in the bowl in hand and was to be, g, and what can be done about it before plaster is weighed. */
export function followWays(facts: PourOutlook): { waterG: number; plannedG: number; ways: FollowWay[] } {
  const { plan, inHand, batch } = facts
  const { planned } = inHand
  const inBatch = batch > 0 ? { batch } : {}
  const waterG = inHand.inBowl.waterG ?? planned.waterG
  const share = waterG / planned.waterG
  const massG = Math.abs(planned.waterG - waterG)
  const how = waterG < planned.waterG ? 'water_in' : 'water_out'
  const wantedMl = planned.slurryMl / (1 + plan.sparePct / 100)
  return {
    waterG,
    plannedG: planned.waterG,
    ways: [
      { way: 'water', how, massG, body: { type: 'corrected', how, massG, ...inBatch } },
      {
        way: 'follow',
        powderG: planned.powderG * share,
        leftMl: givesMl(plan, planned.slurryMl * share - wantedMl),
        body: { type: 'powder_follows', follows: true, ...inBatch },
      },
      {
        way: 'as_planned',
        powderG: planned.powderG,
        consistency: consistencyInBowl(mixInputOf(plan), { waterG, powderG: planned.powderG }),
        body: { type: 'powder_follows', follows: false, ...inBatch },
      },
    ],
  }
}
