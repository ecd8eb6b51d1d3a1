/**
 * A hostile week in some minutes, on this machine and its loopback only: a full disk, database and server killed together,
 * files made to do harm, floods of devices. Prints what it did to those at the bench, as a table.
 * Usage: npx tsx scripts/faults.ts [disk|kills|files|devices]…; the full disk wants root, for a small disk of its own.
 */
import { execFileSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { connect } from 'node:net'
import { readFileSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { setTimeout as after } from 'node:timers/promises'
import { ZipFile } from 'yazl'
import { freePort } from '../tests/support/server'
import { castsAt, pidIn, startOn, stateFolder, type Run } from '../tests/support/startScript'
import { until } from '../tests/support/until'
import { testPlan } from '../tests/unit/plans'
import { note, rank } from './measured'

interface Row {
  what: string
  value: string | number
  unit: string
  most?: number
}
const rows: Row[] = []

interface Bench {
  run: Run
  state: string
  address: string
  devicePort: number
  stop: () => Promise<void>
}
async function openBench(state: string, ...options: string[]): Promise<Bench> {
  const port = await freePort()
  const run = startOn(state, '--port', String(port), ...options)
  await run.shows(/Stop: Ctrl-C/)
  const [, devicePort] = /Devices connect to: 127\.0\.0\.1:(\d+)/.exec(run.output())!
  return {
    run,
    state,
    address: `http://127.0.0.1:${port}`,
    devicePort: Number(devicePort),
    stop: async () => {
      run.process.kill('SIGTERM')
      await run.ends()
    },
  }
}

interface Answer {
  status: number
  code: string | undefined
  tookMs: number
}
async function posted({ address }: Bench, path: string, body: object): Promise<Answer> {
  const startMs = performance.now()
  try {
    const answer = await fetch(address + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(10_000),
    })
    const json = (await answer.json()) as { error?: { code: string } }
    return { status: answer.status, code: json.error?.code, tookMs: performance.now() - startMs }
  } catch {
    return { status: 0, code: undefined, tookMs: performance.now() - startMs }
  }
}
async function newPourAt(bench: Bench): Promise<string> {
  const id = randomUUID()
  await until(
    'a pour',
    async () => (await posted(bench, '/api/pours', { id, plan: testPlan() })).status === 200,
  )
  return id
}
const memoryMb = ({ state }: Bench, which: 'VmRSS' | 'VmHWM') =>
  Math.round(
    Number(
      new RegExp(`${which}:\\s+(\\d+)`).exec(
        readFileSync(`/proc/${pidIn(state, 'server.pid')}/status`, 'utf8'),
      )![1],
    ) / 1024,
  )
const logsMb = ({ state }: Bench) =>
  readdirSync(join(state, 'log')).reduce((sum, name) => sum + statSync(join(state, 'log', name)).size, 0) /
  1e6

/** Posts one after the other while something goes on; what became of each, and how long it took. */
async function whilePosting(bench: Bench, doing: () => Promise<void>): Promise<Answer[]> {
  const pour = await newPourAt(bench)
  // What the first ones cost is no fault's.
  for (let nth = 0; nth < 100; nth++) await posted(bench, `/api/pours/${pour}/events`, note())
  const answers: Answer[] = []
  let running = true
  const posting = (async () => {
    while (running) {
      answers.push(await posted(bench, `/api/pours/${pour}/events`, note()))
      await after(10)
    }
  })()
  await doing().finally(() => (running = false))
  await posting
  return answers
}
function say(what: string, answers: readonly Answer[], mostMs?: number) {
  const times = answers.map((a) => a.tookMs)
  rows.push({ what: `${what}: posts`, value: answers.length, unit: '' })
  rows.push({
    what: `${what}: not taken`,
    value: answers.filter((a) => a.status !== 200).length,
    unit: [...new Set(answers.map((a) => a.code).filter(Boolean))].join(' '),
  })
  rows.push({ what: `${what}: a post, p99`, value: Math.round(rank(times, 0.99)), unit: 'ms', most: mostMs })
}

async function diskFull(): Promise<void> {
  const { folder } = stateFolder()
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=420m,mode=711', 'tmpfs', folder])
  } catch {
    rows.push({ what: 'disk full', value: 'not tried: no small disk may be made here', unit: '' })
    return
  }
  try {
    const bench = await openBench(join(folder, 'state'), '--empty')
    const pour = await newPourAt(bench)
    const beforeMb = memoryMb(bench, 'VmRSS')
    const ballast = join(folder, 'ballast')
    try {
      execFileSync('dd', ['if=/dev/zero', `of=${ballast}`, 'bs=64k'], { stdio: 'ignore' })
    } catch {
      // Until there is no room left.
    }
    const seen = new Map<string, number>()
    let healthMs = 0
    const untilMs = performance.now() + 20_000
    while (performance.now() < untilMs) {
      const event = { ...note(), body: { type: 'note', text: 'x'.repeat(900) } }
      const { status, code } = await posted(bench, `/api/pours/${pour}/events`, event)
      const key = `${status} ${code ?? ''}`
      seen.set(key, (seen.get(key) ?? 0) + 1)
      const startMs = performance.now()
      await fetch(`${bench.address}/api/health`).catch(() => undefined)
      healthMs = Math.max(healthMs, performance.now() - startMs)
    }
    rows.push({
      what: 'disk full: answers',
      value: [...seen].map(([k, n]) => `${n} × ${k}`).join(', '),
      unit: '',
    })
    rows.push({ what: 'disk full: health, slowest', value: Math.round(healthMs), unit: 'ms', most: 2000 })
    rows.push({
      what: 'disk full: memory on top',
      value: memoryMb(bench, 'VmRSS') - beforeMb,
      unit: 'MB',
      most: 50,
    })
    rows.push({ what: 'disk full: log', value: Number(logsMb(bench).toFixed(1)), unit: 'MB', most: 64 })
    rmSync(ballast)
    const startMs = performance.now()
    await until(
      'it to take events again',
      async () => (await posted(bench, `/api/pours/${pour}/events`, note())).status === 200,
      120_000,
    )
    rows.push({
      what: 'disk full: back after',
      value: Math.round((performance.now() - startMs) / 1000),
      unit: 's',
      most: 40,
    })
    await bench.stop()
  } finally {
    execFileSync('umount', ['-l', folder])
    rmSync(folder, { recursive: true, force: true })
  }
}

