import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { text, buffer } from 'node:stream/consumers'
import sharp from 'sharp'
import { sql } from 'kysely'
import { beforeAll, describe, expect, it } from 'vitest'
import yauzl from 'yauzl'
import { ZipFile } from 'yazl'
import { keepPlan } from '../../core/pour'
import { clearWorkshop, loadDemo } from '../../server/demo'
import type { BundleJob } from '../../shared/bundle'
import type { CastPage, PourRecord } from '../../shared/records'
import { withServer } from '../support/suite'
import { until } from '../support/until'
import { testPlan } from '../unit/plans'

const suite = withServer()
const { send } = suite

beforeAll(async () => {
  await loadDemo(suite.database.db, Date.now())
  // What comes of other things than pours: a choice about what is learnt.
  const bag = await suite.database.db.selectFrom('bag').select('id').orderBy('id').executeTakeFirstOrThrow()
  await send('PUT', '/api/learning', {
    subject: `bag:${bag.id}`,
    factor: 'set_time',
    choice: { off: true, sinceMs: 0, leftOut: [randomUUID()] },
  })
})

async function jobAt(id: string, ...states: BundleJob['state'][]): Promise<BundleJob> {
  let job!: BundleJob
  await until(`bundle ${states.join(' or ')}`, async () => {
    job = (await send('GET', `/api/bundles/${id}`)).json as never as BundleJob
    return states.includes(job.state)
  })
  return job
}

async function exported(request: object = { of: 'workshop' }): Promise<{ zip: Buffer; job: BundleJob }> {
  const begun = await send('POST', '/api/bundles', request)
  expect(begun.status).toBe(200)
  const job = await jobAt(String(begun.json.id), 'ready', 'failed')
  expect(job.state).toBe('ready')
  const file = await fetch(`${suite.server.address}/api/bundles/${job.id}/file`)
  expect(file.headers.get('content-type')).toBe('application/zip')
  const zip = Buffer.from(await file.arrayBuffer())
  await send('DELETE', `/api/bundles/${job.id}`)
  return { zip, job }
}

/** Every file by its name, JSON read. */
async function filesOf(zip: Buffer): Promise<Map<string, unknown>> {
  const opened = await yauzl.fromBufferPromise(zip, { lazyEntries: true })
  const files = new Map<string, unknown>()
  for await (const entry of opened.eachEntry()) {
    const stream = await opened.openReadStreamPromise(entry)
    files.set(
      entry.fileName,
      entry.fileName.endsWith('.json')
        ? JSON.parse(await text(stream))
        : entry.fileName.endsWith('.csv')
          ? await text(stream)
          : (await buffer(stream)).toString('base64'),
    )
  }
  return files
}

async function zipOf(files: ReadonlyMap<string, unknown>): Promise<Buffer> {
  const zip = new ZipFile()
  for (const [name, content] of files)
    zip.addBuffer(
      name.endsWith('.json') ? Buffer.from(JSON.stringify(content)) : Buffer.from(String(content), 'base64'),
      name,
    )
  zip.end()
  return buffer(zip.outputStream as NodeJS.ReadableStream as never)
}

async function sent(zip: Buffer): Promise<BundleJob> {
  const answer = await send('POST', '/api/bundles/import', new Uint8Array(zip), {
    'content-type': 'application/zip',
  })
  expect(answer.status).toBe(200)
  return jobAt(String(answer.json.id), 'ready', 'failed')
}
async function readIn(zip: Buffer, clashes: 'keep' | 'take' = 'keep'): Promise<BundleJob> {
  const { id, state } = await sent(zip)
  expect(state).toBe('ready')
  expect((await send('POST', `/api/bundles/${id}/apply`, { clashes })).status).toBe(200)
  return jobAt(id, 'done', 'failed')
}

