import { xmlText } from '~/parts/show/xmlText'
import type { lookColours } from './colours'

/** One bar of a figure: its words on the left, what it says on the right, its length by its value. */
export interface Bar {
  label: string
  value: number
  text: string
  over?: boolean
}

const WIDTH = 760
const ROW = 54
const TOP = 64
const EDGE = 24

/** A figure of bars as a drawing to take away, in the look's own colours. @returns an SVG file. */
export function barsSvg(
  title: string,
  bars: readonly Bar[],
  colours: ReturnType<typeof lookColours>,
): string {
  const height = TOP + ROW * bars.length + EDGE
  const most = Math.max(...bars.map((b) => b.value), 1e-9)
  const rows = bars.map((bar, i) => {
    const y = TOP + ROW * i
    const length = Math.max(3, ((WIDTH - 2 * EDGE) * bar.value) / most)
    return [
      `<text x="${EDGE}" y="${y + 16}" font-weight="700">${xmlText(bar.label)}</text>`,
      `<text x="${WIDTH - EDGE}" y="${y + 16}" text-anchor="end">${xmlText(bar.text)}</text>`,
      `<rect x="${EDGE}" y="${y + 24}" width="${Math.round(length)}" height="13" rx="6" fill="${bar.over ? colours.hot : colours.wet}"/>`,
    ].join('')
  })
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}"`,
    ` font-family="Arial, Helvetica, sans-serif" font-size="16" fill="${colours.ink}">`,
    `<rect width="${WIDTH}" height="${height}" fill="${colours.ground}"/>`,
    `<text x="${EDGE}" y="38" font-size="22" font-weight="700">${xmlText(title)}</text>`,
    ...rows,
    '</svg>',
  ].join('')
}
