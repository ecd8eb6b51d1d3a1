import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { sql } from 'kysely'
import { describe, expect, it } from 'vitest'
import { usualFacts } from '../../core/mould'
import { planMould } from '../../core/pour'
import type { MouldBundle, MouldCard, MouldInput } from '../../shared/moulds'
import { createTestDatabase } from '../support/database'
import { send as sendTo } from '../support/http'
import { startServer } from '../support/server'
import { withServer } from '../support/suite'
import { testPlan } from '../unit/plans'

const suite = withServer()
const { send } = suite

const cylinder = (depthMm: number): MouldInput['volume'] => ({
  parts: [
    { role: 'add', count: 1, method: { by: 'shape', shape: { kind: 'cylinder', diameterMm: 100, depthMm } } },
  ],
  cavities: 1,
  check: null,
  trust: 'parts',
})
const mouldOf = (change: Partial<MouldInput> = {}): MouldInput => ({
  name: 'Door stop',
  purpose: 'figure',
  facts: usualFacts('silicone'),
  volume: cylinder(40),
  thicknessMm: 28,
  usualPlasterId: null,
  isSpill: false,
  castsBefore: 2,
  lifeCasts: null,
  note: '',
  ...change,
})
async function newMould(change: Partial<MouldInput> = {}): Promise<MouldCard> {
  const answer = await send('PUT', `/api/moulds/${randomUUID()}`, { revision: null, mould: mouldOf(change) })
  expect(answer.status).toBe(200)
  return answer.json as never
}
const listed = async (id: string) =>
  ((await send('GET', '/api/moulds?limit=100')).json as never as { items: MouldCard[] }).items.find(
    (m) => m.id === id,
  )

