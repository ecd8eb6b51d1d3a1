import fc from 'fast-check'
import { expect, it } from 'vitest'
import { weighingOf, weighingToleranceG } from './weighing'
import { NO_ZERO, askedToZero, watchZero, zeroAfterSilence, zeroStanding } from './zero'

it('fills from empty to right, and says what is too much', () => {
  const at = (netG: number) => weighingOf(1000, netG, 1)
  expect([-3, 0, 1, 2, 500, 900, 989, 990, 1000, 1010, 1011].map((g) => at(g).state)).toEqual([
    'empty',
    'empty',
    'empty',
    'filling',
    'filling',
    'nearly',
    'nearly',
    'right',
    'right',
    'right',
    'over',
  ])
  expect(at(250)).toMatchObject({ filled: 0.25, toGoG: 750, toleranceG: 10 })
  expect(at(1020).toGoG).toBe(-20)
})

it('asks for nothing finer than the scale shows', () => {
  // 1.7 g of a retarder on a scale of whole grams: 1 or 2 is all there is.
  expect(weighingToleranceG(1.7, 1)).toBe(1)
  expect(weighingOf(1.7, 2, 1).state).toBe('right')
  expect(weighingOf(3.2, 2, 1).state).toBe('filling')
})

it('the states follow each other as it fills, whatever is wanted', () => {
  const order = ['empty', 'filling', 'nearly', 'right', 'over']
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 20_000, noNaN: true }),
      fc.constantFrom(0.1, 1, 5, 10),
      fc.array(fc.double({ min: 0, max: 1.3, noNaN: true }), { minLength: 2, maxLength: 8 }),
      (targetG, divisionG, parts) => {
        const states = [...parts]
          .sort((a, b) => a - b)
          .map((p) => order.indexOf(weighingOf(targetG, p * targetG, divisionG).state))
        expect(states).toEqual([...states].sort((a, b) => a - b))
        expect(weighingOf(targetG, targetG, divisionG).state).toBe('right')
      },
    ),
  )
})

it('a scale counts from where it last stood at nothing with the bowl on, and says or is taken to have been zeroed', () => {
  const says = (massG: number | null, tared: boolean | null, stable = true) => ({ massG, tared, stable })
  const at = (lines: ReturnType<typeof says>[], from = NO_ZERO) =>
    lines.reduce((zero, line, i) => watchZero(zero, line, i + 1), from).atMs
  // Empty it stands at nothing, too: the bowl that is put on it then would count as water.
  expect(at([says(0, false), says(236, false)])).toBeNull()
  expect(at([says(236, false), says(0, true, false), says(0, true), says(400, true)])).toBe(3)
  expect(at([says(0, true), says(0.2, true), says(null, true)])).toBe(1)
  // Switched off and on.
  expect(at([says(0, true), says(300, false)])).toBeNull()
  // One that cannot say is believed once after it was asked, not of the next bowl.
  const asked = askedToZero(0, 0)
  expect(at([says(0, null)])).toBeNull()
  expect(at([says(236, null), says(0, null), says(706, null), says(0, null)], asked)).toBe(2)
  expect(at([says(236, null)], asked)).toBeNull()
  expect(([true, false, null] as const).map((t) => zeroAfterSilence({ ...asked, atMs: 7 }, t).atMs)).toEqual([
    7,
    null,
    null,
  ])
})

it('what a scale shows before it can have heard that it is to zero itself is of its old zero', () => {
  const says = (massG: number, stable = true) => ({ massG, stable, tared: true })
  // A bowl as heavy as the last stands at nothing; then it zeroes, for which it does not stand still.
  let zero = watchZero(askedToZero(1000, 1400), says(0), 1100)
  expect(zeroStanding(zero, 1399).atMs).toBeNull()
  zero = watchZero(zero, says(0, false), 1200)
  expect(zeroStanding(zero, 1500).atMs).toBeNull()
  zero = watchZero(zero, says(0), 1300)
  expect(zeroStanding(zero, 1400).atMs).toBe(1300)
  expect(zeroStanding(watchZero(zero, says(50), 1350), 1500).atMs).toBeNull()
  expect(watchZero(zero, says(0), 1450)).toEqual({ heardMs: null, standsMs: null, atMs: 1300 })
  // One that says only what has changed has said so already.
  expect(zeroStanding(askedToZero(1000, 1400, says(0)), 1400).atMs).toBe(1000)
  expect(zeroStanding(askedToZero(1000, 1400, says(236)), 1400).atMs).toBeNull()
  expect(zeroStanding(NO_ZERO, 9999)).toEqual(NO_ZERO)
})
