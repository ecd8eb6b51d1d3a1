import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { MouldCard, PlasterCard, Settings } from '~~/shared/contracts'
import { callAllPages, callApi } from '~/composables/useApi'

/** Stands in until the workshop's own arrive. */
const FALLBACK: Settings = {
  workshopName: '',
  system: 'metric',
  scaleDivisionG: 1,
  roomTempC: 20,
  roomRhPct: 50,
  airSpeedMS: 0.1,
  tapTempC: 15,
}

/** What the workshop owns: settings, plasters, moulds. */
export const useWorkshop = defineStore('workshop', () => {
  const settings = ref<Settings>(FALLBACK)
  const plasters = shallowRef<PlasterCard[]>([])
  const moulds = shallowRef<MouldCard[]>([])

  async function loadSettings() {
    const answer = await callApi<Settings>('/api/settings')
    if (answer.ok) settings.value = answer.value
  }
  async function loadPlasters() {
    const answer = await callAllPages<PlasterCard>('/api/plasters')
    if (answer.ok) plasters.value = answer.value
  }
  async function loadMoulds() {
    const answer = await callAllPages<MouldCard>('/api/moulds')
    if (answer.ok) moulds.value = answer.value
  }
  async function load() {
    await Promise.all([loadSettings(), loadPlasters(), loadMoulds()])
  }
  async function saveSettings(next: Settings) {
    const answer = await callApi<Settings>('/api/settings', { method: 'PUT', body: next })
    if (answer.ok) settings.value = answer.value
    return answer
  }

  return { settings, plasters, moulds, load, loadSettings, loadPlasters, loadMoulds, saveSettings }
})
