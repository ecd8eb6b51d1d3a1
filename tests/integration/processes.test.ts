import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, expect, it } from 'vitest'
import { runCaddy } from '../support/caddy'
import { openLiveStream } from '../support/liveStream'
import { freePort } from '../support/server'
import { LONG_MS, ownerUrlOf, pidIn, startOn, stateFolder } from '../support/startScript'
import { openDatabase } from '../../server/db/client'
import { until } from '../support/until'
import { testPlan } from '../unit/plans'

/** A real server: its own name, a proxy before three processes, one database. The proxy's file is the one of the docs. */
const root = fileURLToPath(new URL('../..', import.meta.url))
const HOST = '127.0.0.3'
const { folder, state } = stateFolder()
const ending: (() => void)[] = []
afterAll(() => {
  ending.forEach((end) => end())
  rmSync(folder, { recursive: true, force: true })
})

async function startProxy(address: string, firstPort: number) {
  const [, written = ''] = /```caddyfile\n([^]*?)```/.exec(
    readFileSync(join(root, 'docs/operations.md'), 'utf8'),
  )!
  const file = written
    .replace('plaster.example {', `http://${address} {\n\tbind ${HOST}`)
    .replace(/127\.0\.0\.1:43(1\d)/g, (_, nth: string) => `127.0.0.1:${firstPort + Number(nth) - 10}`)
  const answers = async () => (await fetch(`http://${address}/`).catch(() => undefined))?.ok === true
  const { close } = await runCaddy(folder, `{\n\tadmin off\n}\n${file}`, answers)
  ending.push(close)
}

it(
  'three processes behind a name: nobody is anybody by sitting there, one is killed under load, and nothing is lost',
  async () => {
    const [port, proxyPort] = [await freePort(), await freePort()]
    const name = `${HOST}:${proxyPort}`
    const address = `http://${name}`
    const run = startOn(state, '--port', String(port), '--behind-proxy', name, '--processes', '3')
    await run.shows(/running behind the proxy/)
    await startProxy(name, port)
    let cookie = ''
    const ask = (method: string, path: string, body?: object, headers: Record<string, string> = {}) =>
      fetch(address + path, {
        method,
        headers: {
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(method === 'GET' ? {} : { origin: address }),
          ...(cookie === '' ? {} : { cookie }),
          ...headers,
        },
        signal: AbortSignal.timeout(10_000),
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })

    // A stranger, straight at a process or by the proxy, and whoever says to be the machine.
    const direct = `http://127.0.0.1:${port + 2}`
    expect((await fetch(`${direct}/api/bench`)).status).toBe(421)
    expect((await fetch(`${direct}/api/health`)).status).toBe(200)
    const strange = await ask('GET', '/api/bench')
    expect([strange.status, strange.headers.get('strict-transport-security')]).toEqual([
      401,
      'max-age=31536000',
    ])

    // Its keeper is let in by a link, once.
    const invite = (...more: string[]) =>
      execFileSync('bash', ['bin/invite', ...more], {
        cwd: root,
        env: { ...process.env, NINE_RIPPLES_STATE: state },
        encoding: 'utf8',
      }).trim()
    const link = invite()
    expect(link).toContain(`https://${name}/pair#`)
    const pair = (token: string) => ask('POST', '/api/pair', { token, device: 'Desk' })
    const letIn = await pair(link.split('#')[1]!)
    expect(letIn.status).toBe(200)
    expect((await pair(link.split('#')[1]!)).status).toBe(410)
    cookie = letIn.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .filter((c) => !c!.endsWith('='))
      .join('; ')
    expect((await ask('GET', '/api/me')).status).toBe(200)
    // Without saying where it comes from nothing is written.
    expect(
      (await ask('POST', '/api/pours', { id: randomUUID(), plan: testPlan() }, { origin: '' })).status,
    ).toBe(403)
    expect(invite('The lower studio').split('#')[1]).not.toBe(link.split('#')[1])

    // A file's work is found by whichever is asked.
    const job = (await (await ask('POST', '/api/bundles', { of: 'workshop' })).json()) as { id: string }
    const stateOf = async () =>
      ((await (await ask('GET', `/api/bundles/${job.id}`)).json()) as { state: string }).state
    await until('the file to be written', async () => (await stateOf()) === 'ready')
    for (let i = 0; i < 4; i++) expect(await stateOf()).toBe('ready')
    for (let i = 0; i < 3; i++) {
      const file = Buffer.from(await (await ask('GET', `/api/bundles/${job.id}/file`)).arrayBuffer())
      expect(file.subarray(0, 2).toString()).toBe('PK')
    }
    expect((await ask('DELETE', `/api/bundles/${job.id}`)).status).toBe(200)
    expect((await ask('GET', `/api/bundles/${job.id}`)).status).toBe(404)

    // Six windows over three processes; one of these is killed while it is written.
    const heard = new Map<number, Set<string>>()
    const follow = async (nth: number, since?: number): Promise<void> => {
      const seen = heard.get(nth) ?? heard.set(nth, new Set()).get(nth)!
      const stream = await openLiveStream(
        address,
        since,
        (change) => change.topic === 'event' && seen.add(change.value.id),
        undefined,
        { cookie },
      )
      ending.push(stream.close)
      void stream.ended.then(() => {
        if (!isOver)
          void until('the stream to come back', () =>
            follow(nth, stream.received.at(-1)?.seq ?? stream.hello.seq).then(
              () => true,
              () => false,
            ),
          )
      })
    }
    let isOver = false
    await Promise.all([1, 2, 3, 4, 5, 6].map((nth) => follow(nth)))
    const pour = randomUUID()
    expect((await ask('POST', '/api/pours', { id: pour, plan: testPlan() })).status).toBe(200)
    const post = (event: object) =>
      ask('POST', `/api/pours/${pour}/events`, event).then(
        (answer) => answer.ok,
        () => false,
      )
    const sent = Array.from({ length: 150 }, () => randomUUID())
    for (const [i, id] of sent.entries()) {
      const event = {
        id,
        occurredAtMs: Date.now() - 1000,
        who: '',
        planRevision: 1,
        body: { type: 'note', text: `${i}` },
      }
      const first = post(event)
      if (i === 50) process.kill(pidIn(state, 'server-2.pid'), 'SIGKILL')
      if (!(await first)) await until('the event to be taken', () => post(event))
    }
    await until('every window to have heard all of it', () =>
      [...heard.values()].every((seen) => sent.every((id) => seen.has(id))),
    )
    await run.shows(/the server is back/)
    const owner = openDatabase(ownerUrlOf(state), () => {})
    const rows = await owner.unscoped.selectFrom('event').select('id').execute()
    await owner.close()
    expect(rows.map((r) => r.id).sort()).toEqual([...sent].sort())
    isOver = true
    const [killed] = [once(run.process, 'close')]
    run.process.kill('SIGTERM')
    await killed
    for (let nth = 0; nth < 3; nth++)
      await expect(fetch(`http://127.0.0.1:${port + nth}/api/health`)).rejects.toThrow()
  },
  LONG_MS,
)