describe('a workshop as one file', () => {
  it('goes out, and into an empty workshop comes back whole, to the last byte of every file', async () => {
    const { zip } = await exported()
    const before = await filesOf(zip)
    expect([...before.keys()].filter((n) => n.startsWith('pours/')).length).toBeGreaterThan(15)
    expect([...before.keys()].filter((n) => n.startsWith('photos/')).length).toBeGreaterThan(0)
    expect(before.get('cards/learning.json')).toHaveLength(1)

    // Looked at while everything is there, it would change nothing.
    const idle = await sent(zip)
    for (const count of Object.values(idle.report!.counts))
      expect(count).toMatchObject({ add: 0, grow: 0, clash: 0 })
    await send('DELETE', `/api/bundles/${idle.id}`)

    await clearWorkshop(suite.database.db)
    await suite.database.owner.updateTable('settings').set({ workshop_name: 'Empty' }).execute()
    expect(((await send('GET', '/api/pours')).json as never as CastPage).total).toBe(0)

    const looked = await sent(zip)
    expect(looked.report!.counts.pours).toMatchObject({ same: 0, clash: 0 })
    expect(looked.report!.counts.settings).toMatchObject({ clash: 1 })
    // Nothing of it is used before somebody says so.
    expect(((await send('GET', '/api/pours')).json as never as CastPage).total).toBe(0)
    const done = await readIn(zip, 'take')
    expect(done.report!.unreadable).toEqual([])
    const after = await filesOf((await exported()).zip)
    expect([...after.keys()]).toEqual([...before.keys()])
    for (const [name, content] of before)
      if (!name.endsWith('.csv')) expect(after.get(name), name).toEqual(content)
    // Tables hold what was reckoned from it, too; only the order of what came at one moment is the database's.
    expect(String(after.get('tables/weighings.csv')).length).toBe(
      String(before.get('tables/weighings.csv')).length,
    )
  }, 120_000)

  it('adds to a pour what is new, and never changes what was recorded', async () => {
    const id = randomUUID()
    await send('POST', '/api/pours', { id, plan: keepPlan(testPlan()) })
    const { zip } = await exported({ of: 'pour', id })
    const files = await filesOf(zip)
    const name = `pours/${id}.json`
    const pour = files.get(name) as { events: object[]; plan: { piece: string } }
    const event = {
      id: randomUUID(),
      occurredAtMs: Date.now() - 5000,
      receivedAtMs: Date.now() - 4000,
      who: 'Ines',
      body: { type: 'mould_ready' },
    }
    const grown = new Map(files).set(name, { ...pour, events: [event] })
    expect((await readIn(await zipOf(grown))).report!.counts.pours).toMatchObject({ grow: 1 })
    const record = (await send('GET', `/api/pours/${id}`)).json as never as PourRecord
    expect(record.events.map((e) => e.id)).toEqual([event.id])
    // The same event told otherwise: it stays as it was.
    const other = new Map(files).set(name, { ...pour, events: [{ ...event, who: 'Somebody' }] })
    expect((await readIn(await zipOf(other), 'take')).report!.counts.pours).toMatchObject({ clash: 1 })
    const still = (await send('GET', `/api/pours/${id}`)).json as never as PourRecord
    expect(still.events[0]!.who).toBe('Ines')
  })

  it('says what clashes, and changes a card only where it is told to', async () => {
    const bowl = { name: 'Green bowl', volumeMl: 900, tareG: 120 }
    const id = randomUUID()
    await send('PUT', `/api/bowls/${id}`, { revision: null, bowl })
    const files = await filesOf((await exported()).zip)
    const bowls = files.get('cards/bowls.json') as { id: string; tareG: number }[]
    const changed = new Map(files).set(
      'cards/bowls.json',
      bowls.map((b) => (b.id === id ? { ...b, tareG: 130 } : b)),
    )
    const zip = await zipOf(changed)
    const kept = await readIn(zip, 'keep')
    expect(kept.report!.clashes).toEqual([{ kind: 'bowls', name: 'Green bowl' }])
    const tare = async () =>
      ((await send('GET', '/api/bowls')).json as never as typeof bowls).find((b) => b.id === id)!.tareG
    expect(await tare()).toBe(120)
    await readIn(zip, 'take')
    expect(await tare()).toBe(130)
  })

  it('refuses what is none, says what of one cannot be read, and goes on with the rest', async () => {
    const none = await send('POST', '/api/bundles/import', new Uint8Array(Buffer.from('no zip at all')), {
      'content-type': 'application/zip',
    })
    expect((await jobAt(String(none.json.id), 'failed')).failure).toBe('invalid_input')
    const strange = await zipOf(new Map([['hello.json', {}]]))
    expect((await sent(strange)).failure).toBe('invalid_input')
    const files = await filesOf((await exported()).zip)
    const [name] = [...files.keys()].filter((n) => n.startsWith('pours/'))
    const damaged = await zipOf(new Map(files).set(name!, { format: 'nine-ripples.pour', version: 1 }))
    const looked = await sent(damaged)
    expect(looked.report!.unreadable).toMatchObject([{ file: name }])
    expect(looked.report!.moreUnreadable).toBe(0)
    expect(looked.report!.counts.pours!.same).toBeGreaterThan(10)
    expect((await send('POST', '/api/bundles/import', {})).status).toBe(415)
    expect((await send('GET', `/api/bundles/${randomUUID()}`)).status).toBe(404)
  })

  it('one bad card takes no other with it, nor the photographs of those that are well', async () => {
    const { zip } = await exported()
    const files = await filesOf(zip)
    const moulds = files.get('cards/moulds.json') as { id: string; name: string; photos: object[] }[]
    await clearWorkshop(suite.database.db)
    const bad = moulds.map((m, i) => (i === 1 ? { ...m, name: '', thicknessMm: -4 } : m))
    const done = await readIn(await zipOf(new Map(files).set('cards/moulds.json', bad)))
    expect(done.report!.unreadable.filter((u) => u.file.includes('moulds'))).toMatchObject([
      { file: 'cards/moulds.json, no. 2', why: expect.stringContaining('thicknessMm') as string },
    ])
    expect(done.report!.counts.moulds!.add).toBe(moulds.length - 1)
    const kept = moulds.filter((_, i) => i !== 1).reduce((sum, m) => sum + m.photos.length, 0)
    const { n } = await suite.database.db
      .selectFrom('photo')
      .select((eb) => eb.fn.count<number>('id').as('n'))
      .where('mould_id', 'is not', null)
      .executeTakeFirstOrThrow()
    expect(n).toBe(kept)
    await readIn(zip)
  }, 120_000)

  it('a pour of more readings than one file holds comes back with all of them, and what cannot is listed', async () => {
    const { db } = suite.database
    const id = randomUUID()
    await send('POST', '/api/pours', { id, plan: keepPlan(testPlan()) })
    await sql`
      insert into reading (device_id, channel, at, value, stable, pour_id, batch)
      select 'shed-thermometer', 't' || (1 + n % 2), to_timestamp(1790000000 + n), 20 + n % 30, true, ${id}::uuid, 0
      from generate_series(1, 25001) n`.execute(db)
    // One that no version of ours wrote.
    const strange = randomUUID()
    await send('POST', '/api/pours', { id: strange, plan: keepPlan(testPlan()) })
    await sql`update pour set plan = plan || '{"consistency": "thick"}' where id = ${strange}`.execute(
      suite.database.owner,
    )
    const { zip, job } = await exported()
    expect(job.leftOut).toMatchObject([{ file: `pours/${strange}.json` }])
    const files = await filesOf(zip)
    expect(files.get('left-out.json')).toMatchObject({ items: job.leftOut })
    expect([...files.keys()].filter((n) => n.includes(id))).toEqual(
      [1, 2].map((n) => `pours/${id}${n > 1 ? `.${n}` : ''}.json`),
    )
    const count = async () =>
      (await sql<{ n: number }>`select count(*)::int as n from reading where pour_id = ${id}`.execute(db))
        .rows[0]!.n
    await clearWorkshop(suite.database.db)
    expect(await count()).toBe(0)
    await readIn(zip)
    expect(await count()).toBe(25_001)
    expect((await readIn(zip)).report!.counts.pours).toMatchObject({ add: 0, grow: 0 })
  }, 120_000)

  describe('a file made to do harm', () => {
    const [MANIFEST, HEAD] = [
      'manifest.json',
      { format: 'nine-ripples.workshop', version: 1, of: 'workshop', name: 'Evil', pours: 0, photos: 0 },
    ] as const
    const raw = async (name: string, content: Buffer): Promise<Buffer> => {
      const zip = new ZipFile()
      zip.addBuffer(Buffer.from(JSON.stringify(HEAD)), MANIFEST)
      zip.addBuffer(content, name)
      zip.end()
      return buffer(zip.outputStream as NodeJS.ReadableStream as never)
    }
    const pour = `pours/${randomUUID()}.json`

    it.each([
      ['30 million brackets', pour, () => '['.repeat(30e6)],
      ['10 million empty lists', 'cards/recipes.json', () => `[${'[],'.repeat(10e6)}[]]`],
      ['10 million of them in one thing', pour, () => `{"events":[{"body":[${'[],'.repeat(10e6)}[]]}]}`],
      ['one text of 60 MB', 'settings.json', () => `{"workshopName":"${'x'.repeat(60e6)}"}`],
    ])(
      '%s: it is refused or left out, and posts are answered meanwhile',
      async (_, name, content) => {
        const zip = await raw(name, Buffer.from(content()))
        expect(zip.length).toBeLessThan(200_000)
        let running = true
        const tookMs: number[] = []
        const posting = (async () => {
          while (running) {
            const beforeMs = performance.now()
            expect((await send('POST', '/api/pours', { id: randomUUID(), plan: testPlan() })).status).toBe(
              200,
            )
            tookMs.push(performance.now() - beforeMs)
          }
        })()
        const { failure, report } = await sent(zip)
        running = false
        await posting
        if (failure) expect(failure).toBe('payload_too_large')
        else
          expect(
            report!.unreadable.every((u) => u.file.startsWith(name)) && report!.unreadable.length,
          ).toBeGreaterThan(0)
        // A figure for what hangs: what it really is, the fault walk measures.
        expect(Math.max(...tookMs)).toBeLessThan(10_000)
        const status = readFileSync(`/proc/${suite.server.process.pid}/status`, 'utf8')
        expect(Number(/VmHWM:\s+(\d+)/.exec(status)![1]) / 1024).toBeLessThan(600)
      },
      60_000,
    )

    it('what goes on of a pour that is not in it is left out', async () => {
      const id = randomUUID()
      const more = { format: 'nine-ripples.pour_more', version: 1, id, events: [], readings: [] }
      const reading = { device: 'a', channel: 't1', batch: 0, atMs: 1, value: 20, stable: true }
      const file = `pours/${id}.2.json`
      const zip = await raw(file, Buffer.from(JSON.stringify({ ...more, readings: [reading] })))
      expect((await readIn(zip)).report!.unreadable).toEqual([{ file, why: 'not_found' }])
    })

    it('a false size, a false sum and a path out of the zip are the file’s faults', async () => {
      const card = Buffer.from(JSON.stringify([{ id: randomUUID(), name: 'Bowl', volumeMl: 900, tareG: 1 }]))
      const zip = await raw('cards/bowls.json', card)
      const entry = zip.lastIndexOf(Buffer.from([0x50, 0x4b, 1, 2]))
      const changed = (at: number, by: number) => {
        const copy = Buffer.from(zip)
        copy.writeUInt32LE(copy.readUInt32LE(entry + at) + by, entry + at)
        return copy
      }
      for (const damaged of [changed(16, 1), changed(24, 7), changed(24, -7)])
        expect((await sent(damaged)).report!.unreadable).toMatchObject([
          { file: 'cards/bowls.json', why: 'invalid_input' },
        ])
      const foreign = Buffer.from(zip)
      foreign.write('../../bowls.json', entry + 46)
      expect((await sent(foreign)).failure).toBe('invalid_input')
    })
  })

  it('one mould goes out with its photographs and without where it lies, and given up it leaves nothing behind', async () => {
    const { id, find } = await suite.database.db
      .selectFrom('mould')
      .select(['id', 'find'])
      .where('find', 'is not', null)
      .executeTakeFirstOrThrow()
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#864' } })
      .jpeg()
      .toBuffer()
    const photo = randomUUID()
    const added = await send(
      'POST',
      `/api/photos?id=${photo}&mould=${id}&caption=Above`,
      new Uint8Array(picture),
      {
        'content-type': 'image/jpeg',
      },
    )
    expect(added.status).toBe(200)
    const files = await filesOf((await exported({ of: 'mould', id })).zip)
    expect(files.get('manifest.json')).toMatchObject({ of: 'mould', pours: 0, photos: 2 })
    expect(files.get('cards/moulds.json')).toMatchObject([
      { id, photos: expect.arrayContaining([{ id: photo, caption: 'Above' }]) },
    ])
    // Read in where it came from, it is the same: with its usual plaster.
    const again = await sent((await exported({ of: 'mould', id })).zip)
    expect(again.report!.counts).toMatchObject({ moulds: { same: 1, clash: 0 }, photos: { same: 2 } })
    // Where its print lies stays here, unless it is wished along.
    const foundIn = async (request: object) => {
      const [card] = (await filesOf((await exported(request)).zip)).get('cards/moulds.json') as [
        { find: typeof find },
      ]
      return card.find
    }
    expect(find!.place).not.toBe('')
    expect(await foundIn({ of: 'mould', id })).toEqual({ ...find, place: '', position: null })
    expect(await foundIn({ of: 'mould', id, withPlace: true })).toEqual(find)
    const begun = await send('POST', '/api/bundles', { of: 'workshop' })
    await send('DELETE', `/api/bundles/${String(begun.json.id)}`)
    expect((await send('GET', `/api/bundles/${String(begun.json.id)}`)).status).toBe(404)
    for (const of of ['mould', 'pour']) {
      const gone = await send('POST', '/api/bundles', { of, id: randomUUID() })
      expect(await jobAt(String(gone.json.id), 'ready', 'failed')).toMatchObject({
        state: 'failed',
        failure: 'not_found',
      })
    }
  })
})

