import { massAtG, timeToFractionS } from '#core/drying'
import type { PourOutlook } from '#core/pour'
import { MS_PER } from '#core/units'

export interface DryingSeries {
  /** Points as day from demoulding and mass, g. */
  weighings: { x: number; y: number }[]
  expected: { x: number; y: number }[]
  dryLineG: number
  endDay: number
}

const DAY_S = MS_PER.day / MS_PER.s
const YEAR_S = 365 * DAY_S
const STEPS = 60

/** Weighings and the forecast curve of a drying piece, in days and grams. */
export function dryingSeries(drying: NonNullable<PourOutlook['drying']>): DryingSeries {
  const { forecast, targetLeft, weighings } = drying
  const lastS = weighings.at(-1)?.timeS ?? 0
  // Beyond a year no figure is meant: the chart ends there.
  const endS = Math.max(Math.min(timeToFractionS(forecast, targetLeft).high, YEAR_S), lastS) * 1.1
  return {
    weighings: weighings.map((w) => ({ x: w.timeS / DAY_S, y: w.massG })),
    expected: Array.from({ length: STEPS + 1 }, (_, i) => {
      const atS = (endS * i) / STEPS
      return { x: atS / DAY_S, y: massAtG(forecast, atS) }
    }),
    dryLineG: forecast.dryMassG,
    endDay: endS / DAY_S,
  }
}
