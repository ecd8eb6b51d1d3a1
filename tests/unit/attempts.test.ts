import { expect, it } from 'vitest'
import { DomainError } from '../../server/services/domainError'
import { AttemptGate } from '../../server/utils/attempts'

const wrong = () => Promise.reject(new DomainError('wrong_password'))
const right = () => Promise.resolve('in')
/** What became of one attempt at this second. */
const tried = (gate: AttemptGate, address: string, name: string, atS: number, work: () => Promise<unknown>) =>
  gate.attempt(address, name, 1000 * atS, work).then(
    () => 'right',
    (error: DomainError) => error.code,
  )

it('five wrong ones are free, then each holds up the next for twice as long, the right one too', async () => {
  const gate = new AttemptGate()
  for (let i = 0; i < 5; i++) expect(await tried(gate, 'a', 'Ann', 0, wrong)).toBe('wrong_password')
  const waits: number[] = []
  for (let atS = 0; atS < 40; atS++)
    if ((await tried(gate, 'a', ' ann', atS, wrong)) === 'wrong_password') waits.push(atS)
  expect(waits).toEqual([1, 3, 7, 15, 31])
  expect(await tried(gate, 'a', 'Ann', 40, right)).toBe('too_many_attempts')
  // Of somebody else there, and of the same name elsewhere, nothing is held up by so few.
  expect(await tried(gate, 'a', 'Bea', 40, right)).toBe('right')
  expect(await tried(gate, 'b', 'Ann', 40, right)).toBe('right')
  expect(await tried(gate, 'a', 'Ann', 64, right)).toBe('right')
  // What was mistyped before is forgiven.
  expect(await tried(gate, 'a', 'Ann', 64, wrong)).toBe('wrong_password')
  expect(await tried(gate, 'a', 'Ann', 64, right)).toBe('right')
})

it('many at once are counted before they are answered, and none waits for ever', async () => {
  const gate = new AttemptGate()
  const all = await Promise.all(Array.from({ length: 1000 }, () => tried(gate, 'a', 'Ann', 0, wrong)))
  expect(all.filter((code) => code === 'wrong_password')).toHaveLength(5)
  for (let atS = 0, n = 0; n < 30; atS += 901, n++) await tried(gate, 'a', 'Ann', atS, wrong)
  expect(await tried(gate, 'a', 'Ann', 30 * 901, right)).toBe('right')
})

it('one address that tries many names is held up, and so is one name that is tried from many', async () => {
  const gate = new AttemptGate()
  for (let i = 0; i < 20; i++) await tried(gate, 'a', `name ${i}`, 0, wrong)
  expect(await tried(gate, 'a', 'another', 0, right)).toBe('too_many_attempts')
  expect(await tried(gate, 'b', 'another', 0, right)).toBe('right')
  for (let i = 0; i < 100; i++) await tried(gate, `from ${i}`, 'Cleo', 0, wrong)
  expect(await tried(gate, 'c', 'Cleo', 0, right)).toBe('too_many_attempts')
  // What went wrong on the way is nobody's attempt.
  const broken = () => Promise.reject(new Error('away'))
  for (let i = 0; i < 50; i++) await tried(gate, 'd', 'Dora', 0, broken)
  expect(await tried(gate, 'd', 'Dora', 0, right)).toBe('right')
})
