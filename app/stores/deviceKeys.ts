import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { DeviceKeyCard, DeviceKeysAnswer } from '~~/shared/devices'
import { callApi, type ApiFailure } from './api'
import { dropped } from './cardList'

/** Keys of the network's scales, thermometers and buttons: asked for where they are looked at. */
export const useDeviceKeys = defineStore('deviceKeys', () => {
  const keys = ref<DeviceKeyCard[]>([])
  /** Where they connect; null: nowhere. */
  const address = ref<string | null>(null)

  /** @returns why not, where they could not be had. */
  async function load(): Promise<ApiFailure | undefined> {
    const answer = await callApi<DeviceKeysAnswer>('/api/device-keys')
    if (!answer.ok) return answer.failure
    keys.value = answer.value.keys
    address.value = answer.value.address
    return undefined
  }

  /** @param id the caller's own: sent twice it is one key. */
  async function make(id: string, name: string) {
    const answer = await callApi<{ key: string }>('/api/device-keys', { method: 'POST', body: { id, name } })
    if (answer.ok) await load()
    return answer
  }
  const end = (id: string) =>
    dropped(`/api/device-keys/${id}`, () => (keys.value = keys.value.filter((k) => k.id !== id)))

  return { keys, address, load, make, end }
})
