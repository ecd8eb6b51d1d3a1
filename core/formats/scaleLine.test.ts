import { expect, it } from 'vitest'
import { parseScaleLine } from '.'

// Lines as bench scales send them: common practice, no source.
it.each([
  ['ST,GS,+ 123.4 g', 123.4, true],
  ['US,NT,+00012.5g', 12.5, false],
  ['   0.271 kg  ', 271, undefined],
  ['- 3.2 g', -3.2, undefined],
  ['ST,+1,5 lb', 680.4, true],
])('reads “%s”', (line, massG, stable) => {
  const reading = parseScaleLine(line)
  expect(reading?.massG).toBeCloseTo(massG, 1)
  expect(reading?.stable).toBe(stable)
})
it('has no reading where there is none', () => {
  for (const line of ['', 'OL', 'ERR 4', '12.5', '12 gal']) expect(parseScaleLine(line)).toBeUndefined()
})
