import { expect, it } from 'vitest'
import { plasterProperties } from '../plaster'
import {
  coarsened,
  coverFor,
  lookOf,
  offsetsM,
  packFor,
  printVolume,
  ringFor,
  scaleBar,
  snapped,
  tiltFromDownDeg,
  type Grey,
  type PackInput,
} from '.'

it('a print’s volume by closed forms, or by what a stick says', () => {
  // A paraboloid of revolution holds half of its cylinder; what stands straight all of it.
  const area = { areaMm2: Math.PI * 60 ** 2, plusMinusMm2: 200 }
  expect(printVolume(area, [30], 'bowl').volumeMl).toBeCloseTo((Math.PI * 60 ** 2 * 30) / 2 / 1000, 6)
  expect(printVolume(area, [12, 30], 'flat').volumeMl).toBeCloseTo((Math.PI * 60 ** 2 * 30) / 1000, 6)
  // Three depths and more speak for themselves, whatever the form was called.
  const wedge = printVolume(area, [10, 20, 30], 'flat')
  expect(wedge).toMatchObject({ by: 'depths', meanDepthMm: 20 })
  expect(wedge.volumeMl).toBeCloseTo((area.areaMm2 * 20) / 1000, 6)
  // A guess at the form is far from sure, and three unlike depths are not much surer.
  expect(printVolume(area, [30], 'bowl').plusMinusMl / printVolume(area, [30], 'bowl').volumeMl).toBeCloseTo(
    0.39,
    1,
  )
  const even = printVolume(area, [20, 20, 20, 20], 'flat')
  expect(even.plusMinusMl).toBeLessThan(wedge.plusMinusMl)
  const vague = printVolume({ ...area, plusMinusMm2: 4000 }, [20, 20, 20, 20], 'flat')
  expect(vague.plusMinusMl).toBeGreaterThan(even.plusMinusMl)
})

it('the ring goes round with room, stands over the plaster, and its strip laps over itself', () => {
  const round = ringFor({ lengthMm: 100, widthMm: 100, depthMm: 20 }, 12)
  expect(round.stripMm).toBe(Math.ceil(Math.PI * 140 + 30))
  expect(round.heightMm).toBe(20 + 12 + 15)
  expect(round.areaMm2).toBeCloseTo(Math.PI * 70 ** 2, 6)
  // An oval's way round, by adding up its chords.
  const oval = ringFor({ lengthMm: 240, widthMm: 60, depthMm: 35 }, 25)
  let around = 0
  const at = (t: number) => [140 * Math.cos(t), 50 * Math.sin(t)] as const
  for (let i = 0; i < 20_000; i++) {
    const [[x, y], [u, v]] = [at((i * Math.PI) / 10_000), at(((i + 1) * Math.PI) / 10_000)]
    around += Math.hypot(u - x, v - y)
  }
  expect(oval.stripMm - 30).toBeCloseTo(around, -1)
  expect([coverFor(150, false), coverFor(151, false), coverFor(60, true)]).toEqual([12, 25, 25])
})

const mix = {
  plaster: plasterProperties('pop'),
  consistency: 60,
  waterTempC: 18,
  airFraction: 0.01,
}
const out = (of: Partial<PackInput> = {}): PackInput => ({
  prints: [{ lengthMm: 90, widthMm: 70, depthMm: 15, form: 'between', count: 5 }],
  mix,
  sparePct: 10,
  scaleDivisionG: 1,
  isSoft: false,
  how: 'bags',
  capMl: 7.5,
  airTempC: 15,
  ...of,
})

it('bags for small prints take two casts and the odd one; each finds its water again, in caps too', () => {
  const pack = packFor(out())!
  expect(pack.bags.map((b) => [b.casts, b.count])).toEqual([
    [2, 2],
    [1, 1],
  ])
  const [two, one] = [pack.bags[0]!, pack.bags[1]!]
  expect(two.powderG / one.powderG).toBeCloseTo(2, 1)
  for (const bag of pack.bags) {
    expect(bag.waterMl / bag.powderG).toBeCloseTo(0.6, 2)
    expect(bag.caps! * 7.5).toBeCloseTo(bag.waterMl, 6)
  }
  expect(pack.powderG).toBe(2 * two.powderG + one.powderG)
  // What is mixed fills what is to be filled, and the spare.
  const slurryMl = (pack.powderG / 0.98) * (0.6 / 1 + 1 / 2.63)
  expect(slurryMl / (5 * pack.each[0]!.mixMl * 1.1)).toBeGreaterThan(0.93)
  expect(slurryMl / (5 * pack.each[0]!.mixMl * 1.1)).toBeLessThan(1.07)
  const count = (item: string) => pack.items.find((i) => i.item === item)?.count
  expect([count('ring_strips'), count('clips'), count('bags'), count('jug')]).toEqual([5, 10, 3, undefined])
  expect(packFor(out({ capMl: null }))!.bags[0]!.caps).toBeNull()
})

it('a large print is one cast of several bags, none heavier than can be kneaded; a class mixes in a jug', () => {
  const large = { lengthMm: 320, widthMm: 220, depthMm: 40, form: 'between', count: 2 } as const
  const pack = packFor(out({ prints: [large], isSoft: true }))!
  const [bag] = pack.bags
  expect(bag!.bagsACast).toBeGreaterThan(1)
  expect(bag!.count).toBe(2 * bag!.bagsACast)
  expect(bag!.powderG).toBeLessThanOrEqual(900)
  expect(pack.each[0]!.coverMm).toBe(25)
  const jug = packFor(out({ prints: [large], how: 'jug', isSoft: true }))!
  expect(jug.bags).toHaveLength(1)
  expect(jug.items.some((i) => i.item === 'jug')).toBe(true)
  expect(jug.powderG / pack.powderG).toBeCloseTo(1, 1)
  // Soft ground takes more of it.
  expect(packFor(out({ isSoft: true }))!.powderG).toBeGreaterThan(packFor(out())!.powderG)
})

