import { LRUCache } from 'lru-cache'
import { DomainError } from '../services/domainError'

/** Wrong answers that cost nothing: of one address, of one name from one address, and of one name from anywhere. */
const FREE = { address: 20, pair: 5, name: 100 }
type Of = keyof typeof FREE
const LONGEST_WAIT_S = 900
const FORGOTTEN_MS = 3_600_000
const MOST_KEPT = 20_000

interface Attempts {
  wrong: number
  untilMs: number
}

/** Wrong attempts, each of which holds up the next for longer, up to a quarter of an hour; forgotten after an hour. */
export class AttemptGate {
  private readonly known = new LRUCache<string, Attempts>({ max: MOST_KEPT, ttl: FORGOTTEN_MS })

  private keysOf(address: string, name: string): [Of, string][] {
    const plain = name.trim().toLowerCase()
    return [
      ['address', address],
      ['pair', `${address} ${plain}`],
      ['name', plain],
    ]
  }
  private at = (of: Of, key: string) => this.known.get(`${of} ${key}`)

  private check(address: string, name: string, nowMs: number): void {
    for (const [of, key] of this.keysOf(address, name))
      if ((this.at(of, key)?.untilMs ?? 0) > nowMs) throw new DomainError('too_many_attempts')
  }

  /** Counted before it is looked at: of many at once each would else find nothing to wait for. */
  private count(address: string, name: string, nowMs: number): void {
    for (const [of, key] of this.keysOf(address, name)) {
      const wrong = (this.at(of, key)?.wrong ?? 0) + 1
      const waitS = wrong < FREE[of] ? 0 : Math.min(LONGEST_WAIT_S, 2 ** (wrong - FREE[of]))
      this.known.set(`${of} ${key}`, { wrong, untilMs: nowMs + 1000 * waitS })
    }
  }

  /** It was right, or nobody's fault: as if it had not been. What was mistyped of a name before is its own then. */
  private uncount(address: string, name: string, wasRight: boolean): void {
    for (const [of, key] of this.keysOf(address, name)) {
      const before = this.at(of, key)
      if (wasRight && of === 'pair') this.known.delete(`${of} ${key}`)
      else if (before) this.known.set(`${of} ${key}`, { wrong: before.wrong - 1, untilMs: 0 })
    }
  }

  /**
   * One attempt, where there is nothing to wait for; `wrong_password` counts against the next.
   * @throws `too_many_attempts`, and whatever `work` throws.
   */
  async attempt<T>(address: string, name: string, nowMs: number, work: () => Promise<T>): Promise<T> {
    this.check(address, name, nowMs)
    this.count(address, name, nowMs)
    try {
      const done = await work()
      this.uncount(address, name, true)
      return done
    } catch (error) {
      if (!(error instanceof DomainError && error.code === 'wrong_password'))
        this.uncount(address, name, false)
      throw error
    }
  }
}
