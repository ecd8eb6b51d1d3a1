import { describe, expect, it } from 'vitest'
import { checkConsistency } from '../mix'
import { plasterProperties } from '../plaster'
import { isothermalSetting } from '../setting'
import {
  bagDoubt,
  bagSpread,
  costOf,
  labelOfClass,
  learnBag,
  propertiesOfCard,
  sourcesOfCard,
  toBuy,
  wantsSpoonTest,
} from '.'

describe('a card', () => {
  it('that says nothing is its class', () =>
    expect(propertiesOfCard(labelOfClass('pottery'))).toEqual(plasterProperties('pottery')))
  it('that prints another ratio than its class is used at still warns of that very ratio', () => {
    for (const consistency of [30, 34, 70]) {
      const read = propertiesOfCard({ ...labelOfClass('gc'), consistency })
      expect(read.useConsistency).toBe(consistency)
      expect(checkConsistency(consistency, read)).toMatchObject([{ severity: 'warning' }])
    }
    expect(checkConsistency(50, propertiesOfCard({ ...labelOfClass('gc'), consistency: 50 }))).toEqual([])
  })
  it('that prints a range keeps it beside its middle', () => {
    const label = { ...labelOfClass('pottery'), consistency: 67.5, range: { low: 65, high: 70 } }
    expect(sourcesOfCard(label)[0]).toMatchObject({
      value: 67.5,
      low: 65,
      high: 70,
      provenance: { kind: 'label' },
    })
  })
  it('that gives a setting time sets at that time, at its own ratio', () => {
    const card = { ...labelOfClass('gc'), consistency: 42, setMin: 30, setTest: 'vicat' as const }
    const plaster = propertiesOfCard(card)
    const { timeS } = isothermalSetting({
      plaster,
      consistency: 42,
      mixTempC: 20,
      stirS: 120,
      stirManner: 'hand',
      restS: 0,
      ratioSigmaLn: 0.02,
    })
    expect(timeS.vicat_set.mid / 60).toBeCloseTo(30, 6)
  })
  it('says of every value where it is from', () => {
    const sources = sourcesOfCard({ ...labelOfClass('hsgc'), dryStrengthMPa: 60 })
    expect(sources.find((s) => s.what === 'strength')?.provenance).toEqual({ kind: 'label' })
    expect(sources.find((s) => s.what === 'expansion')?.provenance.kind).toBe('class_default')
  })
})

describe('a bag', () => {
  const pottery = plasterProperties('pottery')
  it('that is old or damp is doubted, and wants a spoon test until it had one', () => {
    expect(bagDoubt({ keeping: 'sealed', openDays: 100 })).toBe('none')
    expect(bagDoubt({ keeping: 'dry_open', openDays: 200 })).toBe('old')
    expect(bagDoubt({ keeping: 'damp', openDays: 1 })).toBe('damp')
    expect(bagSpread({ keeping: 'damp', openDays: 1 })).toBeCloseTo(0.424, 3)
    expect(wantsSpoonTest({ keeping: 'damp', openDays: 1 }, 0)).toBe(true)
    expect(wantsSpoonTest({ keeping: 'damp', openDays: 1 }, 1)).toBe(false)
  })
  it('teaches by its spoon tests, and is doubted less', () => {
    const state = { keeping: 'damp', openDays: 30 } as const
    const test = { consistency: 70, waterTempC: 20, stirS: 60, tookS: 0 }
    const predicted = isothermalSetting({
      plaster: pottery,
      consistency: 70,
      mixTempC: 20,
      stirS: 60,
      stirManner: 'hand',
      restS: 0,
      ratioSigmaLn: 0.02,
    }).timeS.initial_set.mid
    const slow = learnBag(pottery, state, { tests: [{ ...test, tookS: 1.5 * predicted, atMs: 0 }] }, 0)
    expect(slow.factor).toBeGreaterThan(1.35)
    expect(slow.factor).toBeLessThan(1.5)
    expect(slow.sigmaLn).toBeLessThan(bagSpread(state))
    expect(learnBag(pottery, state, { tests: [] }, 0)).toMatchObject({ factor: 1, sigmaLn: bagSpread(state) })
  })
})

it('what a pour costs, and what to buy', () => {
  expect(costOf({ price: 20, boughtG: 25_000, powderG: 2000, casts: 4, slurryMl: 2000 })).toEqual({
    pour: 1.6,
    perCast: 0.4,
    perLitre: 0.8,
  })
  const stock = [{ plaster: 'a', leftG: 3000, boughtG: 5000 }]
  expect(
    toBuy(
      [
        { plaster: 'a', powderG: 5000 },
        { plaster: 'a', powderG: 4000 },
        { plaster: 'b', powderG: 100 },
      ],
      stock,
    ),
  ).toEqual([
    { plaster: 'a', wantedG: 9000, leftG: 3000, missingG: 6000, bags: 2 },
    { plaster: 'b', wantedG: 100, leftG: 0, missingG: 100, bags: undefined },
  ])
})
