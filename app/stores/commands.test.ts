import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { createApp, reactive } from 'vue'
import { callApi, type ApiResult } from './api'
import { BENCH, benchOf } from './bench'
import { workshopClock } from './clock'
import { openCommandBox } from './commandBox'
import { useCommands, type Asked } from './commands'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const api = vi.mocked(callApi)
const failed = (code: string, current?: unknown) =>
  ({ ok: false, failure: { code, fields: [], current } }) as ApiResult<never>
const ok = (value: unknown) => ({ ok: true, value }) as ApiResult<never>

/** What the one whose topic it is was told. */
let told: string[] = []
function openWindow() {
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
  const commands = useCommands()
  for (const topic of ['mould', 'pour'])
    commands.on(topic, {
      show: ({ of }) => told.push(`show ${of}`),
      stored: ({ of }) => told.push(`stored ${of}`),
      instead: ({ of, code }) => told.push(`instead ${of} ${code}`),
    })
  return commands
}
const mould = (of: string, name: string, revision: number | null = null): Asked => ({
  topic: 'mould',
  of,
  name,
  method: 'PUT',
  path: `/api/moulds/${of}`,
  body: { revision, mould: { name } },
})
const pour = (of: string): Asked => ({
  topic: 'pour',
  of,
  name: of,
  method: 'POST',
  path: '/api/pours',
  body: { id: of, createdAtMs: 5 },
})
const sent = () => api.mock.calls.map(([path, options]) => [path, options?.body])
const boxed = async () => {
  const { waiting, refused } = await (await openCommandBox()).all()
  return [waiting.map((c) => c.name), refused.map((c) => c.name)]
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  api.mockReset()
  told = []
})

it('goes straight through where somebody answers, whatever the answer', async () => {
  const commands = openWindow()
  api.mockResolvedValueOnce(ok({ id: 'm1' }))
  expect(await commands.ask(mould('m1', 'A'), () => ({ is: 'meanwhile' }))).toEqual(ok({ id: 'm1' }))
  api.mockResolvedValueOnce(failed('stale_card'))
  expect(await commands.ask(mould('m1', 'A'), () => ({ is: 'meanwhile' }))).toEqual(failed('stale_card'))
  expect([commands.waiting, await boxed()]).toEqual([[], [[], []]])
})

it('waits in order where nobody does, also for a window opened later, and goes out once', async () => {
  const commands = openWindow()
  api.mockResolvedValue(failed('unavailable'))
  // A form's own, as it is watched.
  const typed = reactive(mould('m1', 'A'))
  expect(await commands.ask(typed, () => ({ is: 'meanwhile' }))).toEqual(ok({ is: 'meanwhile' }))
  await commands.ask(pour('p1'), () => ({}))
  expect(told).toEqual(['show m1', 'show p1'])
  expect([commands.holdsUp('p1'), commands.holdsUp('p2')]).toEqual([true, false])
  expect(await commands.flush()).toBe('away')

  const next = openWindow()
  await next.look()
  await next.look()
  expect(next.waiting.map((c) => c.name)).toEqual(['A', 'p1'])
  api.mockReset()
  api.mockImplementation(() => Promise.resolve(ok({})))
  const both = [next.flush(), next.flush()]
  expect(await Promise.all(both)).toEqual(['done', 'done'])
  expect(sent().map(([path]) => path)).toEqual(['/api/moulds/m1', '/api/pours'])
  expect(told.slice(-2)).toEqual(['stored m1', 'stored p1'])
  expect(await boxed()).toEqual([[], []])
})

it('what is said again of the same takes the place of what was not sent yet, never of what may have arrived', async () => {
  const commands = openWindow()
  api.mockResolvedValue(failed('unavailable'))
  // Asked, and no answer: the workshop may have this one.
  await commands.ask(mould('m1', 'first'), () => ({}))
  await commands.ask(mould('m1', 'second', 1), () => ({}))
  await commands.ask(mould('m1', 'third', 2), () => ({}))
  expect(commands.waiting.map((c) => c.name)).toEqual(['first', 'third'])
  expect(await boxed()).toEqual([['first', 'third'], []])
  // Nothing overtakes what waits.
  expect(api).toHaveBeenCalledTimes(1)
  api.mockReset()
  api.mockImplementation(() => Promise.resolve(ok({})))
  await commands.flush()
  expect(sent().map(([, body]) => body)).toEqual([
    { revision: null, mould: { name: 'first' } },
    { revision: 1, mould: { name: 'third' } },
  ])
})

