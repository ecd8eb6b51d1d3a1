import { massAtG, timeToFractionS } from '#core/drying'
import type { DryingTableRow } from '#core/formats'
import type { PourOutlook } from '#core/pour'
import { MS_PER } from '#core/units'

export interface DryingSeries {
  /** Points as day from demoulding and mass, g. */
  weighings: { x: number; y: number }[]
  expected: { x: number; y: number }[]
  /** The same at the slow and the fast end of the range. */
  slow: { x: number; y: number }[]
  fast: { x: number; y: number }[]
  dryLineG: number
  endDay: number
}

const DAY_S = MS_PER.day / MS_PER.s
const YEAR_S = 365 * DAY_S
const STEPS = 60

/** Weighings and the forecast curve of a drying piece, in days and grams. */
export function dryingSeries(drying: NonNullable<PourOutlook['drying']>): DryingSeries {
  const { forecast, targetLeft } = drying
  // Of several casts the forecast is of those that are weighed together: the others weigh something else.
  const weighings = drying.weighings.filter((w) => w.pieces.join() === forecast.pieces.join())
  const lastS = weighings.at(-1)?.timeS ?? 0
  // Beyond a year no figure is meant: the chart ends there.
  const endS = Math.max(Math.min(timeToFractionS(forecast, targetLeft).high, YEAR_S), lastS) * 1.1
  const masses = Array.from({ length: STEPS + 1 }, (_, i) => {
    const atS = (endS * i) / STEPS
    return { day: atS / DAY_S, ...massAtG(forecast, atS) }
  })
  const along = (end: 'low' | 'mid' | 'high') => masses.map((m) => ({ x: m.day, y: m[end] }))
  return {
    weighings: weighings.map((w) => ({ x: w.timeS / DAY_S, y: w.massG })),
    expected: along('mid'),
    slow: along('high'),
    fast: along('low'),
    dryLineG: forecast.dryMassG,
    endDay: Math.ceil((2 * endS) / DAY_S) / 2,
  }
}

/** The same as rows of a table, weighings among the steps of the forecast. */
export function dryingRows({ expected, fast, slow, weighings }: DryingSeries): DryingTableRow[] {
  const steps: DryingTableRow[] = expected.map(({ x, y }, i) => ({
    day: x,
    expectedG: y,
    fastG: fast[i]!.y,
    slowG: slow[i]!.y,
  }))
  return [...steps, ...weighings.map(({ x, y }) => ({ day: x, weighedG: y }))].sort((a, b) => a.day - b.day)
}
