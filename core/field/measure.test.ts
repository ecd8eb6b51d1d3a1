import fc from 'fast-check'
import { expect, it } from 'vitest'
import '../../tests/support/dice'
import { rectangleAt, seen, type Camera } from '../../tests/support/camera'
import {
  KNOWN_SHEETS,
  measure,
  mmPerPixel,
  outlineOf,
  outwardAt,
  planeOf,
  shareOfFrame,
  type Mark,
  type Pixel,
  type Scale,
  type Shot,
  type Spot,
} from '.'

const px = (...at: [number, number][]): Pixel[] => at.map(([x, y]) => ({ x, y }))
const line = (points: readonly Pixel[], belowMm = 0): Mark => ({ kind: 'length', points, belowMm })
const shotOf = (scale: Scale, more: Partial<Shot> = {}): Shot => ({
  widthPx: 4000,
  heightPx: 3000,
  scale,
  tiltDeg: null,
  cameraHeightMm: null,
  ...more,
})
const valueOf = (shot: Shot, mark: Mark) => {
  const found = measure(shot, mark)
  if (!found.ok) throw new Error(found.issue.code)
  return found.measured
}
const codeOf = (shot: Shot, mark: Mark) => {
  const found = measure(shot, mark)
  return found.ok ? undefined : found.issue.code
}

const CARD = px([1738.4, 1345.0], [2261.6, 1345.0], [2252.1, 1649.4], [1747.9, 1649.4])
const card = (corners = CARD): Scale => ({ by: 'rectangle', corners, sidesMm: KNOWN_SHEETS.card })
const [A, B, C] = px([1649.6, 1719.5], [2309.9, 2002.9], [2000.0, 1085.5]) as [Pixel, Pixel, Pixel]

it('a card under a camera tilted by 20° gives the ground back (worked by hand)', () => {
  const found = planeOf(card())
  if (!found.ok) throw new Error(found.issue.code)
  const spots = [A, B, C].map(found.plane.toGround)
  const wanted = [
    [-60, 40],
    [55, 95],
    [0, -70],
  ]
  spots.forEach((s, i) => {
    expect(s.xMm).toBeCloseTo(wanted[i]![0]!, 1)
    expect(s.yMm).toBeCloseTo(wanted[i]![1]!, 1)
  })
  const whole = valueOf(shotOf(card()), line([A, B]))
  expect(whole.value).toBeCloseTo(127.5, 1)
  expect(whole.from.pixel).toBeCloseTo(0.86, 2)
  expect(whole.plusMinus).toBeGreaterThan(1.64 * 0.86)
  // By the card's near edge alone it is 7.8 % short, and says that it may be.
  const edge = valueOf(shotOf({ by: 'rule', marks: [CARD[0]!, CARD[1]!], lengthMm: 85.6 }), line([A, B]))
  expect(edge.value).toBeCloseTo(117.5, 0)
  expect(edge.notes).toContain('tilt_unknown')
  const told = valueOf(
    shotOf({ by: 'rule', marks: [CARD[0]!, CARD[1]!], lengthMm: 85.6 }, { tiltDeg: 20 }),
    line([A, B]),
  )
  expect(told.notes).toContain('tilted')
  expect(Math.abs(told.value - 127.5)).toBeLessThan(told.plusMinus)
})

const camera = (of: Partial<Camera> = {}): Camera => ({
  widthPx: 4000,
  heightPx: 3000,
  focalPx: 3000,
  distanceMm: 500,
  tiltDeg: 0,
  towardsDeg: 0,
  rollDeg: 0,
  at: { xMm: 0, yMm: 0 },
  lens: 0,
  ...of,
})
const spot = (xMm: number, yMm: number): Spot => ({ xMm, yMm })

