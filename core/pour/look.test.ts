import { expect, it } from 'vitest'
import { fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { siftingLook } from '../mix'
import { bowlLook } from './look'

const MIN = 60_000
/** The bowl after so many events of a whole run, at a minute of it. */
const at = (events: number, atMin: number, plan = testPlan()) =>
  bowlLook(fold(plan, wholeRun().slice(0, events)), atMin * MIN)

it('a bowl is drawn from its first water to when it is in the mould, by its own clock and its own masses', () => {
  expect(at(1, 1)).toBeUndefined()
  expect(at(3, 4.5)).toMatchObject({ bed: 0, dryShare: 0 })
  const half = at(4, 5.5)!
  expect(half.bed).toBeGreaterThan(0.3)
  expect(half.bed).toBeLessThan(half.level)
  // What was weighed, not what was planned: 706 to 1009.
  const bowl = { classId: 'pottery', waterG: 706, powderG: 1009 } as const
  expect(at(4, 30)!.bed).toBeCloseTo(siftingLook(bowl, 1).bed, 9)
  const [soaking, soaked] = [at(5, 6)!, at(5, 8)!]
  expect(soaking.dryShare).toBeGreaterThan(0.5)
  expect(soaked.dryShare).toBe(0)
  expect(at(6, 8)!.lumps).toBe(1)
  expect(at(6, 10)!.lumps).toBe(0)
  const [poured, late] = [at(7, 10)!, at(7, 60)!]
  expect(poured).toMatchObject({ trail: 0, gloss: 1 })
  expect(late).toMatchObject({ trail: 1, gloss: 0 })
  expect(at(8, 11)).toBeUndefined()
})

it('nothing is drawn of what nobody sees or knows: a shut bag, a bed with silica', () => {
  expect(at(4, 5.5, testPlan('pop', { addingWay: 'kneaded' }))).toBeUndefined()
  expect(at(4, 5.5, testPlan('investment', { addingWay: 'tipped_in' }))).toBeUndefined()
})