/** From a kill to a healthy answer: each by itself, and both. */
async function comingBack({ state, address, run }: Bench): Promise<void> {
  for (const [what, files, says] of [
    ['the server', ['server.pid'], /the server is back/],
    ['the database', ['data/postmaster.pid'], /the database is back/],
    ['both', ['server.pid', 'data/postmaster.pid'], /the database is back[^]*the database is back/],
  ] as const) {
    const startMs = performance.now()
    for (const file of files) process.kill(pidIn(state, file), 'SIGKILL')
    await run.shows(says)
    await until(
      'it to be healthy',
      async () => (await fetch(`${address}/api/health`).catch(() => undefined))?.ok,
      120_000,
    )
    const tookS = (performance.now() - startMs) / 1000
    rows.push({
      what: `killed once: ${what} back after`,
      value: Number(tookS.toFixed(1)),
      unit: 's',
      most: 5,
    })
  }
}

async function kills(): Promise<void> {
  const { folder, state } = stateFolder()
  const bench = await openBench(state, '--empty')
  await comingBack(bench)
  const answers = await whilePosting(bench, async () => {
    for (let nth = 0; nth < 20; nth++) {
      await after(6000)
      for (const file of ['server.pid', 'data/postmaster.pid'])
        try {
          process.kill(pidIn(state, file), 'SIGKILL')
        } catch {
          // It is just being started.
        }
    }
  })
  say('server and database killed every 6 s', answers)
  const startMs = performance.now()
  await until(
    'it to be back',
    async () => (await fetch(`${bench.address}/api/health`).catch(() => undefined))?.ok,
    120_000,
  )
  rows.push({
    what: 'killed: back after the last',
    value: Math.round((performance.now() - startMs) / 1000),
    unit: 's',
    most: 45,
  })
  const stored = await castsAt(new URL(bench.address).port)
  const record = (await (await fetch(`${bench.address}/api/pours/${stored[0]}`)).json()) as {
    events: unknown[]
  }
  const taken = answers.filter((a) => a.status === 200).length
  rows.push({
    what: 'killed: acknowledged and not there',
    value: Math.max(0, taken - record.events.length),
    unit: '',
    most: 0,
  })
  await bench.stop()
  rmSync(folder, { recursive: true, force: true })
}

