import { expect, it } from 'vitest'
import { mouldCard } from '../../tests/support/mouldCard'
import { castAgainst } from '../parts/field/casts'
import { firstPrint, remeasured, tracedSize, wayOf } from '../parts/field/derive'
import { keptAs, readPosition } from '../parts/field/position'
import { nearestTo, spread, viewFor, zoomed } from './board'
import { MOST_PLACES, placesOf, toGeoJson, toGpx } from './fieldFiles'
import { outlineCsv, outlineSvg } from './outlineFiles'

const find = {
  foundAtMs: Date.UTC(2026, 10, 30, 8),
  place: 'by the weir',
  position: { latDeg: 54.123, lonDeg: -3.654, withinM: 1000 as const },
  ground: 'sand' as const,
  weather: 'dry',
  light: '',
  depthsMm: [],
  shots: [],
  casts: [],
}
const print = firstPrint({ name: 'Heron & <chick>', find, lengthMm: 120, widthMm: 80, depthMm: 14 })
const card = mouldCard('m1', print.name, 300, { ...print, find })

it('positions as people write them; a country’s own grid and turned round are told apart from degrees', () => {
  for (const text of ['54.1234, -3.6543', '54.1234 -3.6543', ' 54.1234;-3.6543 ', '54.1234° -3.6543°'])
    expect(readPosition(text)).toEqual({ ok: true, position: { latDeg: 54.1234, lonDeg: -3.6543 } })
  const why = (text: string) => {
    const found = readPosition(text)
    return found.ok ? '' : found.why
  }
  expect(why('345678 412345')).toContain('grid')
  expect(why('3456789.12, 5432100.5')).toContain('grid')
  expect(why('-103.2, 54.1')).toContain('other way round')
  expect(why('54.1, 203')).toContain('180')
  expect(why('by the weir')).toContain('Two numbers')
})

it('a position is never kept finer than it is known', () => {
  const at = { latDeg: 54.123_456, lonDeg: -3.654_321 }
  expect(keptAs(at, 'none', 3)).toBeNull()
  expect(keptAs(at, '10', 8)?.withinM).toBe(10)
  expect(keptAs(at, '10', 300)?.withinM).toBe(1000)
  expect(keptAs(at, '1000', 8)?.latDeg).not.toBeCloseTo(at.latDeg, 4)
})

it('what was guessed gives way to what was traced, and that to nothing', () => {
  expect(wayOf(print)).toMatchObject({ printLengthMm: 120, coverMm: 12, ringLengthMm: 160, soil: 'sand' })
  const pixels = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => ({
    x: 500 + 300 * Math.cos((i * Math.PI) / 4),
    y: 500 + 200 * Math.sin((i * Math.PI) / 4),
  }))
  const shot = {
    photoId: 'p',
    widthPx: 1000,
    heightPx: 1000,
    scale: {
      by: 'rule' as const,
      marks: [
        { x: 0, y: 0 },
        { x: 400, y: 0 },
      ] as [{ x: number; y: number }, { x: number; y: number }],
      lengthMm: 100,
    },
    tiltDeg: null,
    cameraHeightMm: null,
    marks: [],
    outline: { points: pixels, belowMm: 0 },
  }
  const traced = remeasured(print, { ...find, shots: [shot], depthsMm: [20] })
  expect(tracedSize(traced.find!)!.areaMm2 / (Math.PI * 75 * 50)).toBeCloseTo(1, 1)
  expect(wayOf(traced)).toMatchObject({ printDepthMm: 20, meanDepthMm: null })
  expect(wayOf(traced)!.printLengthMm).toBeCloseTo(150, -1)
  const unscaled = { ...find, shots: [{ ...shot, scale: null }] }
  expect(tracedSize(unscaled)).toBeUndefined()
  // A print in mud is covered thicker; a mould found by another way keeps it.
  expect(wayOf(remeasured(print, { ...find, ground: 'mud' }))!.coverMm).toBe(25)
  const known = { ...print, volume: mouldCard('x', 'x', 300).volume }
  expect(remeasured(known, find).volume).toEqual(known.volume)
})

it('a cast beside its print: what it grew by, and what its setting alone would make', () => {
  const way = wayOf(print)!
  const [long, wide] = castAgainst({ pourId: 'p', lengthMm: 122.4, widthMm: 80 }, way, 0.2)
  expect(long).toMatchObject({
    what: 'length',
    byMm: expect.closeTo(2.4, 6),
    byPct: expect.closeTo(2, 6),
    expectedMm: expect.closeTo(0.24, 6),
  })
  expect(wide!.byMm).toBeCloseTo(0, 6)
  expect(castAgainst({ pourId: 'p', lengthMm: null, widthMm: null }, way, 0.2)).toEqual([])
})

