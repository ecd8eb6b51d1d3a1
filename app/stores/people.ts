import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { ChangeMessage } from '~~/shared/changes'
import type {
  HeldByPerson,
  HeldTaken,
  Pairing,
  PairingFor,
  PeopleAnswer,
  PersonCard,
  PersonInput,
} from '~~/shared/people'
import { callApi, type ApiFailure } from './api'
import { cardList, dropped } from './cardList'
import { loadMe, may, me } from './me'

const byName = (a: PersonCard, b: PersonCard) => a.name.localeCompare(b.name)

/** People of the workshop and their devices: asked for where they are looked at, then told by the stream. */
export const usePeople = defineStore('people', () => {
  const { cards, put, change } = cardList<PersonCard>({ path: '/api/people', as: 'person', order: byName })
  /** Where other devices reach this server; null: nowhere. */
  const address = ref<string | null>(null)
  /** Hands that are known by a name alone, as they were when it was asked. */
  const looseNames = ref<string[]>([])
  let isAsked = false

  /** @returns why not, where they could not be had. */
  async function load(): Promise<ApiFailure | undefined> {
    isAsked = true
    const answer = await callApi<PeopleAnswer>('/api/people')
    if (!answer.ok) return answer.failure
    address.value = answer.value.address
    cards.value = answer.value.people
    looseNames.value = answer.value.looseNames
    return undefined
  }

  /** What came from people who had been put out, for whoever keeps the workshop. */
  const held = shallowRef<readonly HeldByPerson[]>([])
  async function loadHeld(): Promise<boolean> {
    if (!may('keep')) {
      held.value = []
      return true
    }
    const answer = await callApi<HeldByPerson[]>('/api/held')
    if (answer.ok) held.value = answer.value
    return answer.ok
  }
  async function takeHeld(personId: string) {
    const answer = await callApi<HeldTaken>(`/api/held/${personId}/take`, { method: 'POST', body: {} })
    await loadHeld()
    return answer
  }
  async function refuseHeld(personId: string) {
    const answer = await callApi(`/api/held/${personId}/refuse`, { method: 'POST', body: {} })
    await loadHeld()
    return answer
  }

  /** Where they were asked for, once more: what was told meanwhile may have been missed. */
  async function refresh(): Promise<boolean> {
    const [isHeldKnown, failed] = [await loadHeld(), isAsked ? await load() : undefined]
    return isHeldKnown && !failed
  }

  function hear(message: Extract<ChangeMessage, { topic: 'person' }>) {
    void loadHeld()
    if (isAsked) put(message.id, message.value)
    if (message.id === me.value?.personId) void loadMe()
  }

  /** @param id the caller's own: sent twice it is one person. */
  const add = (id: string, person: PersonInput) =>
    change('/api/people', { method: 'POST', body: { id, ...person } })
  const save = (id: string, person: PersonInput) =>
    change(`/api/people/${id}`, { method: 'PUT', body: person })
  const giveNames = (id: string, names: readonly string[]) =>
    change(`/api/people/${id}/names`, { method: 'PUT', body: { names } })
  const putOut = (id: string) => dropped(`/api/people/${id}`, () => put(id, null))
  function putDeviceOut(personId: string, id: string) {
    const of = cards.value.find((p) => p.id === personId)
    return dropped(`/api/sessions/${id}`, () => {
      if (of) put(personId, { ...of, devices: of.devices.filter((d) => d.id !== id) })
    })
  }
  const pairingFor = (id: string, purpose: PairingFor) =>
    callApi<Pairing>(`/api/people/${id}/pairing`, { method: 'POST', body: { for: purpose } })

  return {
    cards,
    address,
    load,
    refresh,
    hear,
    looseNames,
    held,
    takeHeld,
    refuseHeld,
    add,
    save,
    giveNames,
    putOut,
    putDeviceOut,
    pairingFor,
  }
})
