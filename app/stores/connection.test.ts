import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { callAllPages, callApi } from './api'
import { BENCH, benchOf } from './bench'
import { syncClock, workshopClock } from './clock'
import { useConnection } from './connection'
import { useWorkshop } from './workshop'

vi.mock('./api', () => ({ callApi: vi.fn(), callAllPages: vi.fn(), sendFile: vi.fn(), lookAtDisk: vi.fn() }))
vi.mock('./clock', async (original) => ({
  ...(await original<typeof import('./clock')>()),
  agreesWith: () => true,
  syncClock: vi.fn(),
}))
vi.mock('./windows', () => ({
  onWindowMessage: () => {},
  tellWindows: () => {},
  whenLeading: (lead: () => void) => lead(),
}))
const quiet = async () => {}
vi.mock('./outbox', () => ({
  useOutbox: () => ({
    start: quiet,
    lead: quiet,
    look: quiet,
    flush: () => {},
    flushNow: quiet,
    waiting: [],
  }),
}))
vi.mock('./photos', () => ({ usePhotos: () => ({ sendWaiting: quiet }) }))

class Stream {
  static opened: Stream[] = []
  private readonly hear = new Map<string, (event: { data: string }) => void>()
  constructor(readonly url: string) {
    Stream.opened.push(this)
  }
  addEventListener(kind: string, listener: (event: { data: string }) => void) {
    this.hear.set(kind, listener)
  }
  say(kind: string, data: object) {
    this.hear.get(kind)!({ data: JSON.stringify(data) })
  }
  close() {}
}

const SETTINGS = { revision: 3, workshopName: 'The shed', system: 'us' }
/** Paths that cannot be had just now. */
let down: string[] = []
const answer = (path: string, value: unknown) =>
  down.includes(path)
    ? ({ ok: false, failure: { code: 'unavailable', fields: [] } } as const)
    : ({ ok: true, value } as const)
const VALUES: Record<string, unknown> = {
  '/api/settings': SETTINGS,
  '/api/upkeep': { items: [] },
  '/api/heeds': { items: [] },
}
const bag = (name: string) => ({ id: 'b1', name, plasterId: 'p1', usedUp: false })

beforeEach(() => {
  vi.useFakeTimers()
  down = []
  Stream.opened = []
  vi.stubGlobal('EventSource', Stream)
  vi.stubGlobal('addEventListener', () => {})
  vi.mocked(callApi).mockImplementation((path) => Promise.resolve(answer(path, VALUES[path] ?? []) as never))
  vi.mocked(callAllPages).mockImplementation((path) =>
    Promise.resolve(answer(path, path === '/api/bags' ? [bag('As loaded')] : []) as never),
  )
  vi.mocked(syncClock).mockResolvedValue({ seq: 7 } as never)
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
})
const settle = () => vi.advanceTimersByTimeAsync(0)

it('what could not be had when it was opened is said, and asked for again until it is there', async () => {
  down = ['/api/settings', '/api/bags']
  const [connection, workshop] = [useConnection(), useWorkshop()]
  connection.start()
  await settle()
  expect(connection.incomplete).toBe(true)
  expect(workshop.settings.system).toBe('metric')
  // Half of it came: that is not all.
  down = ['/api/bags']
  await vi.advanceTimersByTimeAsync(4000)
  expect(workshop.settings.system).toBe('us')
  expect(connection.incomplete).toBe(true)
  down = []
  await vi.advanceTimersByTimeAsync(16_000)
  expect(connection.incomplete).toBe(false)
  expect(workshop.bags.map((b) => b.name)).toEqual(['As loaded'])
  const asked = vi.mocked(callApi).mock.calls.length
  await vi.advanceTimersByTimeAsync(4000)
  expect(vi.mocked(callApi).mock.calls).toHaveLength(asked)
})

it('after a reset the place in the stream moves on only once every list is there', async () => {
  const connection = useConnection()
  connection.start()
  await settle()
  expect(Stream.opened[0]!.url).toContain('since=7')
  down = ['/api/moulds']
  vi.mocked(syncClock).mockResolvedValue({ seq: 90 } as never)
  Stream.opened[0]!.say('hello', { serverTimeMs: 0, reset: true })
  await settle()
  expect(connection.incomplete).toBe(true)
  // What comes meanwhile shows, and is no sign that nothing is missing.
  Stream.opened[0]!.say('change', { seq: 91, topic: 'bag', id: 'b1', value: bag('By the stream') })
  expect(useWorkshop().bags[0]!.name).toBe('By the stream')
  Stream.opened[0]!.say('dropped', {})
  await vi.advanceTimersByTimeAsync(1500)
  expect(Stream.opened[1]!.url).toContain('since=7')
  down = []
  await vi.advanceTimersByTimeAsync(16_000)
  expect(connection.incomplete).toBe(false)
  Stream.opened.at(-1)!.say('dropped', {})
  await vi.advanceTimersByTimeAsync(16_000)
  expect(Stream.opened.at(-1)!.url).toContain('since=90')
})