describe('moulds', () => {
  it('are kept as described, with what follows from it', async () => {
    const card = await newMould()
    expect(card).toMatchObject({
      revision: 1,
      kind: 'silicone',
      thinnestMm: 40,
      history: { casts: 0, last: null },
    })
    expect(card.cavityMl).toBeCloseTo((Math.PI * 2500 * 40) / 1000, 6)
    expect(await listed(card.id)).toEqual(card)
  })

  it('the same twice is one; another under its id is refused', async () => {
    const path = `/api/moulds/${randomUUID()}`
    const body = { revision: null, mould: mouldOf() }
    expect((await send('PUT', path, body)).status).toBe(200)
    expect((await send('PUT', path, body)).status).toBe(200)
    const other = await send('PUT', path, { revision: null, mould: mouldOf({ name: 'Another' }) })
    expect(other).toMatchObject({ status: 409, json: { error: { code: 'card_id_conflict' } } })
  })

  it('change from the version that was seen; of two at once one is told', async () => {
    const { id } = await newMould()
    const change = (name: string) =>
      send('PUT', `/api/moulds/${id}`, { revision: 1, mould: mouldOf({ name }) })
    const answers = await Promise.all([change('First'), change('Second')])
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409])
    const [told, taken] = [409, 200].map((status) => answers.find((a) => a.status === status)!.json)
    expect(told).toMatchObject({ error: { code: 'stale_card', current: taken } })
    expect((await listed(id))!.revision).toBe(2)
  })

  it('count their casts from the pours, with what was taken back left out', async () => {
    const { id } = await newMould()
    const mould = planMould([{ ...mouldOf(), mouldId: id, count: 3 }])!
    const pourId = randomUUID()
    await send('POST', '/api/pours', { id: pourId, plan: testPlan('pottery', { mould }) })
    let atMs = Date.now() - 60_000
    const record = async (body: object) => {
      const event = { id: randomUUID(), occurredAtMs: (atMs += 1000), who: '', body }
      expect((await send('POST', `/api/pours/${pourId}/events`, event)).status).toBe(200)
      return event.id
    }
    expect((await listed(id))!.history.casts).toBe(0)
    const poured = await record({ type: 'poured' })
    expect((await listed(id))!.history).toMatchObject({ casts: 3, last: { pourId, outcomes: { poured: 3 } } })
    await record({ type: 'void', targetId: poured })
    expect((await listed(id))!.history).toMatchObject({ casts: 0, last: null })
    await record({ type: 'poured' })
    await record({ type: 'demoulded', outcome: 'whole' })
    await record({ type: 'mould_damage', mouldId: id, kind: 'tear' })
    const { history } = (await listed(id))!
    expect(history).toMatchObject({ casts: 3, last: { outcomes: { whole: 3 } }, damages: [{ kind: 'tear' }] })
  })

  it('leave the shelf with their photos and sets, and their pours stand', async () => {
    const { id } = await newMould()
    const setId = randomUUID()
    const set = { name: 'Pair', members: [{ mouldId: id, count: 2 }] }
    const put = () => send('PUT', `/api/mould-sets/${setId}`, { revision: null, set })
    expect((await put()).json).toMatchObject({ id: setId, ...set })
    expect((await send('DELETE', `/api/moulds/${id}`)).status).toBe(200)
    expect(await listed(id)).toBeUndefined()
    expect((await send('DELETE', `/api/moulds/${id}`)).status).toBe(404)
    expect((await put()).status).toBe(400)
    expect((await send('DELETE', `/api/mould-sets/${setId}`)).status).toBe(200)
  })

  const bowtie = [
    [0, 0],
    [60, 40],
    [60, 10],
    [20, 50],
    [20, 80],
  ].map(([radiusMm, heightMm]) => ({ radiusMm, heightMm, smooth: false }))
  it.each([
    [
      'a profile that crosses itself',
      { by: 'profile', outer: bowtie, inner: [], fillHeightMm: null },
      'profile_crosses_itself',
    ],
    [
      'a ring inside out',
      { by: 'shape', shape: { kind: 'ring', outerDiameterMm: 50, innerDiameterMm: 60, depthMm: 10 } },
      'ring_inside_out',
    ],
    [
      'a box without depth',
      { by: 'shape', shape: { kind: 'box', lengthMm: 50, widthMm: 60, depthMm: 0 } },
      'holds_too_little',
    ],
  ])('refuse %s, at its field', async (_, method, code) => {
    const volume = { ...cylinder(10), parts: [{ role: 'add', count: 1, method }] }
    const answer = await send('PUT', `/api/moulds/${randomUUID()}`, {
      revision: null,
      mould: { ...mouldOf(), volume },
    })
    expect(answer.status).toBe(400)
    expect(answer.json).toMatchObject({ error: { code: 'invalid_input', fields: [{ message: code }] } })
    expect((answer.json as never as { error: { fields: { path: string }[] } }).error.fields[0]!.path).toMatch(
      /^mould\.volume\.parts/,
    )
  })

  it('refuse a usual plaster that is not here', async () => {
    const answer = await send('PUT', `/api/moulds/${randomUUID()}`, {
      revision: null,
      mould: mouldOf({ usualPlasterId: randomUUID() }),
    })
    expect(answer).toMatchObject({
      status: 400,
      json: { error: { fields: [{ path: 'mould.usualPlasterId' }] } },
    })
  })
})

