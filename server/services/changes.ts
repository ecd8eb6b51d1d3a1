import { setTimeout as delay } from 'node:timers/promises'
import pg from 'pg'
import type { ChangeMessage } from '../../shared/contracts'
import type { Db } from '../db/client'

const POLL_MS = 15_000
const BATCH = 500

/** Newest change number, 0 before any. */
export async function latestSeq(db: Db): Promise<number> {
  const row = await db
    .selectFrom('change')
    .select((eb) => eb.fn.max('seq').as('seq'))
    .executeTakeFirst()
  return Number(row?.seq ?? 0)
}

/** Changes after a cursor, oldest first, at most `BATCH`. */
export async function changesAfter(db: Db, seq: number): Promise<ChangeMessage[]> {
  const rows = await db
    .selectFrom('change')
    .selectAll()
    .where('seq', '>', seq)
    .orderBy('seq')
    .limit(BATCH)
    .execute()
  return rows.map((r) => ({ seq: r.seq, topic: r.topic, id: r.entity_id }))
}

interface WarningLog {
  warn(message: string): void
  warn(details: object, message: string): void
}

/**
 * Follows the change log for every open live stream of this process. One LISTEN connection wakes it; what changed
 * is always read from the log, so a lost wake-up or connection only delays, never loses.
 */
export class ChangeFeed {
  private readonly subscribers = new Set<(messages: ChangeMessage[]) => void>()
  private readonly stopping = new AbortController()
  private cursor = 0
  private reading: Promise<void> | undefined
  private readAgain = false
  private listener: pg.Client | undefined

  constructor(
    private readonly db: Db,
    private readonly connectionString: string,
    private readonly log: WarningLog,
  ) {}

  /** Resolves once the first connection stands or has failed; it goes on reconnecting by itself. */
  async start(): Promise<void> {
    let started!: () => void
    const first = new Promise<void>((resolve) => (started = resolve))
    void this.run(started)
    await first
  }

  async stop(): Promise<void> {
    this.stopping.abort()
    await this.listener?.end().catch(() => {})
  }

  subscribe(onMessages: (messages: ChangeMessage[]) => void): () => void {
    this.subscribers.add(onMessages)
    return () => this.subscribers.delete(onMessages)
  }

  private async run(started: () => void): Promise<void> {
    const { signal } = this.stopping
    for (let failures = 0; !signal.aborted;) {
      const client = new pg.Client({ connectionString: this.connectionString })
      this.listener = client
      try {
        const lost = new Promise<void>((resolve) => {
          client.on('error', () => resolve())
          client.on('end', () => resolve())
        })
        await client.connect()
        client.on('notification', () => this.wake())
        // LISTEN before reading: a change between the two is then announced, not missed.
        await client.query('listen nine_ripples_change')
        // With windows already waiting, reading starts from the beginning: each passes over what it has.
        if (this.cursor === 0 && this.subscribers.size === 0) this.cursor = await latestSeq(this.db)
        failures = 0
        started()
        this.wake()
        const poll = setInterval(() => this.wake(), POLL_MS)
        await lost
        clearInterval(poll)
        if (!signal.aborted) this.log.warn('the live connection to the database was lost; reconnecting')
      } catch (error) {
        if (!signal.aborted)
          this.log.warn({ err: error }, 'the live connection could not be made; trying again')
      }
      started()
      await client.end().catch(() => {})
      failures += 1
      const backoffMs = Math.min(5000, 100 * 2 ** Math.min(failures, 6)) * (0.5 + Math.random() / 2)
      await delay(backoffMs, undefined, { signal }).catch(() => {})
    }
  }

  private wake(): void {
    if (this.reading) {
      this.readAgain = true
      return
    }
    this.reading = this.read()
      .catch((error: unknown) => this.log.warn({ err: error }, 'changes could not be read'))
      .finally(() => {
        this.reading = undefined
        if (this.readAgain) {
          this.readAgain = false
          this.wake()
        }
      })
  }

  private async read(): Promise<void> {
    for (;;) {
      const messages = await changesAfter(this.db, this.cursor)
      if (messages.length === 0) return
      this.cursor = messages.at(-1)!.seq
      for (const send of this.subscribers) send(messages)
      if (messages.length < BATCH) return
    }
  }
}
