import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { nextTick, reactive } from 'vue'
import { keepPlan, type ProbeTrace } from '#core/pour'
import { fold, testPlan, wholeRun } from '../../tests/unit/plans'
import { callApi, type ApiResult } from './api'
import { useDevices } from './devices'
import { useProbes } from './probes'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const MIN = 60_000
const bench = vi.hoisted(() => ({ isReal: true, clock: { nowMs: (): number => 0 } }))
vi.mock('./bench', () => ({ useBench: () => bench }))
const forecasts = vi.hoisted(() => ({ setProbes: vi.fn(), setUnheard: vi.fn() }))
vi.mock('./forecasts', () => ({ useForecasts: () => forecasts }))
const open: { record: { id: string }; facts: ReturnType<typeof fold> }[] = reactive([])
vi.mock('./pours', () => ({ usePours: () => ({ open }) }))
const uses = [{ channel: 't1', pourId: 'p1', batch: 0, sinceMs: 0 }]
vi.mock('./workshop', () => ({ useWorkshop: () => ({ devices: [{ id: 'probe', name: 'Probe', uses }] }) }))

const kept = keepPlan(testPlan())
const upTo = (min: number) =>
  fold(
    kept,
    wholeRun().filter((e) => e.occurredAtMs <= min * MIN),
  )
const answers = (value: object[] | undefined) =>
  vi
    .mocked(callApi)
    .mockImplementation(() =>
      Promise.resolve(
        value
          ? ({ ok: true, value } as ApiResult<never>)
          : { ok: false, failure: { code: 'unavailable', fields: [] } },
      ),
    )
const reading = (atMs: number, value: number, more: object = {}) => ({
  device: 'probe',
  channel: 't1',
  batch: 0,
  atMs,
  value,
  stable: true,
  ...more,
})
const lastTraces = () =>
  (forecasts.setProbes.mock.lastCall![1] as ProbeTrace[]).map(({ device, channel, batch, readings }) => [
    `${device} ${channel}`,
    batch,
    readings.length,
  ])
/** What was asked so far, once as much was, and its answers are in. */
const asked = (times: number) =>
  vi.waitFor(() => {
    expect(callApi).toHaveBeenCalledTimes(times)
    expect(forecasts.setProbes.mock.calls.length + forecasts.setUnheard.mock.calls.length).toBe(times)
  })

beforeEach(() => {
  setActivePinia(createPinia())
  open.length = 0
  vi.mocked(callApi).mockReset()
  forecasts.setProbes.mockReset()
  forecasts.setUnheard.mockReset()
})

it('asks once for what was read of a piece that sets, thermometer by thermometer, and of no other', async () => {
  answers([
    reading(1, 20),
    reading(2, 21),
    reading(2, 99),
    reading(1, 500, { channel: 'mass' }),
    reading(1, 30, { device: 'other' }),
    reading(3, 25, { batch: 1 }),
  ])
  open.push({ record: { id: 'p0' }, facts: upTo(5) }, { record: { id: 'p1' }, facts: upTo(12) })
  useProbes().start()
  await asked(1)
  expect(vi.mocked(callApi).mock.calls).toEqual([['/api/pours/p1/readings']])
  expect(lastTraces()).toEqual([
    ['probe t1', 0, 2],
    ['other t1', 0, 1],
    ['probe t1', 1, 1],
  ])
  open.push({ record: { id: 'p2' }, facts: upTo(12) })
  await asked(2)
  expect(vi.mocked(callApi).mock.calls.map(([path]) => path)).toEqual([
    '/api/pours/p1/readings',
    '/api/pours/p2/readings',
  ])
})

it('what cannot be had is said, and asked for again when the bench changes', async () => {
  answers(undefined)
  open.push({ record: { id: 'p1' }, facts: upTo(12) })
  useProbes().start()
  await asked(1)
  expect(forecasts.setUnheard).toHaveBeenCalledWith('p1')
  answers([reading(1, 20)])
  open.push({ record: { id: 'p2' }, facts: upTo(12) })
  await asked(3)
  expect(vi.mocked(callApi).mock.calls.filter(([path]) => path.includes('p1'))).toHaveLength(2)
})

it('takes in what a thermometer says as it says it, each twenty seconds', async () => {
  answers([])
  let nowMs = 0
  bench.clock.nowMs = () => nowMs
  open.push({ record: { id: 'p1' }, facts: upTo(12) })
  useProbes().start()
  await asked(1)
  const says = async (atS: number, channel: `t${number}`, tempC: number) => {
    nowMs = atS * 1000
    useDevices().hear([{ kind: 'temperature', device: 'probe', atMs: nowMs, channel, tempC }])
    await nextTick()
  }
  await says(100, 't2', 30)
  expect(forecasts.setProbes).toHaveBeenCalledTimes(1)
  await says(110, 't1', 30)
  await says(129, 't1', 31)
  expect(lastTraces()).toEqual([['probe t1', 0, 1]])
  await says(130, 't1', 32)
  expect(lastTraces()).toEqual([['probe t1', 0, 2]])
})
