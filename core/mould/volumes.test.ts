import jscad from '@jscad/modeling'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import {
  SHAPE_KINDS,
  cavitySurfaceMm2,
  cavityVolumeMl,
  coveredAreaMm2,
  describeCavity,
  findVolume,
  gelPlan,
  halfSection,
  keyingOf,
  shellPlan,
  shellVolumeMm3,
  voidFraction,
  type CavityDescription,
  type CavityShape,
  type VolumeMethod,
} from '.'

const { extrusions, measurements, primitives, hulls, booleans } = jscad

const shapeOf: Record<CavityShape['kind'], (a: number, b: number, c: number) => CavityShape> = {
  box: (a, b, c) => ({ kind: 'box', lengthMm: a, widthMm: b, depthMm: c }),
  slab: (a, b, c) => ({
    kind: 'slab',
    lengthMm: a,
    widthMm: b,
    thicknessMm: c,
    cornerRadiusMm: Math.min(a, b) / 4,
  }),
  cylinder: (a, _, c) => ({ kind: 'cylinder', diameterMm: a, depthMm: c }),
  frustum: (a, b, c) => ({ kind: 'frustum', topDiameterMm: a, bottomDiameterMm: b, depthMm: c }),
  bowl: (a, _, c) => ({ kind: 'bowl', rimDiameterMm: a, depthMm: c }),
  footed_bowl: (a, b, c) => ({ kind: 'footed_bowl', rimDiameterMm: a, footDiameterMm: b, depthMm: c }),
  ring: (a, b, c) => ({ kind: 'ring', outerDiameterMm: a + b, innerDiameterMm: b, depthMm: c }),
  half_round: (a, b) => ({ kind: 'half_round', lengthMm: a, diameterMm: b, depthMm: b / 3 }),
  prism: (a, _, c) => ({ kind: 'prism', sides: 6, sideMm: a, depthMm: c }),
}

it('agrees with Archimedes: a hemisphere is two thirds of its cylinder', () => {
  const bowl = cavityVolumeMl({ kind: 'bowl', rimDiameterMm: 200, depthMm: 100 })
  const cylinder = cavityVolumeMl({ kind: 'cylinder', diameterMm: 200, depthMm: 100 })
  expect(bowl / cylinder).toBeCloseTo(2 / 3, 12)
})

// A general geometry library measures meshes of the same solids; facets of 256 to the circle leave 2e-4.
it.each([
  ['cylinder', primitives.cylinder({ radius: 60, height: 90, segments: 256 }), shapeOf.cylinder(120, 0, 90)],
  [
    'frustum',
    primitives.cylinderElliptic({ startRadius: [40, 40], endRadius: [75, 75], height: 50, segments: 256 }),
    shapeOf.frustum(150, 80, 50),
  ],
  [
    'prism',
    extrusions.extrudeLinear({ height: 30 }, primitives.circle({ radius: 45, segments: 6 })),
    shapeOf.prism(45, 0, 30),
  ],
  [
    'slab',
    extrusions.extrudeLinear(
      { height: 40 },
      primitives.roundedRectangle({ size: [300, 200], roundRadius: 50, segments: 256 }),
    ),
    shapeOf.slab(300, 200, 40),
  ],
  [
    'ring',
    booleans.subtract(
      primitives.cylinder({ radius: 75, height: 20, segments: 256 }),
      primitives.cylinder({ radius: 40, height: 20, segments: 256 }),
    ),
    shapeOf.ring(70, 80, 20),
  ],
] as const)('measures a %s as a geometry library does', (_, solid, shape) => {
  expect(cavityVolumeMl(shape) / (measurements.measureVolume(solid) / 1000)).toBeCloseTo(1, 3)
})

