import { describe, expect, it } from 'vitest'
import { DEMO_MOULDS } from '../../../server/demo/moulds'
import { eventAt, fold, testPlan, wholeRun } from '../../../tests/unit/plans'
import { targetFractionLeft, timeToFractionS } from '../../drying'
import { blend, plasterProperties } from '../../plaster'
import {
  dryUsesOf,
  dryingAhead,
  finishWindows,
  planMould,
  viewPour,
  type EventBody,
  type PourEvent,
  type PourPlan,
} from '..'

const MIN = 60_000
const DAY = 86_400_000
const ID = '00000000-0000-4000-8000-0000000000aa'
const at = (min: number, body: EventBody): PourEvent => eventAt(min * MIN, body)
const tile: PourPlan = {
  ...testPlan('pop'),
  mould: planMould([{ ...DEMO_MOULDS.tile, mouldId: ID, count: 1 }])!,
}

describe('a piece that is out', () => {
  const facts = fold(tile, wholeRun().slice(0, 11))
  const out = facts.drying!.startMs
  it('has work while it is soft, and other work once it is dry, each in its window', () => {
    const windows = new Map(finishWindows(facts).map((w) => [w.task, w]))
    expect(windows.get('knock_bumps')!.fromMs).toBe(out)
    expect(windows.get('knock_bumps')!.untilMs).toBeLessThan(windows.get('sand_dry')!.fromMs)
    expect(windows.get('paint')!.fromMs).toBeLessThan(windows.get('sand_dry')!.fromMs)
    expect(windows.get('sand_dry')!.fromMs).toBeLessThan(windows.get('seal')!.fromMs)
    expect(windows.get('rinse_dab')!.fromMs).toBe(out + DAY / 2)
    // Of an ear out of gel, the gel is picked; of a tile, nothing.
    expect(windows.has('pick_gel')).toBe(false)
    const ear = { ...tile, mould: planMould([{ ...DEMO_MOULDS.ear, mouldId: ID, count: 1 }])! }
    expect(finishWindows(fold(ear, wholeRun().slice(0, 11))).map((w) => w.task)).toContain('pick_gel')
  })
  it('carried elsewhere its leg begins there, and never before it was out', () => {
    const carried = (min: number) =>
      fold(tile, [
        ...wholeRun().slice(0, 11),
        at(min, {
          type: 'dries_at',
          spot: { placeId: null, name: '', air: { tempC: 30, rhPct: 30, speedMS: 1 } },
          lies: 'both_faces',
        }),
      ]).drying!.legs.map((l) => l.fromMs)
    expect(carried(300)).toEqual([out, 300 * MIN])
    expect(carried(60)).toEqual([out, out])
  })
  it('each window stands where the forecast has so much water left', () => {
    const { forecast } = facts.drying!
    const sand = finishWindows(facts).find((w) => w.task === 'sand_dry')!
    const left = 0.03 / facts.mix.freeWaterOfDryMass
    expect(sand.fromMs).toBeCloseTo(out + 1000 * timeToFractionS(forecast, left).mid, 3)
  })
  it('nothing that shuts the water in is offered for what works by drawing it', () => {
    const jug = { ...tile, mould: planMould([{ ...DEMO_MOULDS.jug, mouldId: ID, count: 1 }])! }
    const tasks = finishWindows(fold(jug, wholeRun().slice(0, 11))).map((w) => w.task)
    expect(tasks).not.toContain('seal')
    expect(tasks).not.toContain('paint')
  })
  it('rings for the soft work in good time, until it is done', () => {
    const soft = (events: PourEvent[]) =>
      viewPour(fold(tile, events), out + 1).otherClocks.find((c) => c.id === 'soft_finish')
    const clock = soft(wholeRun().slice(0, 11))!
    expect(clock.dueMs).toBeLessThan(clock.untilMs!)
    const done = finishWindows(facts).map((w, i) => at(92 + i, { type: 'finish_done', task: w.task }))
    expect(soft([...wholeRun().slice(0, 11), ...done])).toBeUndefined()
  })
  it('will do for each use on a date, in order, the wanted one marked', () => {
    const { dates } = dryingAhead(facts, out)!
    expect(dates.filter((d) => d.wanted).map((d) => d.target)).toEqual(['paint'])
    for (const { atMs } of dates) expect(atMs.low <= atMs.mid && atMs.mid <= atMs.high).toBe(true)
    // It was lifted when it came out: that is no date.
    expect(dates.map((d) => d.target)).not.toContain('handle')
    expect(dates.at(-1)!.target).toBe('full_strength')
    // Of a piece of no known use: a slip mould's pores are free long before it may be sealed.
    const any = fold(testPlan('pop'), wholeRun().slice(0, 11))
    const targets = dryingAhead(any, any.drying!.startMs)!.dates.map((d) => d.target)
    expect(targets).toEqual(['pottery_mould', 'paint', 'sand', 'seal', 'full_strength'])
  })
  it('is for what such a piece is used for, and for what the plan says: no shell is painted, no tile goes into a kiln', () => {
    const jug = planMould([{ ...DEMO_MOULDS.jug, mouldId: ID, count: 1 }])!
    expect(dryUsesOf(tile)).toEqual(['handle', 'paint', 'sand', 'seal', 'full_strength'])
    expect(dryUsesOf({ ...testPlan(), mould: jug, dryTarget: 'pottery_mould' })).toEqual([
      'handle',
      'sand',
      'pottery_mould',
      'full_strength',
    ])
    const shell = { ...testPlan('investment'), mould: tile.mould }
    expect(dryUsesOf({ ...shell, dryTarget: 'kiln' })).toEqual(['handle', 'kiln', 'full_strength'])
    expect(dryUsesOf({ ...shell, dryTarget: 'paint' })).toContain('paint')
    expect(dryUsesOf({ ...testPlan('investment'), dryTarget: 'kiln' })).toEqual([
      'handle',
      'kiln',
      'full_strength',
    ])
    // A tinted tile is no shell; plaster with silica in it is.
    const tinted = blend(plasterProperties('pop'), [{ id: 'pigment', pct: 2 }])
    expect(dryUsesOf({ ...tile, plaster: { ...tile.plaster, properties: tinted } })).toEqual(dryUsesOf(tile))
    const additions = [{ id: 'silica' as const, pct: 100 }]
    expect(dryUsesOf({ ...tile, plaster: { ...tile.plaster, additions } })).toContain('kiln')
    // It need not be dry for it, only no longer shine.
    expect(targetFractionLeft('kiln', 0.44)).toBeGreaterThan(targetFractionLeft('handle', 0.44))
  })
})
