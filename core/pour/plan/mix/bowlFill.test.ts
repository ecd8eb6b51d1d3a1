import { expect, it } from 'vitest'
import { testPlan, tilesPlan } from '../../../../tests/unit/plans'
import { keepPlan } from '../kept'
import { bowlFills } from './bowlFill'
import type { PourPlan } from '../plan'

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
    { full: [{ name: 'Tile', count: 3 }], begun: undefined, pieces: [1, 2, 3], startsAny: true },
    { full: [{ name: 'Tile', count: 3 }], begun: undefined, pieces: [4, 5, 6], startsAny: true },
  ])
  // A large one that takes two bowls, and a small one after it.
  expect(bowlFills(plan(members(['Head', 1, 900], ['Ear', 1, 100])), bowls(500, 500))).toEqual([
    { full: [], begun: 'Head', pieces: [1], startsAny: true },
    {
      full: [
        { name: 'Head', count: 1 },
        { name: 'Ear', count: 1 },
      ],
      begun: undefined,
      pieces: [1, 2],
      startsAny: true,
    },
  ])
  // The second bowl only fills up what the first began: it has no first coat.
  expect(bowlFills(plan(members(['Ear', 1, 100], ['Head', 1, 900])), bowls(500, 500))![1]).toEqual({
    full: [{ name: 'Head', count: 1 }],
    begun: undefined,
    pieces: [2],
    startsAny: false,
  })
})

it('one piece, one bowl, and ways in which every bowl goes into every mould have no such share', () => {
  expect(bowlFills(plan(members(['Tile', 1, 100])), bowls(60, 60))).toBeUndefined()
  expect(bowlFills(plan(members(['Tile', 6, 100])), bowls(660))).toBeUndefined()
  expect(bowlFills(plan(members(['Tile', 6, 100]), 'slush'), bowls(330, 330))).toBeUndefined()
})

it('a first coat is a step of every bowl that fills moulds of its own', () => {
  const coats = (count: number, castsPerBag: number) =>
    keepPlan(tilesPlan(count, castsPerBag)).kept.steps.flatMap((s) => (s.id === 'face_coat' ? [s.batch] : []))
  expect(coats(6, 3)).toEqual([0, 1])
  expect(coats(6, 6)).toEqual([0])
})
