import { expect, it } from 'vitest'
import { depthCurvePath, filledPath, gridLines, readProfileFile } from './profileBoard'

it('rules the paper on whole steps', () => {
  expect(gridLines(-5, 31, 10)).toEqual([0, 10, 20, 30])
  expect(gridLines(3, 4, 10)).toEqual([])
})

it('fills below the level and draws the curve to its corner', () => {
  expect(
    filledPath(
      [
        [0, 0],
        [40, 0],
        [40, 20],
        [40, 80],
      ],
      30,
    ),
  ).toBe('M0 -30L0 0L0 0L40 0L40 -20L40 -30Z')
  expect(
    filledPath(
      [
        [0, 50],
        [40, 80],
      ],
      30,
    ),
  ).toBe('')
  expect(
    depthCurvePath([
      { depthMm: 0, volumeMl: 0 },
      { depthMm: 50, volumeMl: 200 },
    ]),
  ).toBe('M0 60L100 0')
  expect(depthCurvePath([{ depthMm: 0, volumeMl: 0 }])).toBe('')
})

it('tells an SVG from a table by name or look, and says what it read or why not', () => {
  expect(readProfileFile('cup.txt', 'M0 0 L40 0 L40 -80')).toMatchObject({ said: '3 points read.' })
  expect(readProfileFile('cup.csv', '0,0\n40,80')).toMatchObject({ said: '2 points read.' })
  expect(readProfileFile('cup.svg', '<svg/>')).toEqual({
    problem: 'There is no path in this SVG. The drawing stands as it was.',
  })
  expect(readProfileFile('cup.csv', 'r,h\n1,2\nx,y')).toMatchObject({
    problem:
      'Two columns of numbers are needed, radius and height in mm. Not numbers: 3: x,y. The drawing stands as it was.',
  })
})
