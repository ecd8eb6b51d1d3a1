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

/** The step of a curve that holds at a time; beyond its end the last. */
export function rowAt({ timeS }: Pick<SetCurve, 'timeS'>, atS: number): number {
  const i = timeS.findIndex((t) => t >= atS)
  return i < 0 ? timeS.length - 1 : i
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

/** What was read last of the thermometers in a bowl, °C; undefined where none of them read anything so lately. */
export function readLatelyC(
  traces: readonly ProbeTrace[],
  batch: number,
  nowMs: number,
  withinMs: number,
): number | undefined {
  let last: { atMs: number; tempC: number } | undefined
  for (const { batch: of, readings } of traces) {
    if (of !== batch) continue
    for (const { atMs, tempC } of readings)
      if (tempC !== null && atMs <= nowMs && atMs > nowMs - withinMs && (!last || atMs > last.atMs))
        last = { atMs, tempC }
  }
  return last?.tempC
}

/** Space between two labels in one row, px. */
const LABEL_GAP_PX = 8

/**
 * In which row each label stands, so that none runs into another and no line runs through one: from the right, each in the
 * lowest row that has room and lies above the lines that it reaches over; the last row where none does.
 * @param spans its line, and from where to where the label reaches, px; undefined where it is not shown.
 */
export function rowsOf(
  spans: readonly ({ x: number; from: number; to: number } | undefined)[],
  mostRows: number,
): number[] {
  const rows = spans.map(() => 0)
  const placed: { x: number; from: number; to: number; row: number }[] = []
  const order = spans.flatMap((span, i) => (span ? [{ ...span, i }] : [])).sort((a, b) => b.x - a.x)
  for (const { i, ...span } of order) {
    const stands = (row: number) =>
      placed.every((t) => {
        const apart = span.to + LABEL_GAP_PX < t.from || span.from > t.to + LABEL_GAP_PX
        const crossed = t.x > span.from && t.x < span.to && t.row >= row
        const crosses = span.x > t.from && span.x < t.to && row > t.row
        return (apart || t.row !== row) && !crossed && !crosses
      })
    const free = Array.from({ length: mostRows }, (_, row) => row).find(stands)
    const row = free ?? mostRows - 1
    rows[i] = row
    placed.push({ ...span, row })
  }
  return rows
}
