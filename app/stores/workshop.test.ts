import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import type { BagCard, BowlCard, PlasterCard } from '~~/shared/stock'
import { createApp } from 'vue'
import { BENCH, benchOf } from './bench'
import { workshopClock } from './clock'
import { callAllPages, callApi, sendFile, type ApiResult } from './api'
import { habits } from './habits'
import { useWorkshop } from './workshop'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
  callAllPages: vi.fn(),
  sendFile: vi.fn(),
}))
const api = vi.mocked(callApi)

const ok = (value: unknown): ApiResult<never> => ({ ok: true, value: value as never })
const failed = (code: 'unavailable' | 'stale_card' | 'not_found', current?: unknown): ApiResult<never> => ({
  ok: false,
  failure: { code, fields: [], current },
})
const bowl = (id: string, volumeMl: number) =>
  ({ id, name: id, volumeMl, revision: 1 }) as unknown as BowlCard
const plaster = (id: string, name: string) => ({ id, name, revision: 1 }) as unknown as PlasterCard
const bag = (id: string, usedUp = false) =>
  ({ id, usedUp, spoonTests: [{ id: `${id} test` }] }) as unknown as BagCard
const broken = (id: string) => ({ id, unreadable: [{ path: 'name', code: 'invalid' }], raw: {} })

/** What the server has, by path; what is not here cannot be had. */
let has: Record<string, unknown> = {}
const idsOf = (cards: { id: string }[]) => cards.map((c) => c.id)

beforeEach(() => {
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal: true, speed: 1 }))
  setActivePinia(pinia)
  has = {
    '/api/settings': { revision: 3, system: 'us', tapTempC: 9 },
    '/api/plasters': [plaster('p1', 'Pottery'), broken('p2')],
    '/api/bags': [bag('b1'), broken('b2')],
    '/api/bowls': [bowl('small', 400), bowl('large', 4000)],
    '/api/recipes': [broken('r1')],
    '/api/moulds': [],
    '/api/mould-sets': [],
    '/api/devices': [],
    '/api/places': [],
    '/api/settling': [],
  }
  api.mockReset()
  const asked = (path: string) => Promise.resolve(path in has ? ok(has[path]) : failed('unavailable'))
  api.mockImplementation(asked)
  vi.mocked(callAllPages).mockReset().mockImplementation(asked)
  vi.mocked(sendFile).mockReset()
})

it('takes in what can be had, sets apart what cannot be read, and says whether it was all', async () => {
  const workshop = useWorkshop()
  const isReady = vi.fn()
  void workshop.ready.then(isReady)
  delete has['/api/bags']
  delete has['/api/moulds']
  expect(await workshop.load()).toBe(false)
  expect(isReady).toHaveBeenCalled()
  expect(workshop.settings.system).toBe('us')
  expect(habits.value.system).toBe('us')
  expect(idsOf(workshop.bowls)).toEqual(['small', 'large'])
  // A plaster without its bags is no use: neither is shown until both are there.
  expect(idsOf(workshop.plasters)).toEqual([])
  expect([workshop.stockFailed, workshop.stockLoaded]).toEqual([true, false])
  expect([workshop.mouldsFailed, workshop.mouldsLoaded]).toEqual([true, false])

  has['/api/bags'] = [bag('b1'), broken('b2')]
  has['/api/moulds'] = [broken('m1')]
  delete has['/api/settings']
  expect(await workshop.load()).toBe(false)
  expect(workshop.settings.system).toBe('us')
  expect([workshop.stockFailed, workshop.stockLoaded]).toEqual([false, true])
  expect([workshop.mouldsFailed, workshop.mouldsLoaded]).toEqual([false, true])
  expect(idsOf(workshop.plasters)).toEqual(['p1'])
  expect(Object.values(workshop.unreadable).map(idsOf)).toEqual([['m1'], ['p2', 'b2'], ['r1']])
  delete has['/api/mould-sets']
  expect(await workshop.loadMoulds()).toBe(false)
  has = { ...has, '/api/mould-sets': [], '/api/settings': { revision: 4, system: 'metric' } }
  expect(await workshop.load()).toBe(true)
})

