import { expect, it } from 'vitest'
import { RECALLED, SIGN, SIGNS, saidBy } from '#core/finish'
import { FACTORS } from '#core/learn'
import { PLASTER_CLASSES, blend, plasterClass } from '#core/plaster'
import { STAGES, batchesOf, evaluatePlan, stepsOf, viewPour } from '#core/pour'
import { eventAt, testPlan, wholeRun, fold } from '../../../tests/unit/plans'
import { cautionsOf, cautionsOfPlan } from '~/parts/show/cautions'
import { groundOf } from '~/parts/show/ground'
import { nextThing } from '~/parts/pour/nextThing'
import { formatDensity, formatLength, formatVolume } from '#core/units'
import { factorSentence, factorText } from '~/parts/learn/words'
import { THICKNESS_WORDS, VOLUME_ISSUE_WORDS } from './mould'
import { signWords } from './causes'
import { faultText } from './faults'
import { eventWords } from './events'
import { issueWords } from './mix'
import { provenanceWords } from './plaster'

const MIN = 60_000

const units = {
  length: (mm: number) => formatLength(mm, 'us'),
  volume: (ml: number) => formatVolume(ml, 'us'),
  mass: (g: number) => `${g.toFixed(0)} g`,
  temp: (c: number) => `${c.toFixed(0)} °C`,
  density: (d: number) => formatDensity(d, 'us'),
  size: (mm: number) => formatLength(mm, 'us'),
}

it('every handling of dry powder, and every wait for heat, has its caution', () => {
  const plain = testPlan()
  const filled = testPlan('investment')
  const additions = [
    { id: 'pigment' as const, pct: 3 },
    { id: 'fibre' as const, pct: 1 },
  ]
  const { properties } = plain.plaster
  const tinted = {
    ...plain,
    plaster: { name: 'Tinted', properties: blend(properties, additions), additions },
  }
  expect(stepsOf(tinted, batchesOf(tinted).batches).map((s) => s.id)).not.toContain('check_air')
  for (const step of ['weigh_powder', 'start_sift', 'sift'] as const) {
    expect(cautionsOf(step, plain, false)).toContain('dust')
    expect(cautionsOf(step, filled, false)).toContain('silica')
    // Pigment and fibre are no silica.
    expect(cautionsOf(step, tinted, false)).toEqual(['dust'])
  }
  for (const step of ['stir', 'pour'] as const) expect(cautionsOf(step, plain, false)).toContain('body')
  expect(cautionsOf('demould', plain, false)).toEqual(['body'])
  expect(cautionsOf('demould', plain, true)).toEqual(['hot'])
  expect(cautionsOf('dry', plain, true)).toEqual(['sanding'])
  expect(cautionsOf('dry', filled, true)).toEqual(['kiln', 'silica'])
  const lifeCast = testPlan('pop', { mould: { ...plain.mould, kind: 'alginate' } })
  expect(cautionsOf('prepare', lifeCast, false)).toEqual(['airway'])
  expect(cautionsOfPlan(plain)).toEqual(['dust'])
  expect(cautionsOfPlan({ ...filled, mould: { ...plain.mould, kind: 'alginate', cavityMl: 3000 } })).toEqual([
    'silica',
    'airway',
    'body',
  ])
  // Said once at a step, however many reasons there are.
  for (const { id } of stepsOf(filled, batchesOf(filled).batches)) {
    const said = cautionsOf(id, filled, true)
    expect(said).toEqual([...new Set(said)])
  }
})

it('says the next thing in words at every point of a pour', () => {
  const run = wholeRun()
  const at = (n: number, nowMin: number) => {
    const facts = fold(testPlan(), run.slice(0, n))
    return nextThing(facts, viewPour(facts, nowMin * MIN), nowMin * MIN)
  }
  expect(at(0, 0)).toEqual({ stage: 'Mould', doing: 'Get the mould ready', time: '', late: false })
  expect(at(5, 7)).toEqual({ stage: 'Soak', doing: 'Start stirring in', time: '1:00', late: false })
  expect(at(5, 8.5)).toEqual({ stage: 'Soak', doing: 'Start stirring', time: 'now', late: true })
  expect(at(7, 10.5)).toMatchObject({ stage: 'Pour', doing: 'Pour within' })
  expect(at(7, 25)).toMatchObject({ stage: 'Pour', doing: 'Pour: it may be thickening', late: true })
  expect(at(7, 400)).toMatchObject({ doing: 'Past its working time: say what happened', late: true })
  expect(at(9, 200)).toMatchObject({ stage: 'Demould', doing: 'Take it out', late: true })
  expect(at(13, 1e5)).toEqual({ stage: 'Dry', doing: 'Good', time: '', late: false })
})

