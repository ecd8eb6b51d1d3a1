import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { BatchLimits } from '#core/mix'
import { PACKINGS, PLASTER_CLASS_IDS, type Addition } from '#core/plaster'
import {
  FIRST_SCOOP,
  batchesOf,
  bodyOfStep,
  evaluatePlan,
  sketchMix,
  stepsOf,
  tradeOffs,
  type EventBody,
  type PourPlan,
} from '#core/pour'
import { labelOfClass } from '#core/stock'
import type { BagCard, PlasterCard } from '~~/shared/stock'
import { TEST_SETTINGS, eventAt, testPlan, fold } from '../../../tests/unit/plans'
import { massToWeighG } from '~/run/knock/advance'
import { demandsOf, stockOf } from '~/plasters/buying'
import { paceWords } from '~/parts/words/mix'
import { comparePlans } from './planComparison'
import { additionsChoice, layersChoice, plasterChoice } from '~/plan/draft/choices'
import { draftOf, mixDraft } from '~/plan/draft/fromPlan'
import { emptyDraft } from '~/plan/draft/planDraft'
import { planOf } from '~/plan/draft/toPlan'
import { bagStateOf, plasterOf } from '~/parts/plaster/plasterChoice'
import { changeScoop, consistencyOfScoops, inScoopsOf, scoopParts, scoopsText } from './scoop'
import { stepWordsOf, tradeOffRows } from '~/plan/edit/tradeOff'
import { ingredientsOf, weighOutView } from './weighOut'
import { failureWords } from '~/parts/words/errors'
import { issueWords } from '~/parts/words/mix'

const mass = (g: number) => `${g.toFixed(0)} g`
const units = {
  mass,
  temp: (c: number) => `${c.toFixed(0)} °C`,
  strength: (v: number) => `${v.toFixed(0)} MPa`,
}

describe('a scoop', () => {
  it('counts back and forth, and the same count of heavier scoops is a stiffer mix', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PLASTER_CLASS_IDS),
        fc.constantFrom(...PACKINGS),
        fc.double({ min: 20, max: 120, noNaN: true }),
        (classId, packing, consistency) => {
          const scoop = { ...FIRST_SCOOP, packing }
          const parts = scoopParts(consistency, classId, scoop)
          expect(consistencyOfScoops(parts, classId, scoop) / consistency).toBeCloseTo(1, 9)
          const heavy = changeScoop(consistency, classId, scoop, { weighedKgM3: 2000 })
          expect(scoopParts(heavy.consistency, classId, heavy.scoop)).toBeCloseTo(parts, 9)
          expect(heavy.consistency).toBeLessThan(consistency)
        },
      ),
    )
  })
  it('is filled to a quarter, and says when that is too coarse', () => {
    expect(scoopsText(9.49)).toEqual({ text: '9½', coarse: false })
    expect(scoopsText(0.4)).toMatchObject({ text: '½', coarse: true })
    expect(scoopsText(0.01).text).toBe('¼')
  })
})

const card: PlasterCard = {
  id: 'p1',
  revision: 1,
  name: 'Blue sack',
  label: { ...labelOfClass('pottery'), consistency: 72 },
  printedRatio: '72 parts',
  additions: [{ id: 'pigment', pct: 2 }],
  note: '',
}
const bag: BagCard = {
  id: 'b1',
  revision: 1,
  plasterId: 'p1',
  name: 'Sack of spring',
  boughtG: 25_000,
  price: 20,
  openedOn: '2026-01-01',
  keeping: 'dry_open',
  scoop: { measureMl: 500, packing: 'scooped', weighedKgM3: 880 },
  counted: null,
  usedUp: false,
  note: '',
  leftG: 12_000,
  pours: 3,
  spoonTests: [],
}
const NOW = Date.parse('2026-06-01')
const shelf = { plasters: [card], bags: [bag], settings: TEST_SETTINGS }
const bowls = [{ id: 'w1', revision: 1, name: 'Basin', volumeMl: 4000, tareG: 230 }]
const stock = { moulds: [], mouldSets: [], places: [], bowls, ...shelf }

