import { setTimeout as delay } from 'node:timers/promises'
import pg from 'pg'
import { backOffMs } from '../../shared/backOff'
import { LIVE_CHANNEL } from './devices'

const POLL_MS = 15_000
const RECONNECT = { firstMs: 200, longestMs: 5000 }

interface Listener {
  /** Somebody changed something in this workshop; undefined: it may have been in any. */
  onWake: (workshopId: string | undefined) => void
  /** What a device said, or is to be told, somewhere. */
  onLive: (payload: string) => void
  log: { warn(message: string): void; warn(details: object, message: string): void }
}

/**
 * One LISTEN connection for the whole process, which comes back by itself. What changed is always read from the log, so a
 * lost wake-up or connection only delays, never loses.
 */
export class ChangeListener {
  private readonly stopping = new AbortController()
  private client: pg.Client | undefined

  constructor(
    private readonly connectionString: string,
    private readonly listener: Listener,
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
    await this.client?.end().catch(() => {})
  }

  private async run(started: () => void): Promise<void> {
    const { signal } = this.stopping
    const { onWake, onLive, log } = this.listener
    for (let failures = 0; !signal.aborted;) {
      const client = new pg.Client({ connectionString: this.connectionString, keepAlive: true })
      this.client = client
      try {
        const lost = new Promise<void>((resolve) => {
          client.on('error', () => resolve())
          client.on('end', () => resolve())
        })
        await client.connect()
        client.on('notification', ({ channel, payload }) =>
          channel === LIVE_CHANNEL ? onLive(payload ?? '') : onWake(payload),
        )
        // LISTEN before reading: a change between the two is then announced, not missed.
        await client.query(`listen ${LIVE_CHANNEL}`)
        await client.query('listen nine_ripples_change')
        failures = 0
        started()
        onWake(undefined)
        const poll = setInterval(() => onWake(undefined), POLL_MS)
        await lost
        clearInterval(poll)
        if (!signal.aborted) log.warn('the live connection to the database was lost; reconnecting')
      } catch (error) {
        if (!signal.aborted) log.warn({ err: error }, 'the live connection could not be made; trying again')
      }
      started()
      await client.end().catch(() => {})
      failures += 1
      const waitMs = backOffMs(failures, RECONNECT) * (0.5 + Math.random() / 2)
      await delay(waitMs, undefined, { signal }).catch(() => {})
    }
  }
}
