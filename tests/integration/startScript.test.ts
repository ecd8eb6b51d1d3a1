import { randomUUID } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import { once } from 'node:events'
import {
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'
import { MIGRATIONS } from '../../server/db/migrations'
import { freePort } from '../support/server'
import { until } from '../support/until'
import { START, ownerUrlOf, pidIn, startOn, stateFolder, type Run } from '../support/startScript'

let folder: string
let state: string

beforeAll(() => ({ folder, state } = stateFolder()))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** One clear line, and nothing started. */
async function refuses(run: Run, line: RegExp) {
  expect(await run.ends()).toBe(1)
  expect(run.output()).toMatch(line)
  expect(run.output().trim().split('\n').at(-1)).toMatch(/^✗ \S/)
}

const databasePids = () => {
  try {
    return execFileSync('pgrep', ['-f', join(state, 'data')], { encoding: 'utf8' })
      .trim()
      .split('\n')
  } catch {
    return []
  }
}
const noDatabase = () => expect(databasePids()).toEqual([])
const pidOf = (file: string) => pidIn(state, file)
const start = (...options: string[]) => startOn(state, ...options)

/** Starts it, and gives what stops it again. */
async function running(port: string, ...options: string[]) {
  const run = start('--port', port, ...options)
  await run.shows(/running: http/)
  return {
    ...run,
    stop: async () => {
      run.process.kill('SIGTERM')
      expect(await run.ends()).toBe(0)
      noDatabase()
    },
  }
}
const castsAt = async (port: string) => {
  const page = (await (await fetch(`http://127.0.0.1:${port}/api/pours?limit=100`)).json()) as {
    items: { id: string }[]
  }
  return page.items.map((c) => c.id)
}
const script = (name: string, args: string[], at = state) =>
  execFileSync('bash', [START.replace(/start$/, name), ...args], {
    encoding: 'utf8',
    env: { ...process.env, NINE_RIPPLES_STATE: at },
  })
const ownerUrl = () => ownerUrlOf(state)

it('an option it does not know, and a port that is none', async () => {
  await refuses(start('--sideways'), /✗ Unknown option: --sideways/)
  await refuses(start('--port', 'banana'), /✗ --port wants a number/)
  await refuses(start('--port', '80'), /✗ --port wants a number/)
})

it('a port taken by another program: says so, and offers one that is free', async () => {
  const other = createServer().listen(0, '127.0.0.1')
  await once(other, 'listening')
  const { port } = other.address() as { port: number }
  await refuses(start('--port', String(port)), new RegExp(`✗ Port ${port} is already in use.*--port \\d+`))
  other.close()
  noDatabase()
})

it('starts, keeps its data, outlives a crash and stops everything it started', async () => {
  const port = String(await freePort())
  const empty = await running(port, '--empty')
  expect(await castsAt(port)).toEqual([])
  await refuses(start('--port', port), /✗ Nine Ripples is already running: http/)
  await empty.stop()

  const demo = await running(port)
  expect(demo.output()).toContain('demo workshop loaded')
  const casts = await castsAt(port)
  expect(casts.length).toBeGreaterThan(10)
  // The script is killed: its server and database are left behind, and the next start ends one and takes the other over.
  const left = pidOf('server.pid')
  demo.process.kill('SIGKILL')
  await demo.ends()
  expect(databasePids().length).toBeGreaterThan(0)
  const again = await running(port)
  expect(again.output()).toMatch(/a server was still running[^]*taking it over/)
  expect(pidOf('server.pid')).not.toBe(left)
  expect(await castsAt(port)).toEqual(casts)
  expect(readFileSync(join(state, 'log/server.log'), 'utf8')).toContain('"started"')
  await again.stop()
}, 90_000)

it('what it started comes back by itself in under 5 s, and it says so', async () => {
  const port = String(await freePort())
  const beforeMs = performance.now()
  const run = await running(port)
  // On a machine so busy that a start takes longer than that, coming back may take as long as a start.
  const limitMs = Math.max(5000, performance.now() - beforeMs)
  const casts = await castsAt(port)
  const healthy = () =>
    until('the server to be healthy', () =>
      fetch(`http://127.0.0.1:${port}/api/health`).then(
        (r) => r.ok,
        () => false,
      ),
    )
  /** How long it takes from the kill to a healthy answer, ms, and that it says so. */
  async function comesBack(files: readonly string[], says: RegExp): Promise<number> {
    const startMs = performance.now()
    for (const pid of files.map(pidOf)) process.kill(pid, 'SIGKILL')
    // Which may be a moment after it answers again.
    await run.shows(says)
    await healthy()
    return performance.now() - startMs
  }
  expect(await comesBack(['server.pid'], /the server is back/)).toBeLessThan(limitMs)
  expect(
    await comesBack(['data/postmaster.pid'], /the database has stopped[^]*the database is back/),
  ).toBeLessThan(limitMs)
  expect(
    await comesBack(
      ['server.pid', 'data/postmaster.pid'],
      /the database is back[^]*the database is back[^]*the server is back|the server is back[^]*the server is back/,
    ),
  ).toBeLessThan(limitMs)
  expect(await castsAt(port)).toEqual(casts)
  await run.stop()
}, 90_000)

it('a missing password file costs nothing: a new one is made', async () => {
  const port = String(await freePort())
  rmSync(join(state, 'password'))
  const run = await running(port)
  expect(run.output()).toContain('password is missing; making a new one')
  expect((await castsAt(port)).length).toBeGreaterThan(10)
  await run.stop()
}, 60_000)

it.each([
  ['damaged', () => 'no pid at all\n'],
  ['naming a living stranger', () => `${process.pid}\n${join(state, 'data')}\n0\n1\n\n\n\n`],
])(
  'a postmaster.pid %s hinders nothing, and nobody is signalled',
  async (_, content) => {
    const port = String(await freePort())
    writeFileSync(join(state, 'data/postmaster.pid'), content())
    const run = await running(port)
    expect((await castsAt(port)).length).toBeGreaterThan(10)
    await run.stop()
  },
  60_000,
)

it('before a migration the database is kept as it was; a backup holds every row, and an empty state takes it', async () => {
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
        await sql`select to_jsonb(t) as row from ${sql.table(name)} t order by 1::text`.execute(open.unscoped)
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
}, 120_000)

it('half a database is never thrown away: it is set aside, and said where', async () => {
  const port = String(await freePort())
  renameSync(join(state, 'data'), join(folder, 'whole'))
  mkdirSync(join(state, 'data'))
  writeFileSync(join(state, 'data/notes.txt'), 'mine')
  if (process.getuid!() === 0) execFileSync('chown', ['-R', 'postgres', join(state, 'data')])
  const run = await running(port, '--empty')
  const [, aside] = /kept in (\S+)/.exec(run.output())!
  expect(readFileSync(join(aside!, 'notes.txt'), 'utf8')).toBe('mine')
  await run.stop()
}, 60_000)

it('a database of a version that is not installed, of another owner, a disk without room: one clear line each', async () => {
  const data = join(state, 'data')
  const version = readFileSync(join(data, 'PG_VERSION'), 'utf8')
  writeFileSync(join(data, 'PG_VERSION'), '9\n')
  await refuses(start(), /✗ The database in .* is of PostgreSQL 9, which is not installed here\. Install it/)
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
}, 60_000)