describe('a plaster out of a bag', () => {
  it('brings its bag, its scoop and what always goes in', () => {
    expect(plasterChoice('p1', shelf)).toMatchObject({
      bagId: 'b1',
      additions: card.additions,
      scoop: { weighedKgM3: 880 },
      addingWay: 'sifted',
    })
  })
  it('is doubted when the bag is old, and known when a spoonful was tried', () => {
    const pick = { plasterKey: 'p1', bagId: 'b1', additions: [] }
    expect(bagStateOf(bag, NOW).openDays).toBeCloseTo(151, 0)
    const old = plasterOf(pick, shelf, NOW)!
    const fresh = plasterOf(pick, shelf, Date.parse('2026-01-02'))!
    expect(old.properties.timeSigmaLn).toBeGreaterThan(fresh.properties.timeSigmaLn!)
    const test = { id: 't', atMs: 0, consistency: 72, waterTempC: 20, stirS: 60, tookS: 3000 }
    const tried = plasterOf(pick, { ...shelf, bags: [{ ...bag, spoonTests: [test] }] }, NOW)!
    expect(tried.origins?.setTime).toEqual({ kind: 'spoon_tests', tests: 1 })
    expect(tried.properties.halfHydrationMin).toBeGreaterThan(old.properties.halfHydrationMin)
    expect(tried.properties.timeSigmaLn).toBeLessThan(old.properties.timeSigmaLn!)
    const usedUp = { ...shelf, bags: [{ ...bag, usedUp: true }] }
    expect(plasterOf(pick, usedUp, NOW)?.bag).toBeUndefined()
    expect(plasterChoice('p1', usedUp)).toMatchObject({ bagId: '' })
    // A bag that is gone is no bag.
    expect(plasterOf({ ...pick, bagId: 'gone' }, shelf, NOW)?.bag).toBeUndefined()
  })
  it('asks for more water with silica in it, and then goes in all at once', () => {
    const draft = { ...emptyDraft(TEST_SETTINGS), plasterKey: 'class:pop', consistency: 62.5 }
    const change = additionsChoice(draft, [{ id: 'silica', pct: 100 }], shelf)
    expect(change.consistency).toBeCloseTo(100, 0)
    expect(change).toMatchObject({ addingWay: 'tipped_in', soakMin: 3 })
    const back = additionsChoice({ ...draft, ...change } as never, [], shelf)
    expect(back.consistency).toBeCloseTo(62.5, 9)
    expect(back.addingWay).toBe('sifted')
  })
})

describe('the worksheet', () => {
  const draft = {
    ...emptyDraft(TEST_SETTINGS),
    piece: 'A piece',
    ...plasterChoice('p1', shelf),
    bowlId: 'w1',
    splitBy: 'casts' as const,
    castsPerBag: 2,
    pourRateMlMin: 1500,
    waterFrom: 'two_taps' as const,
    targetTempC: 22,
    ratioMethod: 'by_volume' as const,
  }
  it('keeps bowls, bags, taps and additions on the way to a plan and back', () => {
    const plan = planOf(draft, stock, NOW)!
    expect(plan).toMatchObject({
      batching: { split: { by: 'casts', castsPerBag: 2 }, bowl: { name: 'Basin' }, pourRateMlMin: 1500 },
      taps: { targetTempC: 22, coldTempC: 16, hotTempC: 50 },
      plaster: { bag: { bagId: 'b1' }, additions: card.additions },
    })
    expect(plan.waterTempC).toBeGreaterThan(22)
    // What two taps give, the mould and its spill moulds come from elsewhere.
    const { waterTempC, described, useSpill } = draft
    expect({ ...draftOf(plan, stock), waterTempC, described, useSpill }).toEqual(draft)
  })
  it('takes over a recipe without its mould', () => {
    const recipe = planOf({ ...draft, consistency: 66 }, stock, NOW)!
    const mine = { ...emptyDraft(TEST_SETTINGS), piece: 'Mine', ...mixDraft(recipe, stock) }
    expect(mine).toMatchObject({ piece: 'Mine', consistency: 66, plasterKey: 'p1', splitBy: 'casts' })
  })
})

