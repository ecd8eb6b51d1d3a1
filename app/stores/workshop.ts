import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PlasterCard, Settings } from '~~/shared/contracts'
import type {
  ImportOutcome,
  MouldCard,
  MouldInput,
  MouldPhoto,
  MouldSet,
  MouldSetInput,
} from '~~/shared/moulds'
import { callAllPages, callApi, sendPicture } from '~/composables/useApi'

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
  const mouldSets = shallowRef<MouldSet[]>([])
  const mouldsLoaded = ref(false)
  const mouldsFailed = ref(false)

  async function loadSettings() {
    const answer = await callApi<Settings>('/api/settings')
    if (answer.ok) settings.value = answer.value
  }
  async function loadPlasters() {
    const answer = await callAllPages<PlasterCard>('/api/plasters')
    if (answer.ok) plasters.value = answer.value
  }
  async function loadMoulds() {
    const [cards, sets] = await Promise.all([
      callAllPages<MouldCard>('/api/moulds'),
      callApi<MouldSet[]>('/api/mould-sets'),
    ])
    mouldsFailed.value = !cards.ok
    if (!cards.ok) return
    moulds.value = cards.value
    if (sets.ok) mouldSets.value = sets.value
    mouldsLoaded.value = true
  }
  async function load() {
    await Promise.all([loadSettings(), loadPlasters(), loadMoulds()])
  }
  async function saveSettings(next: Settings) {
    const answer = await callApi<Settings>('/api/settings', { method: 'PUT', body: next })
    if (answer.ok) settings.value = answer.value
    return answer
  }

  /** Puts a new mould on the shelf, or changes the one with this id that the caller saw. */
  async function saveMould(id: string, mould: MouldInput, seenRevision: number | undefined) {
    const answer =
      seenRevision === undefined
        ? await callApi<MouldCard>('/api/moulds', { method: 'POST', body: { id, mould } })
        : await callApi<MouldCard>(`/api/moulds/${id}`, {
            method: 'PUT',
            body: { revision: seenRevision, mould },
          })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deleteMould(id: string) {
    const answer = await callApi(`/api/moulds/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function saveMouldSet(id: string, set: MouldSetInput) {
    const answer = await callApi<MouldSet>(`/api/mould-sets/${id}`, { method: 'PUT', body: set })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deleteMouldSet(id: string) {
    const answer = await callApi(`/api/mould-sets/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function addPhoto(mouldId: string, file: File, caption: string) {
    const answer = await sendPicture<MouldPhoto>(`/api/moulds/${mouldId}/photos`, file, { caption })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function deletePhoto(id: string) {
    const answer = await callApi(`/api/photos/${id}`, { method: 'DELETE' })
    if (answer.ok) await loadMoulds()
    return answer
  }
  async function importMoulds(bundle: object) {
    const answer = await callApi<ImportOutcome>('/api/moulds/import', { method: 'POST', body: bundle })
    if (answer.ok) await loadMoulds()
    return answer
  }

  return {
    settings,
    plasters,
    moulds,
    mouldSets,
    mouldsLoaded,
    mouldsFailed,
    load,
    loadSettings,
    loadPlasters,
    loadMoulds,
    saveSettings,
    saveMould,
    deleteMould,
    saveMouldSet,
    deleteMouldSet,
    addPhoto,
    deletePhoto,
    importMoulds,
  }
})
