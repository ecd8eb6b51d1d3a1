import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase, type OpenDatabase } from '../../server/db/client'
import { offerDeviceKey } from '../../server/services/deviceKeys'
import { makeWorkshop } from '../../server/services/workshops'
import type { DeviceKeysAnswer, LiveMessage } from '../../shared/devices'
import { createTestDatabase, type TestDatabase } from '../support/database'
import { send } from '../support/http'
import { openLiveStream } from '../support/liveStream'
import { helloOf, withPlugs } from '../support/plug'
import { freePort, startServer, type TestServer } from '../support/server'
import { until } from '../support/until'

/** Devices of the network come in at another address of the loopback, as if it were the network's. */
const HOST = '127.0.0.2'
const otherId = randomUUID()
let database: TestDatabase
let server: TestServer
let app: OpenDatabase
let devicePort: number
let networkPort: number
const { closing, plug } = withPlugs()

beforeAll(async () => {
  database = await createTestDatabase()
  ;[devicePort, networkPort] = [await freePort(), await freePort()]
  const deviceNetwork = `${HOST}:${networkPort}`
  server = await startServer(database.url, { devicePort, deviceNetwork })
  app = openDatabase(database.url, () => {})
  await makeWorkshop(app, otherId)
})
afterAll(async () => {
  await server?.stop()
  await app?.close()
  await database?.drop()
})

async function windowOf(workshopId?: string) {
  const stream = await openLiveStream(
    server.address,
    undefined,
    undefined,
    undefined,
    workshopId === undefined
      ? {}
      : { cookie: `ripples_workshop_${new URL(server.address).port}=${workshopId}` },
  )
  closing.push(stream.close)
  return stream
}
async function keyFor(name: string) {
  const id = randomUUID()
  const answer = await send(server, 'POST', '/api/device-keys', { id, name })
  expect(answer.status).toBe(200)
  return { id, key: (answer.json as never as { key: string }).key }
}
const keys = async () => (await send(server, 'GET', '/api/device-keys')).json as never as DeviceKeysAnswer
/** A device of the network, as it is answered to its first line. */
async function fromNetwork(hello: object | string) {
  const line = await plug(networkPort, HOST)
  line.say(hello)
  return line
}
async function letIn(device: string, key: string) {
  const line = await fromNetwork(helloOf(device, key))
  await line.answered('welcome')
  return line
}
const isMass = (device: string, massG: number) => (m: LiveMessage) =>
  m.kind === 'mass' && m.device === device && m.massG === massG
const isRefused = (device: string, why: string) => (m: LiveMessage) =>
  m.kind === 'refused' && m.device === device && m.why === why

it('from the network a device comes in by its own key alone; who is turned away is told of', async () => {
  const window = await windowOf()
  const { id, key } = await keyFor('Scale by the sink')
  expect((await keys()).keys).toMatchObject([{ id, name: 'Scale by the sink', device: null }])
  const scale = await letIn('sink', key)
  scale.say({ type: 'mass', value: 12, stable: true })
  await window.nextLive(isMass('sink', 12))
  expect((await keys()).keys).toMatchObject([{ id, device: 'sink' }])
  await until('the one with a key to be known', async () => {
    const { json } = await send(server, 'GET', '/api/devices')
    return (json as never as { id: string }[]).some((d) => d.id === 'sink')
  })

  const turnedAway = async (hello: object, device: string, why: string) => {
    const line = await fromNetwork(hello)
    await line.ended
    expect(line.answers.map((a) => a.type)).toEqual(['error'])
    await window.nextLive(isRefused(device, why))
  }
  await turnedAway(helloOf('nobody'), 'nobody', 'no_key')
  await turnedAway(helloOf('copied', key), 'copied', 'other_device')
  const spoilt = `${key.slice(0, -4)}${key.endsWith('AAAA') ? 'BBBB' : 'AAAA'}`
  await turnedAway(helloOf('sink', spoilt), 'sink', 'wrong_key')
  // A key of a workshop that there is not, and what is no key at all.
  await turnedAway(helloOf('lost', Buffer.alloc(32, 7).toString('base64url')), 'lost', 'wrong_key')
  await turnedAway(helloOf('babbles', 'open sesame'), 'babbles', 'wrong_key')
  // Its name is taken by nobody: not with another key, and not at the machine itself while it is here.
  await turnedAway(helloOf('sink', (await keyFor('Another')).key), 'sink', 'other_device')
  const atMachine = await plug(devicePort)
  atMachine.say(helloOf('sink'))
  await atMachine.ended
  await window.nextLive(isRefused('sink', 'in_use'))
  // What says no name says no key.
  await (
    await fromNetwork('ST,GS,+  271.5 g')
  ).ended

  // It comes again by the same key, and its line before gives way.
  const again = await letIn('sink', key)
  await scale.ended
  again.say({ type: 'mass', value: 13, stable: true })
  await window.nextLive(isMass('sink', 13))
  // Taken back, it is out at once, and stays so.
  expect((await send(server, 'DELETE', `/api/device-keys/${id}`)).status).toBe(200)
  await again.ended
  await (
    await fromNetwork(helloOf('sink', key))
  ).ended
  expect((await send(server, 'DELETE', `/api/device-keys/${id}`)).status).toBe(404)
})

it('each workshop hears its own devices and zeroes its own, whatever they call themselves', async () => {
  const [mine, theirs] = [await windowOf(), await windowOf(otherId)]
  const theirKey = await offerDeviceKey(app.workshop(otherId), otherId, randomUUID(), 'Theirs')
  const myScale = await letIn('bench', (await keyFor('Mine')).key)
  const theirScale = await letIn('bench', theirKey.key)
  myScale.say({ type: 'mass', value: 100, stable: true, tare: true })
  theirScale.say({ type: 'mass', value: 200, stable: true, tare: true })
  await Promise.all([mine.nextLive(isMass('bench', 100)), theirs.nextLive(isMass('bench', 200))])
  const ask = { id: randomUUID(), zeroedAtMs: null }
  expect((await send(server, 'POST', '/api/devices/bench/tare', ask)).status).toBe(200)
  await myScale.answered('tare')
  // Long enough for theirs to be told as well, had it been: it is told what comes after.
  theirScale.say('{"type":')
  await theirScale.answered('error')
  expect(theirScale.answers.filter((a) => a.type === 'tare')).toEqual([])
  myScale.say({ type: 'mass', value: 101, stable: true })
  await mine.nextLive(isMass('bench', 101))
  expect(mine.live.some(isMass('bench', 200)) || theirs.live.some(isMass('bench', 100))).toBe(false)
})

it('what one says beyond what is listened to is dropped, and that is told', async () => {
  const window = await windowOf()
  const chatters = await letIn('chatters', (await keyFor('Chatters')).key)
  for (let i = 0; i < 2000; i++) chatters.say({ type: 'mass', value: i, stable: false })
  // Told now and then, each time what was not heard since.
  await until('most of them to be told of', () => {
    const dropped = window.live.flatMap((m) =>
      m.kind === 'dropped' && m.device === 'chatters' ? [m.lines] : [],
    )
    return dropped.reduce((sum, lines) => sum + lines, 0) > 1000
  })
  await until('it to be listened to again', async () => {
    chatters.say({ type: 'mass', value: 5000, stable: true })
    return window.live.some(isMass('chatters', 5000))
  })
})