it('a shell is cut into its layers, and another mould into none', () => {
  expect(layersChoice('need', 3)).toMatchObject({
    splitBy: 'layers',
    layers: [{ name: 'Face coat' }, { name: 'Layer 2' }, { name: 'Layer 3' }],
  })
  expect(layersChoice('layers', 1)).toEqual({ splitBy: 'need' })
  expect(layersChoice('casts', 1)).toEqual({})
})

describe('what to weigh', () => {
  const additions: Addition[] = [
    { id: 'salt', pct: 1 },
    { id: 'silica', pct: 40 },
    { id: 'pigment', pct: 2 },
  ]
  const properties = plasterOf({ plasterKey: 'class:pop', bagId: '', additions }, shelf, NOW)!.properties
  const plan = testPlan('pop', { plaster: { name: 'Blend', properties, additions }, consistency: 85 })
  it('comes water first, everything of it, and adds up', () => {
    const { total } = batchesOf(plan)
    const all = ingredientsOf(plan, total)
    expect(all.map((i) => i.id)).toEqual(['water', 'salt', 'powder', 'silica', 'pigment'])
    const massOf = (id: string) => all.find((i) => i.id === id)!.massG
    expect(massOf('salt')).toBeCloseTo(total.waterG / 100, 0)
    expect(massOf('silica') + massOf('pigment')).toBeCloseTo(total.fillerG, -0.5)
    expect(
      ingredientsOf(testPlan('investment'), batchesOf(testPlan('investment')).total).at(-1),
    ).toMatchObject({
      id: 'class-silica',
      massG: batchesOf(testPlan('investment')).total.fillerG,
    })
  })
  it('of what goes in dry, the bowls add up to the job', () => {
    const bowl = { name: 'b', volumeMl: 900, tareG: 0 }
    const batching = {
      split: { by: 'need' as const },
      bowl,
      pourRateMlMin: null,
      scaleCapacityG: null,
    }
    const third = plasterOf(
      { plasterKey: 'class:pop', bagId: '', additions: [{ id: 'silica', pct: 37 }] },
      shelf,
      NOW,
    )!
    for (let cavityMl = 1000; cavityMl < 1100; cavityMl += 7) {
      const base = testPlan('pop', { batching, plaster: third, consistency: 75 })
      const filled = { ...base, mould: { ...base.mould, cavityMl } }
      const { batches, total } = batchesOf(filled)
      const silica = batches.map((b) => ingredientsOf(filled, b).at(-1)!.massG)
      expect(batches.length).toBeGreaterThan(2)
      expect(silica.reduce((a, b) => a + b, 0)).toBeCloseTo(total.fillerG, 6)
    }
  })
  describe('as it is written', () => {
    const layers = [
      { name: 'Face coat', sharePct: 25 },
      { name: 'Fill', sharePct: 75 },
    ]
    const viewOf = (change: Partial<PourPlan>) => {
      const full = testPlan('pottery', change)
      const evaluation = evaluatePlan(full)
      if (!evaluation.ok) throw new Error('plan refused')
      return { view: weighOutView(full, evaluation.outcome), outcome: evaluation.outcome }
    }
    const batchingOf = (change: Partial<BatchLimits>) => ({
      split: { by: 'need' as const },
      bowl: null,
      pourRateMlMin: null,
      scaleCapacityG: null,
      ...change,
    })
    it('one bowl stands for all that are alike, with its tare and its turns on a small scale', () => {
      const bowl = { name: 'Basin', volumeMl: 1300, tareG: 240 }
      const { view } = viewOf({ batching: batchingOf({ bowl, scaleCapacityG: 700 }) })
      expect(view.rows).toHaveLength(2)
      expect(view.tare).toEqual({ bowlG: 240, withWaterG: 240 + view.shown!.waterG })
      // 460 g of room: 353 g of water at once, 504 g of plaster in two goes (worked by hand).
      expect(view.turns).toEqual({ water: 1, powder: 2 })
    })
    it('layers stand by themselves, and still say scoops and taps', () => {
      const { view, outcome } = viewOf({
        batching: batchingOf({ split: { by: 'layers', layers } }),
        ratioMethod: 'by_volume',
        scoop: FIRST_SCOOP,
        taps: { coldTempC: 10, hotTempC: 55, targetTempC: 22 },
      })
      expect(view.shown).toBeUndefined()
      expect(view.tare).toBeUndefined()
      expect(view.rows.map((r) => r.name)).toEqual(['Face coat', 'Fill'])
      expect(view.rows.every((r) => /^\d*[¼½¾]?$/.test(r.scoops) && r.scoops !== '')).toBe(true)
      expect(view.taps!.hotG + view.taps!.coldG).toBeCloseTo(outcome.weighOut.waterG, 6)
      expect(view.taps!.hotShare).toBeCloseTo(view.taps!.hotG / outcome.weighOut.waterG, 9)
    })
    it('of bowls that are alike, taps are told for one', () => {
      const { view } = viewOf({
        batching: batchingOf({ bowl: { name: 'b', volumeMl: 1300, tareG: 0 } }),
        taps: { coldTempC: 10, hotTempC: 55, targetTempC: 22 },
      })
      expect(view.taps!.hotG + view.taps!.coldG).toBeCloseTo(view.shown!.waterG, 6)
    })
    it('a pinch of salt is more than a coarse scale can do, and is said once', () => {
      const salted = plasterOf(
        { plasterKey: 'class:pottery', bagId: '', additions: [{ id: 'salt', pct: 0.5 }] },
        shelf,
        NOW,
      )!
      const { view } = viewOf({ plaster: salted, batching: batchingOf({ split: { by: 'layers', layers } }) })
      expect(view.crumbs.map((c) => c.id)).toEqual(['salt'])
      expect(viewOf({}).view.crumbs).toEqual([])
    })
  })
  it('is asked for bowl by bowl in the run, and recorded with its bowl', () => {
    const two = {
      ...plan,
      batching: {
        split: { by: 'need' as const },
        bowl: { name: 'b', volumeMl: 1200, tareG: 0 },
        pourRateMlMin: null,
        scaleCapacityG: null,
      },
    }
    let at = 0
    const events = []
    for (const step of stepsOf(two, batchesOf(two).batches).slice(0, -2)) {
      const facts = fold(two, events)
      expect([facts.step, facts.batch]).toEqual([step.id, step.batch])
      const massG = massToWeighG(facts.step, facts)
      if (step.id.startsWith('weigh')) expect(massG).toBeGreaterThan(0)
      events.push(
        eventAt((at += 60_000), bodyOfStep(step, { massG: massG ?? 0, stirManner: two.stirManner })!),
      )
    }
    expect(fold(two, events).step).toBe('demould')
  })
  it('follows water that was sponged out again', () => {
    const bodies: EventBody[] = [
      { type: 'mould_ready' },
      { type: 'weighed', what: 'water', massG: 800 },
      { type: 'corrected', how: 'water_out', massG: 94 },
    ]
    const facts = fold(
      testPlan(),
      bodies.map((b, i) => eventAt(i * 1000, b)),
    )
    const { waterG, powderG } = facts.planned
    expect(massToWeighG('weigh_powder', facts)).toBe(Math.round((powderG * 706) / waterG))
  })
})