it.each([
  [5, 0.4],
  [10, 1.5],
  [20, 6.0],
  [30, 13.4],
])('by a rule a tilt of %i° shortens what lies along it by %f %%', (tiltDeg, pct) => {
  // From far off, so that nothing but the slant counts.
  const far = camera({ tiltDeg, distanceMm: 50_000, focalPx: 300_000 })
  const at = (x: number, y: number) => seen(far, spot(x, y))
  const scale: Scale = { by: 'rule', marks: [at(0, -50), at(0, 50)], lengthMm: 100 }
  expect(100 - valueOf(shotOf(scale), line([at(-50, 0), at(50, 0)])).value).toBeCloseTo(pct, 1)
})

it('what lies under the marks seems smaller: put right where the camera’s height is known, doubted where not', () => {
  const tilted = camera({ tiltDeg: 20, towardsDeg: 90 })
  const scale = card(rectangleAt(spot(0, 0), KNOWN_SHEETS.card, 0).map((s) => seen(tilted, s)))
  const floor = [spot(-60, 40), spot(55, 95)].map((s) => seen(tilted, s, 15))
  const plain = valueOf(shotOf(scale), line(floor))
  expect(plain.value).toBeCloseTo(123.5, 0)
  const doubted = valueOf(shotOf(scale), line(floor, 15))
  expect(doubted.notes).toContain('floor_lower')
  expect(Math.abs(doubted.value - 127.5)).toBeLessThan(doubted.plusMinus)
  const known = valueOf(shotOf(scale, { cameraHeightMm: 470 }), line(floor, 15))
  expect(known.value).toBeCloseTo(127.5, 0)
  expect(known.plusMinus).toBeLessThan(doubted.plusMinus)
  expect(known.notes).toContain('floor_corrected')
})

/** A fixed row of throws: how often a range holds is a figure, not a matter of luck. */
function throwing(seed: number) {
  let state = seed
  const uniform = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state / 2 ** 32
  }
  const normal = () => Math.sqrt(-2 * Math.log(uniform() || 1e-9)) * Math.cos(2 * Math.PI * uniform())
  return { between: (a: number, b: number) => a + (b - a) * uniform(), normal }
}

it('of 300 photographs tilted up to 30°, with a lens that bends, nine in ten ranges hold what was there', () => {
  const { between, normal } = throwing(20_261_201)
  let [held, near] = [0, 0]
  for (let i = 0; i < 300; i++) {
    const shot = camera({
      tiltDeg: between(0, 30),
      towardsDeg: between(0, 360),
      rollDeg: between(0, 360),
      distanceMm: between(450, 800),
      at: spot(between(-30, 30), between(-30, 30)),
      lens: 0.01 * normal(),
    })
    const off = ({ x, y }: Pixel) => ({ x: x + normal(), y: y + normal() })
    const sides = i % 2 === 0 ? KNOWN_SHEETS.card : KNOWN_SHEETS.a5
    const corners = rectangleAt(spot(0, -70), sides, between(0, 360)).map((s) => off(seen(shot, s)))
    const [from, to] = [spot(between(-70, -20), between(10, 60)), spot(between(20, 70), between(10, 60))]
    const ends = [from, to].map((s) => off(seen(shot, s)))
    const found = valueOf(shotOf({ by: 'rectangle', corners, sidesMm: sides }), line(ends))
    const really = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm)
    if (Math.abs(found.value - really) <= found.plusMinus) held += 1
    if (Math.abs(found.value - really) <= Math.max(2, really / 100)) near += 1
  }
  expect(held / 300).toBeGreaterThan(0.8)
  expect(held / 300).toBeLessThan(0.95)
  expect(near / 300).toBeGreaterThan(0.9)
})

