import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { keepPlan, type PourEvent } from '#core/pour'
import type { PourRecord } from '~~/shared/records'
import { eventAt, testPlan } from '../../tests/unit/plans'

const api = vi.hoisted(() => vi.fn())
vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: api,
  callAllPages: vi.fn(),
}))
const plan = keepPlan(testPlan())
const record = (id: string, createdAtMs: number, events: PourEvent[] = []): PourRecord => ({
  id,
  plan,
  revision: 1,
  earlierPlans: [],
  createdAtMs,
  events,
})
const ended = (id: string, createdAtMs: number) =>
  record(id, createdAtMs, [eventAt(createdAtMs, { type: 'finished', verdict: 'failed', reason: '' })])

/** A window that was told of these, and leads. */
async function openWindow(told: PourRecord[]) {
  // As a page that is loaded anew: nothing of the last one is left but what the browser keeps.
  vi.resetModules()
  const [{ BENCH, benchOf }, { workshopClock }] = await Promise.all([import('./bench'), import('./clock')])
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
  const [{ usePours }, { useDeviceCopy }, { useWorkshop }, { copies }] = await Promise.all([
    import('./pours'),
    import('./deviceCopy'),
    import('./workshop'),
    import('./copies'),
  ])
  const [pours, copy, workshop] = [usePours(), useDeviceCopy(), useWorkshop()]
  if (told.length > 0) pours.fill(told)
  const kept = async (kind = 'pour') => (await copies())!.all<{ id: string }>(kind)
  const ids = async () => (await kept()).map((c) => c.id).sort()
  return { pours, copy, workshop, kept, ids }
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('addEventListener', () => {})
  api.mockReset()
  api.mockResolvedValue({ ok: false, failure: { code: 'unavailable', fields: [] } } as never)
})
afterEach(() => vi.unstubAllGlobals())

it('the last casts outlive a window that was told of none of them, and what went on is asked for again', async () => {
  const first = await openWindow([
    record('open', 9),
    record('gone on', 8),
    ended('old', 1),
    ended('newer', 2),
  ])
  await first.copy.follow()
  await vi.waitFor(async () => expect(await first.ids()).toEqual(['gone on', 'newer', 'old', 'open']))

  // Opened again: the bench says only what is on the go by now.
  const asked: string[] = []
  api.mockImplementation((path) => {
    asked.push(path)
    return Promise.resolve({ ok: true, value: ended('gone on', 8) } as never)
  })
  const next = await openWindow([record('open', 9)])
  await next.copy.follow()
  await vi.waitFor(() => expect(asked).toEqual(['/api/pours/gone%20on']))
  await vi.waitFor(async () =>
    expect((await next.kept()).filter((c) => c.isOpen).map((c) => c.id)).toEqual(['open']),
  )
  expect(await next.ids()).toEqual(['gone on', 'newer', 'old', 'open'])
})

it('where nobody answers it is what stands, and never in the place of what was had', async () => {
  const first = await openWindow([record('open', 9), ended('old', 1)])
  await first.copy.follow()
  await vi.waitFor(async () => expect(await first.ids()).toEqual(['old', 'open']))
  // What is on the go need not be forecast again before the bench is there.
  await vi.waitFor(async () =>
    expect((await first.kept('forecast')).map((c) => c.value)).toMatchObject([{ id: 'open', seen: '' }]),
  )

  const away = await openWindow([])
  expect(away.pours.openLoaded).toBe(false)
  await away.copy.readIn()
  expect([...away.pours.records.keys()].sort()).toEqual(['old', 'open'])
  expect([away.pours.openLoaded, away.workshop.stockLoaded]).toEqual([true, true])
  expect(away.copy.asOfMs).toBeGreaterThan(0)

  // It has ended: its forecast is no use to anybody.
  const over = await openWindow([ended('open', 9)])
  await over.copy.follow()
  await vi.waitFor(async () => expect(await over.kept('forecast')).toEqual([]))

  const nothing = await openWindow([])
  vi.stubGlobal('indexedDB', new IDBFactory())
  await nothing.copy.readIn()
  expect(nothing.pours.openLoaded).toBe(false)
})
