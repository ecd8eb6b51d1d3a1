import { useKeptByDevice } from './kept'
import type { TimeAnswer } from '~~/shared/changes'
import { callApi } from './api'

/** Tells the time. Which one this window goes by is handed in (`bench.ts`). */
export interface Clock {
  nowMs(): number
}

/** What this device's clock is behind the server's, ms; outlives a reload, so that it is known without a connection. */
const offsetMs = useKeptByDevice('nine-ripples.clock-offset', 0)

/** A setting that differs by less is as good as the last one: the way to the server and back takes its time. */
const SAME_SETTING_MS = 2000

/** Time since this page was loaded, ms: for how long something took, whatever the clock is set to. */
export const elapsedMs = () => performance.now()

/** Real time, as the workshop's server has it. */
export const workshopClock: Clock = { nowMs: () => Date.now() + offsetMs.value }

/** The setting that the clock goes by now; what was timed by another one can be set right with it. */
export const clockSettingMs = () => offsetMs.value

/** By how much a time told under an earlier setting is off, ms; 0 where the settings are as good as one. */
export function shiftSince(settingMs: number): number {
  const shiftMs = Math.round(offsetMs.value - settingMs)
  return Math.abs(shiftMs) < SAME_SETTING_MS ? 0 : shiftMs
}

/**
 * Sets this device by the server, half the round trip allowed for, and says where the change log stands. Keeps the old
 * setting if it cannot be asked.
 */
export async function syncClock(): Promise<TimeAnswer | undefined> {
  const sentMs = Date.now()
  const answer = await callApi<TimeAnswer>('/api/time')
  if (!answer.ok) return undefined
  const wayMs = (Date.now() - sentMs) / 2
  const setting = answer.value.serverTimeMs - (sentMs + wayMs)
  // What was long on its way tells no more than that: within it the old setting is as good.
  if (Math.abs(setting - offsetMs.value) > Math.max(SAME_SETTING_MS / 20, wayMs)) offsetMs.value = setting
  return answer.value
}

/** The server has told the time in passing: whether this device's setting is still good. */
export const agreesWith = (serverTimeMs: number) =>
  Math.abs(serverTimeMs - workshopClock.nowMs()) < SAME_SETTING_MS
