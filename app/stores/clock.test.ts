import { beforeEach, expect, it, vi } from 'vitest'
import { callApi } from './api'
import { agreesWith, clockSettingMs, shiftSince, syncClock, workshopClock } from './clock'

vi.mock('./api', async (original) => ({
  ...(await original<typeof import('./api')>()),
  callApi: vi.fn(),
}))
const kept = vi.hoisted(() => ({ value: 0 }))
vi.mock('./kept', () => ({ useKeptByDevice: () => kept }))

const NOON = Date.UTC(2026, 10, 30, 12)
/** The server, so far ahead of this device, answering after so long. */
const asks = (aheadMs: number, tookMs = 0) =>
  vi.mocked(callApi).mockImplementationOnce(async () => {
    const serverTimeMs = Date.now() + tookMs / 2 + aheadMs
    vi.setSystemTime(Date.now() + tookMs)
    return { ok: true, value: { serverTimeMs, seq: 4 } }
  })

beforeEach(() => {
  kept.value = 0
  vi.useFakeTimers({ now: NOON })
  return () => vi.useRealTimers()
})

it('goes by the server, half the way allowed for; what cannot be asked changes nothing', async () => {
  asks(3_600_000, 400)
  expect(await syncClock()).toMatchObject({ seq: 4 })
  expect(clockSettingMs()).toBe(3_600_000)
  expect(workshopClock.nowMs() - Date.now()).toBe(3_600_000)
  vi.mocked(callApi).mockResolvedValueOnce({ ok: false, failure: { code: 'unavailable', fields: [] } })
  expect(await syncClock()).toBeUndefined()
  expect(clockSettingMs()).toBe(3_600_000)
})

it('keeps a setting that is as good: within a tenth of a second, or within what the way took', async () => {
  asks(90)
  await syncClock()
  expect(clockSettingMs()).toBe(0)
  asks(110)
  await syncClock()
  expect(clockSettingMs()).toBe(110)
  asks(900, 2000)
  await syncClock()
  expect(clockSettingMs()).toBe(110)
  asks(-1200, 2000)
  await syncClock()
  expect(clockSettingMs()).toBe(-1200)
})

it('says by how much another setting was off, and whether this one still holds', () => {
  kept.value = 5000
  expect(shiftSince(0)).toBe(5000)
  expect(shiftSince(7000)).toBe(-2000)
  expect(shiftSince(3001)).toBe(0)
  expect(agreesWith(NOON + 5000 + 1999)).toBe(true)
  expect(agreesWith(NOON + 5000 - 2000)).toBe(false)
})
