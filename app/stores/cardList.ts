import { shallowRef } from 'vue'
import type { ErrorCode } from '~~/shared/errors'
import { isUnreadableCard, type UnreadableCard } from '~~/shared/records'
import { callAllPages, callApi, type ApiResult } from './api'

export interface Card {
  id: string
}
type Answered<T> = T | UnreadableCard

interface Kind<T extends Card> {
  path: string
  /** Under which name a card's content is sent. */
  as: string
  order: (a: T, b: T) => number
  /** The server gives it page by page. */
  paged?: boolean
}

/**
 * One kind of card that the workshop owns, in order: asked for whole once, then changed by what the stream brings and by
 * what answers say. Cards that are there and cannot be read stand by themselves, and everything else goes on.
 */
export function cardList<T extends Card, Input = never>({ path, as, order, paged }: Kind<T>) {
  const cards = shallowRef<T[]>([])
  const unreadable = shallowRef<UnreadableCard[]>([])

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

  /** Asks for all of them. @returns what takes them in; undefined where they could not be had. */
  async function ask(): Promise<(() => void) | undefined> {
    const answer = await (paged ? callAllPages<Answered<T>>(path) : callApi<Answered<T>[]>(path))
    if (!answer.ok) return undefined
    return () => {
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
  /** @param revision what the caller saw; null for a new one. */
  const save = (id: string, revision: number | null, input: Input) =>
    change(`${path}/${id}`, { method: 'PUT', body: { revision, [as]: input } })
  const drop = (id: string) => dropped(`${path}/${id}`, () => put(id, null))

  return { cards, unreadable, put, ask, load, change, save, drop }
}

/** Deletes what is at `path` and puts it out here, also where it was gone already. */
export async function dropped(path: string, putOut: () => void): Promise<ApiResult<unknown>> {
  const answer = await callApi(path, { method: 'DELETE' })
  const gone: ErrorCode = 'not_found'
  if (answer.ok || answer.failure.code === gone) putOut()
  return answer
}
