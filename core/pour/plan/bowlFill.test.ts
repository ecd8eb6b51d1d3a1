import { expect, it } from 'vitest'
import { usualFacts } from '../../mould'
import { testPlan } from '../../../tests/unit/plans'
import { keepPlan } from './kept'
import { bowlFills } from './bowlFill'
import type { PourPlan } from './plan'

const members = (...counts: [name: string, count: number, cavityMl: number][]) =>
  counts.map(([name, count, cavityMl]) => ({
    name,
    count,
    cavityMl,
    volume: { cavities: 1 },
  })) as PourPlan['mould']['members']
const plan = (of: PourPlan['mould']['members'], filling: PourPlan['filling'] = 'poured') => ({
  filling,
  mould: { ...testPlan().mould, members: of },
})
const bowls = (...slurryMl: number[]) =>
  slurryMl.map((ml, i) => ({ slurryMl: ml, start: i === 0 ? ('first' as const) : ('at_once' as const) }))

it('says which moulds each bowl fills, one after the other, and which the next goes on with', () => {
  // Six tiles in two bowls: three each.
  expect(bowlFills(plan(members(['Tile', 6, 100])), bowls(330, 330))).toEqual([
    { full: [{ name: 'Tile', count: 3 }], begun: undefined, startsAny: true },
    { full: [{ name: 'Tile', count: 3 }], begun: undefined, startsAny: true },
  ])
  // A large one that takes two bowls, and a small one after it.
  expect(bowlFills(plan(members(['Head', 1, 900], ['Ear', 1, 100])), bowls(500, 500))).toEqual([
    { full: [], begun: 'Head', startsAny: true },
    {
      full: [
        { name: 'Head', count: 1 },
        { name: 'Ear', count: 1 },
      ],
      begun: undefined,
      startsAny: true,
    },
  ])
  // The second bowl only fills up what the first began: it has no first coat.
  expect(bowlFills(plan(members(['Ear', 1, 100], ['Head', 1, 900])), bowls(500, 500))![1]).toEqual({
    full: [{ name: 'Head', count: 1 }],
    begun: undefined,
    startsAny: false,
  })
})

it('one piece, one bowl, and ways in which every bowl goes into every mould have no such share', () => {
  expect(bowlFills(plan(members(['Tile', 1, 100])), bowls(60, 60))).toBeUndefined()
  expect(bowlFills(plan(members(['Tile', 6, 100])), bowls(660))).toBeUndefined()
  expect(bowlFills(plan(members(['Tile', 6, 100]), 'slush'), bowls(330, 330))).toBeUndefined()
})

it('a first coat is a step of every bowl that fills moulds of its own', () => {
  const member = {
    mouldId: null,
    name: 'Tile',
    count: 1,
    cavityMl: 100,
    purpose: 'tile' as const,
    thinnestMm: null,
    facts: { ...usualFacts('silicone'), airTraps: ['lettering' as const] },
    volume: {
      parts: [
        { role: 'add' as const, count: 1, method: { by: 'known' as const, volumeMl: 100, plusMinusPct: 5 } },
      ],
      cavities: 1,
      check: null,
      trust: 'parts' as const,
    },
  }
  const coats = (count: number, castsPerBag: number) =>
    keepPlan(
      testPlan('pottery', {
        mould: { ...testPlan().mould, cavityMl: count * member.cavityMl, members: [{ ...member, count }] },
        batching: {
          split: { by: 'casts', castsPerBag },
          bowl: null,
          pourRateMlMin: null,
          scaleCapacityG: null,
        },
      }),
    ).kept.steps.flatMap((s) => (s.id === 'face_coat' ? [s.batch] : []))
  expect(coats(6, 3)).toEqual([0, 1])
  expect(coats(6, 6)).toEqual([0])
})
