import fc from 'fast-check'
import { expect, it } from 'vitest'
import {
  depthVolumeCurve,
  findUndercuts,
  findVolume,
  flattenProfile,
  profileFault,
  revolvedSurfaceMm2,
  revolvedVolumeMl,
  thinProfile,
  wallThickness,
  type Point,
  type ProfileNode,
} from '.'

const node = (radiusMm: number, heightMm: number, smooth = false): ProfileNode => ({
  radiusMm,
  heightMm,
  smooth,
})

/** Pappus: volume = 2π × centroid distance × area of the closed half section, by the shoelace formula. */
function pappusMl(line: readonly Point[]): number {
  const ring: Point[] = [[0, line[0]![1]], ...line, [0, line.at(-1)![1]]]
  let moment = 0
  for (let i = 0; i < ring.length; i++) {
    const [a, b] = [ring[i]!, ring[(i + 1) % ring.length]!]
    moment += (a[0] + b[0]) * (a[0] * b[1] - b[0] * a[1])
  }
  return ((2 * Math.PI * moment) / 6) * 1e-3
}

/** Climbing profiles with smooth and sharp nodes. */
const profiles = fc
  .array(
    fc.tuple(
      fc.double({ min: 3, max: 200, noNaN: true }),
      fc.double({ min: 2, max: 30, noNaN: true }),
      fc.boolean(),
    ),
    {
      minLength: 2,
      maxLength: 20,
    },
  )
  .map((steps) => {
    let height = 0
    return steps.map(([r, up, smooth], i) => node(r, (height += i === 0 ? 0 : up), smooth))
  })
  .filter((nodes) => profileFault(flattenProfile(nodes), []) === undefined)

it('turns a profile as Pappus’ theorem does', () => {
  fc.assert(
    fc.property(profiles, (nodes) => {
      const line = flattenProfile(nodes)
      expect(revolvedVolumeMl(line, 1e9) / pappusMl(line)).toBeCloseTo(1, 9)
    }),
  )
})

it('grows with the cube of the size and fills monotonically', () => {
  fc.assert(
    fc.property(profiles, fc.double({ min: 0.3, max: 4, noNaN: true }), (nodes, k) => {
      const grown = nodes.map((n) => node(n.radiusMm * k, n.heightMm * k, n.smooth))
      const [one, other] = [flattenProfile(nodes), flattenProfile(grown)]
      const full = revolvedVolumeMl(one, one.at(-1)![1])
      expect(revolvedVolumeMl(other, other.at(-1)![1]) / full).toBeCloseTo(k ** 3, 6)
      const curve = depthVolumeCurve(one, 12)
      expect(curve.at(-1)!.volumeMl).toBeCloseTo(full, 6)
      // Worked out in one pass, and by itself at each depth, up and down a wavy line: the same.
      const wavy = one.map(([r, z], i): Point => [r, i % 3 === 1 && i < one.length - 1 ? z - 5 : z])
      const floorMm = Math.min(...wavy.map((p) => p[1]))
      for (const { depthMm, volumeMl } of depthVolumeCurve(wavy, 12))
        expect(volumeMl).toBeCloseTo(revolvedVolumeMl(wavy, floorMm + depthMm), 6)
      for (let i = 1; i < curve.length; i++)
        expect(curve[i]!.volumeMl).toBeGreaterThanOrEqual(curve[i - 1]!.volumeMl - 1e-9)
    }),
  )
})

it('knows the sphere: four smooth nodes come within a hundredth of 4/3 π r³ and 4 π r²', () => {
  const around = Array.from({ length: 9 }, (_, i) => {
    const angle = (Math.PI * i) / 8
    return node(50 * Math.sin(angle) < 1e-9 ? 0 : 50 * Math.sin(angle), 50 - 50 * Math.cos(angle), true)
  })
  const line = flattenProfile(around)
  expect(revolvedVolumeMl(line, 100) / ((4 / 3) * Math.PI * 125)).toBeCloseTo(1, 2)
  expect(revolvedSurfaceMm2(line) / (4 * Math.PI * 2500)).toBeCloseTo(1, 2)
})

