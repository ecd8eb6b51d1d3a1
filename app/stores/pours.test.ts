import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { keepPlan, type PourEvent } from '#core/pour'
import type { PostedEvent } from '~~/shared/pourEvents'
import type { PourRecord } from '~~/shared/records'
import { callApi, type ApiResult } from './api'
import { eventAt, testPlan } from '../../tests/unit/plans'
import { BENCH, benchOf, hurriedClock } from './bench'
import { workshopClock } from './clock'
import { openEventBox } from './eventBox'
import { useOutbox } from './outbox'
import { usePours } from './pours'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const api = vi.mocked(callApi)

const record = (events: PourEvent[] = [], revision = 1, id = 'p1'): PourRecord => ({
  id,
  plan: keepPlan(testPlan()),
  revision,
  earlierPlans: [],
  createdAtMs: 0,
  events,
})
const failed = (code: 'unavailable' | 'internal' | 'time_in_future'): ApiResult<never> => ({
  ok: false,
  failure: { code, fields: [] },
})
/** Answers a posted event as the server does. */
const acknowledge = (_path: string, options?: { body?: object }) =>
  Promise.resolve({ ok: true, value: { ...(options!.body as PourEvent), receivedAtMs: 1 } })
const posted = () =>
  api.mock.calls.flatMap(([path, options]) =>
    path.endsWith('/events') ? [(options!.body as PourEvent).body.type] : [],
  )
const stepOf = (pours: ReturnType<typeof usePours>, id = 'p1') => pours.factsOf(pours.records.get(id)!)!.step

/** A window, opened anew on what the browser keeps. */
async function openWindow(records = [record()], bench = { isReal: true, speed: 1 }) {
  const pinia = createPinia()
  createApp({}).use(pinia).provide(BENCH, benchOf(workshopClock, bench))
  setActivePinia(pinia)
  const [pours, outbox] = [usePours(), useOutbox()]
  pours.put(...records)
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => {}, removeItem: () => {} })
  vi.stubGlobal('addEventListener', () => {})
  await outbox.start((pourId, event) => pours.addStored(pourId, event))
  await outbox.lead()
  return { pours, outbox }
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  api.mockReset()
  api.mockResolvedValue(failed('unavailable'))
})

it('an event is kept before it counts, waits while nobody answers, and goes out in order when somebody does', async () => {
  const { pours, outbox } = await openWindow()
  api.mockResolvedValue(failed('unavailable'))
  const kept = pours.record('p1', { type: 'mould_ready' })
  expect(stepOf(pours)).toBe('prepare')
  await kept
  await pours.record('p1', { type: 'weighed', what: 'water', massG: 700 })
  expect(stepOf(pours)).toBe('weigh_powder')
  // Whoever folds it for himself, as the weighing does, has what waits as well.
  expect(pours.eventsOf(pours.records.get('p1')!)).toHaveLength(2)
  expect(new Set(posted())).toEqual(new Set(['mould_ready']))

  // The window is gone, crashed between keeping and sending: the next one has it all.
  const next = await openWindow()
  expect(stepOf(next.pours)).toBe('weigh_powder')
  api.mockReset()
  api.mockImplementation(acknowledge as never)
  await next.outbox.flushNow()
  expect(posted()).toEqual(['mould_ready', 'weighed'])
  expect(next.outbox.unsent).toEqual([])
  expect(stepOf(next.pours)).toBe('weigh_powder')
  expect(outbox.atRisk).toBe(false)
  expect((await (await openEventBox()).all()).unsent).toEqual([])
})

it.each([
  ['a page', '<!doctype html>'],
  ['another event', { id: 'x', receivedAtMs: 1, body: { type: 'mould_ready' } }],
  ['nothing', null],
])('%s is no acknowledgement', async (_, value) => {
  const { pours, outbox } = await openWindow()
  api.mockResolvedValue({ ok: true, value })
  await pours.record('p1', { type: 'mould_ready' })
  await outbox.flushNow()
  expect(outbox.unsent).toHaveLength(1)
})

it('a fault of the server’s with one pour holds up no other', async () => {
  const { pours, outbox } = await openWindow([record(), record([], 1, 'p2')])
  api.mockImplementation((path, options) =>
    path.includes('p1') ? Promise.resolve(failed('internal')) : (acknowledge(path, options) as never),
  )
  await pours.record('p1', { type: 'mould_ready' })
  await pours.record('p1', { type: 'note', text: 'after' })
  await pours.record('p2', { type: 'mould_ready' })
  await outbox.flushNow()
  expect(outbox.unsent.map((u) => u.pourId)).toEqual(['p1', 'p1'])
})

it('what was told by a wrong clock is put right once the clock is, and sent again by itself', async () => {
  const { pours, outbox } = await openWindow()
  await pours.record('p1', { type: 'mould_ready' })
  const [told] = outbox.waiting
  const sent: PostedEvent[] = []
  // This device was an hour ahead.
  api.mockImplementation((path, options) => {
    if (path === '/api/time')
      return Promise.resolve({ ok: true, value: { serverTimeMs: Date.now() - 3_600_000, seq: 1 } } as never)
    const event = options!.body as PostedEvent
    sent.push(event)
    return event.shiftMs === undefined
      ? Promise.resolve(failed('time_in_future'))
      : (acknowledge(path, options) as never)
  })
  await outbox.look()
  expect(outbox.unsent).toHaveLength(1)
  await outbox.flushNow()
  expect(sent.map((e) => Math.round((e.shiftMs ?? 0) / 1000))).toEqual([0, -3600])
  expect(outbox.refused).toEqual([])
  expect(outbox.unsent).toEqual([])
  // What waits meanwhile counts where it belongs.
  api.mockResolvedValue(failed('unavailable'))
  await pours.record('p1', { type: 'note', text: 'now' })
  expect(
    Math.abs(outbox.waiting[0]!.event.occurredAtMs - (told!.event.occurredAtMs - 3_600_000)),
  ).toBeLessThan(5000)
})

