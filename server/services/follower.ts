import { sql } from 'kysely'
import type { Db } from '../db/client'

/** How far a database is that follows the first one. */

/** A place in the write-ahead log, in order. */
function placeOf(lsn: string): bigint {
  const [high = '0', low = '0'] = lsn.split('/')
  return (BigInt(`0x${high}`) << 32n) + BigInt(`0x${low}`)
}

/** More looks back than this nothing is worth knowing. */
const MOST_LOOKS = 120

/** Looks at both now and then, and says by how much the second lags behind. */
export class Follower {
  /** Where the first one was, the oldest that the second has not come to yet first. */
  private ahead: { place: bigint; atMs: number }[] = []
  private lag: number | undefined

  constructor(
    private readonly first: Db,
    private readonly second: Db,
    private readonly nowMs: () => number,
  ) {}

  /** ms; undefined where it is away, follows nobody any more, or was never looked at. */
  get lagMs(): number | undefined {
    return this.lag
  }

  /** It did not answer: until it is looked at again it is not asked. */
  lost(): void {
    this.lag = undefined
  }

  async look(): Promise<void> {
    try {
      const atMs = this.nowMs()
      const { rows: here } = await sql<{ lsn: string }>`select pg_current_wal_lsn()::text as lsn`.execute(
        this.first,
      )
      this.ahead = [...this.ahead, { place: placeOf(here[0]!.lsn), atMs }].slice(-MOST_LOOKS)
      const { rows: there } = await sql<{ lsn: string | null }>`
        select case when pg_is_in_recovery() then pg_last_wal_replay_lsn()::text end as lsn`.execute(
        this.second,
      )
      const lsn = there[0]?.lsn
      if (!lsn) return this.lost()
      const reached = placeOf(lsn)
      this.ahead = this.ahead.filter(({ place }) => place > reached)
      this.lag = this.ahead.length === 0 ? 0 : this.nowMs() - this.ahead[0]!.atMs
    } catch {
      this.lost()
    }
  }
}
