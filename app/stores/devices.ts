import { defineStore } from 'pinia'
import { shallowReactive } from 'vue'
import { DEVICE_SILENT_MS } from '~~/shared/changes'
import type { LiveMessage } from '~~/shared/devices'
import { elapsedMs } from './clock'

export type MassNow = Omit<Extract<LiveMessage, { kind: 'mass' }>, 'kind' | 'device'>
export type TempNow = Omit<Extract<LiveMessage, { kind: 'temperature' }>, 'kind' | 'device' | 'channel'>
type Press = Extract<LiveMessage, { kind: 'button' }>

interface DeviceNow {
  mass: MassNow | undefined
  temps: Readonly<Record<string, TempNow>>
  here: boolean
}
const GONE: DeviceNow = { mass: undefined, temps: {}, here: false }

/** A device that has fallen silent is noticed within this. */
const LOOK_MS = 1000
const REMEMBERED_PRESSES = 50

/** What the workshop's scales, thermometers and buttons say now. Nothing here is kept: what counts becomes an event. */
export const useDevices = defineStore('devices', () => {
  const now = shallowReactive(new Map<string, DeviceNow>())
  const heardMs = new Map<string, number>()
  const listeners = new Set<(press: Press) => void>()
  /** A press that is told twice, by the stream and by another window, is one. */
  const told: string[] = []

  function press(message: Press) {
    if (told.includes(message.id)) return
    told.push(message.id)
    if (told.length > REMEMBERED_PRESSES) told.shift()
    listeners.forEach((listener) => listener(message))
  }

  function hear(messages: readonly LiveMessage[]) {
    for (const message of messages) {
      const before = now.get(message.device) ?? GONE
      heardMs.set(message.device, elapsedMs())
      switch (message.kind) {
        case 'mass':
          now.set(message.device, { ...before, mass: message, here: true })
          break
        case 'temperature':
          now.set(message.device, {
            ...before,
            temps: { ...before.temps, [message.channel]: message },
            here: true,
          })
          break
        case 'button':
          press(message)
          break
        case 'here':
          // What it read last is no reading of a device that has gone.
          now.set(message.device, message.here ? { ...before, here: true } : GONE)
          break
      }
    }
  }

  setInterval(() => {
    for (const [device, state] of now)
      if (state.here && elapsedMs() - (heardMs.get(device) ?? 0) > DEVICE_SILENT_MS) now.set(device, GONE)
  }, LOOK_MS)

  /** @returns how to stop listening. */
  function onPress(listener: (press: Press) => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  return { now, hear, onPress }
})
