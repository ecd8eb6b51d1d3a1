import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { MAX_PHOTO_BYTES } from '~~/shared/limits'
import { callApi, sendFile } from './api'
import { BENCH, benchOf } from './bench'
import { workshopClock } from './clock'
import { openPhotoBox } from './photoBox'
import { usePhotos } from './photos'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
  sendFile: vi.fn(),
}))
const sent = vi.mocked(sendFile)
const recorded = vi.hoisted(() => vi.fn())
/** What was recorded of the pour, as its record would say. */
let live: { id: string; body: object }[] = []
vi.mock('./pours', () => ({
  usePours: () => ({ record: recorded, records: new Map([['p1', {}]]), factsOf: () => ({ live }) }),
}))

const failed = (code: string) => ({ ok: false, failure: { code, fields: [] } }) as never
const picture = (bytes = 10, type = 'image/jpeg') => new File([new Uint8Array(bytes)], 'x', { type })
const inBox = async () => (await (await openPhotoBox()).all()).map((p) => p.id)

const setPhotos = vi.hoisted(() => vi.fn())
vi.mock('./workshop', () => ({ useWorkshop: () => ({ setPhotos }) }))
/** What has not reached the workshop yet, or was not taken. */
const commands = vi.hoisted(() => ({ waits: [] as string[], refused: [] as object[] }))
vi.mock('./commands', () => ({
  useCommands: () => ({
    isWaiting: (topic: string, id: string) => commands.waits.includes(`${topic} ${id}`),
    refused: commands.refused,
    waiting: [],
  }),
}))

function openWindow(isReal = true) {
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal, speed: 1 }))
  setActivePinia(pinia)
  return usePhotos()
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  live = []
  Object.assign(commands, { waits: [], refused: [] })
  setPhotos.mockReset()
  sent.mockReset()
  vi.mocked(callApi).mockReset()
  recorded.mockReset()
  recorded.mockImplementation((_pour: string, body: object) =>
    Promise.resolve(live.push({ id: `event ${live.length}`, body })),
  )
})
afterEach(() => vi.restoreAllMocks())

/** The waits that were begun, ms. */
const waitsMs = () => vi.mocked(setTimeout).mock.calls.map(([, ms]) => ms ?? 0)

it('a picture is shown from where it waits, and goes by itself once somebody answers', async () => {
  const photos = openWindow()
  vi.spyOn(globalThis, 'setTimeout')
  sent.mockResolvedValue(failed('unavailable'))
  const taken = await photos.take('p1', picture(), { pieces: [1] })
  expect(recorded).toHaveBeenCalledWith('p1', {
    type: 'photographed',
    photoId: expect.any(String),
    caption: '',
    pieces: [1],
  })
  const id = (taken as { value: string }).value
  expect(photos.addressOf(id)).toMatch(/^blob:/)
  expect(await inBox()).toEqual([id])
  // Longer and longer between.
  await photos.sendWaiting()
  await photos.sendWaiting()
  expect(waitsMs().filter((ms) => ms >= 3000)).toEqual([3000, 6000, 12_000])
  // Another window, after this one is gone.
  const next = openWindow()
  sent.mockResolvedValue({ ok: true, value: {} } as never)
  await next.sendWaiting()
  expect(sent.mock.lastCall![2].query).toEqual({ id, pour: 'p1', caption: '' })
  expect(next.addressOf(id, 'thumb')).toBe(`/api/photos/${id}?size=thumb`)
  expect(next.waiting.size).toBe(0)
  expect(await inBox()).toEqual([])
})

it.each(['disk_full', 'elsewhere'] as const)(
  '%s: the first that finds nobody is not followed by all others',
  async (code) => {
    const photos = openWindow()
    sent.mockResolvedValue(failed(code))
    await photos.take('p1', picture())
    await photos.take('p1', picture())
    sent.mockClear()
    await photos.sendWaiting()
    expect(sent).toHaveBeenCalledTimes(1)
    expect(await inBox()).toHaveLength(2)
  },
)

it('one that the workshop will never take is taken back, where it was taken', async () => {
  const photos = openWindow()
  live = [{ id: 'other', body: { type: 'photographed', photoId: 'another' } }]
  sent.mockResolvedValue(failed('not_a_picture'))
  const taken = await photos.take('p1', picture())
  expect(taken).toEqual({ ok: false, failure: { code: 'not_a_picture', fields: [] } })
  expect(recorded).toHaveBeenLastCalledWith('p1', { type: 'void', targetId: 'event 1' })
  expect(await inBox()).toEqual([])
  expect(photos.waiting.size).toBe(0)
})