it('puts what the stream brings where it belongs, in order, once', async () => {
  const workshop = useWorkshop()
  await workshop.load()
  const seen = (topic: 'bowl' | 'bag' | 'plaster', id: string, value: unknown) =>
    workshop.apply({ seq: 1, topic, id, value } as never)
  seen('bowl', 'mid', bowl('mid', 900))
  seen('bowl', 'also', bowl('also', 900))
  expect(idsOf(workshop.bowls)).toEqual(['small', 'also', 'mid', 'large'])
  seen('bowl', 'small', bowl('small', 9000))
  expect(idsOf(workshop.bowls)).toEqual(['also', 'mid', 'large', 'small'])
  seen('bowl', 'mid', null)
  seen('bowl', 'never was', null)
  expect(idsOf(workshop.bowls)).toEqual(['also', 'large', 'small'])
  // What is used up comes last; what became unreadable leaves its list, and comes back mended.
  seen('bag', 'b0', bag('b0', true))
  seen('bag', 'b3', bag('b3'))
  expect(idsOf(workshop.bags)).toEqual(['b1', 'b3', 'b0'])
  seen('bag', 'b1', broken('b1'))
  expect(idsOf(workshop.bags)).toEqual(['b3', 'b0'])
  expect(idsOf(workshop.unreadable.stock)).toEqual(['p2', 'b2', 'b1'])
  seen('bag', 'b2', bag('b2'))
  seen('plaster', 'p2', null)
  expect(idsOf(workshop.unreadable.stock)).toEqual(['b1'])
  expect(idsOf(workshop.bags)).toEqual(['b3', 'b2', 'b0'])
  workshop.apply({ seq: 2, topic: 'settings', id: '', value: { revision: 9, system: 'metric' } } as never)
  expect(workshop.settings).toMatchObject({ revision: 9, system: 'metric' })
})

it('what the stream brings late is not put over what was known since', async () => {
  const workshop = useWorkshop()
  await workshop.load()
  const seen = (value: unknown) => workshop.apply({ seq: 1, topic: 'bowl', id: 'small', value } as never)
  const at = (volumeMl: number, revision: number) => ({ ...bowl('small', volumeMl), revision })
  seen(at(500, 3))
  seen(at(450, 2))
  expect(workshop.bowls.find((b) => b.id === 'small')?.volumeMl).toBe(500)
  // The same again, with what hangs on it; and one that was put in anew after it was gone.
  seen(at(510, 3))
  expect(workshop.bowls.find((b) => b.id === 'small')?.volumeMl).toBe(510)
  seen(null)
  seen(at(400, 1))
  expect(workshop.bowls.find((b) => b.id === 'small')?.volumeMl).toBe(400)
})

it('shows at once what a change came to: the answer, what was there instead, or that it is gone', async () => {
  const workshop = useWorkshop()
  await workshop.load()
  api.mockResolvedValueOnce(ok(bowl('small', 500)))
  await workshop.saveBowl('small', 1, { name: 'small' } as never)
  expect(api.mock.lastCall).toEqual([
    '/api/bowls/small',
    { method: 'PUT', body: { revision: 1, bowl: { name: 'small' } } },
  ])
  expect(workshop.bowls[0]!.volumeMl).toBe(500)
  api.mockResolvedValueOnce(failed('stale_card', bowl('small', 700)))
  expect((await workshop.saveBowl('small', 1, {} as never)).ok).toBe(false)
  expect(workshop.bowls[0]!.volumeMl).toBe(700)
  api.mockResolvedValueOnce(failed('not_found'))
  await workshop.deleteBowl('small')
  expect(api.mock.lastCall).toEqual(['/api/bowls/small', { method: 'DELETE' }])
  expect(idsOf(workshop.bowls)).toEqual(['large'])
  // Nobody answers: it stands as it will, and goes by itself.
  api.mockResolvedValue(failed('unavailable'))
  expect((await workshop.saveBowl('new', null, { name: 'new', volumeMl: 900 } as never)).ok).toBe(true)
  expect((await workshop.saveBowl('large', 1, { name: 'large', volumeMl: 5000 } as never)).ok).toBe(true)
  expect(workshop.bowls).toMatchObject([
    { id: 'new', volumeMl: 900, revision: 1 },
    { id: 'large', volumeMl: 5000, revision: 2 },
  ])
  await workshop.deleteBowl('new')
  expect(idsOf(workshop.bowls)).toEqual(['large'])

  await workshop.saveMouldSet('s1', null, { name: 'Pair' } as never)
  expect(api.mock.lastCall).toEqual([
    '/api/mould-sets/s1',
    { method: 'PUT', body: { revision: null, set: { name: 'Pair' } } },
  ])
  api.mockResolvedValueOnce(ok(undefined))
  await workshop.deleteSpoonTest('b1 test')
  expect(workshop.bags[0]!.spoonTests).toEqual([])
  api.mockResolvedValueOnce(failed('stale_card', { revision: 7, system: 'metric' }))
  await workshop.saveSettings(3, {} as never)
  expect(workshop.settings.revision).toBe(7)
})

it('shows what of a shelf came in, also before a fault', async () => {
  const workshop = useWorkshop()
  await workshop.load()
  has['/api/moulds'] = [{ id: 'm2', name: 'Whelk', photos: [] }]
  vi.mocked(sendFile).mockResolvedValue(failed('stale_card'))
  await workshop.importMoulds(new File(['{}'], 'shelf.json'))
  expect(idsOf(workshop.moulds)).toEqual(['m2'])
})