it('what pours showed is worked out once somebody asks, a few at a time, and again when one changes', async () => {
  const { db } = suite.database
  const { rows } = await sql<{ bag: string }>`
    select substr(tag, 5) as bag from pour_summary, unnest(tags) tag where tag like 'bag:%'
    group by 1 order by count(*) desc limit 1`.execute(db)
  const subject = `bag:${rows[0]!.bag}`
  await sql`update learn_choice set is_off = false`.execute(suite.database.owner)
  const ask = async () =>
    (await send('GET', `/api/learning?subject=${subject}`)).json as never as {
      pending: number
      seen: { set_time?: { ratio: number; pourId: string }[] }
    }
  let found = await ask()
  for (let round = 0; round < 20 && found.pending > 0; round++) found = await ask()
  expect(found.pending).toBe(0)
  expect(found.seen.set_time!.length).toBeGreaterThanOrEqual(5)
  // The demo's tiles were made to set a tenth to a quarter slower than their card.
  const middle = found.seen.set_time!.map((s) => s.ratio).sort()[2]!
  expect(middle).toBeGreaterThan(1.08)
  expect(middle).toBeLessThan(1.3)
  const one = found.seen.set_time![0]!.pourId
  await send('POST', `/api/pours/${one}/events`, {
    id: randomUUID(),
    occurredAtMs: Date.now() - 1000,
    who: '',
    body: { type: 'defect', kind: 'air_holes' },
  })
  const { is_observed } = await db
    .selectFrom('pour_summary')
    .select('is_observed')
    .where('pour_id', '=', one)
    .executeTakeFirstOrThrow()
  expect(is_observed).toBe(false)
  await send('GET', '/api/figures')
  const tagged = (await send('GET', `/api/pours?tags=fault:air_holes,${subject}`)).json as never as CastPage
  expect(tagged.items.map((i) => i.id)).toContain(one)
  expect((await send('GET', '/api/pours?tags=nothing:x')).status).toBe(400)
})
