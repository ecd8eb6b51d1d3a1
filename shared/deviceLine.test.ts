import { expect, it } from 'vitest'
import { LineCutter, MOST_LINE_BYTES, readDeviceLine } from './deviceLine'

const json = (said: object) => readDeviceLine(JSON.stringify(said))

it('reads the protocol, in the units of the bench', () => {
  expect(json({ type: 'hello', protocol: 1, device: 'shed-scale.1', name: ' Bench scale ' })).toEqual({
    type: 'hello',
    device: 'shed-scale.1',
    name: 'Bench scale',
  })
  expect(json({ type: 'mass', value: 1.5, unit: 'kg', stable: true })).toEqual({
    type: 'mass',
    massG: 1500,
    stable: true,
    tared: null,
    overload: false,
  })
  // 1 lb is 453.59237 g by definition (international yard and pound, 1959).
  expect(json({ type: 'mass', value: 2, unit: 'lb', stable: false })).toMatchObject({ massG: 907.18474 })
  expect(json({ type: 'temperature', channel: 3, tempC: 41.25 })).toEqual({
    type: 'temperature',
    channel: 3,
    tempC: 41.25,
  })
  expect(json({ type: 'button' })).toEqual({ type: 'button', button: 1 })
})

it('an overloaded scale has no mass and is never stable, whatever it says', () => {
  expect(json({ type: 'mass', value: 6120, stable: true, overload: true })).toEqual({
    type: 'mass',
    massG: null,
    stable: false,
    tared: null,
    overload: true,
  })
})

it('takes a scale’s plain text, stable only where it says so', () => {
  expect(readDeviceLine('ST,GS,+  123.4 g')).toMatchObject({ massG: 123.4, stable: true })
  expect(readDeviceLine('US,GS,+  123.4 g')).toMatchObject({ massG: 123.4, stable: false })
  expect(readDeviceLine('123.4 g')).toMatchObject({ massG: 123.4, stable: false })
})

it.each([
  '',
  '{',
  '[]',
  '{"type":"mass"}',
  '{"type":"mass","value":"12","stable":true}',
  '{"type":"mass","value":12,"unit":"stone","stable":true}',
  '{"type":"mass","value":1e9,"stable":true}',
  '{"type":"hello","protocol":2,"device":"a","name":"b"}',
  '{"type":"hello","protocol":1,"device":"../a","name":"b"}',
  '{"type":"temperature","channel":0,"tempC":20}',
  '{"type":"open","door":true}',
  `{"type":"beat","x":"${'x'.repeat(MOST_LINE_BYTES)}"}`,
])('is silent about %s', (line) => {
  expect(readDeviceLine(line)).toBeUndefined()
})

it('cuts lines wherever the pieces end, and passes over one without an end', () => {
  const cutter = new LineCutter()
  const text = '{"type":"beat"}\r\n12 g\n\n34 g\n'
  const lines = [...text].flatMap((letter) => cutter.cut(letter).lines)
  expect(lines).toEqual(['{"type":"beat"}', '12 g', '34 g'])
  const endless = 'x'.repeat(MOST_LINE_BYTES + 1)
  expect(cutter.cut(endless)).toEqual({ lines: [], tooLong: 0 })
  expect(cutter.cut(endless)).toEqual({ lines: [], tooLong: 0 })
  expect(cutter.cut('end of it\n56 g\n')).toEqual({ lines: ['56 g'], tooLong: 1 })
})
