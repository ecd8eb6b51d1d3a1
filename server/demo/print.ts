import { curveThrough, outlineOf, type Pixel } from '../../core/field'
import { tracedWay, usualFacts } from '../../core/mould'
import type { FindShot } from '../../shared/finds'
import type { MouldInput } from '../../shared/moulds'
import { HOUR } from './timed'

/** A print that somebody of the shed found on the flat, drawn as a telephone would have seen it, and measured there. */

const PX_PER_MM = 5
const [WIDTH_PX, HEIGHT_PX] = [1600, 1200]
/** Of a place on the ground, mm from the middle of what was photographed. */
const seen = ([xMm, yMm]: readonly [number, number]): Pixel => ({
  x: WIDTH_PX / 2 + PX_PER_MM * xMm,
  y: HEIGHT_PX / 2 + PX_PER_MM * yMm,
})

/** A gull's foot, heel first, round over its left toe. */
const FOOT = (
  [
    [0, 41],
    [-7, 28],
    [-18, 8],
    [-30, -12],
    [-39, -26],
    [-33, -30],
    [-20, -22],
    [-9, -30],
    [-3, -46],
    [3, -46],
    [9, -30],
    [20, -22],
    [33, -30],
    [39, -26],
    [30, -12],
    [18, 8],
    [7, 28],
  ] as const
).map(([x, y]) => seen([x + 46, y - 4]))
const CARD = (
  [
    [-93, 12],
    [-7.4, 12],
    [-7.4, 65.98],
    [-93, 65.98],
  ] as const
).map(seen)

const path = (points: readonly Pixel[]) => `M${points.map((p) => `${p.x} ${p.y}`).join('L')}Z`
const TOES = [4, 9, 13]
  .map((i) => `M${FOOT[0]!.x} ${FOOT[0]!.y - 20}L${FOOT[i]!.x} ${FOOT[i]!.y + 8}`)
  .join('')

/** Small stones and shells, the same each time: strides of the golden section lie evenly and in no row. */
const GRIT = Array.from({ length: 420 }, (_, i) => {
  const [x, y] = [(i * 0.618034) % 1, (i * 0.754878) % 1]
  const r = 2 + ((i * 7) % 11)
  return `<ellipse cx="${Math.round(x * WIDTH_PX)}" cy="${Math.round(y * HEIGHT_PX)}" rx="${r}" ry="${Math.ceil(r / 2)}" fill="${i % 3 ? '#6b5a40' : '#b8a684'}" opacity="0.5"/>`
}).join('')

const PICTURE = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH_PX}" height="${HEIGHT_PX}">
  <defs>
    <linearGradient id="low" x1="0" y1="0" x2="1" y2="0.35">
      <stop offset="0" stop-color="#a08c69"/><stop offset="1" stop-color="#7d6b4e"/>
    </linearGradient>
  </defs>
  <rect width="100%" height="100%" fill="url(#low)"/>
  ${GRIT}
  <path d="${path(curveThrough(FOOT))}" fill="#c2ad86" transform="translate(7 4)" stroke="#c2ad86" stroke-width="9" stroke-linejoin="round"/>
  <path d="${path(curveThrough(FOOT))}" fill="#54452f" stroke="#463923" stroke-width="5" stroke-linejoin="round"/>
  <path d="${TOES}" stroke="#41351f" stroke-width="26" stroke-linecap="round" opacity="0.6"/>
  <path d="${path(CARD)}" fill="#2c2416" opacity="0.5" transform="translate(9 8)"/>
  <path d="${path(CARD)}" fill="#dfe6e4"/>
  <rect x="${CARD[0]!.x + 36}" y="${CARD[0]!.y + 86}" width="62" height="48" rx="8" fill="#c9a95b"/>
</svg>`

export interface DemoPrint {
  mould: Omit<MouldInput, 'usualPlasterId'>
  picture: string
}

/** @param photoId under which its photograph is kept. */
export function demoPrint(nowMs: number, photoId: string): DemoPrint {
  const sidesMm: [number, number] = [85.6, 53.98]
  const shot = {
    photoId,
    widthPx: WIDTH_PX,
    heightPx: HEIGHT_PX,
    scale: { by: 'rectangle' as const, corners: CARD, sidesMm },
    tiltDeg: 3,
    cameraHeightMm: 450,
    marks: [
      { kind: 'length' as const, name: '', points: [FOOT[0]!, seen([46, -50.5])], belowMm: 0 },
      { kind: 'width' as const, name: '', points: [FOOT[4]!, FOOT[13]!], belowMm: 0 },
    ],
    outline: { points: FOOT, belowMm: 0 },
  } satisfies FindShot
  const traced = outlineOf(shot, FOOT)
  if (!traced.ok) throw new Error(traced.issue.code)
  const depthsMm = [7, 11, 8]
  const way = tracedWay(traced.outline, depthsMm, 'between', 'mud')
  return {
    mould: {
      name: 'Gull, by the second groyne',
      purpose: 'print',
      facts: usualFacts('sand_soil'),
      volume: {
        parts: [{ role: 'add', count: 1, method: way }],
        cavities: 1,
        check: null,
        trust: 'parts',
      },
      thicknessMm: Math.round(way.coverMm + way.printDepthMm / 2),
      isSpill: false,
      castsBefore: 0,
      lifeCasts: null,
      note: '',
      find: {
        foundAtMs: Math.round(nowMs - 3 * HOUR * 1000),
        place: 'North flat, by the second groyne',
        position: null,
        ground: 'mud',
        weather: 'dry, a light wind off the sea',
        light: 'low sun from the left',
        airTempC: 9,
        depthsMm,
        shots: [shot],
        casts: [],
      },
    },
    picture: PICTURE,
  }
}
