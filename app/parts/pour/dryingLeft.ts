import { leftAt, massAtG, timeToFractionS } from '#core/drying'
import { compressiveStrengthMPa, strengthOnTheWayMPa } from '#core/mix'
import type { PourOutlook } from '#core/pour'
import { durationRangeText } from '~/parts/show/time'

export interface DryingLeft {
  /** Dry enough by the middle of the forecast. */
  dry: boolean
  /** Range of time still to go, in words; from nothing where the early end has passed. */
  text: string
  expectedG: number
  /** How strong it is by now, as a share of what it will be dry. */
  strength: number
  /** Weighings the forecast has learnt from; 0 while it is the model's guess. */
  weighingsUsed: number
}

/** How far a drying piece is at a moment, against what it must be dry enough for. */
export function dryingLeft(
  drying: NonNullable<PourOutlook['drying']>,
  { mix, plan }: Pick<PourOutlook, 'mix' | 'plan'>,
  nowMs: number,
): DryingLeft {
  const { forecast, targetLeft, startMs } = drying
  const range = timeToFractionS(forecast, targetLeft)
  const elapsedS = (nowMs - startMs) / 1000
  const whole = compressiveStrengthMPa(mix.porosity, plan.plaster.properties.strengthFactor)
  const waterOfDryMass = leftAt(forecast, elapsedS).mid * mix.freeWaterOfDryMass
  const onTheWay = strengthOnTheWayMPa(whole, waterOfDryMass)
  const left = (atS: number) => Math.max(0, atS - elapsedS)
  return {
    dry: elapsedS >= range.mid,
    text: durationRangeText(left(range.low), left(range.high)),
    expectedG: massAtG(forecast, elapsedS).mid,
    strength: onTheWay.mid / whole.dry.mid,
    weighingsUsed: forecast.weighingsUsed,
  }
}
