import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { PourEvent } from '#core/pour'
import { backOffMs } from '~~/shared/backOff'
import type { PostedEvent } from '~~/shared/pourEvents'
import { callApi, isAway, type ApiFailure } from './api'
import { useBench } from './bench'
import { useCommands } from './commands'
import { askToStay } from './room'
import { shiftSince, syncClock } from './clock'
import { placeOf } from './kept'
import { openEventBox, type EventBox, type Refused, type Unsent } from './eventBox'
import { may, me } from './me'
import { isAtHome, isLetIn, lostPlace } from './place'
import { onWindowMessage, tellWindows } from './windows'

/** Handed over in one go. */
const MOST_AT_ONCE = 100
const RETRY = { firstMs: 2000, longestMs: 30_000 }
/** Where it was kept before the browser's database was used. */
const OLD_PLACE = 'nine-ripples.outbox'

type Stored = (pourId: string, event: PourEvent) => void

/** Nothing but the stored event itself is a yes: anything else that looks like an answer is none. */
function isAcknowledged(answer: unknown, { event }: Unsent): answer is PourEvent {
  const stored = answer as Partial<PourEvent> | null
  return (
    typeof stored === 'object' &&
    stored?.id === event.id &&
    typeof stored.receivedAtMs === 'number' &&
    stored.body?.type === event.body.type
  )
}

/**
 * What was recorded here and the server has not answered for. Each event is kept in the browser before it counts on
 * screen; the window that leads sends them, the others hear what became of them.
 */
