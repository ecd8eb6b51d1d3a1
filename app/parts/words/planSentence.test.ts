import { expect, it } from 'vitest'
import type { PourPlan } from '#core/pour'
import { testPlan, tilesPlan } from '../../../tests/unit/plans'
import { planSentence, sentenceText } from './planSentence'

const show = { temp: (tempC: number) => `${tempC} °C`, volume: (ml: number) => `${ml} ml` }
const said = (change: Partial<PourPlan>) => planSentence(testPlan('pottery', change), show)
const partOf = (part: string, change: Partial<PourPlan>) => said(change).find((s) => s.part === part)!.words

it('a plan is one sentence as a caster would say it', () => {
  expect(sentenceText(said({}))).toBe(
    'A test piece: A test mould in A test plaster, 70 to 100, by weight, sifted, soaked 2 min, stirred 2 min by hand, poured, from one bowl, with tap water at 20 °C, to dry where it sets until it can take water-based paint.',
  )
  expect(partOf('mould', { piece: 'A test mould' })).toBe('A test mould')
  expect(partOf('mould', { piece: '' })).toBe('A test mould')
})

it('each part says what was chosen in it', () => {
  const [tile] = tilesPlan(6, 2).mould.members!
  const mould = { ...testPlan().mould, name: 'Tile', members: [tile!] }
  expect(partOf('mould', { mould, piece: 'Tile' })).toBe('6 × Tile')
  expect(
    partOf('mould', { mould: { ...mould, members: [{ ...tile!, unnamed: true }] }, piece: 'Stop' }),
  ).toBe('Stop: a mould of 600 ml')
  const { plaster } = testPlan()
  const bag = { bagId: 'b', name: 'Red tub', boughtG: 1000, price: null }
  const additions = [{ id: 'sand' as const, pct: 20 }]
  expect(partOf('plaster', { plaster: { ...plaster, bag, additions }, consistency: 66.4 })).toBe(
    'Red tub, sand 20 %, 66 to 100, by weight',
  )
  const scoop = { measureMl: 250, packing: 'scooped' as const, weighedKgM3: null }
  expect(partOf('plaster', { ratioMethod: 'by_volume', scoop })).toMatch(/by scoop of 250 ml$/)
  expect(partOf('plaster', { ratioMethod: 'by_eye', siftStage: 'mountain' })).toMatch(/by eye to mountain$/)
  expect(partOf('mixing', { soakS: 0, stirS: 90, stirManner: 'drill' })).toBe(
    'sifted, stirred 1.5 min with a drill',
  )
  expect(partOf('mixing', { addingWay: 'kneaded' })).toBe('kneaded in a bag for 2 min')
  expect(partOf('filling', { filling: 'slush', script: { order: [], leftOut: ['tap'] } })).toBe(
    'slushed, steps of your own',
  )
  const split = { by: 'bowls' as const, count: 3 }
  const batching = { split, bowl: null, pourRateMlMin: null, scaleCapacityG: null }
  expect(partOf('bowls', { batching, hands: 2 })).toBe('3 bowls by 2 people')
  const taps = { coldTempC: 10, hotTempC: 50, targetTempC: 22 }
  expect(partOf('water', { taps, water: 'sea', sun: 'full', waterTempC: 24 })).toBe(
    'sea water from two taps at 24 °C, in full sun',
  )
  const rack = { placeId: 'r', name: 'Rack by the window', air: testPlan().air, pace: null }
  expect(partOf('drying', { dryingPlace: rack as never, dryTarget: 'kiln' })).toBe(
    'at Rack by the window until it can go into the kiln, held low first',
  )
})

it('what cannot be cast yet has a sentence all the same', () => {
  expect(partOf('bowls', { stirS: -1 })).toBe('one bowl')
})
