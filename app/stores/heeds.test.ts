import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import type { EventBody } from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import type { HeedLine } from '~~/shared/heeds'
import { callApi } from './api'
import { useHeeds } from './heeds'
import { useUpkeep } from './upkeep'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const recorded = vi.hoisted(() => vi.fn())
vi.mock('./pours', () => ({ usePours: () => ({ record: recorded }) }))
const api = vi.mocked(callApi)

const line = (subject: HeedLine['subject'], pourId: string): HeedLine => ({
  subject,
  pourId,
  cause: 'too_thin',
  atMs: 0,
  piece: 'Bowl',
})
const happened = (body: { type: EventBody['type'] }, topic: 'event' | 'pour' = 'event') =>
  ({ seq: 1, topic, id: 'p', value: { body } }) as unknown as ChangeMessage
const asked = () => api.mock.calls.map(([path]) => path)

beforeEach(() => {
  setActivePinia(createPinia())
  api.mockReset()
  recorded.mockReset()
  api.mockImplementation((path) =>
    Promise.resolve({
      ok: true,
      value: {
        items: path === '/api/heeds' ? [line('mould:1', 'a'), line('mould:1', 'b'), line('bag:2', 'a')] : [],
      },
    } as never),
  )
})

it('what is to be heeded is asked for again only when something may have changed it', () => {
  const [heeds, upkeep] = [useHeeds(), useUpkeep()]
  const hear = (message: ChangeMessage) => {
    heeds.hear(message)
    upkeep.hear(message)
  }
  hear(happened({ type: 'note' }))
  hear(happened({ type: 'defect' }, 'pour'))
  hear(happened({ type: 'kept_up' }, 'pour'))
  expect(asked()).toEqual([])
  hear(happened({ type: 'defect' }))
  expect(asked()).toEqual(['/api/heeds'])
  hear(happened({ type: 'finished' }))
  expect(asked()).toEqual(['/api/heeds', '/api/upkeep'])
  hear(happened({ type: 'void' }))
  expect(asked().slice(2)).toEqual(['/api/heeds', '/api/upkeep'])
})

it('unknown is not none: what could not be had leaves what was known', async () => {
  const heeds = useHeeds()
  api.mockResolvedValueOnce({ ok: false, failure: { code: 'unavailable', fields: [] } })
  expect(await heeds.load()).toBe(false)
  expect(heeds.loaded).toBe(false)
  expect(await heeds.load()).toBe(true)
  expect(heeds.loaded).toBe(true)
  api.mockResolvedValueOnce({ ok: false, failure: { code: 'unavailable', fields: [] } })
  expect(await heeds.load()).toBe(false)
  expect(heeds.lines).toHaveLength(3)
  expect(heeds.causesIn('1', 'a')).toEqual(['too_thin'])
  expect(heeds.causesIn('2', 'a')).toEqual([])
})

it('a cause that is mended is told of each pour it was found in, and of no other', async () => {
  const heeds = useHeeds()
  await heeds.load()
  await heeds.mend(heeds.of(['mould:1']))
  expect(recorded.mock.calls.map(([pourId, body]) => [pourId, body.type, body.subject])).toEqual([
    ['a', 'cause_mended', 'mould:1'],
    ['b', 'cause_mended', 'mould:1'],
  ])
  expect(heeds.lines).toEqual([line('bag:2', 'a')])
})
