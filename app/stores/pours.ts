import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  foldPour,
  undoTargets,
  type EventBody,
  type PourEvent,
  type PourFacts,
  type PourPlan,
} from '#core/pour'
import type { NewEvent, PourRecord } from '~~/shared/contracts'
import { callAllPages, callApi, type ApiFailure } from '~/composables/useApi'
import { clock } from '~/composables/useClock'

interface Unsent {
  pourId: string
  event: NewEvent
}

const RETRY_MS = 2000

/**
 * Answers may overtake each other. Events are only ever added and revisions only grow, so what is known already is
 * never lost to an older answer.
 */
function merged(known: PourRecord | undefined, answer: PourRecord): PourRecord {
  if (!known) return answer
  const answered = new Set(answer.events.map((e) => e.id))
  const newest = answer.revision >= known.revision ? answer : known
  return { ...newest, events: [...answer.events, ...known.events.filter((e) => !answered.has(e.id))] }
}

/**
 * Pours this device has seen, and what it recorded that the server does not have yet. An event counts on screen
 * the moment it is made; it waits in the outbox, across reloads, until the server has answered for it.
 */
export const usePours = defineStore('pours', () => {
  const records = shallowRef(new Map<string, PourRecord>())
  const outbox = useLocalStorage<Unsent[]>('nine-ripples.outbox', [])
  const who = useLocalStorage('nine-ripples.who', '')
  /** An event the server refused for good: shown, so that it can be done again. */
  const refused = ref<{ unsent: Unsent; failure: ApiFailure }>()
  const openLoaded = ref(false)
  const loadFailed = ref(false)

  function put(...changed: PourRecord[]) {
    const next = new Map(records.value)
    for (const record of changed) next.set(record.id, merged(next.get(record.id), record))
    records.value = next
  }

  async function loadOpen() {
    const answer = await callAllPages<PourRecord>('/api/pours', { state: 'open' })
    loadFailed.value = !answer.ok
    if (!answer.ok) return
    put(...answer.value)
    openLoaded.value = true
  }

  /** Fetches one pour. @returns why not, when it cannot be had. */
  async function load(id: string): Promise<ApiFailure | undefined> {
    const answer = await callApi<PourRecord>(`/api/pours/${encodeURIComponent(id)}`)
    if (!answer.ok) return answer.failure
    put(answer.value)
    return undefined
  }

  // Records are replaced, never changed, so what was folded from one stays true of it.
  const folded = new WeakMap<PourRecord, { unsent: string; facts: PourFacts }>()

  function factsOf(record: PourRecord): PourFacts {
    const mine = outbox.value.filter((u) => u.pourId === record.id).map((u): PourEvent => u.event)
    const unsent = mine.map((e) => e.id).join()
    const known = folded.get(record)
    if (known?.unsent === unsent) return known.facts
    const facts = foldPour(record.plan, [...record.events, ...mine])
    folded.set(record, { unsent, facts })
    return facts
  }

  const open = computed(() =>
    [...records.value.values()]
      .map((record) => ({ record, facts: factsOf(record) }))
      .filter(({ facts }) => facts.step !== undefined),
  )

  let flushing = false
  async function flush(): Promise<void> {
    if (flushing) return
    flushing = true
    try {
      for (let next = outbox.value[0]; next !== undefined; next = outbox.value[0]) {
        const { pourId, event } = next
        const answer = await callApi<PourEvent>(`/api/pours/${pourId}/events`, {
          method: 'POST',
          body: event,
        })
        if (!answer.ok && ['unavailable', 'internal'].includes(answer.failure.code)) {
          setTimeout(() => void flush(), RETRY_MS)
          return
        }
        if (!answer.ok) refused.value = { unsent: next, failure: answer.failure }
        const record = records.value.get(pourId)
        if (answer.ok && record) put({ ...record, events: [...record.events, answer.value] })
        outbox.value = outbox.value.filter((u) => u.event.id !== event.id)
      }
    } finally {
      flushing = false
    }
  }

  /** Records that something happened now. It counts at once and is sent as soon as it can be. */
  function record(pourId: string, ...bodies: EventBody[]): void {
    const occurredAtMs = Math.round(clock.nowMs())
    // A millisecond apart: several things told at once keep their order.
    const made = bodies.map((body, i) => ({
      pourId,
      event: { id: crypto.randomUUID(), occurredAtMs: occurredAtMs + i, who: who.value, body },
    }))
    outbox.value = [...outbox.value, ...made]
    void flush()
  }

  /** Takes the last thing back. @returns whether there was one. */
  function undo(pourId: string): boolean {
    const current = records.value.get(pourId)
    if (!current) return false
    const targets = undoTargets(factsOf(current).live)
    if (targets.length > 0)
      record(pourId, ...targets.map((targetId) => ({ type: 'void' as const, targetId })))
    return targets.length > 0
  }

  async function create(plan: PourPlan, id: string) {
    const answer = await callApi<PourRecord>('/api/pours', { method: 'POST', body: { id, plan } })
    if (answer.ok) put(answer.value)
    return answer
  }

  async function changePlan(id: string, revision: number, plan: PourPlan) {
    const answer = await callApi<PourRecord>(`/api/pours/${id}/plan`, {
      method: 'PUT',
      body: { revision, plan },
    })
    if (answer.ok) put(answer.value)
    return answer
  }

  return {
    records,
    outbox,
    who,
    refused,
    open,
    openLoaded,
    loadFailed,
    factsOf,
    loadOpen,
    load,
    put,
    record,
    undo,
    flush,
    create,
    changePlan,
  }
})
