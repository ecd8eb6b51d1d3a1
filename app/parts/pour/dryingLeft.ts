import { massAtG, timeToFractionS } from '#core/drying'
import type { PourOutlook } from '#core/pour'
import { durationRangeText } from '~/parts/show/time'

export interface DryingLeft {
  /** Dry enough by the middle of the forecast. */
  dry: boolean
  /** Range of time still to go, in words; from nothing where the early end has passed. */
  text: string
  expectedG: number
  /** Weighings the forecast has learnt from; 0 while it is the model's guess. */
  weighingsUsed: number
}

/** How far a drying piece is at a moment, against what it must be dry enough for. */
export function dryingLeft(drying: NonNullable<PourOutlook['drying']>, nowMs: number): DryingLeft {
  const { forecast, targetLeft, startMs } = drying
  const range = timeToFractionS(forecast, targetLeft)
  const elapsedS = (nowMs - startMs) / 1000
  const left = (atS: number) => Math.max(0, atS - elapsedS)
  return {
    dry: elapsedS >= range.mid,
    text: durationRangeText(left(range.low), left(range.high)),
    expectedG: massAtG(forecast, elapsedS).mid,
    weighingsUsed: forecast.weighingsUsed,
  }
}
