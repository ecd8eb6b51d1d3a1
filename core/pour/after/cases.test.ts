import { expect, it } from 'vitest'
import { casesShares, judgedCases } from '../../../tests/support/writtenCases'
import { CAUSES } from '../../finish'
import { MOULD_KINDS } from '../../mould'

const judged = judgedCases()

it('written cases are over every cause and every kind of mould, some with two causes, some clean', () => {
  const named = new Set(judged.flatMap((c) => c.causes))
  expect(CAUSES.filter((c) => !named.has(c))).toEqual([])
  const kinds = new Set(judged.map((c) => c.kind))
  expect(MOULD_KINDS.filter((k) => !kinds.has(k))).toEqual([])
  expect(judged.length).toBeGreaterThanOrEqual(40)
  expect(judged.filter((c) => c.causes.length > 1).length).toBeGreaterThanOrEqual(5)
  expect(judged.filter((c) => c.causes.length === 0).length).toBeGreaterThanOrEqual(5)
})

it('the cause is named first in 85 % of them, among the first three in 97 %; the clean ones are called clean, and no other', () => {
  const { first, amongThree, clean } = casesShares(judged)
  expect(first).toBeGreaterThanOrEqual(0.85)
  expect(amongThree).toBeGreaterThanOrEqual(0.97)
  expect(clean).toBe(1)
})
