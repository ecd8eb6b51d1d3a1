import type { SetCurve } from '#core/forecast'
import type { SettingTableRow } from '#core/formats'
import { seriesAt } from '#core/heat'
import type { ProbeTrace } from '#core/pour'

/** A point of the chart: minutes since the powder met the water, °C. */
export interface ChartPoint {
  x: number
  y: number
}

export interface SetSeries {
  core: ChartPoint[]
  surface: ChartPoint[]
  low: ChartPoint[]
  high: ChartPoint[]
  measured: ChartPoint[]
}

const along = (timeS: readonly number[], tempC: readonly number[]): ChartPoint[] =>
  timeS.map((t, i) => ({ x: t / 60, y: tempC[i]! }))

/** The curve and what was measured, as points. @param startMs mid-sprinkle. */
export function setSeries(curve: SetCurve, traces: readonly ProbeTrace[], startMs: number): SetSeries {
  const { timeS } = curve
  const from = timeS[0]! - 300
  return {
    core: along(timeS, curve.coreC),
    surface: along(timeS, curve.surfaceC),
    low: along(timeS, curve.lowC),
    high: along(timeS, curve.highC),
    measured: traces.flatMap(({ readings }) =>
      readings.flatMap(({ atMs, tempC }) => {
        const s = (atMs - startMs) / 1000
        return tempC === null || s < from ? [] : [{ x: s / 60, y: tempC }]
      }),
    ),
  }
}

/** The value of a curve at a time, straight between its points; undefined before its first. */
export function curveAt(curve: SetCurve, of: readonly number[], atS: number): number | undefined {
  return atS < curve.timeS[0]! ? undefined : seriesAt(curve.timeS, of, atS)
}

/** The curve's figures every so many minutes: for a screen reader, and for a file. */
export function setRows(curve: SetCurve, everyMin: number): SettingTableRow[] {
  const last = curve.timeS.at(-1)! / 60
  const first = Math.ceil(curve.timeS[0]! / 60 / everyMin) * everyMin
  const rows: SettingTableRow[] = []
  for (let minute = first; minute <= last; minute += everyMin) {
    const at = (of: readonly number[]) => curveAt(curve, of, minute * 60)!
    rows.push({
      minute,
      coreC: at(curve.coreC),
      lowC: at(curve.lowC),
      highC: at(curve.highC),
      surfaceC: at(curve.surfaceC),
      setPct: 100 * at(curve.meanAlpha),
    })
  }
  return rows
}
