import fc from 'fast-check'
import { expect, it } from 'vitest'
import { cavityVolumeMl, equivalentThicknessMm, type CavityShape } from '.'

it('agrees with Archimedes: a hemisphere is two thirds of its cylinder', () => {
  const bowl = cavityVolumeMl({ kind: 'bowl', rimDiameterMm: 200, depthMm: 100 })
  const cylinder = cavityVolumeMl({ kind: 'cylinder', diameterMm: 200, depthMm: 100 })
  expect(bowl / cylinder).toBeCloseTo(2 / 3, 12)
})

it('holds a litre in a decimetre cube', () => {
  expect(cavityVolumeMl({ kind: 'box', lengthMm: 100, widthMm: 100, depthMm: 100 })).toBe(1000)
})

it('grows with the cube of its size, thickness with its size', () => {
  const size = fc.double({ min: 5, max: 1000, noNaN: true })
  const triple = fc.tuple(fc.constantFrom('box', 'cylinder', 'bowl'), size, size, size)
  const shaped = ([kind, a, b, c]: [string, number, number, number], k: number): CavityShape => {
    if (kind === 'box') return { kind: 'box', lengthMm: a * k, widthMm: b * k, depthMm: c * k }
    if (kind === 'cylinder') return { kind: 'cylinder', diameterMm: a * k, depthMm: b * k }
    return { kind: 'bowl', rimDiameterMm: a * k, depthMm: b * k }
  }
  fc.assert(
    fc.property(triple, fc.double({ min: 0.5, max: 3, noNaN: true }), (of, k) => {
      expect(cavityVolumeMl(shaped(of, k)) / cavityVolumeMl(shaped(of, 1))).toBeCloseTo(k ** 3, 6)
      expect(equivalentThicknessMm(shaped(of, k)) / equivalentThicknessMm(shaped(of, 1))).toBeCloseTo(k, 6)
    }),
  )
})

it('calls a thin plate about as thick as it is', () => {
  expect(equivalentThicknessMm({ kind: 'box', lengthMm: 1000, widthMm: 1000, depthMm: 20 })).toBeCloseTo(
    20,
    -1,
  )
})

it('is loud about a measurement that is not one', () => {
  expect(() => cavityVolumeMl({ kind: 'cylinder', diameterMm: Number.NaN, depthMm: 10 })).toThrow(
    'diameterMm',
  )
})