it('prints go out without where they lie unless that is wished, and come in again', () => {
  const bare = JSON.stringify(toGeoJson([card, mouldCard('m2', 'no print', 100)], false))
  for (const secret of ['54.1', '3.65', 'weir']) expect(bare).not.toContain(secret)
  expect(placesOf(JSON.parse(bare))).toEqual({ places: [], others: 1 })
  const back = placesOf(JSON.parse(JSON.stringify(toGeoJson([card], true))))!
  expect(back.places).toEqual([
    { name: card.name, position: { latDeg: 54.123, lonDeg: -3.654 }, atMs: find.foundAtMs, note: '' },
  ])
  const gpx = toGpx([card])
  expect(gpx).toContain('<wpt lat="54.123" lon="-3.654">')
  expect(gpx).toContain('<name>Heron &amp; &lt;chick&gt;</name>')
  expect(toGpx([mouldCard('m2', 'x', 100)])).not.toContain('wpt')
})

it('of a file that somebody else made only points are read, and never more than fit', () => {
  const point = (coordinates: unknown, properties: unknown = {}) => ({
    type: 'Feature',
    geometry: { type: 'Point', coordinates },
    properties,
  })
  const file = (...features: unknown[]) => placesOf({ type: 'FeatureCollection', features })!
  expect(
    file(point([3456789, 5432100]), point(['1', 2]), point(null), null, { type: 'Feature', geometry: null })
      .places,
  ).toEqual([])
  expect(
    file({ type: 'Feature', geometry: { type: 'LineString', coordinates: [[1, 2]] }, properties: null })
      .others,
  ).toBe(1)
  expect(file(point([1, 2], { name: 7, time: 'yesterday' })).places).toEqual([
    { name: '', position: { latDeg: 2, lonDeg: 1 }, atMs: null, note: '' },
  ])
  const many = file(...Array.from({ length: 3000 }, () => point([1, 2])))
  expect([many.places.length, many.others]).toEqual([MOST_PLACES, 3000 - MOST_PLACES])
  for (const none of [null, [], 'x', { type: 'Topology' }, { features: [] }])
    expect(placesOf(none)).toBeUndefined()
})

it('the photograph is drawn nearer about the finger, never past its edges', () => {
  const bounds = { widthPx: 2400, heightPx: 1800 }
  const near = zoomed(viewFor(2400, 1800), 4, { x: 600, y: 450 }, bounds)
  expect(near).toEqual({ x: 450, y: 337.5, width: 600, height: 450 })
  // What is under the finger stays there.
  expect((600 - near.x) / near.width).toBeCloseTo(600 / 2400, 9)
  expect(zoomed(near, 1e9, undefined, bounds).width).toBe(200)
  expect(zoomed(near, 1e-9, undefined, bounds)).toEqual(viewFor(2400, 1800))
  expect(zoomed({ ...near, x: 9000 }, 1, undefined, bounds).x).toBe(1800)
  expect(
    spread([
      { clientX: 0, clientY: 0 },
      { clientX: 6, clientY: 8 },
    ]),
  ).toEqual({ x: 3, y: 4, apart: 5 })
})

it('an outline goes out true to scale, from its own corner, with a bar to check it by', () => {
  const spots = [
    { xMm: 1000, yMm: -500 },
    { xMm: 1100, yMm: -500 },
    { xMm: 1100, yMm: -440 },
    { xMm: 1000, yMm: -440.004 },
  ]
  expect(outlineCsv({ spots })).toBe('x_mm,y_mm\r\n0,0\r\n100,0\r\n100,60\r\n0,60\r\n')
  const svg = outlineSvg({ spots }, 'Heron & <chick>')
  expect(svg).toContain('width="120mm" height="100mm" viewBox="0 0 120 100"')
  expect(svg).toContain('M10 10L110 10L110 70L10 70Z')
  expect(svg).toContain('<title>Heron &amp; &lt;chick&gt;</title>')
  expect(svg).toContain('h100"')
  expect(svg).toContain('>100 mm<')
})

it('a finger between points means the nearest', () => {
  const points = [0, 10, 30].map((x) => ({ x, y: 0 }))
  expect([4, 6, 19, 21].map((x) => nearestTo({ x, y: 3 }, points))).toEqual([0, 1, 1, 2])
  expect(nearestTo({ x: 0, y: 0 }, [])).toBeUndefined()
})
