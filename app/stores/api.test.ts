import { FetchError } from 'ofetch'
import { beforeEach, expect, it, vi } from 'vitest'
import { callAllPages, callApi, isDiskFull, lookAtDisk, onlyRead, sendFile } from './api'
import { lostPlace } from './place'

const fetched = vi.hoisted(() => vi.fn())
vi.mock('ofetch', async (original) => ({ ...(await original<typeof import('ofetch')>()), $fetch: fetched }))

const says = (error: object | undefined) =>
  fetched.mockRejectedValueOnce(Object.assign(new FetchError('no'), { data: error && { error } }))

beforeEach(() => {
  fetched.mockReset()
  isDiskFull.value = false
})

it('a failure is what the server said of it, or that it cannot be reached; a bug is loud', async () => {
  says({ code: 'stale_card', fields: [], current: { revision: 2 } })
  expect(await callApi('/api/bowls/1', { method: 'PUT', body: {} })).toEqual({
    ok: false,
    failure: { code: 'stale_card', fields: [], current: { revision: 2 } },
  })
  says(undefined)
  expect(await callApi('/api/bowls')).toEqual({ ok: false, failure: { code: 'unavailable', fields: [] } })
  // What is sent twice must not be decided here: each caller knows when it may be.
  expect(fetched).toHaveBeenLastCalledWith('/api/bowls', {
    timeout: 10_000,
    headers: { 'x-ripples-workshop': 'home' },
    retry: 0,
  })
  fetched.mockRejectedValueOnce(new TypeError('a bug'))
  await expect(callApi('/api/bowls')).rejects.toThrow('a bug')
})

it('a window that is told it is elsewhere remembers it', async () => {
  says({ code: 'not_found', fields: [] })
  await callApi('/api/bowls')
  expect(lostPlace.value).toBeUndefined()
  says({ code: 'elsewhere', fields: [] })
  await callApi('/api/bowls')
  expect(lostPlace.value).toBe('elsewhere')
})

it('a full disk is remembered until something was kept, or health says so', async () => {
  const full = { code: 'disk_full', fields: [] }
  await lookAtDisk()
  expect(fetched).not.toHaveBeenCalled()
  says(full)
  await callApi('/api/pours', { method: 'POST' })
  expect(isDiskFull.value).toBe(true)
  // To read is no sign of room.
  fetched.mockResolvedValueOnce([])
  await callApi('/api/bowls')
  fetched.mockResolvedValueOnce([])
  await callApi('/api/bowls', { method: 'GET' })
  says(undefined)
  await lookAtDisk()
  expect(isDiskFull.value).toBe(true)
  fetched.mockResolvedValueOnce({})
  await callApi('/api/pours', { method: 'POST' })
  expect(isDiskFull.value).toBe(false)
  says(full)
  await callApi('/api/pours', { method: 'POST' })
  fetched.mockResolvedValueOnce({})
  await lookAtDisk()
  expect(isDiskFull.value).toBe(false)
})

it('a paged list comes whole, from page to page, or not at all', async () => {
  fetched.mockResolvedValueOnce({ items: [1, 2], next: 'b' }).mockResolvedValueOnce({ items: [3] })
  expect(await callAllPages('/api/pours', { state: 'open' })).toEqual({ ok: true, value: [1, 2, 3] })
  expect(fetched.mock.calls.map(([, o]) => (o as { query: object }).query)).toEqual([
    { state: 'open', limit: 100, after: '' },
    { state: 'open', limit: 100, after: 'b' },
  ])
  fetched.mockResolvedValueOnce({ items: [1], next: 'b' })
  says({ code: 'internal', fields: [] })
  expect((await callAllPages('/api/pours')).ok).toBe(false)
})

it('a file goes as it is; a rehearsal asks and changes nothing', async () => {
  const file = new File(['x'], 'a.jpg', { type: 'image/jpeg' })
  fetched.mockResolvedValueOnce({})
  await sendFile('/api/photos', file, { query: { id: 1 }, timeoutMs: 9 })
  expect(fetched.mock.lastCall).toMatchObject([
    '/api/photos',
    { method: 'POST', body: file, headers: { 'content-type': 'image/jpeg' }, timeout: 9 },
  ])
  onlyRead()
  fetched.mockReset().mockResolvedValue('read')
  expect(await callApi('/api/bowls')).toEqual({ ok: true, value: 'read' })
  expect(await callApi('/api/bowls', { method: 'GET' })).toEqual({ ok: true, value: 'read' })
  expect(await callApi('/api/bowls/1', { method: 'DELETE' })).toEqual({
    ok: false,
    failure: { code: 'rehearsal', fields: [] },
  })
  expect(fetched).toHaveBeenCalledTimes(2)
})
