import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { newId } from '~~/shared/newId'
import { callApi, isAway, type ApiResult } from './api'
import { useBench } from './bench'
import { clockSettingMs, shiftSince } from './clock'
import { openCommandBox, type Command, type RefusedCommand } from './commandBox'
import { askToStay } from './room'
import { onWindowMessage, tellWindows } from './windows'

/** How the one whose topic it is shows it while it waits, and what is there instead where it was not taken. */
interface Shown {
  show: (command: Command) => void
  instead: (command: RefusedCommand) => void
  stored: (command: Command, answer: unknown) => void
}

export type Asked = Pick<Command, 'topic' | 'of' | 'name' | 'method' | 'path' | 'body'>

/** As it goes over the wire: what a form holds is watched, and no database takes that. */
const asPlain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/**
 * What was put down here while the workshop did not answer: kept in the browser, shown as if it stood, and given to the
 * workshop in the order it was done, before the events that may hang on it. The window that leads gives it; each has an id
 * of its own, and what it is about as well, so that twice is once.
 */
export const useCommands = defineStore('commands', () => {
  const { clock, isReal } = useBench()
  const waiting = shallowRef<Command[]>([])
  const refused = shallowRef<RefusedCommand[]>([])
  const shown = new Map<string, Shown>()
  let box: ReturnType<typeof openCommandBox> | undefined

  const isWaiting = (topic: string, of: string) => waiting.value.some((c) => c.of === of && c.topic === topic)
  /** Something that events of this pour hang on. */
  const holdsUp = (pourId: string) => isWaiting('pour', pourId) || isWaiting('plan', pourId)

  function addRows(rows: readonly Command[]) {
    for (const row of rows) {
      const known = waiting.value.some((c) => c.id === row.id)
      waiting.value = known ? waiting.value.map((c) => (c.id === row.id ? row : c)) : [...waiting.value, row]
      shown.get(row.topic)?.show(row)
    }
  }
  function dropRow(id: string) {
    waiting.value = waiting.value.filter((c) => c.id !== id)
    refused.value = refused.value.filter((c) => c.id !== id)
  }

  const revisionOf = ({ body }: Asked) => (body as { revision?: number | null } | undefined)?.revision
  /** One that waits and says the same of the same thing: what is said now takes its place. What was sent may have arrived. */
  function renewable({ topic, of, method }: Asked): Command | undefined {
    const last = waiting.value.findLast((c) => c.topic === topic && c.of === of)
    return method === 'PUT' && last?.method === 'PUT' && !last.tried ? last : undefined
  }

  /**
   * Asks the workshop, and where it does not answer keeps what was asked.
   * @param meanwhile what stands here until it does.
   */
  async function ask<T extends object>(typed: Asked, meanwhile: () => T | Promise<T>): Promise<ApiResult<T>> {
    const asked = asPlain(typed)
    // What is behind another of the same must not overtake it.
    const isFirst = !isWaiting(asked.topic, asked.of)
    if (isFirst) {
      const { path, method, body } = asked
      const answer = await callApi<T>(path, { method, ...(body && { body }) })
      if (answer.ok || answer.failure.code !== 'unavailable' || !isReal) return answer
    }
    const shown = asPlain(await meanwhile())
    const earlier = renewable(asked)
    const command: Command = earlier
      ? { ...earlier, name: asked.name, body: { ...asked.body, revision: revisionOf(earlier) }, shown }
      : {
          ...asked,
          shown,
          id: newId(),
          atMs: Math.round(clock.nowMs()),
          settingMs: clockSettingMs(),
          ...(isFirst && { tried: true as const }),
        }
    try {
      box ??= openCommandBox()
      await (earlier ? (await box).renew(command) : (await box).add(command))
      askToStay()
    } catch (error) {
      console.error('the browser does not keep what was asked', error)
      return { ok: false, failure: { code: 'not_kept', fields: [] } }
    }
    addRows([command])
    tellWindows({ kind: 'command', command })
    return { ok: true, value: shown }
  }

  async function settle(command: Command, outcome: { answer?: unknown; refused?: RefusedCommand }) {
    dropRow(command.id)
    if (outcome.refused) refused.value = [...refused.value, outcome.refused]
    const of = shown.get(command.topic)
    if (outcome.refused) of?.instead(outcome.refused)
    // What was said of it since stands here already.
    else if ('answer' in outcome && !isWaiting(command.topic, command.of)) of?.stored(command, outcome.answer)
    tellWindows({
      kind: 'command_settled',
      id: command.id,
      ...(outcome.refused && { refused: outcome.refused }),
    })
    const held = await box?.catch(() => undefined)
    await (outcome.refused ? held?.refuse(outcome.refused) : held?.drop(command.id))?.catch(
      (error: unknown) => console.error('the box of commands could not be tidied', error),
    )
  }

  /** What is told with a time of this device's goes by the clock as it is set now. */
  function bodyOf({ body, settingMs }: Command): object | undefined {
    const shiftMs = shiftSince(settingMs)
    return body && 'createdAtMs' in body && shiftMs !== 0
      ? { ...body, createdAtMs: (body.createdAtMs as number) + shiftMs }
      : body
  }

  async function markTried(command: Command): Promise<void> {
    if (command.tried) return
    const tried = { ...command, tried: true as const }
    waiting.value = waiting.value.map((c) => (c.id === tried.id ? tried : c))
    tellWindows({ kind: 'command', command: tried })
    await box?.then((held) => held.renew(tried)).catch(() => undefined)
  }

  let flushing: Promise<'done' | 'away'> | undefined
  /**
   * Gives the workshop what waits, what is about one thing in its order; a fault of its own with one thing holds up no
   * other. @returns whether it is there.
   */
  function flush(): Promise<'done' | 'away'> {
    flushing ??= sendAll().finally(() => (flushing = undefined))
    return flushing
  }
  async function sendAll(): Promise<'done' | 'away'> {
    const heldUp = new Set<string>()
    for (;;) {
      const next = waiting.value.find((c) => !heldUp.has(c.of))
      if (!next) return 'done'
      await markTried(next)
      const body = bodyOf(next)
      const answer = await callApi<unknown>(next.path, { method: next.method, ...(body && { body }) })
      if (answer.ok) await settle(next, { answer: answer.value })
      else if (isAway(answer.failure)) return 'away'
      else if (answer.failure.code === 'internal') heldUp.add(next.of)
      else if (next.method === 'DELETE' && answer.failure.code === 'not_found')
        await settle(next, { answer: undefined })
      else await settle(next, { refused: { ...next, ...answer.failure } })
    }
  }

  /** What the browser holds: also what another window put down. */
  async function look(): Promise<void> {
    if (!isReal) return
    try {
      box ??= openCommandBox()
      const held = await (await box).all()
      refused.value = held.refused
      addRows(held.waiting)
    } catch {
      // No such database here: then nothing was kept.
    }
  }
  /** Once more on top of what has just been loaded. */
  const showAll = () => waiting.value.forEach((c) => shown.get(c.topic)?.show(c))

  function start() {
    onWindowMessage((message) => {
      if (message.kind === 'command') {
        refused.value = refused.value.filter((c) => c.id !== message.command.id)
        addRows([message.command])
      } else if (message.kind === 'command_settled') {
        const of = [...waiting.value, ...refused.value].find((c) => c.id === message.id)
        dropRow(message.id)
        if (message.refused) refused.value = [...refused.value, message.refused]
        if (of && message.refused) shown.get(of.topic)?.instead(message.refused)
      }
    })
  }

  /** Takes one that was not taken out of the list. */
  const forget = (id: string) => {
    const row = refused.value.find((c) => c.id === id)
    return row ? settle(row, {}) : Promise.resolve()
  }

  /** Sends one that was not taken again, perhaps for what is there now. */
  async function sendAgain({ code: _, fields: __, current: ___, ...command }: RefusedCommand): Promise<void> {
    box ??= openCommandBox()
    await (await box).sendAgain(command)
    refused.value = refused.value.filter((c) => c.id !== command.id)
    addRows([command])
    tellWindows({ kind: 'command', command })
  }

  return {
    waiting,
    refused,
    ask,
    isWaiting,
    holdsUp,
    flush,
    look,
    start,
    showAll,
    forget,
    sendAgain,
    on: (topic: string, how: Shown) => void shown.set(topic, how),
  }
})