it('what is plainly no photograph is not even kept', async () => {
  const photos = openWindow()
  for (const [file, code] of [
    [picture(1, 'text/plain'), 'not_a_picture'],
    [picture(MAX_PHOTO_BYTES + 1), 'photo_too_large'],
  ] as const)
    expect(await photos.take('p1', file)).toMatchObject({ ok: false, failure: { code } })
  expect(recorded).not.toHaveBeenCalled()
  sent.mockResolvedValue(failed('unavailable'))
  expect(await photos.take('p1', picture(MAX_PHOTO_BYTES))).toMatchObject({ ok: true })
})

it('a rehearsal keeps and sends nothing, and a picture thrown away is gone everywhere', async () => {
  const rehearsal = openWindow(false)
  sent.mockResolvedValue(failed('rehearsal'))
  expect(await rehearsal.take('p1', picture())).toMatchObject({ ok: true })
  expect(await inBox()).toEqual([])
  sent.mockClear()
  await rehearsal.sendWaiting()
  expect(sent).not.toHaveBeenCalled()

  const photos = openWindow()
  sent.mockResolvedValue(failed('unavailable'))
  const { value: id } = (await photos.take('p1', picture())) as { value: string }
  await photos.remove('p1', id)
  expect(await inBox()).toEqual([])
  expect(photos.waiting.size).toBe(0)
  expect(recorded).toHaveBeenLastCalledWith('p1', { type: 'void', targetId: `event ${live.length - 2}` })
  expect(vi.mocked(callApi)).toHaveBeenCalledWith(`/api/photos/${id}`, { method: 'DELETE' })
})

it('one of a mould waits until the mould has reached the workshop, and stands on it from then on', async () => {
  const photos = openWindow()
  commands.waits = ['mould m1']
  sent.mockResolvedValue({ ok: true, value: { id: 'x', caption: 'rim', widthPx: 4, heightPx: 3 } } as never)
  const { value: id } = (await photos.takeOfMould('m1', picture(), 'rim')) as { value: string }
  await photos.sendWaiting()
  expect(sent).not.toHaveBeenCalled()
  expect(photos.ofMould('m1', []).map((p) => p.caption)).toEqual(['rim'])
  expect(photos.ofMould('m2', [])).toEqual([])
  commands.waits = []
  await photos.sendWaiting()
  expect(sent.mock.lastCall![2].query).toEqual({ id, mould: 'm1', caption: 'rim' })
  expect(await inBox()).toEqual([])
  const [mouldId, photosOf] = setPhotos.mock.lastCall!
  expect([mouldId, photosOf([{ id: 'y' }]).map((p: { id: string }) => p.id)]).toEqual(['m1', ['y', 'x']])
})

it('what was kept when only pours had photographs still goes to its pour', async () => {
  const box = await openPhotoBox()
  await box.add({ id: 'old', pourId: 'p9', caption: '', picture: new Blob(['x']) } as never)
  sent.mockResolvedValue({ ok: true, value: {} } as never)
  await openWindow().sendWaiting()
  expect(sent.mock.lastCall![2].query).toEqual({ id: 'old', pour: 'p9', caption: '' })
})

it('one that the browser has no room for is held by its window, which says so, and goes all the same', async () => {
  const photos = openWindow()
  vi.spyOn(console, 'error').mockImplementation(() => undefined)
  sent.mockResolvedValue(failed('unavailable'))
  await photos.take('p1', picture())
  expect(photos.atRisk).toBe(false)
  vi.stubGlobal('indexedDB', {
    open: () => {
      throw new DOMException('no room', 'QuotaExceededError')
    },
  })
  const denied = openWindow()
  const { value: id } = (await denied.take('p1', picture())) as { value: string }
  expect(denied.atRisk).toBe(true)
  expect(denied.addressOf(id)).toMatch(/^blob:/)
  sent.mockResolvedValue({ ok: true, value: {} } as never)
  await denied.sendWaiting()
  expect(sent.mock.lastCall![2].query).toEqual({ id, pour: 'p1', caption: '' })
  expect([denied.atRisk, denied.waiting.size]).toEqual([false, 0])
})