it('coats a block as a geometry library does: the hull of eight balls less the block', () => {
  const t = 12
  const ball = (x: number, y: number, z: number) =>
    primitives.sphere({ radius: t, center: [x, y, z], segments: 64 })
  const corners = [-50, 50].flatMap((x) => [-40, 40].flatMap((y) => [-30, 30].map((z) => ball(x, y, z))))
  const coatMm3 = measurements.measureVolume(hulls.hull(corners)) - 100 * 80 * 60
  const whole = shell({
    object: 'block',
    lengthMm: 100,
    widthMm: 80,
    heightMm: 60,
    thicknessMm: t,
    onBoard: false,
  })
  expect(shellVolumeMm3(whole) / coatMm3).toBeCloseTo(1, 2)
})

it('holds what slicing its drawn section gives: round forms, by Simpson', () => {
  for (const shape of [
    shapeOf.bowl(200, 0, 60),
    shapeOf.footed_bowl(200, 90, 70),
    shapeOf.frustum(150, 80, 50),
    shapeOf.cylinder(120, 0, 90),
  ]) {
    const section = halfSection(shape)
    let mm3 = 0
    for (let i = 1; i < section.length; i++) {
      const [r0, z0] = section[i - 1]!
      const [r1, z1] = section[i]!
      const mid = ((r0 + r1) / 2) ** 2
      mm3 += ((Math.PI * (z1 - z0)) / 6) * (r0 ** 2 + 4 * mid + r1 ** 2)
    }
    expect(mm3 / 1000 / cavityVolumeMl(shape), shape.kind).toBeCloseTo(1, 2)
  }
})

it('grows with the cube of its size, surface with the square', () => {
  const size = fc.double({ min: 5, max: 1000, noNaN: true })
  fc.assert(
    fc.property(
      fc.constantFrom(...SHAPE_KINDS),
      size,
      size,
      size,
      fc.double({ min: 0.5, max: 3, noNaN: true }),
      (kind, a, b, c, k) => {
        const one = shapeOf[kind](a, b, c)
        const grown = shapeOf[kind](a * k, b * k, c * k)
        expect(cavityVolumeMl(grown) / cavityVolumeMl(one)).toBeCloseTo(k ** 3, 6)
        expect(cavitySurfaceMm2(grown) / cavitySurfaceMm2(one)).toBeCloseTo(k ** 2, 6)
      },
    ),
  )
})

it('is loud about a measurement that is not one, and says which cannot belong together', () => {
  expect(() => cavityVolumeMl({ kind: 'cylinder', diameterMm: Number.NaN, depthMm: 10 })).toThrow(
    'diameterMm',
  )
  const issues = (shape: CavityShape) => findVolume({ by: 'shape', shape }).issues.map((i) => i.code)
  expect(issues({ kind: 'ring', outerDiameterMm: 50, innerDiameterMm: 60, depthMm: 10 })).toEqual([
    'ring_inside_out',
  ])
  expect(issues({ kind: 'half_round', lengthMm: 100, diameterMm: 60, depthMm: 40 })).toEqual([
    'deeper_than_half_round',
  ])
})

function volumeOf(method: VolumeMethod): number {
  const result = findVolume(method)
  if (!result.ok) throw new Error(result.issues.map((i) => i.code).join())
  return result.finding.volumeMl
}

it('corrects water for its temperature: CRC Handbook densities, from memory, 0.99821 at 20 °C and 0.99222 at 40 °C', () => {
  const fill = (waterTempC: number) =>
    volumeOf({ by: 'water_fill', reading: 'weighed', massG: 1000, volumeMl: 0, waterTempC })
  expect(fill(20)).toBeCloseTo(1000 / 0.99821, 1)
  expect(fill(40)).toBeCloseTo(1000 / 0.99222, 0)
})

