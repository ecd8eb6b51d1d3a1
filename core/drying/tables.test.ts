import { describe, expect, it } from 'vitest'
import { mixProperties } from '../mix'
import { plasterProperties, type PlasterClassId } from '../plaster'
import { dryingCurve, dryingDepths, dryingTimeS, wetSurface, type Air } from '.'

/**
 * Tables printed by an independent prototype of the same equations (derived; docs/science.md). They check the
 * programming, not the physics; the physics is checked against references in drying.test.ts.
 */
const AIRS: Record<string, Air> = {
  'cold damp': { tempC: 10, rhPct: 80, speedMS: 0.1 },
  'room still': { tempC: 20, rhPct: 50, speedMS: 0.1 },
  'room fan': { tempC: 20, rhPct: 50, speedMS: 1.5 },
  'warm breeze': { tempC: 30, rhPct: 30, speedMS: 1 },
  cabinet: { tempC: 40, rhPct: 20, speedMS: 1 },
}

describe('a wet face in five airs: its temperature, °C, and evaporation, g/m²h', () => {
  it.each([
    ['cold damp', 8.7, 19],
    ['room still', 15.3, 73],
    ['room fan', 14.5, 138],
    ['warm breeze', 19.5, 239],
    ['cabinet', 24.1, 363],
  ] as const)('%s', (air, surfaceC, gramsPerM2H) => {
    const { surfaceTempC, fluxKgM2S } = wetSurface(AIRS[air]!)
    expect(surfaceTempC).toBeCloseTo(surfaceC, 1)
    expect(Math.abs(fluxKgM2S * 3.6e6 - gramsPerM2H)).toBeLessThan(0.7)
  })
})

describe('hours to 95 % lost and to constant weight', () => {
  it.each([
    ['pottery', 70, 10, 'both_faces', 'cold damp', 152, 227],
    ['pottery', 70, 25, 'both_faces', 'room still', 116, 195],
    ['pottery', 70, 50, 'both_faces', 'room still', 302, 583],
    ['pottery', 70, 15, 'both_faces', 'room fan', 38, 64],
    ['pottery', 70, 25, 'both_faces', 'warm breeze', 38, 68],
    ['pottery', 70, 50, 'both_faces', 'cabinet', 62, 121],
    ['pottery', 70, 10, 'one_face', 'room still', 88, 142],
    ['pottery', 70, 25, 'one_face', 'cold damp', 1246, 2494],
    ['gc', 45, 25, 'both_faces', 'room still', 79, 108],
    ['gc', 45, 25, 'both_faces', 'cabinet', 16, 22],
  ] as [PlasterClassId, number, number, 'both_faces' | 'one_face', string, number, number][])(
    '%s at %d, %d mm, %s, %s: %d / %d h',
    (id, consistency, thicknessMm, exposed, air, hours95, hoursConstant) => {
      const mix = mixProperties({
        plaster: plasterProperties(id),
        consistency,
        waterTempC: 20,
        airFraction: 0.01,
      })
      const curve = dryingCurve({
        freeWaterKgM3: mix.freeWaterKgM3,
        ...dryingDepths(thicknessMm, exposed),
        air: AIRS[air]!,
        speedFactor: 1,
      })
      const off = (left: number, printedH: number) => Math.abs(dryingTimeS(curve, left) / 3600 / printedH - 1)
      // Printed to the whole hour: half an hour of 18 is 3 %.
      expect(off(0.05, hours95)).toBeLessThan(0.03)
      expect(off(0.005 / mix.freeWaterOfDryMass, hoursConstant)).toBeLessThan(0.03)
    },
  )
})

describe('density, porosity and strength by consistency', () => {
  it.each([
    ['hsgc', 32, 1926, 1710, 0.266, 11.8],
    ['lowexp', 38, 1851, 1570, 0.329, 17.6],
    ['gc', 45, 1777, 1430, 0.386, 22.8],
    ['pop', 60, 1633, 1194, 0.488, 36.0],
    ['pottery', 80, 1525, 994, 0.573, 52.5],
    ['pottery', 100, 1449, 850, 0.635, 69.4],
  ] as [PlasterClassId, number, number, number, number, number][])(
    '%s at %d: slurry %d, dry %d kg/m³, porosity %d, water %d %% of dry mass',
    (id, consistency, slurry, dry, porosity, waterPct) => {
      const mix = mixProperties({
        plaster: plasterProperties(id),
        consistency,
        waterTempC: 20,
        airFraction: 0,
      })
      expect(Math.abs(mix.slurryDensityKgM3 - slurry)).toBeLessThan(1)
      expect(Math.abs(mix.dryDensityKgM3 - dry)).toBeLessThan(1)
      expect(mix.porosity).toBeCloseTo(porosity, 3)
      expect(100 * mix.freeWaterOfDryMass).toBeCloseTo(waterPct, 1)
    },
  )
})