export const useOutbox = defineStore('outbox', () => {
  const { clock, isReal } = useBench()
  const commands = useCommands()
  const unsent = shallowRef<Unsent[]>([])
  const refused = shallowRef<Refused[]>([])
  /** The browser would not keep something: it is only in this window, and lost with it. */
  const onlyHere = ref(new Set<string>())
  const atRisk = computed(() => unsent.value.some((u) => onlyHere.value.has(u.event.id)))
  /** Events on their way, as they will count. */
  const waiting = computed(() => unsent.value.map((u) => ({ pourId: u.pourId, event: asItWillCount(u) })))

  /** Told by the clock as it is set now; whoever is let in here did it, unless a button on the bench was pressed. */
  function asItWillCount({ event, settingMs, isShared }: Unsent): PourEvent {
    const shiftMs = shiftSince(settingMs)
    const whoId = isShared ? undefined : me.value?.personId
    const occurredAtMs = event.occurredAtMs + shiftMs
    return whoId === undefined ? { ...event, occurredAtMs } : { ...event, occurredAtMs, whoId }
  }

  let box: Promise<EventBox> | undefined
  let leads = false
  let onStored: Stored = () => {}
  const settled = new Set<string>()

  function addRows(rows: readonly Unsent[]) {
    const known = new Set(unsent.value.map((u) => u.event.id))
    const added = rows.filter((r) => !known.has(r.event.id) && !settled.has(r.event.id))
    if (added.length > 0) unsent.value = [...unsent.value, ...added]
  }
  function dropRow(eventId: string) {
    settled.add(eventId)
    unsent.value = unsent.value.filter((u) => u.event.id !== eventId)
    refused.value = refused.value.filter((r) => r.event.id !== eventId)
    onlyHere.value.delete(eventId)
  }

  /** What the browser holds: also what another window wrote and could not tell of any more. */
  async function look(): Promise<void> {
    await commands.look()
    box ??= openEventBox()
    try {
      const held = await (await box).all()
      addRows(held.unsent)
      const known = new Set(refused.value.map((r) => r.event.id))
      refused.value = [
        ...refused.value,
        ...held.refused.filter((r) => !known.has(r.event.id) && !settled.has(r.event.id)),
      ]
    } catch {
      // No such database here: what is recorded is kept in the window, and said so.
    }
  }

  /** Keeps rows in the browser; where it will not, in this window alone. */
  async function keep(rows: readonly Unsent[]): Promise<void> {
    try {
      box ??= openEventBox()
      await (await box).add(rows)
      askToStay()
    } catch (error) {
      console.error('the browser does not keep what is recorded', error)
      onlyHere.value = new Set([...onlyHere.value, ...rows.map((r) => r.event.id)])
    }
  }

  let lastKept: Promise<void> = Promise.resolve()
  /** Resolves when they are kept and count. One after the other, so that they stay in order. */
  function add(rows: readonly Unsent[]): Promise<void> {
    // Who only looks on is told so wherever they are.
    if (!may('work')) return Promise.resolve()
    if (!isReal) {
      addRows(rows)
      return Promise.resolve()
    }
    lastKept = lastKept.then(async () => {
      await keep(rows)
      addRows(rows)
      tellWindows({ kind: 'recorded', rows: [...rows] })
      void flush()
    })
    return lastKept
  }

  async function takeOver(): Promise<void> {
    const old = isAtHome && placeOf('localStorage').getItem(OLD_PLACE)
    if (!old) return
    const rows = (JSON.parse(old) as Omit<Unsent, 'settingMs'>[]).map((r) => ({ ...r, settingMs: 0 }))
    if (rows.length > 0) await add(rows)
    if (!atRisk.value) placeOf('localStorage').removeItem(OLD_PLACE)
  }

  /** For the application's shell, once. @param stored hears of each event that the server has taken. */
  async function start(stored: Stored): Promise<void> {
    onStored = stored
    onWindowMessage((message) => {
      if (message.kind === 'recorded') {
        addRows(message.rows)
        void flush()
      } else if (message.kind === 'sent_again') {
        settled.delete(message.row.event.id)
        refused.value = refused.value.filter((r) => r.event.id !== message.refusedId)
        addRows([message.row])
        void flush()
      } else if (message.kind === 'command') void flush()
      else if (message.kind === 'look') {
        if (leads) void look().then(flush)
      } else if (message.kind === 'settled') {
        if (message.stored) onStored(message.pourId, message.stored)
        dropRow(message.eventId)
        if (message.refused) refused.value = [...refused.value, message.refused]
      }
    })
    addEventListener('beforeunload', (event) => {
      if (atRisk.value) event.preventDefault()
    })
    commands.start()
    await look()
    await takeOver()
    tellWindows({ kind: 'look' })
    await flush()
  }

  async function lead(): Promise<void> {
    leads = true
    await look()
    await flush()
  }

  async function settle(row: Unsent, outcome: { stored?: PourEvent; refused?: Refused }): Promise<void> {
    const { pourId, event } = row
    if (outcome.stored) onStored(pourId, outcome.stored)
    dropRow(event.id)
    if (outcome.refused) refused.value = [...refused.value, outcome.refused]
    tellWindows({ kind: 'settled', pourId, eventId: event.id, ...outcome })
    const held = await box?.catch(() => undefined)
    const done = outcome.refused ? held?.refuse(outcome.refused) : held?.drop(event.id)
    await done?.catch((error: unknown) => console.error('the box of events could not be tidied', error))
  }

  type Sent =
    | { is: 'stored'; event: PourEvent }
    /** Somebody else's of the same id counts: it comes by the stream. */
    | { is: 'there' }
    | { is: 'away' }
    | { is: 'held' }
    | { is: 'refused'; why: ApiFailure }

  function posted(row: Unsent): PostedEvent {
    const shiftMs = shiftSince(row.settingMs)
    return shiftMs === 0 ? row.event : { ...row.event, shiftMs }
  }

  async function post(row: Unsent): Promise<Sent> {
    const body = posted(row)
    const answer = await callApi<unknown>(`/api/pours/${row.pourId}/events`, { method: 'POST', body })
    if (answer.ok)
      return isAcknowledged(answer.value, row) ? { is: 'stored', event: answer.value } : { is: 'away' }
    const { code } = answer.failure
    if (isAway(answer.failure)) return { is: 'away' }
    if (code === 'event_id_conflict' && row.isShared) return { is: 'there' }
    // A fault of the server's own with this one: the other pours need not wait for it.
    if (code === 'internal') return { is: 'held' }
    return { is: 'refused', why: answer.failure }
  }

  async function send(row: Unsent): Promise<Sent> {
    const first = await post(row)
    if (first.is !== 'refused' || first.why.code !== 'time_in_future') return first
    // One of the two clocks has been put right since: told by the server's, it is an event like any other.
    const before = shiftSince(row.settingMs)
    await syncClock()
    return shiftSince(row.settingMs) === before ? first : post(row)
  }

  /** Left with whoever keeps the workshop, from a device that was put out; it is kept here all the same. */
  const handedOver = ref(new Set<string>())
  async function handOver(): Promise<void> {
    if (lostPlace.value !== 'sign_in' || !isLetIn) return
    const rows = unsent.value.filter((u) => !handedOver.value.has(u.event.id)).slice(0, MOST_AT_ONCE)
    if (rows.length === 0) return
    const events = rows.map((row) => ({ pourId: row.pourId, event: posted(row) }))
    const answer = await callApi<{ held: string[] }>('/api/held', { method: 'POST', body: { events } })
    if (answer.ok) handedOver.value = new Set([...handedOver.value, ...answer.value.held])
  }

  let failures = 0
  let retry: ReturnType<typeof setTimeout> | undefined
  function retryLater() {
    failures += 1
    clearTimeout(retry)
    retry = setTimeout(() => void flush(), backOffMs(failures, RETRY))
  }

  /** Sends what waits, each pour's events in their order; a pour held up holds up no other. */
  async function sendAll(): Promise<void> {
    // A pour is begun before anything can have happened to it.
    if ((await commands.flush()) === 'away' && unsent.value.length === 0) return retryLater()
    const heldUp = new Set<string>()
    for (;;) {
      const next = unsent.value.find((u) => !heldUp.has(u.pourId) && !commands.holdsUp(u.pourId))
      if (!next) break
      const sent = await send(next)
      if (sent.is === 'away') {
        retryLater()
        void handOver()
        return
      }
      if (sent.is === 'held') heldUp.add(next.pourId)
      else if (sent.is === 'there') await settle(next, {})
      else if (sent.is === 'stored') await settle(next, { stored: sent.event })
      else await settle(next, { refused: { ...next, ...sent.why, refusedAtMs: clock.nowMs() } })
    }
    if (heldUp.size > 0 || commands.waiting.length > 0) retryLater()
    else failures = 0
  }

  let flushing: Promise<void> | undefined
  let again = false
  function flush(): Promise<void> {
    if (!isReal || !leads) return Promise.resolve()
    again = true
    flushing ??= (async () => {
      while (again) {
        again = false
        await sendAll()
      }
    })().finally(() => (flushing = undefined))
    return flushing
  }

  /** The workshop answers again: no need to wait any longer. */
  async function flushNow(): Promise<void> {
    failures = 0
    clearTimeout(retry)
    await flush()
  }

  /** Takes a refused event out of the list. */
  async function forget(eventId: string): Promise<void> {
    const row = refused.value.find((r) => r.event.id === eventId)
    if (row) await settle(row, {})
  }

  /** Sends a refused event again, as it is or corrected; it is a new event where its content is. */
  async function sendAgain(row: Refused, event = row.event, settingMs = row.settingMs): Promise<void> {
    const next: Unsent = { pourId: row.pourId, event, settingMs }
    try {
      await (await box)?.sendAgain(row.event.id, next)
    } catch (error) {
      console.error('the browser does not keep what is recorded', error)
      onlyHere.value = new Set([...onlyHere.value, event.id])
    }
    settled.delete(event.id)
    addRows([next])
    refused.value = refused.value.filter((r) => r.event.id !== row.event.id)
    tellWindows({ kind: 'sent_again', refusedId: row.event.id, row: next })
    void flush()
  }

  return {
    unsent,
    waiting,
    refused,
    handedOver,
    atRisk,
    start,
    lead,
    look,
    add,
    flush,
    flushNow,
    forget,
    sendAgain,
  }
})