it('what is refused is kept by itself until somebody has looked at it, and holds up nothing', async () => {
  const commands = openWindow()
  api.mockResolvedValue(failed('unavailable'))
  await commands.ask(mould('m1', 'A', 3), () => ({}))
  await commands.ask(pour('p1'), () => ({}))
  api.mockImplementation((path) =>
    Promise.resolve(path.includes('moulds') ? failed('stale_card', { id: 'm1', revision: 7 }) : ok({})),
  )
  expect(await commands.flush()).toBe('done')
  expect(told).toContain('instead m1 stale_card')
  expect(commands.refused).toMatchObject([{ name: 'A', code: 'stale_card', current: { revision: 7 } }])
  expect(await boxed()).toEqual([[], ['A']])

  const next = openWindow()
  await next.look()
  const [row] = next.refused
  // Mine in its place: for what is there now.
  await next.sendAgain({ ...row!, body: { ...row!.body, revision: 7 } })
  expect([next.refused, next.waiting.length]).toEqual([[], 1])
  api.mockReset()
  api.mockResolvedValue(ok({}))
  await next.flush()
  expect(sent()).toEqual([['/api/moulds/m1', { revision: 7, mould: { name: 'A' } }]])
  expect(await boxed()).toEqual([[], []])

  api.mockResolvedValue(failed('unavailable'))
  await next.ask(mould('m2', 'B'), () => ({}))
  api.mockResolvedValue(failed('invalid_input'))
  await next.flush()
  await next.forget(next.refused[0]!.id)
  expect(await boxed()).toEqual([[], []])
})

it('taken away and gone already is taken away; a fault of the server’s is tried again', async () => {
  const commands = openWindow()
  const drop: Asked = { topic: 'mould', of: 'm1', name: 'A', method: 'DELETE', path: '/api/moulds/m1' }
  api.mockResolvedValue(failed('unavailable'))
  await commands.ask(drop, () => ({}))
  await commands.ask(pour('p1'), () => ({}))
  // A fault with one holds up no other.
  api.mockImplementation((path) => Promise.resolve(path.includes('moulds') ? failed('internal') : ok({})))
  expect(await commands.flush()).toBe('done')
  expect(commands.waiting.map((c) => c.of)).toEqual(['m1'])
  api.mockResolvedValue(failed('not_found'))
  expect(await commands.flush()).toBe('done')
  expect(commands.refused).toEqual([])
})

it('a browser that keeps nothing says so, and nothing waits', async () => {
  vi.stubGlobal('indexedDB', {
    open: () => {
      throw new DOMException('no room', 'QuotaExceededError')
    },
  })
  vi.spyOn(console, 'error').mockImplementation(() => {})
  const commands = openWindow()
  api.mockResolvedValue(failed('unavailable'))
  expect(await commands.ask(mould('m1', 'A'), () => ({}))).toEqual(failed('not_kept'))
  expect(commands.waiting).toEqual([])
})

it('an answer to what was said first is not shown over what was said of it since', async () => {
  const commands = openWindow()
  api.mockResolvedValue(failed('unavailable'))
  // The first was tried, so it may have arrived, and what is said after it goes by itself.
  await commands.ask(mould('m1', 'first', 1), () => ({ id: 'm1' }))
  await commands.ask(mould('m1', 'second', 2), () => ({ id: 'm1' }))
  told = []
  let answered = 0
  api.mockImplementation(() => Promise.resolve(ok({ id: 'm1', revision: 2 + answered++ })))
  await commands.flush()
  expect([answered, told]).toEqual([2, ['stored m1']])
})
