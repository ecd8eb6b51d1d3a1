import { newId } from '~~/shared/newId'
import { useKept } from './kept'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  foldPour,
  handOf,
  undoTargets,
  type EventBody,
  type KeptPlan,
  type PourEvent,
  type PourFacts,
  type PourOutlook,
} from '#core/pour'
import type { ChangeMessage } from '~~/shared/changes'
import { isUnreadable, type PourAnswer, type PourRecord, type UnreadablePour } from '~~/shared/records'
import { callAllPages, callApi, type ApiFailure, type ApiResult } from './api'
import { useCommands } from './commands'
import { copies } from './copies'
import { useBench } from './bench'
import { clockSettingMs } from './clock'
import { useForecasts } from './forecasts'
import { me } from './me'
import { useOutbox } from './outbox'

/**
 * Answers may overtake each other. Events are only ever added and revisions only grow, so what is known already is
 * never lost to an older answer.
 */
function merged(known: PourRecord | undefined, answer: PourRecord): PourRecord {
  if (!known) return answer
  const answered = new Set(answer.events.map((e) => e.id))
  const newest = answer.revision >= known.revision ? answer : known
  return { ...newest, events: [...known.events.filter((e) => !answered.has(e.id)), ...answer.events] }
}

/** Pours this device has seen, with what it recorded of them and the server does not have yet. */
export const usePours = defineStore('pours', () => {
  const records = shallowRef(new Map<string, PourRecord>())
  /** Pours that are there and cannot be read or folded: shown as themselves, and everything else goes on. */
  const unreadable = shallowRef(new Map<string, UnreadablePour>())
  const outbox = useOutbox()
  const commands = useCommands()
  const { clock, isReal } = useBench()
  const typedWho = useKept('nine-ripples.who', '')
  /** Whoever was let in on this device; at the machine itself whoever says so. */
  const who = computed({
    get: () => me.value?.name ?? typedWho.value,
    set: (name) => (typedWho.value = name),
  })
  /** What is learnt of how they sift is learnt of this hand; empty where nobody has said who works here. */
  const hand = computed(() => handOf({ who: who.value, whoId: me.value?.personId }))
  const openLoaded = ref(false)
  const loadFailed = ref(false)

  function put(...changed: PourAnswer[]) {
    const next = new Map(records.value)
    const broken = new Map(unreadable.value)
    for (const record of changed) {
      if (isUnreadable(record)) {
        next.delete(record.id)
        broken.set(record.id, record)
      } else {
        next.set(record.id, merged(next.get(record.id), record))
        broken.delete(record.id)
      }
    }
    records.value = next
    if (broken.size > 0 || unreadable.value.size > 0) unreadable.value = broken
  }

  async function loadOpen(): Promise<boolean> {
    const answer = await callAllPages<PourAnswer>('/api/bench')
    loadFailed.value = !answer.ok
    if (!answer.ok) return false
    put(...answer.value)
    openLoaded.value = true
    return true
  }

  /** What this device keeps of them, where the workshop has not answered. */
  function fill(kept: readonly PourRecord[]): void {
    put(...kept.filter(({ id }) => !records.value.has(id)))
    openLoaded.value = true
  }

  /** Fetches one pour. @returns why not, when it cannot be had. */
  async function load(id: string): Promise<ApiFailure | undefined> {
    const answer = await callApi<PourAnswer>(`/api/pours/${encodeURIComponent(id)}`)
    if (!answer.ok) {
      const held = answer.failure.code === 'unavailable' && (await copies())
      const copy = held && (await held.one<PourRecord>('pour', id).catch(() => undefined))
      if (!copy && !records.value.has(id)) return answer.failure
      if (copy) put(copy.value)
      return undefined
    }
    put(answer.value)
    return isUnreadable(answer.value) ? { code: 'record_unreadable', fields: [] } : undefined
  }

  /** What the stream brings. */
  function apply(message: Extract<ChangeMessage, { topic: 'event' | 'pour' }>) {
    if (message.topic === 'pour') put(message.value)
    else if (records.value.has(message.id)) addStored(message.id, message.value)
    // Opened again by an undo, or of a pour that is not known here yet.
    else void load(message.id)
  }

  function addStored(pourId: string, event: PourEvent) {
    const record = records.value.get(pourId)
    if (record) put({ ...record, events: [event] })
  }

  /** Pours known here that are not on the bench, fetched again: the window was away for too long to be told. */
  async function refresh() {
    const elsewhere = [...records.value.values()].filter((r) => !isOpen(r))
    for (const { id } of elsewhere) await load(id)
  }

  // Records are replaced, never changed, so what was folded from one stays true of it.
  const folded = new WeakMap<PourRecord, { unsent: string; facts: PourFacts | undefined }>()
  const forecasts = useForecasts()

  /** What a record comes to, with its forecast; undefined where it cannot be folded: then it is put among the unreadable. */
  function factsOf(record: PourRecord): PourOutlook | undefined {
    const facts = foldedOf(record)
    try {
      return facts && forecasts.outlook(record.id, facts)
    } catch (error) {
      setAside(record, error)
      return undefined
    }
  }

  const unsentOfPour = (id: string) => outbox.waiting.filter((u) => u.pourId === id).map((u) => u.event)
  /** All that was recorded of a pour, here or anywhere, sent or not. */
  const eventsOf = (record: PourRecord) => [...record.events, ...unsentOfPour(record.id)]

  function foldedOf(record: PourRecord): PourFacts | undefined {
    const mine = unsentOfPour(record.id)
    const unsent = mine.map((e) => `${e.id} ${e.occurredAtMs}`).join()
    const known = folded.get(record)
    if (known?.unsent === unsent) return known.facts
    const facts = tryFold(record)
    folded.set(record, { unsent, facts })
    return facts
  }

  function tryFold(record: PourRecord): PourFacts | undefined {
    try {
      return foldPour(record.plan, eventsOf(record), record.revision)
    } catch (error) {
      setAside(record, error)
      return undefined
    }
  }

  /** A bug of ours, or a record no model can stand: said, and kept from the other pours. */
  function setAside({ id, plan, revision, createdAtMs, events }: PourRecord, error: unknown) {
    console.error('a pour could not be folded', id, error)
    const why = error instanceof Error ? error.message : String(error)
    queueMicrotask(() => put({ id, unreadable: [why], createdAtMs, raw: { plan, revision, events } }))
  }

  /** On the go. Asked of all of them: without a forecast, which none that has ended is in need of. */
  const isOpen = (record: PourRecord) => foldedOf(record)?.step !== undefined
  const open = computed(() =>
    [...records.value.values()].filter(isOpen).flatMap((record) => {
      const facts = factsOf(record)
      return facts ? [{ record, facts }] : []
    }),
  )

  function unsentOf(
    pourId: string,
    event: { id: string; occurredAtMs: number; who: string; body: EventBody },
  ) {
    const planRevision = records.value.get(pourId)?.revision
    const revision = planRevision === undefined ? {} : { planRevision }
    return { pourId, settingMs: clockSettingMs(), event: { ...event, ...revision } }
  }

  /** Records that something happened now. It counts as soon as it is kept here, and is sent as soon as it can be. */
  function record(pourId: string, ...bodies: EventBody[]): Promise<void> {
    const nowMs = clock.nowMs()
    // A millisecond apart: several things told at once keep their order.
    return recordAt(
      pourId,
      bodies.map((body, i) => ({ atMs: nowMs + i, body })),
    )
  }

  /** The same of what happened at other times. */
  function recordAt(pourId: string, happened: readonly { atMs: number; body: EventBody }[]): Promise<void> {
    return outbox.add(
      happened.map(({ atMs, body }) =>
        unsentOf(pourId, {
          id: newId(),
          occurredAtMs: Math.round(atMs),
          who: who.value,
          body,
        }),
      ),
    )
  }

  /** Records what a button on the bench was pressed for. Every window that hears it records the same: it counts once. */
  function recordPress(pourId: string, press: { id: string; atMs: number }, by: string, body: EventBody) {
    const event = { id: press.id, occurredAtMs: Math.round(press.atMs), who: by, body }
    return outbox.add([{ ...unsentOf(pourId, event), isShared: true }])
  }

  /** Takes the last thing back. @returns whether there was one. */
  function undo(pourId: string): boolean {
    const current = records.value.get(pourId)
    if (!current) return false
    const targets = undoTargets(factsOf(current)?.live ?? [])
    if (targets.length > 0)
      void record(pourId, ...targets.map((targetId) => ({ type: 'void' as const, targetId })))
    return targets.length > 0
  }

  async function create(plan: KeptPlan, id: string): Promise<ApiResult<PourRecord>> {
    if (!isReal) {
      const createdAtMs = Math.round(clock.nowMs())
      const value: PourRecord = { id, plan, revision: 1, earlierPlans: [], createdAtMs, events: [] }
      put(value)
      return { ok: true, value }
    }
    const createdAtMs = Math.round(clock.nowMs())
    const asked = { topic: 'pour', of: id, name: plan.piece, method: 'POST' as const, path: '/api/pours' }
    const answer = await commands.ask<PourRecord>({ ...asked, body: { id, plan, createdAtMs } }, () => ({
      id,
      plan,
      revision: 1,
      earlierPlans: [],
      createdAtMs,
      events: [],
    }))
    if (answer.ok) put(answer.value)
    return answer
  }
  commands.on('pour', {
    show: ({ of: id, shown }) => {
      if (!records.value.has(id)) put(shown as PourRecord)
    },
    stored: (_, answer) => put(answer as PourRecord),
    // What was recorded of it is refused as well: both stand in the list.
    instead: () => {},
  })

  async function changePlan(id: string, revision: number, plan: KeptPlan) {
    const asked = {
      topic: 'plan',
      of: id,
      name: plan.piece,
      method: 'PUT' as const,
      path: `/api/pours/${id}/plan`,
    }
    const answer = await commands.ask<PourRecord>({ ...asked, body: { revision, plan } }, () => {
      const known = records.value.get(id)!
      const earlierPlans = [...known.earlierPlans, { revision, plan: known.plan }]
      return { ...known, plan, revision: revision + 1, earlierPlans }
    })
    if (answer.ok) put(answer.value)
    return answer
  }
  commands.on('plan', {
    show: ({ of: id, body, shown }) => {
      const { revision } = body as { revision: number }
      if (records.value.get(id)?.revision === revision) put(shown as PourRecord)
    },
    stored: (_, answer) => put(answer as PourRecord),
    instead: ({ of: id, current }) => {
      if (!current) return void load(id)
      const next = new Map(records.value)
      next.delete(id)
      records.value = next
      put(current as PourAnswer)
    },
  })

  return {
    records,
    unreadable,
    who,
    hand,
    isOpen,
    open,
    openLoaded,
    loadFailed,
    factsOf,
    eventsOf,
    loadOpen,
    load,
    fill,
    put,
    apply,
    addStored,
    refresh,
    record,
    recordAt,
    recordPress,
    undo,
    create,
    changePlan,
  }
})
