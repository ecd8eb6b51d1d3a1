import { scaleBar, type Outline } from '#core/field'
import { xmlText } from '~/parts/show/xmlText'

/** A traced outline as files for other programs: millimetres of the ground, y downwards as pictures have it. */

const MARGIN_MM = 10
const rounded = (mm: number) => Math.round(mm * 100) / 100
/** Its place moved to the corner, so that nothing of where the camera looked is left. */
function cornered({ spots }: Pick<Outline, 'spots'>) {
  const [xs, ys] = [spots.map((s) => s.xMm), spots.map((s) => s.yMm)]
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  return {
    widthMm: Math.max(...xs) - left,
    heightMm: Math.max(...ys) - top,
    spots: spots.map((s) => ({ xMm: rounded(s.xMm - left), yMm: rounded(s.yMm - top) })),
  }
}

/** A drawing true to scale where it is printed as large as it says, with a bar to check that by. */
export function outlineSvg(outline: Pick<Outline, 'spots'>, name: string): string {
  const { widthMm, heightMm, spots } = cornered(outline)
  // No longer than the print itself.
  const barMm = scaleBar(3 * widthMm)
  const [w, h] = [rounded(Math.max(widthMm, barMm) + 2 * MARGIN_MM), rounded(heightMm + 4 * MARGIN_MM)]
  const line = spots.map((s) => `${s.xMm + MARGIN_MM} ${s.yMm + MARGIN_MM}`).join('L')
  const barY = rounded(heightMm + 2 * MARGIN_MM)
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">
  <title>${xmlText(name)}</title>
  <path d="M${line}Z" fill="none" stroke="black" stroke-width="0.4"/>
  <path d="M${MARGIN_MM} ${barY}h${barMm}" stroke="black" stroke-width="1"/>
  <text x="${MARGIN_MM}" y="${barY + 7}" font-size="5" font-family="sans-serif">${barMm} mm</text>
</svg>
`
}

export const outlineCsv = (outline: Pick<Outline, 'spots'>): string =>
  `x_mm,y_mm\r\n${cornered(outline)
    .spots.map((s) => `${s.xMm},${s.yMm}\r\n`)
    .join('')}`