it('grains fill a narrow place looser, by Dixon’s voids, and refuse a gap of less than two', () => {
  // Dixon 1988: dense beds of spheres have 40 % voids; from memory.
  expect(voidFraction(0, 100)).toBe(0.4)
  const rice = (narrowestMm: number) =>
    volumeOf({ by: 'dry_fill', grain: 'rice', pouredMl: 1000, narrowestMm })
  expect(rice(90)).toBeCloseTo(1000, 6)
  expect(rice(12)).toBeGreaterThan(1030)
  // As sure as pouring is, and half as sure of what the walls are allowed for.
  const narrow = findVolume({ by: 'dry_fill', grain: 'rice', pouredMl: 1000, narrowestMm: 12 })
  if (!narrow.ok) throw new Error('refused')
  const { volumeMl, plusMinusMl } = narrow.finding
  expect(plusMinusMl ** 2).toBeCloseTo((0.05 * volumeMl) ** 2 + (0.5 * (volumeMl - 1000)) ** 2, 6)
  expect(findVolume({ by: 'dry_fill', grain: 'gravel', pouredMl: 1000, narrowestMm: 12 })).toMatchObject({
    ok: false,
    issues: [{ code: 'grain_too_large', limit: 16 }],
  })
})

it('a weighed cast gives back the mould: 1.18 kg dry from pottery plaster at 70 is a litre and a bit', () => {
  // 1 kg at 70 makes 1.080 l of slurry without air, 1.091 with 1 %, and dries to 1.1806 kg (stoichiometry).
  const cast = { by: 'weighed_cast', classId: 'pottery', consistency: 70 } as const
  expect(volumeOf({ ...cast, massG: 1180.6, state: 'dry' })).toBeCloseTo(1091, 0)
  expect(volumeOf({ ...cast, massG: 1700, state: 'wet' })).toBeCloseTo(1091, 0)
})

const ground = { by: 'ground', dam: 'ring', diameterMm: 200, lengthMm: 0, widthMm: 0 } as const

it('a print wants 12 mm of cover, 25 when large or soft (common practice, no source)', () => {
  const print = { ...ground, printDepthMm: 20, printSharePct: 40, coverMm: 12, ground: 'firm' } as const
  const codes = (m: VolumeMethod) => findVolume(m).issues.map((i) => [i.code, i.limit])
  expect(codes(print)).toEqual([])
  expect(codes({ ...print, coverMm: 11 })).toEqual([['cover_too_thin', 12]])
  expect(codes({ ...print, ground: 'soft' })).toEqual([['cover_too_thin', 25]])
  expect(codes({ ...print, diameterMm: 300 })).toEqual([['cover_too_thin', 25]])
  expect(volumeOf({ ...print, ground: 'soft' })).toBeGreaterThan(volumeOf(print))
})

const pot = {
  by: 'displacement',
  container: 'round',
  diameterMm: 150,
  lengthMm: 0,
  widthMm: 0,
  fillDepthMm: 200,
  object: 'displaced',
  displacedMl: 400,
  typical: 'hand',
  objectWidthMm: 90,
  objectDepthMm: 170,
  gelRatio: 'by_volume',
  gelPowderGPer100Ml: 25,
  gelWorkMin: 3,
} as const

it('an impression: gel is the pot less the object, 25 mm clear, full 15–20 min (common practice, no source)', () => {
  const gel = gelPlan(pot)
  expect(gel.gelMl).toBeCloseTo((Math.PI * 75 ** 2 * 200) / 1000 - 400, 6)
  expect(gel.powder).toEqual({ volumeMl: gel.gelMl })
  expect(gel.waitS).toEqual({ low: 900, high: 1200 })
  expect(gelPlan({ ...pot, gelRatio: 'by_label' }).powder).toEqual({
    massG: expect.closeTo(gel.gelMl / 4, 6),
  })
  const codes = (m: VolumeMethod) => findVolume(m).issues.map((i) => i.code)
  expect(findVolume(pot)).toMatchObject({ ok: true, finding: { volumeMl: 400 }, issues: [] })
  // Only known by what such parts usually hold: within a factor of three from end to end, never down to nothing.
  for (const typical of ['finger', 'ear', 'hand', 'child_hand', 'foot', 'baby_foot'] as const) {
    const found = findVolume({ ...pot, object: 'typical', typical })
    if (!found.ok) throw new Error(typical)
    const { finding } = found
    const [low, high] = [finding.volumeMl - finding.plusMinusMl, finding.volumeMl + finding.plusMinusMl]
    expect(high / low).toBeGreaterThan(1.5)
    expect(high / low).toBeLessThan(4)
    expect(finding.notes).toEqual(['typical_size_only'])
  }
  expect(codes({ ...pot, objectWidthMm: 110, objectDepthMm: 180 })).toEqual([
    'clearance_too_small',
    'clearance_below_too_small',
  ])
  expect(codes({ ...pot, displacedMl: 4000, objectWidthMm: 160, objectDepthMm: 210 })).toEqual([
    'object_larger_than_container',
    'object_wider_than_container',
    'object_deeper_than_container',
  ])
})

