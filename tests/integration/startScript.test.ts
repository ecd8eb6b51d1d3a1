import { once } from 'node:events'
import { readFileSync, rmSync } from 'node:fs'
import { connect } from 'node:http2'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { freePort } from '../support/server'
import { until } from '../support/until'
import {
  LONG_MS,
  castsAt,
  databasePidsIn,
  pidIn,
  refuses,
  runningOn,
  startOn,
  stateFolder,
} from '../support/startScript'

let folder: string
let state: string

beforeAll(() => ({ folder, state } = stateFolder()))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const pidOf = (file: string) => pidIn(state, file)
const start = (...options: string[]) => startOn(state, ...options)
const running = (port: string, ...options: string[]) => runningOn(state, port, ...options)

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
  expect(databasePidsIn(state)).toEqual([])
})

it(
  'starts, keeps its data, outlives a crash and stops everything it started',
  async () => {
    const port = String(await freePort())
    const empty = await running(port, '--empty')
    expect(await castsAt(port)).toEqual([])
    await refuses(start('--port', port), /✗ Nine Ripples is already running: http/)
    await empty.stop()

    const demo = await running(port, '--share', '127.0.0.2')
    expect(demo.output()).toContain('demo workshop loaded')
    const casts = await castsAt(port)
    expect(casts.length).toBeGreaterThan(10)
    // The network reaches it by https, over HTTP/2, and is nobody there, whatever it says of itself.
    const shared = /The network reaches it: (https:\S+)/.exec(demo.output())![1]!
    expect(shared).toBe(`https://127.0.0.2:${Number(port) + 133}`)
    const ca = readFileSync(join(state, 'caddy/public/authority.crt'))
    const asked = async (headers: Record<string, string>) => {
      const network = connect(shared, { ca })
      const request = network.request({ ':path': '/api/bench', ...headers })
      const [answered] = (await once(request, 'response')) as [Record<string, string | number>]
      let body = ''
      for await (const piece of request) body += String(piece)
      network.close()
      return [answered[':status'], body]
    }
    const nobody = [401, '{"error":{"code":"sign_in","fields":[]}}']
    expect(await asked({})).toEqual(nobody)
    expect(await asked({ 'x-ripples-network': '' })).toEqual(nobody)
    expect((await asked({ ':authority': `127.0.0.1:${port}` }))[1]).toBe('')
    await expect(fetch(shared.replace('127.0.0.2', '127.0.0.1'))).rejects.toThrow()
    // The script is killed: its server and database are left behind, and the next start ends one and takes the other over.
    const left = pidOf('server.pid')
    const doorLeft = pidOf('caddy.pid')
    demo.process.kill('SIGKILL')
    await demo.ends()
    expect(databasePidsIn(state).length).toBeGreaterThan(0)
    const again = await running(port)
    expect(again.output()).toMatch(/a server was still running[^]*taking it over/)
    expect(pidOf('server.pid')).not.toBe(left)
    expect(() => process.kill(doorLeft, 0)).toThrow()
    expect(again.output()).not.toContain('The network')
    expect(await castsAt(port)).toEqual(casts)
    expect(readFileSync(join(state, 'log/server.log'), 'utf8')).toContain('"started"')
    await again.stop()
  },
  LONG_MS,
)

it(
  'what it started comes back by itself, and it says so',
  async () => {
    const port = String(await freePort())
    const run = await running(port)
    const casts = await castsAt(port)
    const healthy = () =>
      until('the server to be healthy', () =>
        fetch(`http://127.0.0.1:${port}/api/health`).then(
          (r) => r.ok,
          () => false,
        ),
      )
    for (const [files, says] of [
      [['server.pid'], /the server is back/],
      [['data/postmaster.pid'], /the database has stopped[^]*the database is back/],
      [
        ['server.pid', 'data/postmaster.pid'],
        /the database is back[^]*the database is back[^]*the server is back|the server is back[^]*the server is back/,
      ],
    ] as const) {
      for (const pid of files.map(pidOf)) process.kill(pid, 'SIGKILL')
      // Which may be a moment after it answers again.
      await run.shows(says)
      await healthy()
    }
    expect(await castsAt(port)).toEqual(casts)
    // One that lives and does nothing any more is no better than one that is gone.
    const stuck = pidOf('server.pid')
    process.kill(stuck, 'SIGSTOP')
    await run.shows(/the server does not answer; ending it[^]*the server is back/)
    await healthy()
    expect(pidOf('server.pid')).not.toBe(stuck)
    expect(await castsAt(port)).toEqual(casts)
    await run.stop()
  },
  LONG_MS,
)
