import type { Plugin } from 'chart.js'
import { Chart } from '~/parts/chart/chart'
import { rowsOf } from './setSeries'

const LABEL_FONT_PX = 14
const LABEL_ROW_PX = 17
/** Rows of words above the chart: more of them never stand so close. */
const LABEL_ROWS = 4
export const LABELS_ABOVE_PX = LABEL_ROWS * LABEL_ROW_PX

export interface UprightLine {
  atMin: number
  label: string
  colour: string
  dash: number[]
}

/** The present, when it comes out, windows: upright lines, their words above the chart, each where it has room. */
export function uprightLines(linesNow: () => readonly UprightLine[]): Plugin<'scatter'> {
  return {
    id: 'uprights',
    afterDatasetsDraw({ ctx, chartArea: area, scales, width }) {
      const lines = linesNow()
      ctx.save()
      ctx.font = `600 ${LABEL_FONT_PX}px ${Chart.defaults.font.family}`
      ctx.lineWidth = 2
      const spans = lines.map(({ atMin, label }) => {
        const x = scales.x!.getPixelForValue(atMin)
        const wide = ctx.measureText(label).width
        const from = Math.min(x - 2, width - wide - 2)
        return { x, from, to: from + wide, isShown: x >= area.left && x <= area.right }
      })
      const rows = rowsOf(
        spans.map((s) => (s.isShown ? s : undefined)),
        LABEL_ROWS,
      )
      lines.forEach(({ label, colour, dash }, i) => {
        const { x, from, isShown } = spans[i]!
        if (!isShown) return
        const base = area.top - 4 - LABEL_ROW_PX * rows[i]!
        ctx.strokeStyle = ctx.fillStyle = colour
        ctx.setLineDash(dash)
        ctx.beginPath()
        ctx.moveTo(x, base + 3)
        ctx.lineTo(x, area.bottom)
        ctx.stroke()
        ctx.textAlign = 'left'
        ctx.fillText(label, from, base)
      })
      ctx.restore()
    },
  }
}
