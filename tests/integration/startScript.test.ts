import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { freePort } from '../support/server'

const START = fileURLToPath(new URL('../../bin/start', import.meta.url))
let folder: string
let state: string

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'nine-ripples-start-'))
  // As root the database runs as another user, who has to get through.
  chmodSync(folder, 0o711)
  state = join(folder, 'state')
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

interface Run {
  process: ChildProcess
  output: () => string
  /** Resolves when the output shows this, or fails when the script ends first. */
  shows: (text: RegExp) => Promise<void>
  ends: () => Promise<number | null>
}

function start(...options: string[]): Run {
  const child = spawn('bash', [START, ...options], {
    env: { ...process.env, NINE_RIPPLES_STATE: state },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let text = ''
  const heard = new Set<() => void>()
  const listen = (chunk: Buffer) => {
    text += chunk.toString()
    heard.forEach((h) => h())
  }
  child.stdout!.on('data', listen)
  child.stderr!.on('data', listen)
  const closed = once(child, 'close') as Promise<[number | null]>
  return {
    process: child,
    output: () => text,
    shows: (wanted) =>
      new Promise((resolve, reject) => {
        const look = () => wanted.test(text) && resolve()
        heard.add(look)
        look()
        void closed.then(() => reject(new Error(`ended without ${String(wanted)}:\n${text}`)))
      }),
    ends: async () => (await closed)[0],
  }
}

/** One clear line, and nothing started. */
async function refuses(run: Run, line: RegExp) {
  expect(await run.ends()).toBe(1)
  expect(run.output()).toMatch(line)
  expect(run.output().trim().split('\n').at(-1)).toMatch(/^✗ \S/)
}

const databasePids = () =>
  execFileSync('pgrep', ['-f', join(state, 'data')], { encoding: 'utf8' })
    .trim()
    .split('\n')
const noDatabase = () => expect(databasePids).toThrow()

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
  const address = `http://127.0.0.1:${port}`
  const firstPour = async () => {
    const page = (await (await fetch(`${address}/api/pours?limit=1`)).json()) as { items: { id: string }[] }
    return page.items[0]?.id
  }

  const empty = start('--port', port, '--empty')
  await empty.shows(/running: http/)
  expect(await firstPour()).toBeUndefined()
  await refuses(start('--port', port), /✗ Nine Ripples is already running: http/)
  empty.process.kill('SIGTERM')
  await empty.ends()
  noDatabase()

  const demo = start('--port', port)
  await demo.shows(/demo workshop loaded[^]*running: http/)
  const id = await firstPour()
  expect(id).toBeDefined()
  // A crash: script and server go at once, the database is left behind.
  const serverPid = execFileSync('pgrep', ['-P', String(demo.process.pid), 'node'], {
    encoding: 'utf8',
  }).trim()
  demo.process.kill('SIGKILL')
  process.kill(Number(serverPid), 'SIGKILL')
  await demo.ends()
  expect(databasePids().length).toBeGreaterThan(0)

  const again = start('--port', port)
  await again.shows(/taking it over[^]*running: http/)
  expect(await firstPour()).toBe(id)
  expect(readFileSync(join(state, 'log/server.log'), 'utf8')).toContain('"started"')
  again.process.kill('SIGTERM')
  expect(await again.ends()).toBe(0)
  noDatabase()
}, 90_000)
