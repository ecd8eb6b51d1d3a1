import { expect, it } from 'vitest'
import { asksWhatFollows, evaluatePlan, keepPlan, outlookFrom, takePlan } from '#core/pour'
import type { EventBody, KeptPlan, PourEvent } from '#core/pour'
import { eventAt, testPlan, wholeRun, fold } from '../../../tests/unit/plans'
import { massToWeighG, poolModeOf } from '~/run/knock/advance'
import { dryingLeft } from '~/parts/pour/dryingLeft'
import { comparisonOf } from '~/parts/pour/comparison'
import { ringArcs } from './ringArcs'
import { habits } from '~/stores/habits'
import { figure, plain } from './figures'
import { dayText, durationRangeText, durationText, dayInFull, momentText, spanSpoken, spanText } from './time'
import { outOf, timelineOf } from '~/plan/see/timeline'

it('reads spans as a clock does', () => {
  expect([0, 59_999, 250_000, -61_000].map(spanText)).toEqual(['0:00', '0:59', '4:10', '1:01'])
  expect([3_600_000, 86_399_000, 2.5 * 86_400_000].map(spanText)).toEqual(['1 h 00', '23 h 59', '2.5 days'])
  expect(spanSpoken(250_000)).toBe('4 minutes')
})

it('says durations without a false decimal, ranges with one unit', () => {
  expect([40, 600, 9000, 300_000].map(durationText)).toEqual(['40 s', '10 min', '3 h', '3.5 days'])
  expect(durationRangeText(600, 1200)).toBe('10–20 min')
  expect(durationRangeText(3600, 9000)).toBe('60 min – 3 h')
})

it('writes figures, days and times as the workshop does', () => {
  const at = new Date(2026, 10, 26, 14, 5).getTime()
  const later = at + 3 * 86_400_000
  const written = () => [
    figure(1.25, 2),
    plain(1.5),
    durationText(300_000),
    momentText(at, at),
    momentText(at, later),
    momentText(at - 5 * 3_600_000, at),
    dayText(at, later),
    dayInFull(new Date(2025, 2, 9).getTime()),
  ]
  try {
    habits.value = { decimalSign: 'comma', system: 'metric' }
    const comma = ['1,25', '1,5', '3,5 days', '14:05', 'Thu 26 Nov, 14:05', '09:05', '26 Nov', '9 Mar 2025']
    expect(written()).toEqual(comma)
    habits.value = { decimalSign: 'point', system: 'us' }
    const american = [
      '1.25',
      '1.5',
      '3.5 days',
      '2:05 PM',
      'Thu Nov 26, 2:05 PM',
      '9:05 AM',
      'Nov 26',
      'Mar 9, 2025',
    ]
    // Between the time and its half of the day stands a narrow space.
    expect(written().map((text) => text.replaceAll('\u202f', ' '))).toEqual(american)
  } finally {
    habits.value = { decimalSign: null, system: 'metric' }
  }
})

it('powder follows a little more water by itself, and much more only once that was said', () => {
  const plan = testPlan()
  const [ready] = wholeRun()
  const planned = fold(plan, []).planned
  const after = (share: number, ...more: EventBody[]) =>
    fold(plan, [
      ready!,
      eventAt(2, { type: 'weighed', what: 'water', massG: planned.waterG * share }),
      ...more.map((body, i) => eventAt(3 + i, body)),
    ])
  const powderG = (facts: ReturnType<typeof after>) => massToWeighG('weigh_powder', facts)! / planned.powderG
  expect(powderG(after(1.02))).toBeCloseTo(1.02, 2)
  expect(asksWhatFollows(after(1.02).inHand)).toBe(false)
  expect(powderG(after(1.56))).toBeCloseTo(1, 2)
  expect(asksWhatFollows(after(1.56).inHand)).toBe(true)
  const told = (follows: boolean) => after(1.56, { type: 'powder_follows', follows })
  expect(powderG(told(true))).toBeCloseTo(1.56, 2)
  expect(powderG(told(false))).toBeCloseTo(1, 2)
  expect(asksWhatFollows(told(false).inHand)).toBe(false)
  // Put right, or weighed anew, it is another question.
  const out = { type: 'corrected', how: 'water_out', massG: 0.56 * planned.waterG } as const
  expect(asksWhatFollows(after(1.56, out).inHand)).toBe(false)
  const anew = { type: 'weighed', what: 'water', massG: planned.waterG * 0.8 } as const
  expect(asksWhatFollows(after(1.56, { type: 'powder_follows', follows: true }, anew).inHand)).toBe(true)
})

