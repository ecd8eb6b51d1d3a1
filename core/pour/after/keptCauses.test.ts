import { expect, it } from 'vitest'
import { eventAt, testPlan, tilesPlan } from '../../../tests/unit/plans'
import {
  foldPour,
  heedSubjects,
  heeding,
  keepPlan,
  keptCauses,
  staysWith,
  summarisePour,
  type EventBody,
  type PourPlan,
} from '..'

const tiles = tilesPlan(2, 2)
const [tile] = tiles.mould.members!
const plan: PourPlan = {
  ...tiles,
  mould: {
    ...tiles.mould,
    members: [
      { ...tile!, mouldId: 'tile', count: 1, cavityMl: 100 },
      { ...tile!, mouldId: 'shell', name: 'Shell', count: 1, cavityMl: 100 },
    ],
  },
  recipe: { recipeId: 'mix', name: 'The usual' },
  plaster: { ...tiles.plaster, bag: { bagId: 'sack', name: 'Sack', boughtG: 1000, price: null } },
}
const facts = (of: PourPlan, ...bodies: EventBody[]) =>
  foldPour(
    keepPlan(of),
    bodies.map((body, i) => eventAt(i, body)),
  )
const without = (...keys: ('recipe' | 'plaster')[]) =>
  Object.fromEntries(
    Object.entries({ ...plan, ...(keys.includes('plaster') ? { plaster: testPlan().plaster } : {}) }).filter(
      ([key]) => key !== 'recipe' || !keys.includes('recipe'),
    ),
  ) as unknown as PourPlan

it('a cause stays with the moulds of the faulty pieces, the mix or the bag, whichever it is of', () => {
  const voids: EventBody = { type: 'defect', kind: 'voids', pieces: [2] }
  expect(staysWith(facts(plan, voids), 'no_tap')).toEqual(['mould:shell'])
  expect(staysWith(facts(plan), 'no_tap')).toEqual(['mould:tile', 'mould:shell'])
  expect(staysWith(facts(plan, voids), 'soak_short')).toEqual(['recipe:mix'])
  expect(staysWith(facts(plan, voids), 'old_bag')).toEqual(['bag:sack'])
})

it('where there is none of that it stays with what there is, and with nothing where nothing has a card', () => {
  expect(staysWith(facts(without('recipe')), 'soak_short')).toEqual(['mould:tile', 'mould:shell'])
  expect(staysWith(facts(tiles), 'no_tap')).toEqual([])
  expect(staysWith(facts(without('plaster')), 'old_bag')).toEqual(['recipe:mix'])
  expect(heedSubjects(plan)).toEqual(['mould:tile', 'mould:shell', 'recipe:mix', 'bag:sack'])
})

it('what is mended is heeded no longer, at that mould alone; kept anew it is heeded again', () => {
  const kept: EventBody = { type: 'cause_kept', cause: 'no_tap' }
  const mended: EventBody = { type: 'cause_mended', cause: 'no_tap', subject: 'mould:tile' }
  const subjects = (...bodies: EventBody[]) => keptCauses(facts(plan, ...bodies)).map((k) => k.subject)
  expect(subjects(kept)).toEqual(['mould:tile', 'mould:shell'])
  expect(subjects(kept, mended)).toEqual(['mould:shell'])
  expect(subjects(kept, mended, kept)).toContain('mould:tile')
  expect(subjects(mended)).toEqual([])
  expect(summarisePour(keepPlan(plan), [eventAt(7, kept)], 1).heeds[0]).toEqual({
    subject: 'mould:tile',
    cause: 'no_tap',
    atMs: 7,
  })
})

it('heeded twice a plan is as heeded once: it may come from the shelf and from the last pour', () => {
  const once = heeding({ ...plan, soakS: 20 }, ['soak_short', 'leaked'])
  expect(once).toMatchObject({ heed: ['soak_short', 'leaked'], soakS: 120 })
  expect(heeding(once, ['soak_short'])).toEqual(once)
})
