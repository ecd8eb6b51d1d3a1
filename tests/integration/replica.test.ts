import { randomUUID } from 'node:crypto'
import { rmSync, unlinkSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import type { BackupsAnswer } from '../../shared/backups'
import { freePort } from '../support/server'
import {
  LONG_MS,
  castsAt,
  ownerUrlOf,
  pidIn,
  refuses,
  runningOn,
  startOn,
  stateFolder,
} from '../support/startScript'
import { until } from '../support/until'
import { testPlan } from '../unit/plans'

const { folder, state } = stateFolder()
const copy = join(folder, 'copy')
afterAll(() => rmSync(folder, { recursive: true, force: true }))

it(
  'a second copy follows and is read from; behind or away the first is asked; and where the first is lost it is all there',
  async () => {
    const port = String(await freePort())
    const run = await runningOn(state, port, '--empty', '--replica', copy)
    const pourHere = async () => {
      const id = randomUUID()
      const answer = await fetch(`http://127.0.0.1:${port}/api/pours`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id, plan: testPlan() }),
      })
      expect(answer.status).toBe(200)
      return id
    }
    const lag = async () => {
      const answer = await fetch(`http://127.0.0.1:${port}/api/backups`)
      return ((await answer.json()) as BackupsAnswer).replica!.lagMs
    }
    // Where the copy came back at another port the server begins anew, and does not answer for a moment.
    const isNear = async () => ((await lag().catch(() => null)) ?? Infinity) < 1000
    const isListed = async (id: string) => (await castsAt(port).catch((): string[] => [])).includes(id)
    const follower = openDatabase(ownerUrlOf(copy), () => {}, { poolSize: 1 })
    const asCopy = <T>(query: ReturnType<typeof sql<T>>) =>
      query.execute(follower.unscoped).then((r) => r.rows)

    const first = await pourHere()
    await until('the copy to follow', isNear)
    await until('the log to hold it', () => isListed(first))
    const asked = await asCopy(sql<{ n: number }>`
      select count(*)::int as n from pg_stat_activity where usename = 'ripples_app' and query like '%search_pours%'`)
    expect(asked[0]!.n).toBeGreaterThan(0)

    // It stands still: what happens meanwhile is missing in nobody's log.
    await asCopy(sql`select pg_wal_replay_pause()`)
    const second = await pourHere()
    await until('it to be too far behind', async () => ((await lag()) ?? 0) > 2000)
    expect(await isListed(second)).toBe(true)
    await asCopy(sql`select pg_wal_replay_resume()`)
    await until('the copy to follow again', isNear)
    await follower.close()

    process.kill(pidIn(copy, 'data/postmaster.pid'), 'SIGKILL')
    const third = await pourHere()
    await until('the log to hold it', () => isListed(third))
    await run.shows(/the second copy is back/)
    await until('the copy to follow again', isNear)
    let casts: string[] = []
    await until(
      'the server to answer',
      async () => (casts = await castsAt(port).catch((): string[] => [])).length === 3,
    )
    await run.stop()

    // By itself it is no workshop, unless somebody says so; then it is the whole of it.
    await refuses(startOn(copy, '--port', port), /✗ What is in .* is a second copy that follows a first/)
    rmSync(state, { recursive: true })
    unlinkSync(join(copy, 'data/standby.signal'))
    const alone = await runningOn(copy, port)
    expect((await castsAt(port)).sort()).toEqual(casts.sort())
    expect(casts.sort()).toEqual([first, second, third].sort())
    await alone.stop()
  },
  LONG_MS,
)