it('a refusal tells a caster what to do, with the numbers', () => {
  const tooStiff = evaluatePlan(testPlan('pottery', { consistency: 16 })).issues[0]!
  expect(issueWords(tooStiff, units)).toMatch(/16 parts of water cannot harden.*18\.1.*Use more water/)
  const scoop = { measureMl: 250, packing: 'scooped', weighedKgM3: 3000 } as const
  const heavy = evaluatePlan(testPlan('pottery', { ratioMethod: 'by_volume', scoop })).issues[0]!
  // 2500 and 3000 kg/m³ over 16.0185 (from memory).
  expect(issueWords(heavy, units)).toMatch(/weighed scoop: at most 156 lb\/ft³, not 187 lb\/ft³/)
  const off = fold(testPlan(), [
    eventAt(1, { type: 'weighed', what: 'water', massG: 900 }),
    eventAt(2, { type: 'weighed', what: 'powder', massG: 1000 }),
  ])
  expect(issueWords(off.issues[0]!, units)).toContain('gives 90 parts of water to 100; the plan says 70')
})

it('puts every kind of event into the record', () => {
  const line = (body: Parameters<typeof eventWords>[0]) =>
    eventWords(body, {
      mass: (g) => `${g} g`,
      temp: (c) => `${c} °C`,
      volume: (v) => `${v} ml`,
      length: (v) => `${v} mm`,
      density: (v) => `${v} kg/m³`,
      size: (v) => `${v} mm`,
    })
  expect(line({ type: 'weighed', what: 'powder', massG: 5 })).toBe('Weighed 5 g of plaster')
  expect(line({ type: 'weighed', what: 'water', massG: 125, scoops: { count: 0.5, measureMl: 250 } })).toBe(
    '0.5 × 250 ml of water, 125 g',
  )
  expect(line({ type: 'touch', cue: 'warm', seen: false })).toBe('Feels warm: not yet')
  expect(line({ type: 'temperature', place: 'slurry', tempC: 19 })).toBe('19 °C (slurry)')
  expect(line({ type: 'finished', verdict: 'failed', reason: 'short' })).toBe('Failed: short')
  for (const { body } of wholeRun()) expect(line(body).length).toBeGreaterThan(2)
})

it('every figure that a record may hold against a piece is said as a whole line, for and against', () => {
  for (const sign of SIGNS)
    for (const [value, lnRatio] of SIGN[sign].worth) {
      const recalled = 'toldOnly' in SIGN[sign] ? RECALLED.find((r) => sign in saidBy(r))! : undefined
      const said = signWords({ sign, value, actual: value, limit: 1, lnRatio, recalled }, units)
      expect(said, sign).toMatch(/^[A-Z].{6,}[^.:]$/)
      expect(said, sign).not.toMatch(/NaN|undefined/)
    }
  const late = { sign: 'full_at', value: 1.5, actual: 900, limit: 600, lnRatio: 3 } as const
  expect(signWords(late, units)).toBe('Full after 15 min; working time 10 min')
  expect(faultText({ kind: 'air_holes', sizeMm: 3, place: 'face' }, units)).toBe(
    'Pinholes, 1/8 in on the face',
  )
})

it('what was learnt is said as a person would', () => {
  expect(factorSentence('set_time', 1.18, 6)).toBe('sets 18 % slower than its card: 6 pours')
  expect(factorSentence('drying', 0.8, 1)).toBe('dries 20 % slower than its air would: 1 pour')
  expect(factorText('set_time', 1.01)).toBe('sets as its card says')
  for (const id of FACTORS) for (const f of [0.7, 1, 1.4]) expect(factorText(id, f)).not.toContain('#')
})

it('every class names where its numbers come from, every stage its ground', () => {
  for (const c of PLASTER_CLASSES) expect(provenanceWords(c.consistency.provenance)).toContain('from memory')
  expect(provenanceWords(plasterClass('pop').halfHydrationMin.provenance)).toContain('no source')
  expect(new Set(STAGES.map(groundOf)).size).toBe(4)
})

it('says limits in the workshop’s own units', () => {
  expect(VOLUME_ISSUE_WORDS.clearance_too_small(12.7, 25.4, units)).toContain(
    'Only 1/2 in of gel at the side: under 1 in',
  )
  expect(THICKNESS_WORDS.print_too_thin(6.35, 12.7, units)).toBe(
    '1/4 in over a print is thin: 1/2 in or more lifts in one piece.',
  )
})