it('a slab rounded until it has no corners left is a disc, in volume and in surface', () => {
  const slab = { kind: 'slab', lengthMm: 80, widthMm: 80, thicknessMm: 30, cornerRadiusMm: 40 } as const
  const disc = { kind: 'cylinder', diameterMm: 80, depthMm: 30 } as const
  expect(cavityVolumeMl(slab)).toBeCloseTo(cavityVolumeMl(disc), 9)
  expect(cavitySurfaceMm2(slab)).toBeCloseTo(cavitySurfaceMm2(disc), 6)
})

type Shell = Extract<VolumeMethod, { by: 'shell' }>
const shell = (of: Partial<Shell>): Shell => ({
  by: 'shell',
  object: 'block',
  lengthMm: 100,
  widthMm: 100,
  diameterMm: 100,
  heightMm: 100,
  areaMm2: 10_000,
  thicknessMm: 12,
  onBoard: true,
  layerMm: 6,
  batchMl: 2000,
  ...of,
})

it('a shell: a ball as its two spheres, a dome half of it, layers and bowls to build it', () => {
  const ball = shell({ object: 'ball', diameterMm: 100, thicknessMm: 65, onBoard: false })
  expect(shellVolumeMm3(ball)).toBeCloseTo((4 / 3) * Math.PI * (115 ** 3 - 50 ** 3), 4)
  expect(shellVolumeMm3({ ...ball, onBoard: true })).toBeCloseTo(shellVolumeMm3(ball) / 2, 4)
  // A long thin cylinder is a pipe: π ((r+t)² − r²) a length, ends forgotten.
  const pipe = shell({ object: 'round', diameterMm: 40, heightMm: 1e6, thicknessMm: 10, onBoard: false })
  expect(shellVolumeMm3(pipe) / (Math.PI * (30 ** 2 - 20 ** 2) * 1e6)).toBeCloseTo(1, 4)
  expect(shellPlan(shell({ thicknessMm: 65, layerMm: 20, batchMl: 1000 }), 0.7)).toMatchObject({
    layers: 4,
    layerMm: 16.25,
    batches: 8,
    // A coat by hand is a fifth thinner here and thicker there.
    thinnestMm: 52,
    thickestMm: 78,
  })
  // Wider than its layers are many: each layer takes bowls of its own.
  const wide = shell({ object: 'area', areaMm2: 1e6, thicknessMm: 12, layerMm: 6, batchMl: 2000 })
  expect(shellPlan(wide, 0.7)).toMatchObject({ layers: 2, batches: 2 * 3 })
  expect(findVolume(shell({ thicknessMm: 0 }))).toMatchObject({
    issues: [{ code: 'shell_without_thickness' }],
  })
})

