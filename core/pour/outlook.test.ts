import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEMO_MOULDS } from '../../server/demo/moulds'
import { eventAt, fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { forecastSet, learnPace } from '../forecast'
import {
  actBefore,
  actNow,
  conditionsOf,
  evaluatePlan,
  evidenceOf,
  fits,
  foldPour,
  forecastPour,
  heatPiecesOf,
  keepPlan,
  outlookFrom,
  outlookOf,
  planMould,
  problemIf,
  problemOf,
  stageOf,
  viewPour,
  type EventBody,
  type PourEvent,
  type PourPlan,
  type ProbeTrace,
  type ThermometerTold,
} from '.'

const MIN = 60_000
const plan = testPlan()
const poured = wholeRun().filter((e) => e.occurredAtMs <= 12 * MIN)
const at = (min: number, body: EventBody) => eventAt(min * MIN, body)

describe('facts and forecast', () => {
  it('are plain data: they cross to a worker and back and are the same', () => {
    const facts = foldPour(keepPlan(plan), wholeRun())
    expect(structuredClone(facts)).toEqual(facts)
    const forecast = forecastPour(facts)
    expect(structuredClone(forecast)).toEqual(forecast)
    const evidence = evidenceOf(facts, [])!
    expect(structuredClone(evidence)).toEqual(evidence)
  })
  it('with nothing seen, what is learnt is what was expected', () => {
    const facts = foldPour(keepPlan(plan), poured)
    const learnt = learnPace(evidenceOf(facts, [])!, 700)
    const [plain, seen] = [forecastPour(facts), forecastPour(facts, learnt)].map((f) => outlookOf(facts, f))
    expect(seen!.demould.recommendedS / plain!.demould.recommendedS).toBeCloseTo(1, 3)
    expect(seen!.sigmaLn / plain!.sigmaLn).toBeCloseTo(1, 2)
    expect(seen!.learnt!.next).toBeDefined()
  })
  it('a look makes the advice surer and rings for the next one, once each', () => {
    const before = foldPour(keepPlan(plan), poured)
    const felt = [...poured, at(26, { type: 'touch', cue: 'thumbnail_no_dent', seen: true })]
    const facts = foldPour(keepPlan(plan), felt)
    const learnt = learnPace(evidenceOf(facts, [])!, 1500)
    const outlook = outlookOf(facts, forecastPour(facts, learnt))
    expect(outlook.sigmaLn).toBeLessThan(0.7 * outlookOf(before, forecastPour(before)).sigmaLn)
    const looks = viewPour(outlook, 27 * MIN).otherClocks.filter((c) => c.id === 'look')
    expect(looks.map((c) => c.cue)).toEqual([learnt.next!.cue])
    expect(looks[0]!.cue).not.toBe('thumbnail_no_dent')
  })
  it('already so, not yet and just now are told apart', () => {
    const touch = (more: object) =>
      at(26, { type: 'touch', cue: 'gloss_gone', seen: true, ...more } as EventBody)
    const answer = (more: object) =>
      evidenceOf(foldPour(keepPlan(plan), [...poured, touch(more)]), [])!.cues[0]!.answer
    expect([answer({}), answer({ already: true }), answer({ seen: false })]).toEqual([
      'now',
      'already',
      'not_yet',
    ])
  })
  it('a kept temperature of the piece and a thermometer’s trace are both counted, of the right bowl', () => {
    const facts = foldPour(keepPlan(plan), [
      ...poured,
      at(30, { type: 'temperature', place: 'slurry', tempC: 31 }),
    ])
    const trace = (batch: number, device = 'bath', tempC = 32): ProbeTrace => ({
      device,
      channel: 't1',
      batch,
      readings: [31, 35].map((m) => ({ atMs: m * MIN, tempC })),
    })
    const { probes } = evidenceOf(facts, [trace(0), trace(1)])!
    expect(probes.map((p) => p.readings.map((r) => r.tempC))).toEqual([[32, 32], [31]])
    expect(probes[0]!.readings[0]!.timeS).toBeCloseTo((31 * MIN - facts.settingStartMs!) / 1000)
  })
  it('what was said of a doubted thermometer counts: in °F, not in this piece until then, or right; and only of that one', () => {
    const series = (...events: PourEvent[]) => {
      const facts = foldPour(keepPlan(plan), [...poured, ...events])
      return evidenceOf(facts, [trace(0, 'bath', 90), trace(0, 'spare', 25)])!.probes
    }
    const trace = (batch: number, device: string, tempC: number): ProbeTrace => ({
      device,
      channel: 't1',
      batch,
      readings: [31, 35].map((m) => ({ atMs: m * MIN, tempC })),
    })
    const told = (is: ThermometerTold, atMin = 33) =>
      at(atMin, { type: 'thermometer_told', device: 'bath', channel: 't1', is })
    const temps = (of: ReturnType<typeof series>) => of.map((p) => p.readings.map((r) => r.tempC))
    expect(temps(series(told('fahrenheit')))).toEqual([
      [(90 - 32) / 1.8, (90 - 32) / 1.8],
      [25, 25],
    ])
    for (const is of ['in_air', 'elsewhere', 'off'] as const)
      expect(temps(series(told(is)))).toEqual([[90], [25, 25]])
    expect(temps(series(told('off', 36)))).toEqual([[25, 25]])
    expect(series(told('right')).map((p) => [p.knownBy, p.trusted])).toEqual([
      ['bath t1', true],
      ['spare t1', undefined],
    ])
    const no = told('fahrenheit')
    expect(temps(series(no, told('right', 34)))).toEqual([
      [90, 90],
      [25, 25],
    ])
    expect(temps(series(no, at(34, { type: 'void', targetId: no.id })))).toEqual([
      [90, 90],
      [25, 25],
    ])
  })
  it('a typed surface temperature is evidence of the surface', () => {
    const facts = foldPour(keepPlan(plan), [
      ...poured,
      at(30, { type: 'temperature', place: 'surface', tempC: 29 }),
    ])
    expect(evidenceOf(facts, [])!.probes).toMatchObject([{ of: 'surface', readings: [{ tempC: 29 }] }])
  })
  it('it was another plaster, or the scale told wrong: the forecast goes by that, until it is taken back', () => {
    const outlook = (...events: PourEvent[]) => outlookFrom(keepPlan(plan), [...poured, ...events])
    const before = outlook()
    const stone = at(40, { type: 'plaster_was', plaster: testPlan('hsgc').plaster })
    const after = outlook(stone)
    expect(after.plan.plaster.properties.classId).toBe('hsgc')
    expect(after.setting.timeS.final_set.mid).not.toBeCloseTo(before.setting.timeS.final_set.mid, 0)
    expect(outlook(stone, at(41, { type: 'void', targetId: stone.id })).setting).toEqual(before.setting)
    // One that this much water could never make hard was not it.
    const impossible = {
      ...testPlan().plaster,
      properties: { ...testPlan().plaster.properties, hemihydrateFraction: 40 },
    }
    expect(outlook(at(40, { type: 'plaster_was', plaster: impossible })).plan.plaster).toEqual(
      before.plan.plaster,
    )
    const unsure = outlook(at(40, { type: 'scale_doubted' }))
    expect(unsure.sigmaLn).toBeGreaterThan(before.sigmaLn)
    expect(unsure.settingInput.ratioSigmaLn).toBeGreaterThan(3 * before.settingInput.ratioSigmaLn)
  })
  it('nothing is evidence before it is in the mould', () => {
    const dry = foldPour(
      keepPlan(plan),
      poured.filter((e) => e.body.type !== 'poured' && e.body.type !== 'tapped'),
    )
    expect(evidenceOf(dry, [])).toBeUndefined()
    // Working time is the bowl's until then: a cold mould does not know of it.
    const cold = foldPour(keepPlan({ ...plan, mouldTempC: 3 }), poured.slice(0, 7))
    const warm = foldPour(keepPlan(plan), poured.slice(0, 7))
    const work = (facts: typeof cold) => forecastPour(facts).bowls[0]!.setting.timeS.work_end.mid
    expect(work(cold)).toBeCloseTo(work(warm), 6)
  })
  it('the piece waits for the bowl that is ready last', () => {
    const layers: PourPlan = {
      ...plan,
      filling: 'slush',
      batching: {
        split: { by: 'layers', layers: ['First', 'Second'].map((name) => ({ name, sharePct: 50 })) },
        bowl: null,
        pourRateMlMin: null,
        scaleCapacityG: null,
      },
    }
    const kept = keepPlan(layers)
    const bowl = (batch: number, from: number) =>
      (['sift_started', 'sifted', 'soaked', 'stirred', 'poured'] as const).map((type, i) =>
        at(from + 2 * i, {
          type,
          ...(type === 'stirred' ? { manner: 'hand' } : {}),
          ...(batch > 0 ? { batch } : {}),
        } as EventBody),
      )
    const facts = foldPour(kept, [at(0, { type: 'mould_ready' }), ...bowl(0, 1), ...bowl(1, 20)])
    const outlook = outlookOf(facts, forecastPour(facts))
    const due = outlook.batches.map((b) => b.settingStartMs! + b.demould.recommendedS * 1000)
    expect(outlook.settingStartMs! + outlook.demould.recommendedS * 1000).toBeCloseTo(Math.max(...due), -1)
    expect(due[1]! - due[0]!).toBeGreaterThan(15 * MIN)
  })
  it('a forecast of fewer bowls, or of a piece that does not dry yet, does not fit', () => {
    const facts = foldPour(keepPlan(plan), poured)
    const more = foldPour(keepPlan(plan), [
      ...poured.slice(0, 7),
      at(11, { type: 'ran_short', missingMl: 90 }),
    ])
    expect(fits(facts, forecastPour(facts))).toBe(true)
    expect(fits(more, forecastPour(facts))).toBe(false)
    expect(fits(foldPour(keepPlan(plan), wholeRun()), forecastPour(facts))).toBe(false)
  })
  it('an impression is rung for before its gel dries', () => {
    const tray = fold({ ...plan, mould: { ...plan.mould, kind: 'impression_tray' } }, poured)
    const { clock } = viewPour(tray, 20 * MIN)
    expect(stageOf(tray.next!)).toBe('demould')
    expect(clock).toMatchObject({ id: 'demould', untilMs: tray.settingStartMs! + 120 * MIN })
    expect(viewPour(fold(plan, poured), 20 * MIN).clock!.untilMs).toBeUndefined()
  })
})

describe('the piece that the heat model takes', () => {
  const pieceOf = (key: keyof typeof DEMO_MOULDS) => {
    const { plaster: _, ...card } = DEMO_MOULDS[key]
    const mould = planMould([{ ...card, mouldId: null, count: 1 }])!
    return heatPiecesOf({ ...plan, mould })
  }
  const thickest = () => Object.values(DEMO_MOULDS).reduce((a, b) => (b.thicknessMm > a.thicknessMm ? b : a))
  it('by its form: plates are slabs in their own thickness, prints lie in the ground', () => {
    expect(pieceOf('tile').piece).toMatchObject({ shape: 'slab', sizeMm: 18, top: 'open' })
    const all = (Object.keys(DEMO_MOULDS) as (keyof typeof DEMO_MOULDS)[]).map(
      (k) => [k, pieceOf(k)] as const,
    )
    for (const [key, { piece }] of all) {
      expect(piece.sizeMm, key).toBeGreaterThan(2)
      expect(piece.sizeMm, key).toBeLessThan(130)
    }
    const inGround = all.filter(([, { piece }]) => !['bench', 'air'].includes(piece.standsOn))
    expect(inGround.length).toBeGreaterThan(0)
    for (const [, { piece }] of inGround) expect(piece.walls).toEqual([])
  })
  it('of several moulds the thickest, in whatever order they stand, also where the form of one is unknown', () => {
    const { plaster: _, ...tile } = DEMO_MOULDS.tile
    const known = (volumeMl: number) => ({
      parts: [
        { role: 'add' as const, count: 1, method: { by: 'known' as const, volumeMl, plusMinusPct: 5 } },
      ],
      cavities: 1,
      check: null,
      trust: 'parts' as const,
    })
    const { plaster: __, ...other } = thickest()
    const set = [tile, { ...tile, volume: known(100) }, other].map((card) => ({
      ...card,
      mouldId: null,
      count: 1,
    }))
    const alone = heatPiecesOf({ ...plan, mould: planMould([set[2]!])! }).piece
    expect(alone.sizeMm).toBeGreaterThan(18)
    for (const moulds of [set, [...set].reverse()])
      expect(heatPiecesOf({ ...plan, mould: planMould(moulds)! }).piece).toMatchObject({
        shape: alone.shape,
        sizeMm: alone.sizeMm,
      })
  })
  it('a form nobody knows is as thick as the plan says, and less sure', () => {
    expect(heatPiecesOf({ ...plan, mould: { ...plan.mould, thicknessMm: 40 } }).piece.sizeMm).toBe(40)
    const known = evaluatePlan(plan)
    expect(known.ok && known.outcome.heat.even).toBe(true)
  })
})

describe('what if', () => {
  const problem = problemOf(foldPour(keepPlan(plan), poured), foldPour(keepPlan(plan), poured).inHand)
  const out = (change: Parameters<typeof problemIf>[2]) => forecastSet(problemIf(problem, plan, change))
  it('nothing changed is the same', () => {
    expect(out({}).demould).toEqual(forecastSet(problem).demould)
    expect(out({}).marks).toEqual(forecastSet(problem).marks)
  })
  it('goes the way casters know it', () => {
    const asIs = forecastSet(problem)
    expect(out({ waterTempC: 5 }).demould.recommendedS).toBeGreaterThan(asIs.demould.recommendedS)
    expect(out({ stirS: 400 }).setting.timeS.final_set.mid).toBeLessThan(asIs.setting.timeS.final_set.mid)
    expect(out({ consistency: 85 }).demould.recommendedS).toBeGreaterThan(asIs.demould.recommendedS)
    expect(out({ sizeMm: 60 }).marks.peakC).toBeGreaterThan(asIs.marks.peakC)
    expect(out({ roomTempC: 5 }).demould.recommendedS).toBeGreaterThan(asIs.demould.recommendedS)
    expect(out({ material: 'wet_clay' }).marks.peakC).toBeLessThan(asIs.marks.peakC)
  })
  it('always stays a problem that can be solved', () => {
    const change = fc.record(
      {
        waterTempC: fc.integer({ min: 2, max: 45 }),
        stirS: fc.integer({ min: 30, max: 900 }),
        consistency: fc.integer({ min: 50, max: 115 }),
        sizeMm: fc.integer({ min: 3, max: 200 }),
        roomTempC: fc.integer({ min: 0, max: 45 }),
        material: fc.constantFrom(
          'silicone' as const,
          'plaster' as const,
          'sand_soil' as const,
          'metal' as const,
        ),
      },
      { requiredKeys: [] },
    )
    fc.assert(
      fc.property(change, (of) => {
        const { demould, marks } = out(of)
        expect(Number.isFinite(demould.recommendedS)).toBe(true)
        expect(marks.peakC).toBeLessThan(98)
      }),
      { numRuns: 60 },
    )
  })
})

describe('cold, hot, big', () => {
  const of = (change: Partial<PourPlan>, massG = 1500) => {
    const unweighed = poured.filter((e) => e.body.type !== 'weighed')
    const facts = foldPour(keepPlan({ ...plan, ...change }), unweighed)
    const problem = problemOf(facts, facts.inHand)
    return { problem, found: conditionsOf(problem, forecastSet(problem), massG) }
  }
  const cold = { tempC: 5, rhPct: 80, speedMS: 0.3 }
  it('is found by place, heat and mass', () => {
    expect(of({}).found).toEqual([])
    expect(of({ air: cold }).found).toContain('cold_room')
    const print = { ...plan.mould, kind: 'ground' as const, thicknessMm: 15 }
    expect(of({ air: cold, mould: print }).found).toEqual(
      expect.arrayContaining(['cold_ground', 'never_warm']),
    )
    expect(of({ air: { ...cold, tempC: 33 } }).found).toContain('hot_place')
    expect(of({ sun: 'full' }).found).toContain('hot_place')
    const [shade, sun] = [{}, { sun: 'full' } as const].map((c) => forecastSet(of(c).problem).marks)
    expect(sun!.surfacePeakC).toBeGreaterThan(shade!.surfacePeakC + 3)
    expect(of({}, 5001).found).toContain('heavy')
    expect(of({ ...testPlan('hsgc'), mould: { ...plan.mould, thicknessMm: 90 } }).found).toContain(
      'strong_heat',
    )
    // A mix is tried from 2 to 40 °C.
    for (const tempC of [1, 42])
      expect(of({ waterTempC: tempC, powderTempC: tempC }).found).toContain('untried')
  })
  it('says what carrying it to the warm now would gain, and nothing where it would gain nothing', () => {
    const { problem, found } = of({ air: cold, waterTempC: 8, powderTempC: 8 })
    const pace = { meanLn: 0, sigmaLn: 0.3 }
    const early = actNow(problem, pace, found, 800)!
    expect(early.id).toBe('to_the_warm')
    expect(early.outS).toBeLessThan(forecastSet(problem).demould.recommendedS)
    // The later it is carried, the less it gains.
    const late = actNow(problem, pace, found, 1800)
    if (late) expect(late.outS).toBeGreaterThan(early.outS)
    expect(actNow(problem, pace, [], 800)).toBeUndefined()
  })
  it('other water, before it is mixed', () => {
    const { found } = of({ air: cold, waterTempC: 8, powderTempC: 8 })
    const outcome = evaluatePlan({ ...plan, air: cold, waterTempC: 8, powderTempC: 8 })
    if (!outcome.ok) throw new Error('refused')
    const act = actBefore(
      outcome.outcome.problem,
      { ...plan, air: cold, waterTempC: 8, powderTempC: 8 },
      found,
    )!
    expect(act.id).toBe('warmer_water')
    expect(act.outS).toBeLessThan(outcome.outcome.demould.recommendedS)
  })
})
