import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'
import { MIGRATIONS } from '../../server/db/migrations'
import { freePort } from '../support/server'
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
