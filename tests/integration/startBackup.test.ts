import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'
import { MIGRATIONS } from '../../server/db/migrations'
import { BACKUP_STATUS, type BackupStatus } from '../../shared/backups'
import { freePort } from '../support/server'
import { until } from '../support/until'
import { LONG_MS, START, ownerUrlOf, runningOn, stateFolder } from '../support/startScript'

/** What is kept of a workshop before it changes, and brought back. */
let folder: string
let state: string

beforeAll(() => ({ folder, state } = stateFolder()))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const running = (port: string, ...options: string[]) => runningOn(state, port, ...options)
const script = (name: string, args: string[], at = state) =>
  execFileSync('bash', [START.replace(/start$/, name), ...args], {
    encoding: 'utf8',
    env: { ...process.env, NINE_RIPPLES_STATE: at },
  })
const ownerUrl = () => ownerUrlOf(state)

/** What the start script has noted of the day's backup. */
const noted = () => {
  const path = join(state, 'backups', BACKUP_STATUS)
  return existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as BackupStatus) : {}
}
/** The database that it was read back into is gone again. */
const cleared = () => until('the trial to be cleared', () => !existsSync(join(state, 'trial')))
/** Started so that it makes one at once, where one is due. */
async function dueAtOnce(port: string, ...options: string[]) {
  process.env.NINE_RIPPLES_BACKUP_AFTER_S = '0'
  const run = running(port, ...options)
  delete process.env.NINE_RIPPLES_BACKUP_AFTER_S
  return run
}

it(
  'each day the workshop is kept, read back and compared; one that cannot be read back is none, and is said',
  async () => {
    const { folder: mine, state: daily } = stateFolder()
    const before = state
    state = daily
    const port = String(await freePort())
    const run = await dueAtOnce(port)
    await until('a good backup', () => noted().lastGood !== undefined, 120_000)
    const { name, bytes } = noted().lastGood!
    const answer = await fetch(`http://127.0.0.1:${port}/api/backups`)
    expect(await answer.json()).toMatchObject({
      lastGood: { name },
      files: [{ name, bytes }],
      overdue: false,
    })
    const out = await fetch(`http://127.0.0.1:${port}/api/backups/${name}/file`)
    const taken = Buffer.from(await out.arrayBuffer())
    expect(taken.equals(readFileSync(join(state, 'backups', name)))).toBe(true)
    for (const none of ['status.json', '..%2Fpassword', 'x.backup'])
      expect((await fetch(`http://127.0.0.1:${port}/api/backups/${none}/file`)).status).toBe(404)
    await cleared()
    await run.stop()

    // Yesterday's is not today's; and now there is a row that only its own database takes.
    const old = Date.now() / 1000 - 90_000
    utimesSync(join(state, 'backups', name), old, old)
    const again = await running(port, '--empty')
    const owner = openDatabase(ownerUrl(), () => {})
    await sql`create function at_home() returns boolean language sql as
      $$ select current_setting('data_directory') not like '%trial%' $$`.execute(owner.unscoped)
    await sql`create table picky (a int check (at_home()))`.execute(owner.unscoped)
    await sql`insert into picky values (1)`.execute(owner.unscoped)
    await owner.close()
    await again.stop()
    const third = await dueAtOnce(port, '--empty')
    await until('that it failed is noted', () => noted().lastFailure !== undefined, 120_000)
    await cleared()
    expect(noted()).toMatchObject({ lastGood: { name }, lastFailure: { why: 'not_read_back' } })
    expect(readdirSync(join(state, 'backups')).filter((f) => f.startsWith('daily'))).toEqual([name])
    await third.stop()
    state = before
    rmSync(mine, { recursive: true, force: true })
  },
  LONG_MS,
)

it(
  'before a migration the database is kept as it was; a backup holds every row, and an empty state takes it',
  async () => {
    const port = String(await freePort())
    const run = await running(port, '--empty')
    const owner = openDatabase(ownerUrl(), () => {})
    // A workshop from before the last migration, with rows in it.
    const [last, before] = Object.keys(MIGRATIONS).reverse()
    await sql`drop schema public cascade`.execute(owner.unscoped)
    await sql`create schema public`.execute(owner.unscoped)
    await migrate(owner.unscoped, before)
    const { rows: workshops } = await sql<{ id: string }>`select id from workshop`.execute(owner.unscoped)
    await owner
      .workshop(workshops[0]!.id)
      .insertInto('bowl')
      .values({ id: randomUUID(), name: 'Basin', volume_ml: 900, tare_g: 10 })
      .execute()
    await owner.close()
    await run.stop()
    const next = await running(port)
    const [kept] = readdirSync(join(state, 'backups'))
    expect(kept).toMatch(new RegExp(`^before-${last}-.*[.]backup$`))
    expect(next.output()).toContain('it is kept in')

    const everything = async (url: string) => {
      const open = openDatabase(url, () => {})
      const { rows } = await sql<{ name: string }>`select table_name as name from information_schema.tables
      where table_schema = 'public' order by 1`.execute(open.unscoped)
      const dump: Record<string, unknown[]> = {}
      for (const { name } of rows)
        dump[name] = (
          await sql`select to_jsonb(t) as row from ${sql.table(name)} t order by 1::text`.execute(
            open.unscoped,
          )
        ).rows
      await open.close()
      return dump
    }
    const file = join(folder, 'workshop.backup')
    script('backup', [file])
    const rows = await everything(ownerUrl())
    expect(rows.bowl!.length).toBeGreaterThan(0)
    const other = join(folder, 'other')
    expect(() => script('restore', [file])).toThrow(/There is a workshop|already running/)
    await next.stop()
    expect(() => script('restore', [file])).toThrow(/There is a workshop/)
    script('restore', [file], other)
    state = other
    const back = await running(port, '--empty')
    expect(await everything(ownerUrl())).toEqual(rows)
    await back.stop()
    // Cut off, it is none, and leaves nothing behind.
    writeFileSync(file, readFileSync(file).subarray(0, 900))
    const third = join(folder, 'third')
    expect(() => script('restore', [file], third)).toThrow(/no backup|could not be restored/)
    expect(existsSync(join(third, 'data'))).toBe(false)
  },
  LONG_MS,
)