it('corners in any order, and a card lying either way, are one card', () => {
  const tilted = camera({ tiltDeg: 25, towardsDeg: 40, rollDeg: 15 })
  const ends = [spot(-60, 40), spot(55, 95)].map((s) => seen(tilted, s))
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 360, noNaN: true }),
      fc.shuffledSubarray([0, 1, 2, 3], { minLength: 4 }),
      fc.boolean(),
      (turned, order, shortFirst) => {
        const round = rectangleAt(spot(0, 0), KNOWN_SHEETS.card, turned).map((s) => seen(tilted, s))
        const [w, h] = KNOWN_SHEETS.card
        const sidesMm = shortFirst ? ([h, w] as const) : ([w, h] as const)
        const corners = order.map((i) => round[i]!)
        expect(valueOf(shotOf({ by: 'rectangle', corners, sidesMm }), line(ends)).value).toBeCloseTo(
          127.48,
          1,
        )
      },
    ),
  )
  // Nearly square it cannot be told by its look: as it was marked.
  const near = rectangleAt(spot(0, 0), [100, 95], 0).map((s) => seen(camera(), s))
  const along = [spot(-50, 0), spot(50, 0)].map((s) => seen(camera(), s))
  expect(
    valueOf(shotOf({ by: 'rectangle', corners: near, sidesMm: [100, 95] }), line(along)).value,
  ).toBeCloseTo(100, 6)
})

it('more marks than it takes agree or are doubted', () => {
  const tilted = camera({ tiltDeg: 22, towardsDeg: 70 })
  const grid = [-80, 0, 80].flatMap((x) => [-60, 60].map((y) => spot(x, y)))
  const places = grid.map((s) => ({ ...s, at: seen(tilted, s) }))
  const ends = [spot(-40, 10), spot(60, 30)].map((s) => seen(tilted, s))
  const good = valueOf(shotOf({ by: 'places', places }), line(ends))
  expect(good.value).toBeCloseTo(Math.hypot(100, 20), 3)
  expect(good.notes).not.toContain('marks_disagree')
  // Six places, each .3 mm off by itself: of a length among them hardly more than one of them is.
  expect(good.from.scale).toBeGreaterThan(0.1)
  expect(good.from.scale).toBeLessThan(0.5)
  const [first, ...others] = places
  const bad = [{ ...first!, at: { x: first!.at.x + 60, y: first!.at.y } }, ...others]
  const doubted = valueOf(shotOf({ by: 'places', places: bad }), line(ends))
  expect(doubted.notes).toContain('marks_disagree')
  expect(doubted.plusMinus).toBeGreaterThan(3 * good.plusMinus)
})

it('corners that only a camera lying on the ground could see are doubted', () => {
  const ends = line(px([1900, 1500], [2100, 1500]))
  const as = (corners: Pixel[]) => valueOf(shotOf(card(corners)), ends).notes
  expect(as(CARD)).not.toContain('marks_disagree')
  // A whole sheet, leaning as far as a hand ever lets it.
  const leaning = camera({ tiltDeg: 40, distanceMm: 600 })
  const sheet = rectangleAt(spot(0, 0), KNOWN_SHEETS.a4, 0).map((s) => seen(leaning, s))
  const found = measure(shotOf({ by: 'rectangle', corners: sheet, sidesMm: KNOWN_SHEETS.a4 }), ends)
  expect(found.ok && found.measured.notes).not.toContain('marks_disagree')
  expect(as(px([1738, 1345], [2262, 1345], [2130, 1700], [1980, 1700]))).toContain('marks_disagree')
})

it('a straddle is across the line of a side, an angle at its vertex, and neither minds the tilt', () => {
  const tilted = camera({ tiltDeg: 28, towardsDeg: 200, rollDeg: 33 })
  const scale = card(rectangleAt(spot(0, 0), KNOWN_SHEETS.card, 12).map((s) => seen(tilted, s)))
  const points = [spot(-80, -60), spot(80, -30), spot(10, 70)].map((s) => seen(tilted, s))
  const straddle = valueOf(shotOf(scale), { kind: 'straddle', points, belowMm: 0 })
  expect(straddle.value).toBeCloseTo((160 * 130 - 30 * 90) / Math.hypot(160, 30), 1)
  const right = [spot(0, 50), spot(0, 0), spot(50, 0)].map((s) => seen(tilted, s))
  const angle = valueOf(shotOf(scale), { kind: 'angle', points: right, belowMm: 0 })
  expect([angle.value, angle.unit]).toEqual([expect.closeTo(90, 1), 'deg'])
})

