import { defineStore } from 'pinia'
import { shallowReactive, shallowRef } from 'vue'
import { DEVICE_SILENT_MS } from '~~/shared/changes'
import type { LiveMessage, Refusal } from '~~/shared/devices'
import { elapsedMs } from './clock'

export type MassNow = Omit<Extract<LiveMessage, { kind: 'mass' }>, 'kind' | 'device'>
export type TempNow = Omit<Extract<LiveMessage, { kind: 'temperature' }>, 'kind' | 'device' | 'channel'>
type Press = Extract<LiveMessage, { kind: 'button' }>

interface DeviceNow {
  mass: MassNow | undefined
  temps: Readonly<Record<string, TempNow>>
  here: boolean
  /** Lines of it that were not heard, as it was last told; it says more than is listened to. */
  dropped: { lines: number; atMs: number } | undefined
}
const GONE: DeviceNow = { mass: undefined, temps: {}, here: false, dropped: undefined }
/** Who was turned away is of interest for so long, and the latest of them. */
const REFUSED_FOR_MS = 120_000
const MOST_REFUSED = 10

/** A device that has fallen silent is noticed within this. */
const LOOK_MS = 1000
const REMEMBERED_PRESSES = 50

/** What the workshop's scales, thermometers and buttons say now. Nothing here is kept: what counts becomes an event. */
export const useDevices = defineStore('devices', () => {
  const now = shallowReactive(new Map<string, DeviceNow>())
  const heardMs = new Map<string, number>()
  /** Who was turned away at the door just now, the latest first. */
  const refused = shallowRef<readonly Refusal[]>([])
  const listeners = new Set<(press: Press) => void>()
  /** A press that is told twice, by the stream and by another window, is one. */
  const told: string[] = []

  function press(message: Press) {
    if (told.includes(message.id)) return
    told.push(message.id)
    if (told.length > REMEMBERED_PRESSES) told.shift()
    listeners.forEach((listener) => listener(message))
  }

  function refuse({ device, name, address, why, atMs }: Refusal) {
    const others = refused.value.filter((r) => r.device !== device || r.address !== address)
    refused.value = [{ device, name, address, why, atMs }, ...others].slice(0, MOST_REFUSED)
    setTimeout(
      () => (refused.value = refused.value.filter((r) => r.atMs !== atMs || r.device !== device)),
      REFUSED_FOR_MS,
    )
  }

  function hear(messages: readonly LiveMessage[]) {
    for (const message of messages) {
      if (message.kind === 'refused') {
        refuse(message)
        continue
      }
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
        case 'dropped':
          now.set(message.device, { ...before, dropped: message })
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

  return { now, refused, hear, onPress }
})
