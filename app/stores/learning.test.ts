import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { LEARN_ALL } from '#core/learn'
import type { Learning, SeenHere } from '~~/shared/learning'
import { callApi } from './api'
import { BENCH, benchOf } from './bench'
import { useLearning } from './learning'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const api = vi.mocked(callApi)

const DAY_MS = 86_400_000
const NOW_MS = 400 * DAY_MS
const saw = (pourId: string, atMs: number): SeenHere => ({
  pourId,
  atMs,
  ratio: 1.3,
  sigmaLn: 0.05,
  piece: 'Bowl',
})
const learning = (pending: number, seen: SeenHere[]): Learning => ({
  subject: 'bag:1',
  seen: { set_time: seen },
  choices: {},
  pending,
})
const answers = (...all: Learning[]) =>
  all.forEach((value) => api.mockResolvedValueOnce({ ok: true, value } as never))

beforeEach(() => {
  api.mockReset()
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf({ nowMs: () => NOW_MS }, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
})

it('a subject is asked for until all of its pours were looked through, once for all who ask', async () => {
  const store = useLearning()
  expect(store.learnt('bag:1', 'set_time')).toBeUndefined()
  answers(learning(3, []), learning(1, [saw('a', NOW_MS)]), learning(0, [saw('a', NOW_MS), saw('b', NOW_MS)]))
  await Promise.all([store.load('bag:1'), store.load('bag:1')])
  expect(api).toHaveBeenCalledTimes(3)
  expect(store.learnt('bag:1', 'set_time')!.pours).toBe(2)
  expect(store.learnt('bag:1', 'heat')).toBeUndefined()
  // Asked again later, it is fetched again.
  answers(learning(0, [saw('a', NOW_MS)]))
  await store.load('bag:1')
  expect(store.learnt('bag:1', 'set_time')!.pours).toBe(1)
  // Nobody answers: what is known stays.
  api.mockResolvedValue({ ok: false, failure: { code: 'unavailable', fields: [] } })
  await store.load('bag:1')
  expect(store.learnt('bag:1', 'set_time')!.pours).toBe(1)
  expect(api).toHaveBeenCalledTimes(5)
})

it('a server that is never done is not asked for ever', async () => {
  api.mockResolvedValue({ ok: true, value: learning(1, []) } as never)
  await useLearning().load('bag:1')
  expect(api.mock.calls.length).toBeGreaterThan(1)
  expect(api.mock.calls.length).toBeLessThan(100)
})

it('what was seen long ago says less today; a choice counts once the workshop has it', async () => {
  const store = useLearning()
  answers(learning(0, [saw('a', NOW_MS)]))
  await store.load('bag:1')
  const fresh = store.learnt('bag:1', 'set_time')!
  answers(learning(0, [saw('a', NOW_MS - 365 * DAY_MS)]))
  await store.load('bag:1')
  const old = store.learnt('bag:1', 'set_time')!
  expect(old.factor).toBeLessThan(fresh.factor)
  expect(old.sigmaLn).toBeGreaterThan(fresh.sigmaLn)

  const off = { ...LEARN_ALL, off: true }
  api.mockResolvedValueOnce({ ok: false, failure: { code: 'unavailable', fields: [] } })
  expect(await store.choose('bag:1', 'set_time', off)).toBe(false)
  expect(store.choiceOf('bag:1', 'set_time')).toEqual(LEARN_ALL)
  answers({ ...learning(0, [saw('a', NOW_MS)]), choices: { set_time: off } })
  expect(await store.choose('bag:1', 'set_time', off)).toBe(true)
  expect(store.learnt('bag:1', 'set_time')!.factor).toBe(1)
  expect(store.seenOf('bag:1', 'set_time')!.choice).toEqual(off)
})