it('a knock never takes a piece out of the mould early', () => {
  expect(poolModeOf('demould', 'set')).toBe('wait')
  expect(poolModeOf('demould', 'demould')).toBe('demould')
})

it('lays the timeline out within its own width', () => {
  const evaluation = evaluatePlan(testPlan('hsgc'))
  if (!evaluation.ok) throw new Error('plan refused')
  const line = timelineOf(evaluation.outcome, 120, 120)
  for (const mark of line.marks) expect(mark.range.high).toBeLessThanOrEqual(line.endS)
  expect(line.steps.map((s) => s.fromS)).toEqual([...line.steps.map((s) => s.fromS)].sort((a, b) => a - b))
  expect(line.ticks.length).toBeLessThanOrEqual(9)
})

it('marks what went differently from the plan', () => {
  const units = { mass: (g: number) => `${g}`, temp: (c: number) => `${c}` }
  const run = wholeRun().map((e) => (e.body.type === 'demoulded' ? { ...e, occurredAtMs: 20 * 60_000 } : e))
  const rows = comparisonOf(fold(testPlan(), run), units)
  expect(rows.find((r) => r.what === 'Water')?.off).toBe(false)
  expect(rows.find((r) => r.what === 'Out after')?.off).toBe(true)
})

it('the record says what the plan promised, whatever was learnt since; where it is not known, nothing', () => {
  const units = { mass: (g: number) => `${g}`, temp: (c: number) => `${c}` }
  const planned = (plan: KeptPlan, events: readonly PourEvent[]) =>
    comparisonOf(outlookFrom(plan, events), units).find((r) => r.what === 'Out after')!.planned
  const taken = takePlan(testPlan())
  const evaluation = evaluatePlan(testPlan())
  if (!evaluation.ok) throw new Error('plan refused')
  // As the worksheet said it, from the first powder in the water.
  expect(planned(taken, [])).toBe(durationText(outOf(evaluation.outcome).out.mid))
  const run = wholeRun().slice(0, 9)
  const poured = run.find((e) => e.body.type === 'stirred')!
  const cold = eventAt(poured.occurredAtMs, { type: 'temperature', place: 'slurry', tempC: 6 })
  const seen = [...run, cold]
  expect(outlookFrom(taken, seen).demould.recommendedS).toBeGreaterThan(1.2 * taken.kept.promised!.outS)
  expect(planned(taken, seen)).toBe(planned(taken, []))
  expect(planned(keepPlan(testPlan()), seen)).toBe('–')
})

it('draws nine rings that touch neither each other nor the edge', () => {
  const arcs = ringArcs([1, 1, 1, 0.5, 0, 0, 0, 0, 0])
  expect(arcs).toHaveLength(9)
  const edges = arcs.flatMap((a) => [a.radius - a.width * 0.4, a.radius + a.width * 0.4])
  expect(edges).toEqual([...edges].sort((a, b) => a - b))
  expect(edges[0]).toBeGreaterThan(0)
  expect(edges.at(-1)).toBeLessThan(50)
  expect(arcs.map((a) => a.material)).toEqual([
    'before',
    'before',
    'wet',
    'wet',
    'wet',
    'wet',
    'warm',
    'warm',
    'dry',
  ])
})

it('says how far a drying piece is, and never a time that has gone by', () => {
  const facts = fold(testPlan(), wholeRun().slice(0, 12))
  const drying = facts.drying!
  const at = (days: number) => dryingLeft(drying, facts, drying.startMs + days * 86_400_000)
  expect(at(1)).toMatchObject({ dry: false, weighingsUsed: 2 })
  expect(at(1).text).toMatch(/^[\d.]+(–| days – | h – )[\d.]+ days$/)
  expect(at(1).expectedG).toBeGreaterThan(at(3).expectedG)
  expect(at(60)).toMatchObject({ dry: true, text: '0 s' })
  // Wet it has .45 of its dry strength, and most of the rest comes at the very end.
  expect(at(0).strength).toBeCloseTo(0.45, 2)
  expect(at(60).strength).toBeGreaterThan(0.95)
})
