import { expect, it } from 'vitest'
import { NOT_YET, watchWeighing, weighPhaseOf, type ScaleSays, type WeighWatch } from './weighStep'

const TARGET_G = 700
/** Plays what a scale says, second by second, and gives what the step makes of it. */
function play(
  lines: readonly (readonly [atS: number, massG: number | null, stable: boolean, tared?: boolean])[],
) {
  let watch: WeighWatch = NOT_YET
  return lines.map(([atS, massG, stable, tared = true]) => {
    const says: ScaleSays = { massG, stable, tared, overload: massG === null, atMs: atS * 1000 }
    watch = watchWeighing(watch, says, TARGET_G, 1, atS * 1000)
    const phase = weighPhaseOf(watch, says, TARGET_G, 1, atS * 1000)!
    return phase.phase === 'enough' && phase.offered ? 'offered' : phase.phase
  })
}

it('asks to be zeroed with the bowl on, fills, and offers the next step after two seconds of rest', () => {
  expect(
    play([
      [0, 0, true, false],
      [1, 236, true, false],
      [2, 0, true],
      [3, 400, false],
      [4, 700, false],
      [5, 702, true],
      [6, 702, true],
      [7, 702, true],
      [8, 702, true],
    ]),
  ).toEqual(['zero', 'zero', 'filling', 'filling', 'filling', 'enough', 'enough', 'offered', 'offered'])
})

it('an empty scale at nothing is not zeroed: the bowl put on it then would count as water', () => {
  expect(
    play([
      [0, 0, true, false],
      [1, 236, true, false],
      [5, 700, true, false],
    ]),
  ).toEqual(['zero', 'zero', 'zero'])
  // One that cannot say that it was zeroed is taken at its word once it was asked to.
  const asked = { ...NOT_YET, zeroAsked: true }
  const says = { massG: 0, stable: true, tared: null, overload: false, atMs: 0 }
  expect(watchWeighing(asked, says, TARGET_G, 1, 0).zeroed).toBe(true)
  expect(watchWeighing(asked, { ...says, massG: 236 }, TARGET_G, 1, 0).zeroed).toBe(false)
  expect(watchWeighing(asked, { ...says, tared: false }, TARGET_G, 1, 0).zeroed).toBe(false)
})

it('a scale that was switched off and on has lost its zero, and says or is taken to have', () => {
  const filled = { massG: 300, stable: true, overload: false, atMs: 0 }
  const zeroed = { ...NOT_YET, zeroAsked: true, zeroed: true }
  const look = (before: WeighWatch, says: ScaleSays | undefined) =>
    watchWeighing(before, says, TARGET_G, 1, 0)
  expect(look(zeroed, { ...filled, tared: true }).zeroed).toBe(true)
  expect(look(zeroed, { ...filled, tared: false }).zeroed).toBe(false)
  expect(look(zeroed, { ...filled, tared: null }).zeroed).toBe(true)
  const back = look(look(zeroed, undefined), { ...filled, massG: 0, tared: null })
  expect([back.zeroed, back.zeroAsked]).toEqual([false, false])
  // One that kept its zero over a broken line goes on.
  expect(look(look(zeroed, undefined), { ...filled, tared: true }).zeroed).toBe(true)
})

it('a touch of the bowl begins the two seconds anew; too much is enough, and offers nothing', () => {
  expect(
    play([
      [0, 0, true],
      [1, 700, true],
      [2, 731, false],
      [3, 700, true],
      [4, 700, true],
      [5, 700, true],
      [6, 720, true],
      [9, 720, true],
    ]),
  ).toEqual(['filling', 'enough', 'filling', 'enough', 'enough', 'offered', 'enough', 'enough'])
})

it('overloaded it says so, and goes on where it was', () => {
  expect(
    play([
      [0, 0, true],
      [1, null, false],
      [2, 650, true],
    ]),
  ).toEqual(['filling', 'overload', 'filling'])
  expect(weighPhaseOf(NOT_YET, undefined, TARGET_G, 1, 0)).toBeUndefined()
})
