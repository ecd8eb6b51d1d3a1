import { randomUUID } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'
import { MIGRATIONS } from '../../server/db/migrations'
import { freePort } from '../support/server'
import {
  LONG_MS,
  START,
  castsAt,
  ownerUrlOf,
  refuses,
  runningOn,
  startOn,
  stateFolder,
} from '../support/startScript'

/** What the start script makes of a state that is damaged, old, or not its own. */
let folder: string
let state: string

beforeAll(async () => {
  ;({ folder, state } = stateFolder())
  refusedAt = String(await freePort())
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** On a port of its own: a workshop that runs on this machine is nobody's concern here. */
let refusedAt: string
const start = () => startOn(state, '--port', refusedAt)
const running = (port: string, ...options: string[]) => runningOn(state, port, ...options)
const script = (name: string, args: string[], at = state) =>
  execFileSync('bash', [START.replace(/start$/, name), ...args], {
    encoding: 'utf8',
    env: { ...process.env, NINE_RIPPLES_STATE: at },
  })
const ownerUrl = () => ownerUrlOf(state)

it(
  'a missing password file and a damaged postmaster.pid cost nothing',
  async () => {
    const port = String(await freePort())
    const first = await running(port)
    const casts = await castsAt(port)
    expect(casts.length).toBeGreaterThan(10)
    await first.stop()
    rmSync(join(state, 'password'))
    writeFileSync(join(state, 'data/postmaster.pid'), 'no pid at all\n')
    const run = await running(port)
    expect(run.output()).toContain('password is missing; making a new one')
    expect(await castsAt(port)).toEqual(casts)
    await run.stop()
  },
  LONG_MS,
)

it(
  'a postmaster.pid naming a living stranger hinders nothing, and nobody is signalled',
  async () => {
    const port = String(await freePort())
    writeFileSync(join(state, 'data/postmaster.pid'), `${process.pid}\n${join(state, 'data')}\n0\n1\n\n\n\n`)
    const run = await running(port)
    expect((await castsAt(port)).length).toBeGreaterThan(10)
    await run.stop()
  },
  LONG_MS,
)

it(
  'before a migration the database is kept as it was; a backup holds every row, and an empty state takes it',
  async () => {
    const port = String(await freePort())
    const run = await running(port)
    const owner = openDatabase(ownerUrl(), () => {})
    // A workshop from before the last migration, with rows in it.
    const [last, before] = Object.keys(MIGRATIONS).reverse()
    await sql`drop schema public cascade`.execute(owner.unscoped)
    await sql`create schema public`.execute(owner.unscoped)
    await migrate(owner.unscoped, before)
    await owner
      .workshop(await owner.soleWorkshop())
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

it(
  'a workshop that cannot be read is never replaced by the demo: one line each, and nothing is touched',
  async () => {
    const all = () =>
      execFileSync('find', [state, '-path', '*/log/*', '-prune', '-o', '-printf', '%P %s %m\n'])
    const stopsAt = async (line: RegExp) => {
      const before = String(all())
      await refuses(start(), line)
      expect(String(all())).toBe(before)
    }
    const data = join(state, 'data')
    const control = join(data, 'global/pg_control')
    renameSync(control, join(folder, 'pg_control'))
    await stopsAt(/✗ What is in .* is no whole database.*Nothing was touched.*bin\/restore/)
    renameSync(join(folder, 'pg_control'), control)
    renameSync(data, join(folder, 'elsewhere'))
    await stopsAt(/✗ There was a workshop in .*, and its database .* is gone.*Nothing was touched/)
    renameSync(join(folder, 'elsewhere'), data)
    const password = readFileSync(join(state, 'password'), 'utf8')
    writeFileSync(join(state, 'password'), 'of another workshop\n')
    await refuses(start(), /✗ The password in .* is not the one of the database.*remove that file/)
    writeFileSync(join(state, 'password'), password)
    if (process.getuid!() === 0) {
      chmodSync(folder, 0o700)
      await stopsAt(/✗ The workshop in .* cannot be read: .* get into .*nine-ripples-start-.*chmod o\+x/)
      chmodSync(folder, 0o711)
    }
    const port = String(await freePort())
    const run = await running(port)
    expect(run.output()).not.toContain('demo workshop loaded')
    await run.stop()
  },
  LONG_MS,
)

it(
  'a database of a version that is not installed, of another owner, a disk without room: one clear line each',
  async () => {
    const data = join(state, 'data')
    const version = readFileSync(join(data, 'PG_VERSION'), 'utf8')
    writeFileSync(join(data, 'PG_VERSION'), '9\n')
    await refuses(
      start(),
      /✗ The database in .* is of PostgreSQL 9, which is not installed here\. Install it/,
    )
    writeFileSync(join(data, 'PG_VERSION'), version)
    if (process.getuid!() !== 0) return
    const nobody = Number(execFileSync('id', ['-u', 'nobody'], { encoding: 'utf8' }))
    chownSync(data, nobody, nobody)
    await refuses(
      start(),
      /✗ The database in .* belongs to nobody, not to postgres\. Run this as nobody, or: sudo chown/,
    )
    const small = join(folder, 'small')
    mkdirSync(small)
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=8m', 'tmpfs', small], { stdio: 'ignore' })
    } catch {
      // A container may not mount: the rest was checked.
      return
    }
    try {
      state = join(small, 'state')
      await refuses(start(), /✗ The disk holding .* is full: \d+ MB free, 200 MB needed/)
      execFileSync('mount', ['-o', 'remount,ro', small])
      await refuses(start(), /✗ .* cannot be written in: .* read-only or full/)
    } finally {
      execFileSync('umount', [small])
    }
  },
  LONG_MS,
)