it.each([
  [4, 'warm_flask'],
  [31, 'cold_water'],
])('at %i °C a %s comes along, in between neither', (airTempC, item) => {
  const items = (tempC: number) => packFor(out({ airTempC: tempC }))!.items.map((i) => i.item)
  expect(items(airTempC)).toContain(item)
  expect(items(15)).not.toContain(item)
  expect(packFor(out({ prints: [] }))).toBeUndefined()
})

it('a position is kept as finely as one wishes, and nothing finer can be had back', () => {
  const stone = { latDeg: 54.123_456, lonDeg: -3.654_321 }
  const steps = { 10: 1e-4, 1000: 1e-2 } as const
  for (const fineness of [10, 1000] as const) {
    const kept = coarsened(stone, fineness)
    const [here, there] = offsetsM([stone, kept])
    const off = Math.hypot(there!.eastM - here!.eastM, there!.northM - here!.northM)
    expect(off).toBeLessThan(fineness * 0.75)
    // A neighbour in the same square is kept as the same place; twice is once.
    expect(coarsened(kept, fineness)).toEqual(kept)
    expect(coarsened({ ...kept, latDeg: kept.latDeg + steps[fineness] / 4 }, fineness)).toEqual(kept)
  }
  for (const [latDeg, lonDeg] of [
    [89.999_99, 10],
    [-90, 179.999_999],
    [0, -180],
  ] as const) {
    const kept = coarsened({ latDeg, lonDeg }, 1000)
    expect(Math.abs(kept.latDeg)).toBeLessThanOrEqual(90)
    expect(Math.abs(kept.lonDeg)).toBeLessThanOrEqual(180)
  }
})

it('a sketch has true distances, north up, also across the date line; its bar is a round number', () => {
  // A minute of latitude is a nautical mile, 1852 m within a thousandth or two; at 60° one of longitude is half of that.
  const [, north, east] = offsetsM([
    { latDeg: 60, lonDeg: 179.995 },
    { latDeg: 60 + 1 / 60, lonDeg: 179.995 },
    { latDeg: 60, lonDeg: 179.995 + 1 / 60 - 360 },
  ])
  expect(north!.northM / 1852).toBeCloseTo(1, 2)
  expect(east!.eastM / 926).toBeCloseTo(1, 2)
  expect([scaleBar(10), scaleBar(6.3), scaleBar(200), scaleBar(0)]).toEqual([2, 2, 50, 0.1])
  expect(offsetsM([])).toEqual([])
})

/** Ripples in low sun, of a contrast and a softness. */
function frame(contrast: number, soft: number, base = 120): Grey {
  const [width, height] = [120, 90]
  const light = new Uint8ClampedArray(width * height)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) light[y * width + x] = base + contrast * Math.sin(x / soft)
  return { width, height, light }
}
const faults = (grey: Grey, tilt: number | null = 0) => lookOf(grey, tilt).faults

it('a frame is judged by what spoils it', () => {
  expect(faults(frame(60, 1.5))).toEqual([])
  expect(faults(frame(60, 1.5), null)).toEqual([])
  expect(faults(frame(60, 40))).toEqual(['blurred'])
  expect(faults(frame(9, 0.9))).toEqual(['flat_light'])
  expect(faults(frame(20, 1.5, 25))).toEqual(['too_dark'])
  expect(faults(frame(60, 1.5), 9)).toEqual(['tilted'])
  // By the variance of the Laplacian: a bowl of light bends alike everywhere and has no edge, a chessboard has nothing else.
  const drawn = (at: (x: number, y: number) => number): Grey => ({
    width: 12,
    height: 12,
    light: Uint8ClampedArray.from({ length: 144 }, (_, i) => at(i % 12, Math.floor(i / 12))),
  })
  expect(
    lookOf(
      drawn((x, y) => x * x + y),
      0,
    ).sharp,
  ).toBeCloseTo(0, 9)
  expect(
    lookOf(
      drawn((x, y) => 100 * ((x + y) % 2)),
      0,
    ).sharp,
  ).toBeCloseTo(400 ** 2, 6)
  const spot = frame(60, 1.5)
  spot.light.fill(255, 0, 100)
  expect(faults(spot)).toEqual(['glare'])
  spot.light.fill(255, 0, 400)
  expect(faults(spot)).toEqual(['blown_out'])
  // Flat on the ground, face down, on edge.
  expect([tiltFromDownDeg(0, 0), tiltFromDownDeg(90, 0), tiltFromDownDeg(3, 4)]).toEqual([
    0,
    90,
    expect.closeTo(5, 1),
  ])
})

it('a traced point goes to the edge beside it, and stays where there is none', () => {
  const grey = frame(0, 1, 60)
  for (let y = 0; y < 90; y++) grey.light.fill(180, y * 120 + 50, (y + 1) * 120)
  expect(snapped(grey, { x: 45, y: 40 }, { x: 1, y: 0 }).x).toBeCloseTo(49.5, 0)
  expect(snapped(grey, { x: 56, y: 40 }, { x: 1, y: 0 }).x).toBeCloseTo(49.5, 0)
  expect(snapped(grey, { x: 20, y: 40 }, { x: 1, y: 0 })).toEqual({ x: 20, y: 40 })
  expect(snapped(grey, { x: 1, y: 1 }, { x: 0, y: 1 })).toEqual({ x: 1, y: 1 })
})