describe('photos', () => {
  const photograph = (widthPx: number, heightPx: number) =>
    sharp({ create: { width: widthPx, height: heightPx, channels: 3, background: '#b98' } })
      .jpeg()
      .withExif({ IFD0: { Model: 'A camera' }, IFD3: { GPSLatitude: '54/1 0/1 0/1', GPSLatitudeRef: 'N' } })
      .toBuffer()
  const post = (id: string, file: Uint8Array | string, type = 'image/jpeg') =>
    send('POST', `/api/photos?id=${randomUUID()}&mould=${id}&caption=From+above`, file, {
      'content-type': type,
    })

  it('are made smaller and lose where they were taken', async () => {
    const { id } = await newMould()
    const original = await photograph(4000, 3000)
    expect((await sharp(original).metadata()).exif).toBeDefined()
    const { status, json } = await post(id, original)
    expect(status).toBe(200)
    expect(json).toMatchObject({ caption: 'From above', widthPx: 2400, heightPx: 1800 })
    expect((await listed(id))!.photos).toEqual([json])
    const read = await fetch(`${suite.server.address}/api/photos/${String(json.id)}?size=thumb`)
    expect(read.headers.get('content-type')).toBe('image/jpeg')
    const thumb = await sharp(Buffer.from(await read.arrayBuffer())).metadata()
    expect(thumb.width).toBe(480)
    const full = await fetch(`${suite.server.address}/api/photos/${String(json.id)}`)
    const kept = await sharp(Buffer.from(await full.arrayBuffer())).metadata()
    expect([kept.exif, thumb.exif, kept.xmp]).toEqual([undefined, undefined, undefined])
    expect((await send('DELETE', `/api/photos/${String(json.id)}`)).status).toBe(200)
    expect((await listed(id))!.photos).toEqual([])
    // Nothing but the picture in it, and still too large.
    const bare = await sharp({ create: { width: 3200, height: 40, channels: 3, background: '#a86' } })
      .jpeg()
      .toBuffer()
    expect((await post(id, bare)).json).toMatchObject({ widthPx: 2400, heightPx: 30 })
  })

  it('a file that is no picture, a cut-off one, one of 40 MB, and one for a mould that is not there', async () => {
    const { id } = await newMould()
    const code = (answer: { status: number; json: object }) => [
      answer.status,
      (answer.json as { error: { code: string } }).error.code,
    ]
    expect(code(await post(id, 'not a picture at all'))).toEqual([415, 'not_a_picture'])
    expect(code(await post(id, '<svg xmlns="http://www.w3.org/2000/svg"/>', 'image/svg+xml'))).toEqual([
      415,
      'not_a_picture',
    ])
    expect(code(await post(id, (await photograph(800, 600)).subarray(0, 900)))).toEqual([
      415,
      'not_a_picture',
    ])
    expect(code(await post(id, new Uint8Array(40 * 1024 * 1024)))).toEqual([413, 'photo_too_large'])
    expect(code(await post(id, await photograph(80, 60), 'text/plain'))).toEqual([415, 'not_a_picture'])
    expect(code(await post(randomUUID(), await photograph(80, 60)))).toEqual([404, 'not_found'])
    expect((await listed(id))!.photos).toEqual([])
  })
})

