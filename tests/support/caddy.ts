import { execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { until } from './until'

const ROOT = fileURLToPath(new URL('../..', import.meta.url))

/** Runs something of the scripts' library; `$1` on are the arguments. @returns what it prints. */
const withLibrary = (script: string, ...args: string[]) =>
  execFileSync('bash', ['-c', `. bin/lib.sh; ${script}`, '-', ...args], {
    cwd: ROOT,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  })

export interface Door {
  close: () => void
}

/** Runs it by this file, in this folder, until it answers there. @returns how to end it. */
export async function runCaddy(folder: string, file: string, answers: () => Promise<boolean>): Promise<Door> {
  const path = join(folder, 'Caddyfile')
  writeFileSync(path, file)
  const caddy = withLibrary('mkdir -p "$1/log"; require_caddy "$1" >&2; printf %s "$CADDY"', folder)
  const proxy = spawn(caddy, ['run', '--config', path, '--adapter', 'caddyfile'], {
    env: { ...process.env, HOME: folder },
    stdio: 'ignore',
  })
  await until('the proxy to answer', answers)
  return { close: () => void proxy.kill('SIGKILL') }
}

/** The network's way in to a server, as the start script opens it: https by an authority of its own, and HTTP/2. */
export async function openHttps(host: string, port: string): Promise<Door & { address: string }> {
  const folder = mkdtempSync(join(tmpdir(), 'nine-ripples-door-'))
  const file = withLibrary(
    'write_caddyfile "$1" "$2" "$3" "$3"; cat "$1/caddy/Caddyfile"',
    folder,
    host,
    port,
  )
  // What it is trusted by is made with its first start, and lies among its things.
  const authority = join(folder, 'caddy/data/pki/authorities/local/root.crt')
  const isThere = async () => withLibrary('[ ! -s "$1" ] || printf yes', authority) === 'yes'
  const door = await runCaddy(folder, file, isThere)
  return {
    address: `https://${host}:${port}`,
    close: () => {
      door.close()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
