import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { keepPlan, type PourEvent } from '#core/pour'
import type { PourRecord } from '~~/shared/records'
import { callApi, type ApiResult } from '~/composables/useApi'
import { eventAt, testPlan } from '../../tests/unit/plans'
import { usePours } from './pours'

vi.mock('~/composables/useApi', () => ({ callApi: vi.fn() }))
const api = vi.mocked(callApi)

const record = (events: PourEvent[] = [], revision = 1): PourRecord => ({
  id: 'p1',
  plan: keepPlan(testPlan()),
  revision,
  earlierPlans: [],
  createdAtMs: 0,
  events,
})
const lost: ApiResult<never> = { ok: false, failure: { code: 'unavailable', fields: [] } }
/** Answers a posted event as the server does. */
const acknowledge = (_path: string, options?: { body?: object }) =>
  Promise.resolve({ ok: true, value: { ...(options!.body as PourEvent), receivedAtMs: 1 } })
const posted = () => api.mock.calls.map(([, options]) => (options!.body as PourEvent).body.type)

beforeEach(() => {
  vi.useFakeTimers()
  setActivePinia(createPinia())
  api.mockReset()
})
afterEach(() => vi.useRealTimers())

it('an event counts at once, waits while nobody answers, and goes out in order when somebody does', async () => {
  const pours = usePours()
  pours.put(record())
  api.mockResolvedValue(lost)
  pours.record('p1', { type: 'mould_ready' })
  pours.record('p1', { type: 'weighed', what: 'water', massG: 700 })
  expect(pours.factsOf(pours.records.get('p1')!)!.step).toBe('weigh_powder')
  await vi.advanceTimersByTimeAsync(5000)
  expect(pours.outbox).toHaveLength(2)
  expect(new Set(posted())).toEqual(new Set(['mould_ready']))

  api.mockReset()
  api.mockImplementation(acknowledge as never)
  await vi.advanceTimersByTimeAsync(5000)
  expect(posted()).toEqual(['mould_ready', 'weighed'])
  expect(pours.outbox).toEqual([])
  expect(pours.factsOf(pours.records.get('p1')!)!.step).toBe('weigh_powder')
})

it('an event refused for good is said and does not hold the next one up', async () => {
  const pours = usePours()
  pours.put(record())
  api.mockResolvedValueOnce({ ok: false, failure: { code: 'time_in_future', fields: [] } })
  api.mockImplementation(acknowledge as never)
  pours.record('p1', { type: 'mould_ready' }, { type: 'note', text: 'kept' })
  await vi.advanceTimersByTimeAsync(10)
  expect(pours.refused?.failure.code).toBe('time_in_future')
  expect(pours.outbox).toEqual([])
  expect(pours.factsOf(pours.records.get('p1')!)!.live.map((e) => e.body.type)).toEqual(['note'])
})

it('an older answer arriving late takes nothing back', () => {
  const pours = usePours()
  const [first, second] = [eventAt(1, { type: 'mould_ready' }), eventAt(2, { type: 'note', text: 'n' })]
  pours.put(record([first, second], 2))
  pours.put(record([first], 1))
  expect(pours.records.get('p1')).toMatchObject({ revision: 2, events: [first, second] })
})

it('undo takes the last thing back, and says when there is nothing', async () => {
  const pours = usePours()
  api.mockImplementation(acknowledge as never)
  expect(pours.undo('p1')).toBe(false)
  const done = eventAt(1, { type: 'mould_ready' })
  pours.put(record([done]))
  expect(pours.undo('p1')).toBe(true)
  await vi.advanceTimersByTimeAsync(10)
  expect(pours.factsOf(pours.records.get('p1')!)!.step).toBe('prepare')
  expect(pours.undo('p1')).toBe(false)
})
