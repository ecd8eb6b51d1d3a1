import { expect, it } from 'vitest'
import { parseScaleLine } from '.'

// Lines as bench scales send them: common practice, no source.
it.each([
  ['ST,GS,+ 123.4 g', 123.4, true],
  ['US,NT,+00012.5g', 12.5, false],
  ['   0.271 kg  ', 271, undefined],
  ['1.234 kg', 1234, undefined],
  ['- 3.2 g', -3.2, undefined],
  ['−3,2 g', -3.2, undefined],
  ['ST,+1,5 lb', 680.4, true],
  ['S 1 234.5 g', 1234.5, true],
  ['+ 12 500 g', 12500, undefined],
  ['1,234.5 g', 1234.5, undefined],
  ['1.234,5 g', 1234.5, undefined],
  ['0,271 kg', 271, undefined],
  ['2 lb 3.5 oz', 1006.4, undefined],
  ['ST 2lb 03.5oz', 1006.4, true],
  ['- 1 lb 0.0 oz', -453.6, undefined],
  ['? 99.8 g', 99.8, false],
  ['D 99.8 g', 99.8, false],
  ['123.4 g STABLE', 123.4, undefined],
])('reads “%s”', (line, massG, stable) => {
  const reading = parseScaleLine(line)
  expect(reading?.massG).toBeCloseTo(massG, 1)
  expect(reading?.stable).toBe(stable)
})

it.each([
  '',
  'OL',
  'OL 999.9 g',
  'ERR 4',
  '12.5',
  '12 gal',
  // A comma before three figures: a thousand and more, or one and a bit of a kilogram.
  '1,234 kg',
  '1,234 g',
  // A full stop at its end says nothing of the comma.
  '1,234 g.',
  // Two masses on one line.
  'G 123.4 g T 20.0 g',
  '12,5,3 g',
  '1 50 g',
  '--- g',
  '2 lb 17 oz',
  '2 lb 3',
])('skips “%s”', (line) => expect(parseScaleLine(line)).toBeUndefined())
