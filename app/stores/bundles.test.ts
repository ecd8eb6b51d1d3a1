import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { BundleJob } from '~~/shared/bundle'
import { callApi } from './api'
import { followBundle } from './bundles'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
  sendFile: vi.fn(),
}))
const api = vi.mocked(callApi)
const says = (state: BundleJob['state'], done: number) =>
  ({ ok: true, value: { id: 'j', kind: 'import', state, ahead: 0, done, total: 9 } }) as never
const fails = (code: 'unavailable' | 'not_found') => ({ ok: false, failure: { code, fields: [] } }) as never

beforeEach(() => {
  vi.useFakeTimers()
  api.mockReset()
})
afterEach(() => void vi.useRealTimers())

/** Follows it for a minute. @returns what was told. */
async function follow() {
  const told: BundleJob[] = []
  const { stop } = followBundle('j', (job) => told.push(job))
  await vi.advanceTimersByTimeAsync(60_000)
  return { told, stop }
}

it('work is followed through silence until it stands still, and no further', async () => {
  api.mockResolvedValueOnce(says('running', 1)).mockResolvedValueOnce(fails('unavailable'))
  api.mockResolvedValueOnce(says('running', 5)).mockResolvedValueOnce(says('ready', 9))
  const { told } = await follow()
  expect(told.map((j) => `${j.state} ${j.done}`)).toEqual(['running 1', 'running 5', 'ready 9'])
  expect(api).toHaveBeenCalledTimes(4)
})

it('work of which the server knows nothing any more has failed', async () => {
  api.mockResolvedValueOnce(says('running', 1)).mockResolvedValue(fails('not_found'))
  const { told } = await follow()
  expect(told.at(-1)).toMatchObject({ id: 'j', state: 'failed', failure: 'not_found' })
  expect(api).toHaveBeenCalledTimes(2)
})

it('who has stopped following hears nothing more, not even of what was asked already', async () => {
  let answer: (value: never) => void = () => {}
  api.mockImplementation(() => new Promise((then) => (answer = then)) as never)
  const { told, stop } = await follow()
  stop()
  answer(says('ready', 9))
  await vi.advanceTimersByTimeAsync(5000)
  expect(told).toEqual([])
  expect(api).toHaveBeenCalledTimes(1)
})