it('says how fast a bag is, and a failure with its fields', () => {
  expect([1, 0.97, 1.31, 0.8].map(paceWords)).toEqual([
    'as expected',
    'as expected',
    '31 % slower',
    '20 % faster',
  ])
  expect(
    failureWords({ code: 'invalid_input', fields: [{ path: 'bag.boughtG', message: 'is too large' }] }),
  ).toBe('Something in it is out of range. bag.boughtG: is too large')
  expect(failureWords({ code: 'in_use', fields: [] })).toMatch(/first\.$/)
})

it('draws what thinner costs within its frame, and says a step of it', () => {
  const plan = testPlan()
  const now = sketchMix(plan, 70)!
  const rows = tradeOffRows(tradeOffs(plan), now, units)
  expect(rows.map((r) => r.id)).toEqual(['pour', 'strength', 'weight', 'drying', 'bubble'])
  for (const { points, at } of rows)
    for (const { x, y } of [...points, at]) {
      expect(x).toSatisfy((v: number) => v >= 0 && v <= 1)
      expect(y).toSatisfy((v: number) => v >= 0 && v <= 1)
    }
  expect(stepWordsOf(now, sketchMix(plan, 75)!, units)).toMatch(/strength, dry 1\d MPa → 1\d MPa/)
  expect(stepWordsOf(now, now, units)).toBe('')
})