it('what makes no plane, or lies where nothing can be said, is refused by name', () => {
  const ends = line([A, B])
  const rule = (marks: [Pixel, Pixel], lengthMm: number): Scale => ({ by: 'rule', marks, lengthMm })
  expect(codeOf(shotOf(rule([A, A], 100)), ends)).toBe('marks_too_near')
  expect(codeOf(shotOf(rule([A, B], 0)), ends)).toBe('no_length')
  expect(codeOf(shotOf(card(px([0, 0], [100, 0], [200, 0.5], [100, 90]))), ends)).toBe('corners_in_line')
  expect(codeOf(shotOf(card(px([0, 0], [300, 0], [150, 300], [150, 100]))), ends)).toBe('corners_folded')
  expect(codeOf(shotOf(card(CARD.slice(1))), ends)).toBe('too_few_places')
  for (const sidesMm of [
    [0, 50],
    [50, 0],
  ] as const)
    expect(codeOf(shotOf({ by: 'rectangle', corners: CARD, sidesMm }), ends)).toBe('no_length')
  expect(codeOf(shotOf(card()), line([A]))).toBe('too_few_points')
  expect(codeOf(shotOf(card()), line([A, A]))).toBe('points_too_near')
  const steep = camera({ tiltDeg: 60, towardsDeg: -90 })
  const flat = card(rectangleAt(spot(0, 0), KNOWN_SHEETS.a4, 0).map((s) => seen(steep, s)))
  expect(codeOf(shotOf(flat), line(px([2000, 2000], [2000, -9000])))).toBe('beyond_horizon')
  const inLine = [0, 1, 2, 3, 4].map((i) => ({ at: { x: 100 * i, y: 50 * i }, xMm: 10 * i, yMm: 5 * i }))
  expect(codeOf(shotOf({ by: 'places', places: inLine }), ends)).toBe('corners_in_line')
  expect(codeOf(shotOf({ by: 'places', places: inLine.slice(2) }), ends)).toBe('too_few_places')
})

it('near the edge of the frame the lens is doubted, in its middle hardly', () => {
  const straight = camera()
  const scale = card(rectangleAt(spot(0, 0), KNOWN_SHEETS.card, 0).map((s) => seen(straight, s)))
  const inside = valueOf(shotOf(scale), line([spot(-50, 60), spot(50, 60)].map((s) => seen(straight, s))))
  const outside = valueOf(
    shotOf(scale),
    line([spot(-300, 200), spot(-200, 200)].map((s) => seen(straight, s))),
  )
  expect(inside.notes).not.toContain('near_edge')
  expect(outside.notes).toContain('near_edge')
  expect(outside.from.lens).toBeGreaterThan(5 * inside.from.lens)
})

