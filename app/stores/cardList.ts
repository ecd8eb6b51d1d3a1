import { ref, shallowRef } from 'vue'
import type { ErrorCode } from '~~/shared/errors'
import { isUnreadableCard, type UnreadableCard } from '~~/shared/records'
import { callAllPages, callApi, type ApiResult } from './api'
import type { Command } from './commandBox'
import { useCommands } from './commands'

export interface Card {
  id: string
}
type Answered<T> = T | UnreadableCard

interface Kind<T extends Card, Input> {
  path: string
  /** Under which name a card's content is sent. */
  as: string
  order: (a: T, b: T) => number
  /** The server gives it page by page. */
  paged?: boolean
  /** How a card of this content stands until the workshop has answered; without it nothing is kept of it meanwhile. */
  meanwhile?: (input: Input, head: { id: string; revision: number }, known: T | undefined) => T | Promise<T>
}

/**
 * One kind of card that the workshop owns, in order: asked for whole once, then changed by what the stream brings and by
 * what answers say. Cards that are there and cannot be read stand by themselves, and everything else goes on.
 */
export function cardList<T extends Card, Input = never>({
  path,
  as,
  order,
  paged,
  meanwhile,
}: Kind<T, Input>) {
  const commands = useCommands()
  const cards = shallowRef<T[]>([])
  const unreadable = shallowRef<UnreadableCard[]>([])

  /** They were had once: from the workshop, or from what this device keeps of it. */
  const had = ref(false)

  /** One card, new, changed or gone (null), among the others. */
  function put(id: string, card: Answered<T> | null): void {
    const readable = card && !isUnreadableCard(card) ? card : null
    const broken = card && isUnreadableCard(card) ? [card] : []
    if (broken.length > 0 || unreadable.value.some((c) => c.id === id))
      unreadable.value = [...unreadable.value.filter((c) => c.id !== id), ...broken]
    const known = cards.value.some((c) => c.id === id)
    if (readable) {
      const others = known ? cards.value.map((c) => (c.id === id ? readable : c)) : [...cards.value, readable]
      cards.value = others.sort(order)
    } else if (known) cards.value = cards.value.filter((c) => c.id !== id)
  }

  /** What the stream brings: never what is older than what stands here, and nothing over what waits to be sent. */
  function follow(id: string, card: Answered<T> | null): void {
    if (meanwhile && commands.isWaiting(as, id)) return
    const revisionOf = (of: object | null | undefined) =>
      (of as { revision?: number } | null | undefined)?.revision
    const [now, known] = [revisionOf(card), revisionOf(cardOf(id))]
    if (now === undefined || known === undefined || now >= known) put(id, card)
  }

  /** Asks for all of them. @returns what takes them in; undefined where they could not be had. */
  async function ask(): Promise<(() => void) | undefined> {
    const answer = await (paged ? callAllPages<Answered<T>>(path) : callApi<Answered<T>[]>(path))
    if (!answer.ok) return undefined
    return () => {
      had.value = true
      cards.value = answer.value.filter((c): c is T => !isUnreadableCard(c))
      unreadable.value = answer.value.filter((c): c is UnreadableCard => isUnreadableCard(c))
    }
  }
  /** @returns whether all of them could be had. */
  async function load(): Promise<boolean> {
    const take = await ask()
    take?.()
    return take !== undefined
  }

  /** Sends a change; what came of it is put in at once, the answer or what was there instead. */
  async function change(
    to: string,
    options: { method: 'PUT' | 'POST'; body: object },
  ): Promise<ApiResult<T>> {
    const answer = await callApi<T>(to, options)
    const now = answer.ok ? answer.value : (answer.failure.current as T | undefined)
    if (now) put(now.id, now)
    return answer
  }

  const cardOf = (id: string) => cards.value.find((c) => c.id === id)
  const show = ({ of, body, shown }: Command) => put(of, body ? (shown as T) : null)
  if (meanwhile)
    commands.on(as, {
      show,
      stored: ({ of }, answer) => put(of, (answer as T | undefined) ?? null),
      instead: ({ of, body, current }) => {
        if (current) put(of, current as T)
        else if (body && (body as { revision: number | null }).revision === null) put(of, null)
        else void load()
      },
    })

  /** @param revision what the caller saw; null for a new one. */
  async function save(
    id: string,
    revision: number | null,
    input: Input & { name: string },
  ): Promise<ApiResult<T>> {
    const to = `${path}/${id}`
    const body = { revision, [as]: input }
    if (!meanwhile) return change(to, { method: 'PUT', body })
    const asked = { topic: as, of: id, name: input.name, method: 'PUT' as const, path: to, body }
    const head = { id, revision: (revision ?? 0) + 1 }
    const answer = await commands.ask<T>(asked, () => meanwhile(input, head, cardOf(id)))
    const now = answer.ok ? answer.value : (answer.failure.current as T | undefined)
    if (now) put(now.id, now)
    return answer
  }
  async function drop(id: string): Promise<ApiResult<unknown>> {
    const to = `${path}/${id}`
    const putOut = () => put(id, null)
    if (!meanwhile) return dropped(to, putOut)
    const name = (cardOf(id) as { name?: string } | undefined)?.name ?? ''
    return droppedBy(
      await commands.ask({ topic: as, of: id, name, method: 'DELETE', path: to }, () => ({})),
      putOut,
    )
  }
  /** What this device keeps of them, until they have been had. */
  function fill(kept: readonly T[]): void {
    if (had.value) return
    had.value = true
    cards.value = [...kept].sort(order)
  }

  return { cards, unreadable, had, put, follow, ask, load, change, save, drop, fill }
}

/** Deletes what is at `path` and puts it out here, also where it was gone already. */
export async function dropped(path: string, putOut: () => void): Promise<ApiResult<unknown>> {
  return droppedBy(await callApi(path, { method: 'DELETE' }), putOut)
}

function droppedBy(answer: ApiResult<unknown>, putOut: () => void): ApiResult<unknown> {
  const gone: ErrorCode = 'not_found'
  if (answer.ok || answer.failure.code === gone) putOut()
  return answer
}
