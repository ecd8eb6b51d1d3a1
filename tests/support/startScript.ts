import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect } from 'vitest'

export const START = fileURLToPath(new URL('../../bin/start', import.meta.url))

/** For a start on a machine that has others on it: everything waits on what is said, so only what hangs takes so long. */
export const LONG_MS = 300_000

export interface Run {
  process: ChildProcess
  output: () => string
  /** Resolves when the output shows this, or fails when the script ends first. */
  shows: (text: RegExp) => Promise<void>
  ends: () => Promise<number | null>
}

/** The start script on a state folder, with what it says. */
export function startOn(state: string, ...options: string[]): Run {
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

/** A folder of its own; as root the database runs as another user, who has to get through. */
export function stateFolder(): { folder: string; state: string } {
  const folder = mkdtempSync(join(tmpdir(), 'nine-ripples-start-'))
  chmodSync(folder, 0o711)
  return { folder, state: join(folder, 'state') }
}

export const pidIn = (state: string, file: string) =>
  Number(readFileSync(join(state, file), 'utf8').split('\n')[0])

/** The workshop of a running start, as its owner. */
export const ownerUrlOf = (state: string) =>
  `postgres://ripples:${readFileSync(join(state, 'password'), 'utf8').trim()}@127.0.0.1:${readFileSync(join(state, 'data/postmaster.pid'), 'utf8').split('\n')[3]}/postgres`

/** One clear line, and nothing started. */
export async function refuses(run: Run, line: RegExp) {
  expect(await run.ends()).toBe(1)
  expect(run.output()).toMatch(line)
  expect(run.output().trim().split('\n').at(-1)).toMatch(/^✗ \S/)
}

export function databasePidsIn(state: string): string[] {
  try {
    return execFileSync('pgrep', ['-f', join(state, 'data')], { encoding: 'utf8' })
      .trim()
      .split('\n')
  } catch {
    return []
  }
}

/** Starts it, and gives what stops it again. */
export async function runningOn(state: string, port: string, ...options: string[]) {
  const run = startOn(state, '--port', port, ...options)
  await run.shows(/running: http/)
  return {
    ...run,
    stop: async () => {
      run.process.kill('SIGTERM')
      expect(await run.ends()).toBe(0)
      expect(databasePidsIn(state)).toEqual([])
    },
  }
}

export async function castsAt(port: string): Promise<string[]> {
  const page = (await (await fetch(`http://127.0.0.1:${port}/api/pours?limit=100`)).json()) as {
    items: { id: string }[]
  }
  return page.items.map((c) => c.id)
}
