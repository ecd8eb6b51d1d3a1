import { execFileSync } from 'node:child_process'
import { chmodSync, chownSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { freePort } from '../support/server'
import { LONG_MS, castsAt, refuses, runningOn, startOn, stateFolder } from '../support/startScript'

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
const running = (port: string) => runningOn(state, port)

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
