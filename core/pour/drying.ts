import {
  UNKNOWN_PLACE,
  dryingDepths,
  forecastDrying,
  nextWeighing,
  targetFractionLeft,
  type DryingForecast,
  type DryingSpot,
  type DryingStretch,
  type Exposure,
  type FeltDry,
  type NextWeighing,
  type Weighing,
} from '../drying'
import type { MixProperties } from '../mix'
import { MS_PER } from '../units'
import type { PourEvent } from './events'
import type { PourPlan } from './plan/plan'

/** Where a piece dries from some moment on, and how it lies there. */
export interface DryingLeg {
  fromMs: number
  spot: DryingSpot
  lies: Exposure
}

/** Where the plan has it dry: in its drying place, or in the air it sets in. */
export function plannedSpot(plan: PourPlan): DryingSpot {
  return plan.dryingPlace ?? { placeId: null, name: '', air: plan.air }
}

/** From where to where a piece was carried while it dried, the plan's place first. */
export function dryingLegs(plan: PourPlan, live: readonly PourEvent[], startMs: number): DryingLeg[] {
  const moved = live.flatMap(({ body, occurredAtMs }) =>
    body.type === 'dries_at'
      ? [{ fromMs: Math.max(startMs, occurredAtMs), spot: body.spot, lies: body.lies }]
      : [],
  )
  return [{ fromMs: startMs, spot: plannedSpot(plan), lies: plan.dryingExposure }, ...moved]
}

export function stretchOf(
  plan: PourPlan,
  mix: MixProperties,
  leg: DryingLeg,
  startMs: number,
): DryingStretch {
  const { air, nightAir, pace } = leg.spot
  return {
    fromS: (leg.fromMs - startMs) / MS_PER.s,
    freeWaterKgM3: mix.freeWaterKgM3,
    ...dryingDepths(plan.mould.thicknessMm, leg.lies),
    air,
    ...(nightAir ? { nightAir } : {}),
    pace: pace ?? UNKNOWN_PLACE,
  }
}

/**
 * Drying of the pieces themselves: their cavities' worth of the mix, spare and leftovers not counted.
 * @param cavityMl of what is weighed together; the whole plan's where it is not given.
 */
export function pieceDrying(
  plan: PourPlan,
  mix: MixProperties,
  weighings: readonly Weighing[],
  legs: readonly DryingLeg[] = dryingLegs(plan, [], 0),
  felt: readonly FeltDry[] = [],
  cavityMl: number = plan.mould.cavityMl,
) {
  const powderInPieceG = cavityMl / mix.slurryMlPerG
  const dryMassG = powderInPieceG * mix.dryMassPerPowder
  const freeWaterG = powderInPieceG * mix.freeWaterPerPowder
  const forecast = forecastDrying(
    legs.map((leg) => stretchOf(plan, mix, leg, legs[0]!.fromMs)),
    dryMassG,
    freeWaterG,
    weighings,
    plan.scaleDivisionG,
    felt,
  )
  return {
    forecast,
    dryMassG,
    freeWaterG,
    targetLeft: targetFractionLeft(plan.dryTarget, mix.freeWaterOfDryMass),
  }
}

/** It is weighed no sooner again than this: a piece loses little in an hour. */
const LEAST_BETWEEN_S = 3 * 3600

/** When to weigh next so that it tells most, by what was weighed so far; undefined where it would tell little. */
export function weighNext(
  plan: PourPlan,
  forecast: DryingForecast,
  weighings: readonly Weighing[],
  targetLeft: number,
  isUp?: (atS: number) => boolean,
): NextWeighing | undefined {
  const lastS = weighings.at(-1)?.timeS ?? 0
  return nextWeighing(forecast, weighings, plan.scaleDivisionG, targetLeft, lastS, LEAST_BETWEEN_S, isUp)
}
