import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { callAllPages, callApi } from './api'
import { BEAT_MS } from '~~/shared/changes'
import { BENCH, benchOf } from './bench'
import { syncClock, workshopClock } from './clock'
import { useConnection } from './connection'
import { useShell } from './shell'
import type { WindowMessage } from './windows'
import { useWorkshop } from './workshop'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
  callAllPages: vi.fn(),
  sendFile: vi.fn(),
  lookAtDisk: vi.fn(),
}))
const agrees = vi.hoisted(() => vi.fn())
vi.mock('./clock', async (original) => ({
  ...(await original<typeof import('./clock')>()),
  agreesWith: agrees,
  syncClock: vi.fn(),
}))
/** The other windows: what they say to this one, what it tells them, and whether it leads. */
const others = vi.hoisted(() => ({
  say: (_message: WindowMessage) => {},
  told: [] as WindowMessage[],
  lead: true,
}))
vi.mock('./windows', () => ({
  onWindowMessage: (listener: (message: WindowMessage) => void) => (others.say = listener),
  tellWindows: (message: WindowMessage) => others.told.push(message),
  whenLeading: (lead: () => void) => others.lead && lead(),
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
  '/api/pours': { items: [] },
  '/api/pours/last': { items: [] },
}
const bag = (name: string) => ({ id: 'b1', name, plasterId: 'p1', usedUp: false })

beforeEach(() => {
  vi.useFakeTimers()
  agrees.mockReturnValue(true)
  down = []
  Object.assign(others, { told: [], lead: true })
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

const SILENT_MS = 2.5 * BEAT_MS

it('a stream that falls silent is opened anew, later each time, and at once where the network is back', async () => {
  let back = () => {}
  vi.stubGlobal('addEventListener', (_kind: string, listener: () => void) => (back = listener))
  const connection = useConnection()
  connection.start()
  await settle()
  const [first] = Stream.opened
  await vi.advanceTimersByTimeAsync(SILENT_MS - BEAT_MS)
  first!.say('beat', { serverTimeMs: 0 })
  await vi.advanceTimersByTimeAsync(SILENT_MS - BEAT_MS)
  expect(Stream.opened).toHaveLength(1)
  expect(connection.connected).toBe(true)
  await vi.advanceTimersByTimeAsync(BEAT_MS + 5000)
  expect(connection.connected).toBe(false)
  await vi.advanceTimersByTimeAsync(1000)
  expect(Stream.opened).toHaveLength(2)
  // One that was given up has nothing more to say.
  first!.say('hello', { serverTimeMs: 0, reset: false })
  expect(connection.connected).toBe(false)
  Stream.opened[1]!.say('dropped', {})
  await vi.advanceTimersByTimeAsync(1000)
  expect(Stream.opened).toHaveLength(2)
  back()
  expect(Stream.opened).toHaveLength(3)
  back()
  expect(Stream.opened).toHaveLength(3)
  Stream.opened[2]!.say('hello', { serverTimeMs: 0, reset: false })
  expect(connection.connected).toBe(true)
  // It had been reached: the next wait is a short one.
  Stream.opened[2]!.say('dropped', {})
  await vi.advanceTimersByTimeAsync(1000)
  expect(Stream.opened).toHaveLength(4)
})

it('a window that follows shows what the one that leads says, and knows when it says nothing', async () => {
  others.lead = false
  const connection = useConnection()
  connection.start()
  await settle()
  expect(Stream.opened).toEqual([])
  others.say({ kind: 'changes', messages: [{ seq: 8, topic: 'bag', id: 'b1', value: bag('Told') as never }] })
  expect(useWorkshop().bags[0]!.name).toBe('Told')
  others.say({
    kind: 'changes',
    messages: [{ seq: 8, topic: 'bag', id: 'b1', value: bag('Again') as never }],
  })
  expect(useWorkshop().bags[0]!.name).toBe('Told')
  await vi.advanceTimersByTimeAsync(SILENT_MS + 5000)
  expect(connection.connected).toBe(false)
  others.say({ kind: 'state', connected: true })
  expect(connection.connected).toBe(true)
  await vi.advanceTimersByTimeAsync(5000)
  expect(connection.connected).toBe(true)
})

it('what the stream brings is told to the other windows; a clock that has gone wrong is set', async () => {
  useConnection().start()
  await settle()
  const [stream] = Stream.opened
  const looks = vi.spyOn(useShell(), 'lookForNewer')
  stream!.say('hello', { serverTimeMs: 0, reset: false })
  // What answers may be another application than the one that went away.
  expect(looks).toHaveBeenCalledTimes(1)
  stream!.say('change', { seq: 8, topic: 'bag', id: 'b1', value: bag('By the stream') })
  expect(others.told.map((m) => m.kind)).toEqual(['state', 'changes'])
  others.say({ kind: 'look' })
  expect(others.told.at(-1)).toEqual({ kind: 'state', connected: true })
  vi.mocked(syncClock).mockClear()
  stream!.say('beat', { serverTimeMs: 0 })
  expect(syncClock).not.toHaveBeenCalled()
  agrees.mockReturnValue(false)
  stream!.say('beat', { serverTimeMs: 0 })
  expect(syncClock).toHaveBeenCalledTimes(1)
})

it('a device that nobody knows is asked about, not at each of its words', async () => {
  useConnection().start()
  await settle()
  const asked = () => vi.mocked(callApi).mock.calls.filter(([path]) => path === '/api/devices').length
  const [stream] = Stream.opened
  const before = asked()
  const here = (device: string) => stream!.say('live', [{ kind: 'here', device, here: true }])
  here('stranger')
  here('stranger')
  expect(asked()).toBe(before + 1)
  await vi.advanceTimersByTimeAsync(3000)
  here('stranger')
  expect(asked()).toBe(before + 2)
  stream!.say('change', {
    seq: 8,
    topic: 'device',
    id: 'scale',
    value: { id: 'scale', name: 'Scale', uses: [] },
  })
  await vi.advanceTimersByTimeAsync(3000)
  here('scale')
  expect(asked()).toBe(before + 2)
})
