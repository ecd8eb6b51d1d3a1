import { once } from 'node:events'
import { connect } from 'node:net'
import { createTestDatabase } from '../tests/support/database'
import { send } from '../tests/support/http'
import { openLiveStream } from '../tests/support/liveStream'
import { freePort, startServer } from '../tests/support/server'
import { until } from '../tests/support/until'
import { newPour, note, post, rank, type Measured } from './measured'

const DEVICES = 20
const EVERY_MS = 200
const FOR_MS = 60_000
/** Events a second meanwhile. */
const EVENTS_PER_S = 10

/** Twenty scales at five readings a second, each at a pour, three windows that follow, and events posted meanwhile. */
export async function benchDevices(): Promise<Measured[]> {
  const database = await createTestDatabase()
  const devicePort = await freePort()
  const server = await startServer(database.url, { devicePort })
  const pours = await Promise.all(Array.from({ length: DEVICES }, () => newPour(server)))
  /** When each device said its nth mass: the mass is the number. */
  const saidMs = Array.from({ length: DEVICES }, (): number[] => [])
  const heard: number[] = []
  const windows = await Promise.all(
    Array.from({ length: 3 }, () =>
      openLiveStream(server.address, undefined, undefined, (all) => {
        for (const m of all) {
          if (m.kind !== 'mass' || m.massG === null) continue
          const at = saidMs[Number(m.device.slice('scale-'.length))]?.[m.massG]
          if (at !== undefined) heard.push(performance.now() - at)
        }
      }),
    ),
  )
  const sockets = await Promise.all(
    Array.from({ length: DEVICES }, async (_, i) => {
      const socket = connect(devicePort, '127.0.0.1')
      await once(socket, 'connect')
      socket.resume()
      socket.write(
        `${JSON.stringify({ type: 'hello', protocol: 1, device: `scale-${i}`, name: `Scale ${i}` })}\n`,
      )
      return socket
    }),
  )
  await until('all devices to be known', async () => {
    const known = (await send(server, 'GET', '/api/devices')).json as never as { id: string }[]
    return known.length === DEVICES
  })
  for (let i = 0; i < DEVICES; i++)
    await send(server, 'PUT', `/api/devices/scale-${i}/use`, {
      channel: 'mass',
      to: { pourId: pours[i], batch: 0 },
    })
  const talking = sockets.map((socket, i) =>
    setInterval(() => {
      const n = saidMs[i]!.length
      saidMs[i]!.push(performance.now())
      socket.write(`${JSON.stringify({ type: 'mass', value: n, stable: n % 5 === 0, tare: true })}\n`)
    }, EVERY_MS),
  )
  const posts: number[] = []
  let refused = 0
  const endMs = performance.now() + FOR_MS
  await Promise.all(
    pours.slice(0, EVENTS_PER_S).map(async (pour, i) => {
      await new Promise((resolve) => setTimeout(resolve, (1000 * i) / EVENTS_PER_S))
      while (performance.now() < endMs) {
        const startMs = performance.now()
        const answer = await post(server, `/api/pours/${pour}/events`, note())
        await answer.arrayBuffer()
        if (answer.ok) posts.push(performance.now() - startMs)
        else refused += 1
        await new Promise((resolve) => setTimeout(resolve, Math.max(0, startMs + 1000 - performance.now())))
      }
    }),
  )
  talking.forEach(clearInterval)
  sockets.forEach((s) => s.destroy())
  windows.forEach((w) => w.close())
  if (refused > 0) throw new Error(`${refused} events were refused while devices spoke`)
  const said = saidMs.reduce((sum, all) => sum + all.length, 0)
  // Two that fall into one telling are one; more that go missing would be a fault.
  if (heard.length < 0.8 * said * windows.length)
    throw new Error(`of ${said} readings only ${heard.length / windows.length} were heard`)
  await server.stop()
  await database.drop()
  return [
    {
      what: '20 scales at 5 readings a second: reading heard, p50',
      value: rank(heard, 0.5),
      unit: 'ms',
      most: 250,
    },
    {
      what: '20 scales at 5 readings a second: reading heard, p99',
      value: rank(heard, 0.99),
      unit: 'ms',
      most: 500,
    },
    { what: '20 scales: event posts meanwhile, p99', value: rank(posts, 0.99), unit: 'ms', most: 100 },
  ]
}
