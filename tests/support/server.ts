import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'
import { until } from './until'

const ENTRY = fileURLToPath(new URL('../../.output/server/index.mjs', import.meta.url))

/** Where a test may open the network's way in. */
export const DOOR_HOST = '127.0.0.4'

/** A port nobody holds, below those the system gives to outgoing connections, which could take it before its server does. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = 12_000 + Math.floor(Math.random() * 12_000)
    const probe = createServer().listen(port, '127.0.0.1')
    const free = await once(probe, 'listening').then(
      () => true,
      () => false,
    )
    if (!free) continue
    probe.close()
    await once(probe, 'close')
    return port
  }
}

export interface TestServer {
  address: string
  process: ChildProcess
  log: () => string
  /** Ends it as asked and says how long that took, ms, and with which code. */
  stop: (signal?: 'SIGTERM' | 'SIGKILL') => Promise<{ tookMs: number; code: number | null }>
}

/** The built server as its own process, giving `healthStatus` when asked for its health before this resolves. */
export async function startServer(
  databaseUrl: string,
  {
    port,
    healthStatus = 200,
    devicePort,
    deviceNetwork,
    entry = ENTRY,
  }: {
    port?: number
    healthStatus?: number
    devicePort?: number
    deviceNetwork?: string
    entry?: string
  } = {},
): Promise<TestServer> {
  const listenPort = port ?? (await freePort())
  const child = spawn(process.execPath, [entry], {
    env: {
      ...process.env,
      NINE_RIPPLES_DATABASE_URL: databaseUrl,
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(listenPort),
      // As if what lets the network in stood before it: its header alone makes a request one of the network's.
      // Or it really does, at another address of the loopback (caddy.ts).
      NINE_RIPPLES_SHARED_HOSTS: `127.0.0.1:${listenPort},${DOOR_HOST}:${listenPort}`,
      ...(devicePort === undefined ? {} : { NINE_RIPPLES_DEVICE_PORT: String(devicePort) }),
      ...(deviceNetwork === undefined ? {} : { NINE_RIPPLES_DEVICE_NETWORK: deviceNetwork }),
    },
    stdio: ['ignore', 'ignore', 'pipe'],
  })
  let log = ''
  child.stderr!.on('data', (chunk: Buffer) => (log += chunk.toString()))
  const exited = once(child, 'exit')
  const address = `http://127.0.0.1:${listenPort}`
  await until(
    'the server to answer',
    async () => {
      if (child.exitCode !== null) throw new Error(`the server did not start:\n${log}`)
      return (await fetch(`${address}/api/health`).catch(() => undefined))?.status === healthStatus
    },
    30_000,
  ).catch((error: unknown) => {
    throw new Error(`${String(error)}\n${log}`)
  })
  return {
    address,
    process: child,
    log: () => log,
    stop: async (signal = 'SIGTERM') => {
      const sentMs = Date.now()
      child.kill(signal)
      const [code] = (await exited) as [number | null]
      return { tookMs: Date.now() - sentMs, code }
    },
  }
}
