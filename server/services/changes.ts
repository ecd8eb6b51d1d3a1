import type { ChangeMessage, ChangeTopic, ChangeValues } from '../../shared/changes'
import type { Db } from '../db/client'
import { bagsById } from './shelf/bags'
import { bowlsById, placesById, recipesById } from './shelf/cupboard'
import { devicesById } from './devices'
import { mouldSetsById } from './shelf/mouldSets'
import { mouldsById } from './shelf/moulds'
import { plastersById } from './shelf/plasters'
import { peopleById } from './people'
import { eventsById, poursById } from './pours/pourRecords'
import { settlingById } from './learnt/settling'
import { getSettings } from './workshop'

/** A line of the change log. */
export interface Change {
  seq: number
  topic: ChangeTopic
  id: string
  eventId: string | null
}

/** Read at once; a window that is further behind loads everything again, which is quicker. */
export const MOST_CHANGES = 500

/** Newest change number, 0 before any. */
export async function latestSeq(db: Db): Promise<number> {
  const row = await db
    .selectFrom('change')
    .select((eb) => eb.fn.max('seq').as('seq'))
    .executeTakeFirst()
  return Number(row?.seq ?? 0)
}

/** The oldest number still in the log; undefined where it is empty. */
export async function oldestSeq(db: Db): Promise<number | undefined> {
  const row = await db
    .selectFrom('change')
    .select((eb) => eb.fn.min('seq').as('seq'))
    .executeTakeFirst()
  return row?.seq ?? undefined
}

/** Changes after a cursor, oldest first, at most `MOST_CHANGES`. */
export async function changesAfter(db: Db, seq: number): Promise<Change[]> {
  const rows = await db
    .selectFrom('change')
    .selectAll()
    .where('seq', '>', seq)
    .orderBy('seq')
    .limit(MOST_CHANGES)
    .execute()
  return rows.map((r) => ({ seq: r.seq, topic: r.topic, id: r.entity_id, eventId: r.event_id }))
}

/** Forgets changes older than this, the newest always kept: from it a window knows where it stands. */
export async function pruneChanges(db: Db, olderThanMs: number, nowMs: number): Promise<number> {
  const gone = await db
    .deleteFrom('change')
    .where('at', '<', new Date(nowMs - olderThanMs))
    .where('seq', '<', (eb) => eb.selectFrom('change').select(eb.fn.max('seq').as('seq')))
    .executeTakeFirst()
  return Number(gone.numDeletedRows)
}

type Fetched = { id: string }[]
const byId = (found: Fetched) => new Map(found.map((f) => [f.id, f]))

/** How the cards of a topic are fetched; events and settings are fetched in their own ways. */
const FETCH: Record<
  Exclude<ChangeTopic, 'event' | 'settings'>,
  (db: Db, ids: readonly string[]) => Promise<Fetched>
> = {
  pour: poursById,
  plaster: plastersById,
  bag: bagsById,
  bowl: bowlsById,
  recipe: recipesById,
  mould: mouldsById,
  mould_set: mouldSetsById,
  device: devicesById,
  settling: settlingById,
  place: placesById,
  person: peopleById,
}

/**
 * What changed, as data: a card that changed several times is sent once, as it is now, under the last of its numbers.
 * An event that cannot be read brings its whole pour, which says so.
 */
export async function messagesOf(db: Db, changes: readonly Change[]): Promise<ChangeMessage[]> {
  const events = await eventsById(
    db,
    changes.flatMap((c) => (c.topic === 'event' && c.eventId ? [c.eventId] : [])),
  )
  const told = changes.map((c) =>
    c.topic === 'event' && !(c.eventId && events.has(c.eventId)) ? { ...c, topic: 'pour' as const } : c,
  )
  const last = new Map(told.map((c) => [c.topic === 'event' ? c.seq : `${c.topic} ${c.id}`, c]))
  const kept = [...last.values()].sort((a, b) => a.seq - b.seq)
  const values = new Map<ChangeTopic, Map<string, object>>()
  for (const topic of Object.keys(FETCH) as (keyof typeof FETCH)[]) {
    const ids = kept.filter((c) => c.topic === topic).map((c) => c.id)
    if (ids.length > 0) values.set(topic, byId(await FETCH[topic](db, ids)))
  }
  const settings = kept.some((c) => c.topic === 'settings') ? await getSettings(db) : undefined
  return kept.map(({ seq, topic, id, eventId }): ChangeMessage => {
    if (topic === 'settings') return { seq, topic, id, value: settings! }
    if (topic === 'event') return { seq, topic, id, value: events.get(eventId!)! }
    const value = values.get(topic)?.get(id) ?? null
    return { seq, topic, id, value: value as ChangeValues['mould'] } as ChangeMessage
  })
}

interface WarningLog {
  warn(message: string): void
  warn(details: object, message: string): void
}

/**
 * Follows one workshop's change log for every window of this process. Woken, it reads on from its cursor; a wake-up that
 * gets lost only delays.
 */
export class ChangeFeed {
  private readonly subscribers = new Set<(messages: readonly ChangeMessage[]) => void>()
  private cursor: number | undefined
  private reading: Promise<void> | undefined
  private readAgain = false

  constructor(
    private readonly db: Db,
    private readonly log: WarningLog,
  ) {}

  get windows(): number {
    return this.subscribers.size
  }

  subscribe(onMessages: (messages: readonly ChangeMessage[]) => void): () => void {
    this.subscribers.add(onMessages)
    // With windows already waiting, reading starts from the beginning of what they may have missed: each passes over what
    // it has.
    return () => this.subscribers.delete(onMessages)
  }

  /** Sets the cursor, once: what comes after is told. */
  async start(): Promise<void> {
    this.cursor ??= await latestSeq(this.db)
  }

  wake(): void {
    if (this.cursor === undefined) return
    if (this.reading) {
      this.readAgain = true
      return
    }
    this.reading = this.read()
      .catch((error: unknown) => this.log.warn({ err: error }, 'changes could not be read'))
      .finally(() => {
        this.reading = undefined
        if (!this.readAgain) return
        this.readAgain = false
        this.wake()
      })
  }

  private async read(): Promise<void> {
    for (;;) {
      const changes = await changesAfter(this.db, this.cursor!)
      if (changes.length === 0) return
      const messages = this.subscribers.size > 0 ? await messagesOf(this.db, changes) : []
      this.cursor = changes.at(-1)!.seq
      for (const send of this.subscribers) send(messages)
      if (changes.length < MOST_CHANGES) return
    }
  }
}