describe('files', () => {
  it('out and in again is the same shelf, photos and sets with it', async () => {
    const { id } = await newMould({ name: 'Travels' })
    const photo = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#246' } })
      .png()
      .toBuffer()
    await send('POST', `/api/photos?id=${randomUUID()}&mould=${id}&caption=Blue`, new Uint8Array(photo), {
      'content-type': 'image/png',
    })
    const setId = randomUUID()
    await send('PUT', `/api/mould-sets/${setId}`, {
      revision: null,
      set: { name: 'Alone', members: [{ mouldId: id, count: 2 }] },
    })
    const bundle = (await send('GET', '/api/moulds/export')).json as never as MouldBundle
    expect(bundle.moulds.find((m) => m.id === id)!.photos).toHaveLength(1)

    expect((await send('POST', '/api/moulds/import', bundle)).json).toMatchObject({
      added: 0,
      same: bundle.moulds.length,
      kept: [],
      setsAdded: 0,
    })
    // Its usual plaster is known by its card, and by nothing else.
    bundle.moulds.find((m) => m.id === id)!.usualPlaster = { id: randomUUID(), name: 'Pottery plaster' }
    const fresh = await createTestDatabase()
    const other = await startServer(fresh.url)
    const taken = await sendTo(other, 'POST', '/api/moulds/import', bundle)
    expect(taken.json).toMatchObject({
      added: bundle.moulds.length,
      same: 0,
      kept: [],
      plasterMissing: [{ mould: 'Travels', plaster: 'Pottery plaster' }],
      setsAdded: bundle.sets.length,
    })
    const back = (await sendTo(other, 'GET', '/api/moulds/export')).json as never as MouldBundle
    bundle.moulds.find((m) => m.id === id)!.usualPlaster = null
    // Every byte of every picture.
    expect(back).toEqual(bundle)
    await other.stop()
    await fresh.drop()
  })

  it('never overwrite what changed here since', async () => {
    const { id } = await newMould({ name: 'Mine' })
    const bundle = (await send('GET', '/api/moulds/export')).json as never as MouldBundle
    await send('PUT', `/api/moulds/${id}`, { revision: 1, mould: mouldOf({ name: 'Mine, better' }) })
    const answer = await send('POST', '/api/moulds/import', bundle)
    expect(answer.json).toMatchObject({ added: 0, kept: ['Mine, better'] })
  })

  it('a broken one changes nothing and says where it is broken', async () => {
    const count = async () =>
      ((await send('GET', '/api/moulds?limit=100')).json as never as { items: object[] }).items.length
    const before = await count()
    expect(await send('POST', '/api/moulds/import', '{"format": "nine-rip')).toMatchObject({
      status: 400,
      json: { error: { code: 'invalid_json' } },
    })
    const bundle = (await send('GET', '/api/moulds/export')).json as never as MouldBundle
    const mould = { ...bundle.moulds[0]!, id: randomUUID() }
    const wrong = { ...bundle, sets: [], moulds: [mould, { ...mould, id: randomUUID(), thicknessMm: -1 }] }
    expect(await send('POST', '/api/moulds/import', wrong)).toMatchObject({
      status: 400,
      json: { error: { fields: [{ path: 'moulds.1.thicknessMm' }] } },
    })
    const lostSet = {
      ...bundle,
      moulds: [mould],
      sets: [{ id: randomUUID(), name: 'x', members: [{ mouldId: randomUUID(), count: 1 }] }],
    }
    expect((await send('POST', '/api/moulds/import', lostSet)).status).toBe(400)
    const noPicture = {
      ...bundle,
      sets: [],
      moulds: [{ ...mould, photos: [{ id: randomUUID(), caption: '', jpegBase64: 'AAAA' }] }],
    }
    expect((await send('POST', '/api/moulds/import', noPicture)).status).toBe(415)
    expect(await count()).toBe(before)
  })
})

it('a shelf from before moulds were described keeps its volumes', async () => {
  const old = await createTestDatabase({ upTo: '20261123T2042_changes' })
  const id = randomUUID()
  await sql`insert into mould (id, name, kind, cavity_ml, volume_provenance, thickness_mm)
    values (${id}, 'Old corbel', 'latex', 5200, '{"kind":"measured"}', 60)`.execute(old.db)
  await old.finish()
  const server2 = await startServer(old.url)
  const [card] = ((await sendTo(server2, 'GET', '/api/moulds')).json as never as { items: MouldCard[] }).items
  expect(card).toMatchObject({
    id,
    cavityMl: 5200,
    plusMinusMl: 260,
    facts: { material: 'latex', flex: 'flexible' },
  })
  const {
    revision,
    name,
    purpose,
    facts,
    volume,
    thicknessMm,
    usualPlasterId,
    isSpill,
    castsBefore,
    lifeCasts,
    note,
  } = card!
  const mould = {
    name,
    purpose,
    facts,
    volume,
    thicknessMm,
    usualPlasterId,
    isSpill,
    castsBefore,
    lifeCasts,
    note,
  }
  expect((await sendTo(server2, 'PUT', `/api/moulds/${id}`, { revision, mould })).status).toBe(200)
  await server2.stop()
  await old.drop()
})
