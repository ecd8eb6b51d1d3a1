import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import { insertPhoto, reducePhoto } from '../server/services/photos'
import { insertMould } from '../server/services/shelf/moulds'
import { mouldInputSchema } from '../shared/moulds'
import { createTestDatabase, type TestDatabase } from '../tests/support/database'
import { openLiveStream, type LiveStream } from '../tests/support/liveStream'
import { startServer, type TestServer } from '../tests/support/server'
import { sendDamaged } from './damaged'
import { DEMO_MOULDS } from '../server/demo/moulds'
import { fillWorkshop } from './fill'
import { newPour, note, post, rank, type Measured } from './measured'
import { VIEWS, viewTimes } from './viewTimes'

/** Windows that each follow the stream and post an event every `everyMs`; how long a post takes, and until all have heard. */
async function windows(server: TestServer, count: number, everyMs: number, forMs: number) {
  const sentAt = new Map<string, number>()
  const heard: number[] = []
  const posts: number[] = []
  let refused = 0
  const streams: LiveStream[] = await Promise.all(
    Array.from({ length: count }, () =>
      openLiveStream(server.address, undefined, (change) => {
        if (change.topic !== 'event') return
        const at = sentAt.get(change.value.id)
        if (at !== undefined) heard.push(performance.now() - at)
      }),
    ),
  )
  const pours = await Promise.all(Array.from({ length: Math.min(count, 50) }, () => newPour(server)))
  const endMs = performance.now() + forMs
  await Promise.all(
    Array.from({ length: count }, async (_, i) => {
      await new Promise((resolve) => setTimeout(resolve, (everyMs * i) / count))
      while (performance.now() < endMs) {
        const startMs = performance.now()
        const event = note()
        sentAt.set(event.id, startMs)
        const answer = await post(server, `/api/pours/${pours[i % pours.length]}/events`, event)
        await answer.arrayBuffer()
        if (answer.ok) posts.push(performance.now() - startMs)
        else refused += 1
        await new Promise((resolve) =>
          setTimeout(resolve, Math.max(0, everyMs - (performance.now() - startMs))),
        )
      }
    }),
  )
  await new Promise((resolve) => setTimeout(resolve, 1500))
  streams.forEach((s) => s.close())
  return { posts, heard, refused, expected: posts.length * count }
}

const photo = (n: number, widthPx: number) =>
  sharp({
    create: { width: widthPx, height: Math.round(widthPx * 0.7), channels: 3, background: '#ba9' },
  })
    .composite([
      {
        input: Buffer.from(
          `<svg width="${widthPx}" height="${Math.round(widthPx * 0.7)}">${Array.from({ length: 400 }, (_, i) => `<circle cx="${(i * 97 + n * 31) % widthPx}" cy="${(i * 61) % Math.round(widthPx * 0.7)}" r="${5 + (i % 23)}" fill="#${((i * 7919 + n) % 4096).toString(16).padStart(3, '0')}"/>`).join('')}</svg>`,
        ),
      },
    ])
    .jpeg({ quality: 90 })
    .toBuffer()

async function shelfWithPhotos({ db }: TestDatabase, moulds: number, photosEach: number) {
  const { plaster: _, ...mould } = DEMO_MOULDS.ammonite
  for (let m = 0; m < moulds; m++) {
    const id = randomUUID()
    await insertMould(
      db,
      id,
      mouldInputSchema.parse({ ...mould, name: `Photographed ${m}`, usualPlasterId: null }),
    )
    const pictures = await reducePhoto(await photo(m, 1800), 'mould')
    for (let p = 0; p < photosEach; p++)
      await db
        .transaction()
        .execute((trx) => insertPhoto(trx, { mould: id }, randomUUID(), `view ${p}`, pictures))
  }
}

const rssMb = (server: TestServer, field: 'VmRSS' | 'VmHWM') =>
  Number(
    new RegExp(`${field}:\\s+(\\d+)`).exec(readFileSync(`/proc/${server.process.pid}/status`, 'utf8'))![1],
  ) / 1000

/** A file of moulds with photos as a camera takes them: every one has to be scaled. */
async function cameraBundle(moulds: number, photosEach: number): Promise<string> {
  const { plaster: _, ...mould } = DEMO_MOULDS.ammonite
  const shot = (await photo(7, 3000)).toString('base64')
  return JSON.stringify({
    format: 'nine-ripples.moulds',
    version: 1,
    moulds: Array.from({ length: moulds }, (_m, i) => ({
      ...mouldInputSchema.omit({ usualPlasterId: true }).parse({ ...mould, name: `Taken in ${i}` }),
      id: randomUUID(),
      usualPlaster: null,
      photos: Array.from({ length: photosEach }, () => ({ id: randomUUID(), caption: '', jpegBase64: shot })),
    })),
    sets: [],
  })
}

