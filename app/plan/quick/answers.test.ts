import { expect, it } from 'vitest'
import { consistencyBySifting } from '#core/mix'
import { evaluatePlan } from '#core/pour'
import { mouldCard } from '~~/tests/support/mouldCard'
import { TEST_SETTINGS } from '~~/tests/unit/plans'
import type { Stock } from '../draft/planDraft'
import { planOf } from '../draft/toPlan'
import { cardsOf, firstAnswers, mouldKept, plasterKept, quickDraft, stockWith, wanting } from './answers'
import type { QuickAnswers } from './answers'

const NOW = Date.parse('2026-06-01')
const stock: Stock = {
  plasters: [],
  bags: [],
  moulds: [],
  mouldSets: [],
  bowls: [],
  places: [],
  settings: TEST_SETTINGS,
}
let made = 0
const answered = (change: Partial<QuickAnswers>): QuickAnswers => ({
  ...firstAnswers(stock, () => `id${(made += 1)}`),
  ...change,
})
function weighed(answers: QuickAnswers) {
  const draft = quickDraft(answers, stock, NOW)!
  const evaluation = evaluatePlan(planOf(draft, stockWith(answers, stock), NOW)!)
  if (!evaluation.ok) throw new Error(JSON.stringify(evaluation.issues))
  return evaluation.outcome.weighOut
}

it('asks for what is missing, and comes to nothing before', () => {
  const nothing = answered({})
  expect(wanting(nothing)).toEqual(['fill', 'powder', 'measure'])
  expect(quickDraft(nothing, stock, NOW)).toBeUndefined()
  // Typed, and not to be read: no plan goes by another ratio meanwhile.
  const unread = answered({ fill: 'box', plasterKey: 'class:pop', printed: 'a few', measure: 'weighed' })
  expect(wanting(unread)).toEqual(['powder'])
  expect(quickDraft(unread, stock, NOW)).toBeUndefined()
  expect(wanting(answered({ fill: 'box', plasterKey: 'class:pop', measure: 'by_eye' }))).toEqual(['measure'])
})

// Rules of the trade (common practice, no source).
it('two thirds of a mould in water and islands fill it', () => {
  const answers = answered({ fill: 'water', plasterKey: 'class:pop', measure: 'by_eye', stage: 'islands' })
  answers.methods.water = { by: 'water_fill', reading: 'measured', massG: 1, volumeMl: 3000, waterTempC: 15 }
  const draft = quickDraft(answers, stock, NOW)!
  expect(draft.consistency).toBe(Math.round(consistencyBySifting('pop', 'islands').mid))
  const { waterG } = weighed(answers)
  // With its spare of a tenth taken off again.
  expect(waterG / 1.1 / 3000).toBeCloseTo(2 / 3, 1)
})

it('2 : 1 by cups and 100 ml to 200 g are what they say', () => {
  const cups = answered({
    fill: 'bucket',
    plasterKey: 'class:pottery',
    measure: 'by_volume',
    scoopMl: 300,
    printed: '2 : 1',
    reading: { by: 'volume', powderParts: 2, consistency: 60 },
  })
  const cupped = weighed(cups)
  // A dug-out cup of pottery plaster: about 0.75 to 0.95 of its volume in grams.
  expect(cupped.powderG / cupped.waterG / 2).toBeGreaterThan(0.7)
  expect(cupped.powderG / cupped.waterG / 2).toBeLessThan(1)
  expect(quickDraft(cups, stock, NOW)).toMatchObject({ scoop: { measureMl: 300 }, sparePct: 0 })
  const scaled = answered({
    fill: 'box',
    plasterKey: 'class:pop',
    measure: 'weighed',
    printed: '100 ml to 200 g',
    reading: { by: 'weight', consistency: 50 },
  })
  const { waterG, powderG } = weighed(scaled)
  expect(powderG / waterG).toBeCloseTo(2, 1)
})

it('what is kept is what was shown: mould, plaster and bag under the names they were given', () => {
  const answers = answered({
    fill: 'box',
    mouldName: ' Tray ',
    plasterKey: 'class:gc',
    plasterName: 'Grey tub',
    bagG: 20_000,
    printed: '40',
    reading: { by: 'weight', consistency: 40 },
    measure: 'weighed',
  })
  const cards = cardsOf(answers)
  expect(cards).toMatchObject({
    mould: { name: 'Tray' },
    plaster: { id: answers.ids.plaster, name: 'Grey tub', printedRatio: '40', label: { consistency: 40 } },
    bag: { id: answers.ids.bag, plasterId: answers.ids.plaster, boughtG: 20_000 },
  })
  const before = weighed(answers)
  const draft = quickDraft(answers, stock, NOW)!
  expect(draft).toMatchObject({ plasterKey: answers.ids.plaster, bagId: answers.ids.bag })
  // Once they are there, the same answers come to the same figures, and to no second card.
  const tray = { ...mouldCard(answers.ids.mould, 'Tray', 1200), ...cards.mould }
  const kept = { ...stock, moulds: [tray], plasters: [cards.plaster!], bags: [cards.bag!] }
  const now = plasterKept(mouldKept(answers, 'm2'), cards, { plaster: 'p2', bag: 'b2' })
  expect(cardsOf(now)).toEqual({})
  const after = evaluatePlan(planOf(quickDraft(now, kept, NOW)!, kept, NOW)!)
  expect(after.ok && after.outcome.weighOut).toEqual(before)
  // What is said otherwise after that is another mould and another plaster, not those under new figures.
  const other = {
    ...now,
    fill: 'box',
    mouldName: 'Tray 2',
    plasterKey: 'class:pop',
    plasterName: 'P',
  } as const
  expect(quickDraft(other, kept, NOW)).toMatchObject({ source: 'describe', plasterKey: 'p2', bagId: '' })
  expect(stockWith(other, kept).plasters).toMatchObject([
    { label: { classId: 'gc' } },
    { label: { classId: 'pop' } },
  ])
  // A name struck out keeps nothing; a print is cast once, a bucket is no mould.
  expect(cardsOf({ ...answers, mouldName: '', plasterName: ' ' })).toEqual({})
  expect(cardsOf({ ...answers, fill: 'ground' }).mould).toBeUndefined()
})

it('a print in the ground brings its ground along, and fills nothing that stands on the shelf', () => {
  const spill = { ...mouldCard('m1', 'Cockle', 40), isSpill: true }
  const shed = { ...stock, moulds: [spill] }
  const plan = (fill: 'ground' | 'bucket') => {
    const draft = quickDraft(answered({ fill, plasterKey: 'class:pop', measure: 'weighed' }), shed, NOW)!
    return planOf(draft, shed, NOW)!
  }
  expect(plan('ground').mould.members).toMatchObject([
    { purpose: 'print', facts: { material: 'sand_soil', oneTime: true } },
  ])
  expect(plan('ground').spill).toEqual([])
  expect(plan('bucket').spill).toMatchObject([{ name: 'Cockle' }])
})