it('areas by closed forms, seen from the side: a circle, an ellipse, a square', () => {
  const tilted = camera({ tiltDeg: 27, towardsDeg: 130, rollDeg: 20 })
  const scale = card(rectangleAt(spot(0, -95), KNOWN_SHEETS.card, 30).map((s) => seen(tilted, s)))
  const shot = shotOf(scale)
  const traced = (n: number, at: (angle: number) => Spot) =>
    Array.from({ length: n }, (_, i) => seen(tilted, at((2 * Math.PI * i) / n)))
  const outlineAt = (points: Pixel[], below = 0) => {
    const found = outlineOf(shot, points, below)
    if (!found.ok) throw new Error(found.issue.code)
    return found.outline
  }
  const circle = outlineAt(traced(16, (a) => spot(50 * Math.cos(a), 50 * Math.sin(a))))
  expect(circle.areaMm2 / (Math.PI * 2500)).toBeCloseTo(1, 2)
  expect(circle.aroundMm / (100 * Math.PI)).toBeCloseTo(1, 2)
  const ellipse = outlineAt(traced(24, (a) => spot(70 * Math.cos(a), 20 * Math.sin(a))))
  expect(ellipse.areaMm2 / (Math.PI * 1400)).toBeCloseTo(1, 2)
  expect(ellipse.lengthMm).toBeCloseTo(140, 0)
  expect(ellipse.widthMm).toBeCloseTo(40, 0)
  // A print as wide as a hand: its outline is known to within a few hundredths.
  expect(circle.areaPlusMinusMm2 / circle.areaMm2).toBeGreaterThan(0.01)
  expect(circle.areaPlusMinusMm2 / circle.areaMm2).toBeLessThan(0.06)
  const side = [
    spot(-40, -40),
    spot(0, -40),
    spot(40, -40),
    spot(40, 0),
    spot(40, 40),
    spot(0, 40),
    spot(-40, 40),
    spot(-40, 0),
  ]
  expect(outlineAt(side.map((s) => seen(tilted, s))).areaMm2 / 6400).toBeCloseTo(1, 3)
  // Farther under the marks it is larger than it seems.
  const points = traced(16, (a) => spot(50 * Math.cos(a), 50 * Math.sin(a)))
  const lower = outlineOf({ ...shot, cameraHeightMm: 450 }, points, 15)
  expect(lower.ok && lower.outline.areaMm2 / circle.areaMm2).toBeCloseTo((465 / 450) ** 2, 6)
  const folded = outlineOf(shot, px([0, 0], [400, 400], [400, 0], [0, 400]))
  expect(!folded.ok && folded.issue.code).toBe('outline_crosses')
  const two = outlineOf(shot, [A, B])
  expect(!two.ok && two.issue.code).toBe('too_few_points')
})

it('a rule read in other units is told by where the camera would have hung', () => {
  const straight = camera({ distanceMm: 480 })
  const marks = [spot(-50, 0), spot(50, 0)].map((s) => seen(straight, s)) as [Pixel, Pixel]
  const ends = line([spot(-40, 30), spot(40, 30)].map((s) => seen(straight, s)))
  const notes = (lengthMm: number, more: Partial<Shot> = {}) =>
    valueOf(shotOf({ by: 'rule', marks, lengthMm }, more), ends).notes
  expect(notes(100)).not.toContain('scale_unlikely')
  // Its ten centimetres taken for ten millimetres, and for ten inches and more.
  expect(notes(10)).toContain('scale_unlikely')
  expect(notes(1000)).toContain('scale_unlikely')
  // Four inches taken for four centimetres: only who knows the height can tell.
  expect(notes(254)).not.toContain('scale_unlikely')
  expect(notes(254, { cameraHeightMm: 480 })).toContain('scale_unlikely')
  expect(notes(39.4, { cameraHeightMm: 480 })).toContain('scale_unlikely')
  expect(notes(100, { cameraHeightMm: 480 })).not.toContain('scale_unlikely')
})

it('a bar on a photograph is as long as the scale makes it there', () => {
  const straight = camera({ distanceMm: 480, focalPx: 2400 })
  const marks = [spot(-50, 0), spot(50, 0)].map((s) => seen(straight, s)) as [Pixel, Pixel]
  // A pinhole's own: distance over focal length.
  expect(mmPerPixel(shotOf({ by: 'rule', marks, lengthMm: 100 }))).toBeCloseTo(480 / 2400, 4)
  expect(mmPerPixel(shotOf({ by: 'rule', marks: [A, A], lengthMm: 100 }))).toBeUndefined()
})

it('how much of the frame a print fills, and which way its edge faces', () => {
  const frame = { widthPx: 400, heightPx: 200 }
  const square = px([100, 50], [200, 50], [200, 150], [100, 150])
  expect(shareOfFrame(frame, square)).toBeCloseTo(1 / 8, 12)
  expect(outwardAt(square, { x: 150, y: 180 })).toEqual({ x: 0, y: 1 })
  expect(outwardAt(square, { x: 70, y: 60 })).toEqual({
    x: expect.closeTo(-80 / Math.hypot(80, 40)),
    y: expect.closeTo(-40 / Math.hypot(80, 40)),
  })
  expect(outwardAt(square, { x: 150, y: 100 })).toBeUndefined()
})