async function zipOf(name: string, content: string): Promise<Buffer> {
  const zip = new ZipFile()
  const manifest = {
    format: 'nine-ripples.workshop',
    version: 1,
    of: 'workshop',
    name: 'x',
    pours: 0,
    photos: 0,
  }
  zip.addBuffer(Buffer.from(JSON.stringify(manifest)), 'manifest.json')
  zip.addBuffer(Buffer.from(content), name)
  zip.end()
  return buffer(zip.outputStream as NodeJS.ReadableStream as never)
}

async function files(): Promise<void> {
  const { folder, state } = stateFolder()
  const bench = await openBench(state, '--empty')
  const pour = `pours/${randomUUID()}.json`
  const evil = [
    await zipOf(pour, '['.repeat(30e6)),
    await zipOf('cards/recipes.json', `[${'[],'.repeat(10e6)}[]]`),
    await zipOf(pour, `{"events":[{"body":[${'[],'.repeat(10e6)}[]]}]}`),
    await zipOf('settings.json', `{"workshopName":"${'x'.repeat(60e6)}"}`),
  ]
  rows.push({
    what: 'evil files: the largest',
    value: Math.round(Math.max(...evil.map((z) => z.length)) / 1000),
    unit: 'kB',
  })
  const answers = await whilePosting(bench, async () => {
    const jobs = await Promise.all(
      evil.map(async (zip) => {
        const answer = await fetch(`${bench.address}/api/bundles/import`, {
          method: 'POST',
          headers: { 'content-type': 'application/zip' },
          body: new Uint8Array(zip),
        })
        return (await answer.json()) as { id: string }
      }),
    )
    for (const { id } of jobs)
      await until(
        'a file to be looked through',
        async () =>
          ((await (await fetch(`${bench.address}/api/bundles/${id}`)).json()) as { state: string }).state !==
          'running',
        120_000,
      )
    const nested = `{"format":"nine-ripples.moulds","version":1,"moulds":[${'['.repeat(200_000)}`
    const shelf = await fetch(`${bench.address}/api/moulds/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: nested,
    })
    rows.push({ what: 'evil shelf of 200 000 brackets: answer', value: shelf.status, unit: '' })
  })
  say('four evil files at once', answers, 100)
  rows.push({ what: 'evil files: memory, the most', value: memoryMb(bench, 'VmHWM'), unit: 'MB', most: 600 })
  await bench.stop()
  rmSync(folder, { recursive: true, force: true })
}

async function devices(): Promise<void> {
  const { folder, state } = stateFolder()
  const bench = await openBench(state, '--empty')
  const sockets = new Set<ReturnType<typeof connect>>()
  const dial = () => {
    const socket = connect(bench.devicePort, '127.0.0.1')
    sockets.add(socket)
    socket.on('error', () => {}).on('close', () => sockets.delete(socket))
    socket.resume()
    return socket
  }
  const answers = await whilePosting(bench, async () => {
    const untilMs = performance.now() + 20_000
    for (let nth = 0; performance.now() < untilMs; nth++) {
      if (sockets.size < 90) dial()
      const [socket = dial()] = sockets
      for (let i = 0; i < 40; i++)
        socket.write(
          `${JSON.stringify({ type: 'hello', protocol: 1, device: `made-up-${nth}-${i}`, name: 'Made up' })}\n`,
        )
      await after(20)
    }
  })
  for (const socket of sockets) socket.destroy()
  say('2 000 hellos a second and idle lines', answers, 100)
  const known = (await (await fetch(`${bench.address}/api/devices`)).json()) as unknown[]
  rows.push({ what: 'hellos: rows left behind', value: known.length, unit: '', most: 64 })
  rows.push({ what: 'hellos: memory, the most', value: memoryMb(bench, 'VmHWM'), unit: 'MB', most: 600 })
  await bench.stop()
  rmSync(folder, { recursive: true, force: true })
}

const WALKS = { disk: diskFull, kills, files, devices }
const asked = process.argv.slice(2)
for (const [name, walk] of Object.entries(WALKS)) if (asked.length === 0 || asked.includes(name)) await walk()
console.table(
  rows.map(({ what, value, unit, most }) => ({
    what,
    value,
    unit,
    most: most ?? '',
    holds: most === undefined ? '' : Number(value) <= most ? 'yes' : 'NO',
  })),
)
process.exitCode = rows.some((r) => r.most !== undefined && Number(r.value) > r.most) ? 1 : 0
