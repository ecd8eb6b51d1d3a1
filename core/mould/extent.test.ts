import { expect, it } from 'vitest'
import { extentOf, type CavityDescription, type VolumeMethod } from '.'

const of = (...methods: VolumeMethod[]): CavityDescription => ({
  parts: methods.map((method) => ({ role: 'add', count: 1, method })),
  cavities: 1,
  check: null,
  trust: 'parts',
})
const box = (lengthMm: number, widthMm: number, depthMm: number): VolumeMethod => ({
  by: 'shape',
  shape: { kind: 'box', lengthMm, widthMm, depthMm },
})

it('is the longest side and the depth of what is known of the form', () => {
  expect(extentOf(of(box(300, 200, 45)))).toEqual({ longestMm: 300, depthMm: 45 })
  expect(extentOf(of(box(30, 20, 400)))).toEqual({ longestMm: 400, depthMm: 400 })
  // A hexagon of side 50 is 100 across its corners.
  expect(
    extentOf(of({ by: 'shape', shape: { kind: 'prism', sides: 6, sideMm: 50, depthMm: 20 } }))?.longestMm,
  ).toBeCloseTo(100, 9)
})
it('goes by the largest part that tells, and is silent where none does', () => {
  const known: VolumeMethod = { by: 'known', volumeMl: 500, plusMinusPct: 5 }
  expect(extentOf(of(known))).toBeUndefined()
  expect(extentOf(of(known, box(90, 60, 30), box(120, 10, 10)))).toEqual({ longestMm: 120, depthMm: 30 })
})
it('of a turned profile goes to the fill line', () => {
  const outer = [
    { radiusMm: 40, heightMm: 0, smooth: false },
    { radiusMm: 60, heightMm: 100, smooth: false },
  ]
  expect(extentOf(of({ by: 'profile', outer, inner: [], fillHeightMm: 80 }))).toEqual({
    longestMm: 120,
    depthMm: 80,
  })
})