it('the area rule: one US quart a square foot at half an inch is about 10 l a m² at 12 mm (common practice)', () => {
  const squareFoot = shell({ object: 'area', areaMm2: 304.8 ** 2, thicknessMm: 12.7 })
  const plan = shellPlan(squareFoot, 0.74)
  expect(plan.ruleWaterMl / 946.353).toBeCloseTo(1, 1)
  // The geometry asks for less: a square foot of half an inch is 1.18 l of slurry, not quite a quart of water.
  expect(plan.geometryWaterMl).toBeLessThan(plan.ruleWaterMl)
  expect(coveredAreaMm2(squareFoot)).toBe(304.8 ** 2)
  // On a board its foot is bare: a drum is wall and top.
  const drum = shell({ object: 'round', diameterMm: 100, heightMm: 50 })
  expect(coveredAreaMm2(drum)).toBeCloseTo(Math.PI * (100 * 50 + 50 ** 2), 6)
  expect(coveredAreaMm2({ ...drum, onBoard: false })).toBeCloseTo(Math.PI * (100 * 50 + 2 * 50 ** 2), 6)
})

it('a second layer: area times depth, and keyed unless the first is still soft', () => {
  const layer = {
    outline: 'round',
    lengthMm: 0,
    widthMm: 0,
    diameterMm: 200,
    areaMm2: 0,
    depthMm: 10,
  } as const
  expect(volumeOf({ by: 'top_up', ...layer, below: 'dry' })).toBeCloseTo(314.16, 1)
  expect(keyingOf('still_soft')).not.toContain('bonding_coat')
  expect(keyingOf('dry')).toEqual(['score', 'wet_the_set_layer', 'bonding_coat'])
})

const known = (volumeMl: number, plusMinusPct = 5): VolumeMethod => ({ by: 'known', volumeMl, plusMinusPct })

it('combines parts in any order, takes cores off, multiplies cavities, and never goes below nothing', () => {
  const part = fc.record({
    role: fc.constantFrom('add' as const, 'subtract' as const),
    count: fc.integer({ min: 1, max: 5 }),
    method: fc.double({ min: 1, max: 5000, noNaN: true }).map((v) => known(v)),
  })
  fc.assert(
    fc.property(
      fc.array(part, { minLength: 1, maxLength: 6 }),
      fc.integer({ min: 1, max: 9 }),
      (parts, cavities) => {
        const of = (list: typeof parts): CavityDescription => ({
          parts: list,
          cavities,
          check: null,
          trust: 'parts',
        })
        const [there, back] = [describeCavity(of(parts)), describeCavity(of([...parts].reverse()))]
        expect(there.ok).toBe(back.ok)
        const sum = parts.reduce(
          (ml, p) => ml + (p.role === 'add' ? 1 : -1) * p.count * (p.method as { volumeMl: number }).volumeMl,
          0,
        )
        if (!there.ok) {
          expect(sum * cavities < 1 || sum * cavities > 500_000).toBe(true)
          return
        }
        expect(there.finding.volumeMl).toBeCloseTo(sum * cavities, 6)
        expect(there.finding.volumeMl).toBeGreaterThan(0)
        expect(back.ok && back.finding.volumeMl).toBeCloseTo(there.finding.volumeMl, 6)
        // Parts err apart, so their ranges add as squares; equal cavities err together.
        const squares = parts.reduce(
          (ml2, p) => ml2 + (0.05 * p.count * (p.method as { volumeMl: number }).volumeMl) ** 2,
          0,
        )
        expect(there.finding.plusMinusMl).toBeCloseTo(Math.sqrt(squares) * cavities, 6)
      },
    ),
  )
})

it('says when two ways disagree by more than their ranges, and goes by the one to trust', () => {
  const of = (check: VolumeMethod, trust: CavityDescription['trust']) =>
    describeCavity({ parts: [{ role: 'add', count: 1, method: known(1000, 5) }], cavities: 1, check, trust })
  expect(of(known(1060, 4), 'both')).toMatchObject({ ok: true, issues: [] })
  const apart = of(known(1200, 5), 'check')
  expect(apart).toMatchObject({
    ok: true,
    finding: { volumeMl: 1200 },
    issues: [{ code: 'methods_disagree' }],
  })
  const both = of(known(1060, 5), 'both')
  expect(both.ok && both.finding.volumeMl).toBeGreaterThan(1000)
  expect(both.ok && both.finding.plusMinusMl).toBeLessThan(50)
})