it('what is held up, or finds nobody, is tried again by itself, and nothing else is', async () => {
  const { pours, outbox } = await openWindow()
  const waits = vi.spyOn(globalThis, 'setTimeout')
  const laterMs = () => waits.mock.calls.map(([, ms]) => ms ?? 0).filter((ms) => ms >= 2000)
  for (const code of ['internal', 'unavailable'] as const) {
    waits.mockClear()
    api.mockImplementation(acknowledge as never)
    await pours.record('p1', { type: 'note', text: 'well' })
    await outbox.flushNow()
    expect(laterMs()).toEqual([])
    api.mockResolvedValue(failed(code))
    await pours.record('p1', { type: 'note', text: 'held up' })
    await outbox.flushNow()
    expect(laterMs()).toContain(2000)
  }
  waits.mockRestore()
})

it('an event refused for good is kept apart, across windows, and may be sent again or thrown away', async () => {
  const { pours, outbox } = await openWindow()
  api.mockImplementation((path, options) => {
    if (path === '/api/time') return Promise.resolve(failed('unavailable'))
    const { body } = options!.body as PourEvent
    return body.type === 'mould_ready'
      ? Promise.resolve(failed('time_in_future'))
      : (acknowledge(path, options) as never)
  })
  await pours.record('p1', { type: 'mould_ready' }, { type: 'note', text: 'kept' })
  await vi.waitFor(() => expect(outbox.unsent).toEqual([]))
  expect(outbox.refused).toMatchObject([{ code: 'time_in_future', event: { body: { type: 'mould_ready' } } }])
  expect(pours.factsOf(pours.records.get('p1')!)!.live.map((e) => e.body.type)).toEqual(['note'])

  const next = await openWindow()
  expect(next.outbox.refused).toHaveLength(1)
  api.mockImplementation(acknowledge as never)
  await next.outbox.sendAgain(next.outbox.refused[0]!)
  await vi.waitFor(() => expect(next.outbox.unsent).toEqual([]))
  expect(stepOf(next.pours)).not.toBe('prepare')
  expect((await openWindow()).outbox.refused).toEqual([])
})

it('where the browser keeps nothing, an event counts all the same, and it is said', async () => {
  vi.stubGlobal('indexedDB', {
    open: () => {
      throw new DOMException('no room', 'QuotaExceededError')
    },
  })
  vi.spyOn(console, 'error').mockImplementation(() => {})
  const { pours, outbox } = await openWindow()
  api.mockResolvedValue(failed('unavailable'))
  await pours.record('p1', { type: 'mould_ready' })
  expect(stepOf(pours)).not.toBe('prepare')
  expect(outbox.atRisk).toBe(true)
  api.mockImplementation(acknowledge as never)
  await outbox.flushNow()
  expect(outbox.atRisk).toBe(false)
})

it('an older answer arriving late takes nothing back', async () => {
  const { pours } = await openWindow([])
  const [first, second] = [eventAt(1, { type: 'mould_ready' }), eventAt(2, { type: 'note', text: 'n' })]
  pours.put(record([first, second], 2))
  pours.put(record([first], 1))
  const known = pours.records.get('p1')!
  expect(known.revision).toBe(2)
  expect(new Set(known.events)).toEqual(new Set([first, second]))
})

it('undo takes the last thing back, and says when there is nothing', async () => {
  const { pours } = await openWindow()
  api.mockImplementation(acknowledge as never)
  expect(pours.undo('p1')).toBe(false)
  const done = eventAt(1, { type: 'mould_ready' })
  pours.put(record([done]))
  expect(pours.undo('p1')).toBe(true)
  await vi.waitFor(() => expect(stepOf(pours)).toBe('prepare'))
  expect(pours.undo('p1')).toBe(false)
})

it('a bench that is not real keeps, sends and makes nothing: what happens at it stays in its window', async () => {
  const { pours, outbox } = await openWindow([record()], { isReal: false, speed: 60 })
  api.mockClear()
  await pours.record('p1', { type: 'mould_ready' })
  expect(stepOf(pours)).toBe('weigh_water')
  await outbox.flushNow()
  expect((await pours.create(keepPlan(testPlan()), 'p2')).ok).toBe(true)
  expect(stepOf(pours, 'p2')).toBe('prepare')
  expect(pours.undo('p1')).toBe(true)
  expect(stepOf(pours)).toBe('prepare')
  expect(api).not.toHaveBeenCalled()
  expect(await (await openEventBox()).all()).toEqual({ unsent: [], refused: [] })
})

it('a hurried clock begins at the present and goes so many times as fast', () => {
  const elapsed = vi.spyOn(performance, 'now').mockReturnValue(5000)
  const clock = hurriedClock({ nowMs: () => 1_000_000 }, 60)
  expect(clock.nowMs()).toBe(1_000_000)
  elapsed.mockReturnValue(65_000)
  expect(clock.nowMs()).toBe(1_000_000 + 3_600_000)
  elapsed.mockRestore()
})