/** Everything that has to hold under load and growth. */
export async function benchServer(): Promise<Measured[]> {
  const rows: Measured[] = []
  const small = await createTestDatabase()
  await fillWorkshop(small, 100)
  const smallServer = await startServer(small.url)
  const few = await viewTimes(smallServer)
  await smallServer.stop()
  await small.drop()

  const large = await createTestDatabase()
  await fillWorkshop(large, 100_000)
  const server = await startServer(large.url)
  const many = await viewTimes(server)
  for (const [i, [what, , most]] of VIEWS.entries())
    rows.push({ what: `${what}, 100 000 pours, median`, value: many[i]!, unit: 'ms', most, with100: few[i]! })

  const fifty = await windows(server, 50, 1000, 10_000)
  if (fifty.refused > 0 || fifty.heard.length < fifty.expected)
    throw new Error(`50 windows: ${fifty.refused} refused, ${fifty.heard.length} of ${fifty.expected} heard`)
  rows.push({
    what: '50 windows that post each second and follow: post p99',
    value: rank(fifty.posts, 0.99),
    unit: 'ms',
    most: 100,
  })
  rows.push({ what: '50 windows: heard by all, p99', value: rank(fifty.heard, 0.99), unit: 'ms', most: 250 })
  const crowd = await windows(server, 300, 10_000, 10_000)
  if (crowd.refused > 0 || crowd.heard.length < crowd.expected)
    throw new Error(`300 windows: ${crowd.refused} refused, ${crowd.heard.length} of ${crowd.expected} heard`)
  rows.push({
    what: '300 windows that post each 10 s: heard by all, p99',
    value: rank(crowd.heard, 0.99),
    unit: 'ms',
    most: 500,
  })

  const bundle = await cameraBundle(20, 6)
  const importing = post(server, '/api/moulds/import', bundle).then(async (answer) => {
    await answer.arrayBuffer()
    return answer.status
  })
  let importDone = false
  void importing.then(() => (importDone = true))
  const meanwhile: number[] = []
  const pour = await newPour(server)
  const importFromMs = performance.now()
  while (!importDone) {
    const startMs = performance.now()
    const answer = await post(server, `/api/pours/${pour}/events`, note())
    await answer.arrayBuffer()
    if (!answer.ok) throw new Error(`an event during an import: ${answer.status}`)
    meanwhile.push(performance.now() - startMs)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  if ((await importing) !== 200) throw new Error(`import: ${await importing}`)
  rows.push({
    what: `importing 20 moulds with 120 photos (${((performance.now() - importFromMs) / 1000).toFixed(0)} s): events meanwhile, p99`,
    value: rank(meanwhile, 0.99),
    unit: 'ms',
    most: 100,
  })
  await server.stop()
  await large.drop()

  const from = await createTestDatabase()
  await shelfWithPhotos(from, 60, 10)
  const out = await startServer(from.url)
  const beforeMb = rssMb(out, 'VmRSS')
  const exported = Buffer.from(await (await fetch(`${out.address}/api/moulds/export`)).arrayBuffer())
  rows.push({
    what: `exporting a shelf of 600 photos (${(exported.length / 1e6).toFixed(0)} MB): memory taken`,
    value: rssMb(out, 'VmHWM') - beforeMb,
    unit: 'MB',
    most: 150,
  })
  await out.stop()
  const to = await createTestDatabase()
  const into = await startServer(to.url)
  const freshMb = rssMb(into, 'VmRSS')
  const taken = await fetch(`${into.address}/api/moulds/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: exported,
  })
  if (!taken.ok) throw new Error(`import of the export: ${taken.status} ${await taken.text()}`)
  await taken.arrayBuffer()
  rows.push({
    what: 'taking it in again: memory taken',
    value: rssMb(into, 'VmHWM') - freshMb,
    unit: 'MB',
    most: 300,
  })
  const again = Buffer.from(await (await fetch(`${into.address}/api/moulds/export`)).arrayBuffer())
  if (!again.equals(exported)) throw new Error('what went out and in again is not the same')
  const damaged = await sendDamaged(into, 38_000, 20_261_126)
  if (damaged.faults.length > 0)
    throw new Error(
      `damaged requests, ${damaged.faults.length} faults:\n${damaged.faults.slice(0, 5).join('\n')}`,
    )
  rows.push({
    what: '38 000 damaged requests after it, pictures among them: most memory',
    value: rssMb(into, 'VmHWM'),
    unit: 'MB',
    most: 600,
  })
  await into.stop()
  await from.drop()
  await to.drop()
  return rows
}