it('sets plans side by side and marks what differs', () => {
  const plans = [testPlan(), testPlan('pottery', { consistency: 80 })].map((plan) => ({
    plan,
    evaluation: evaluatePlan(plan),
  }))
  const rows = comparePlans(plans, units)
  expect(rows.find((r) => r.what.startsWith('Ratio'))).toEqual({
    what: 'Ratio, water to 100',
    values: ['70', '80'],
    differs: true,
  })
  expect(rows.find((r) => r.what === 'Plaster')?.differs).toBe(false)
})

it('what planned pours still want is not what has been weighed already', () => {
  const planned = fold(testPlan(), [])
  const weighed = fold(testPlan(), [eventAt(0, { type: 'weighed', what: 'powder', massG: 1009 })])
  expect(demandsOf([planned, weighed])).toEqual([
    { plaster: 'A test plaster', powderG: planned.planned.powderG },
  ])
  expect(stockOf([card], [bag])).toEqual([{ plaster: 'Blue sack', leftG: 12_000, boughtG: 25_000 }])
})

it('has words for whatever a plan can be told', () => {
  const show = { mass, length: mass, size: mass, volume: mass, temp: mass, density: mass }
  const asked = [
    testPlan('pop', { plaster: { ...testPlan('pop').plaster, additions: [{ id: 'pigment', pct: 9 }] } }),
    testPlan('dental3', { stirS: 1500 }),
    testPlan('pottery', { taps: { coldTempC: 15, hotTempC: 30, targetTempC: 38 }, waterTempC: 30 }),
    testPlan('pottery', {
      batching: {
        split: { by: 'whole_bags', bagPowderG: 950 },
        bowl: { name: 'b', volumeMl: 300, tareG: 600 },
        pourRateMlMin: 100,
        scaleCapacityG: 500,
      },
      stirS: 1500,
    }),
  ]
  const said = asked.flatMap((plan) => evaluatePlan(plan).issues.map((i) => [i.code, issueWords(i, show)]))
  expect(new Set(said.map(([code]) => code)).size).toBeGreaterThanOrEqual(7)
  for (const [code, words] of said) expect(words, code).toMatch(/^\S.*\.$/)
})

it('a mass in scoops is to a quarter of one, and says where a smaller scoop would come closer', () => {
  // 2 : 1 of scooped plaster, 850 kg/m³, in cups of 250 ml: 425 g to 250 g.
  expect(inScoopsOf(425, 0.85, 250)).toEqual({ measureMl: 250, count: 2, gPerScoop: 212.5, coarse: false })
  expect(inScoopsOf(250, 1, 250)).toMatchObject({ count: 1, gPerScoop: 250 })
  // Just over half a cup: half a cup is meant, and counts for all of it.
  expect(inScoopsOf(139, 1, 250)).toEqual({ measureMl: 250, count: 0.5, gPerScoop: 278, coarse: true })
  expect(inScoopsOf(5, 1, 250).count).toBe(0.25)
})