it('takes a raised floor away and stops at the fill line', () => {
  const kicked = [node(0, 20), node(30, 0), node(50, 0), node(50, 100)].map((n): Point => [
    n.radiusMm,
    n.heightMm,
  ])
  // A cylinder less the cone that the kick stands for.
  const expected = (Math.PI * 2500 * 100 - (Math.PI * 900 * 20) / 3) / 1000
  expect(revolvedVolumeMl(kicked, 100)).toBeCloseTo(expected, 6)
  expect(revolvedVolumeMl(kicked, 60)).toBeCloseTo(expected - (Math.PI * 2500 * 40) / 1000, 6)
  expect(findUndercuts(kicked)).toEqual([])
})

it('finds where a form narrows towards its opening, and how far', () => {
  const vase = [node(0, 0), node(40, 0), node(60, 50), node(35, 90), node(35, 100)]
  const [undercut, ...more] = findUndercuts(flattenProfile(vase))
  expect(more).toEqual([])
  expect(undercut).toMatchObject({ fromMm: 0, toMm: 90, depthMm: 25 })
  expect(findUndercuts(flattenProfile([node(0, 0), node(40, 0), node(60, 100)]))).toEqual([])
})

it('filled to a height it holds what is below it, wherever it was drawn, and no more than its rim', () => {
  const drum = (atMm: number) => [node(0, atMm), node(50, atMm), node(50, atMm + 100)]
  for (const atMm of [0, 30]) {
    const of = (fillHeightMm: number) =>
      findVolume({ by: 'profile', outer: drum(atMm), inner: [], fillHeightMm })
    const filled = of(40)
    expect(filled.ok && filled.finding.volumeMl).toBeCloseTo((Math.PI * 2500 * 40) / 1000, 6)
    expect(of(101).issues).toMatchObject([{ code: 'fill_outside_profile', actual: 101, limit: 100 }])
    expect(of(0).ok).toBe(false)
  }
})

it('measures the wall between two profiles', () => {
  const cup = [node(0, 0), node(50, 0), node(50, 100)]
  const core = [node(0, 10), node(44, 10), node(44, 100)]
  expect(wallThickness(flattenProfile(cup), flattenProfile(core))).toMatchObject({
    thinnestMm: 6,
    thickestMm: 10,
  })
  const hollow = findVolume({ by: 'profile', outer: cup, inner: core, fillHeightMm: null })
  expect(hollow.ok && hollow.finding.volumeMl).toBeCloseTo((Math.PI * (2500 * 100 - 44 ** 2 * 90)) / 1000, 6)
  expect(hollow.issues.map((i) => i.code)).toEqual(['wall_uneven'])
})

it.each([
  ['one point', [node(10, 0)], [], 'profile_too_short'],
  [
    'a line across itself',
    [node(0, 0), node(60, 40), node(60, 10), node(20, 50), node(20, 80)],
    [],
    'profile_crosses_itself',
  ],
  ['a profile upside down', [node(50, 100), node(50, 0), node(0, 0)], [], 'profile_holds_nothing'],
  [
    'a core wider than its mould',
    [node(0, 0), node(40, 0), node(40, 80)],
    [node(0, 10), node(60, 10), node(60, 80)],
    'inner_outside_outer',
  ],
  [
    'a core below the floor',
    [node(0, 0), node(40, 0), node(40, 80)],
    [node(0, -5), node(20, -5), node(20, 80)],
    'inner_outside_outer',
  ],
] as const)('refuses %s', (_, outer, inner, code) => {
  const fault = profileFault(flattenProfile(outer), flattenProfile(inner))
  expect(fault?.code).toBe(code)
  // Shown where it is: these cross at 42, 28, by hand; the place is told to the span.
  if (fault?.code === 'profile_crosses_itself')
    expect(Math.hypot(fault.at![0] - 42, fault.at![1] - 28)).toBeLessThan(5)
  expect(findVolume({ by: 'profile', outer: [...outer], inner: [...inner], fillHeightMm: null }).ok).toBe(
    false,
  )
})

it('thins ten thousand points to what can be edited and keeps the volume', () => {
  const many = Array.from({ length: 10_000 }, (_, i) => node(60 + 20 * Math.sin(i / 900), i / 50))
  const few = thinProfile(many)
  expect(few.length).toBeLessThanOrEqual(200)
  const [full, thin] = [flattenProfile(many), flattenProfile(few)]
  expect(revolvedVolumeMl(thin, 1e9) / revolvedVolumeMl(full, 1e9)).toBeCloseTo(1, 3)
})
