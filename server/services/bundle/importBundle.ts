import { buffer as readBuffer } from 'node:stream/consumers'
import { crc32 } from 'node:zlib'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { finished } from 'node:stream/promises'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import { z } from 'zod'
import {
  CARD_KINDS,
  CARD_SCHEMAS,
  MOST_IN_PIECE,
  leftOutSchema,
  manifestSchema,
  pourFileSchema,
  pourMoreSchema,
  settingsFileSchema,
  type BundleCount,
  type BundleKind,
  type BundleReport,
  type CardKind,
} from '../../../shared/bundle'
import type { Db } from '../../db/client'
import { DomainError } from '../domainError'
import { complaints } from '../complaints'
import { jsonItems } from '../jsonItems'
import { addPhoto, type PhotoOwner } from '../photos'
import { CARD_WAYS, settingsNow, standingOf, takeSettings, type CardFile } from './cards'
import { isDeepStrictEqual } from 'node:util'
import { BUNDLE_FILE } from './exportBundle'
import { stopIfCancelled, type Job } from './jobs'
import { pourStanding, putPourFile, putPourMore } from './pourFile'

/** Unpacked: more is none of ours. */
const MOST_FILE_BYTES = 64 * 1024 * 1024
const MOST_PHOTO_BYTES = 8 * 1024 * 1024
/** Files of more than a large workshop. */
const MOST_FILES = 500_000
/** JSON of ours shrinks to a twentieth; what unpacks to so many times its size was made for that. */
const MOST_RATIO = 200
const MOST_NAMED = 50
/** Of each list of a pour's file. */
const MOST_OF = { earlierPlans: 1000, events: MOST_IN_PIECE.events, readings: 500_000, photos: 100 } as const

const noZip = (message: string) => new DomainError('invalid_input', [{ path: 'file', message }])

async function openZip(path: string): Promise<ZipFile> {
  try {
    return await yauzl.openPromise(path, { lazyEntries: true, autoClose: false })
  } catch {
    throw noZip('is no zip file')
  }
}

/** Its directory, as far as it can be read. @throws DomainError invalid_input: a damaged one, or a path out of the zip. */
async function* entriesOf(zip: ZipFile): AsyncGenerator<Entry> {
  const entries = zip.eachEntry()[Symbol.asyncIterator]()
  for (;;) {
    let next: IteratorResult<Entry>
    try {
      next = await entries.next()
    } catch {
      throw noZip('is a damaged zip file')
    }
    if (next.done) return
    yield next.value
  }
}

/** What is in a file of the zip. @throws DomainError invalid_input where it is not what the directory says. */
async function* contentOf(zip: ZipFile, entry: Entry): AsyncGenerator<Buffer> {
  let sum = 0
  const damaged = new DomainError('invalid_input', [{ path: entry.fileName, message: 'is damaged' }])
  let source: Readable
  try {
    source = (await zip.openReadStreamPromise(entry)) as Readable
  } catch {
    throw damaged
  }
  const chunks = source[Symbol.asyncIterator]() as AsyncIterator<Buffer>
  try {
    for (;;) {
      // Only what the zip itself says counts as its fault, not what becomes of it.
      const next = await chunks.next().catch(() => undefined)
      if (!next) throw damaged
      if (next.done) break
      sum = crc32(next.value, sum)
      yield next.value
    }
  } finally {
    source.destroy()
  }
  if (sum !== entry.crc32) throw damaged
}

type What =
  | { is: 'manifest' | 'settings' }
  | { is: 'cards'; kind: CardKind }
  | { is: 'pour' | 'pour_more' | 'left_out' }
  | { is: 'photo'; id: string }
  | undefined

const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}'

function whatIs(name: string): What {
  if (name === 'manifest.json') return { is: 'manifest' }
  if (name === 'settings.json') return { is: 'settings' }
  if (name === 'left-out.json') return { is: 'left_out' }
  const kind = CARD_KINDS.find((k) => name === `cards/${k}.json`)
  if (kind) return { is: 'cards', kind }
  if (new RegExp(`^pours/${UUID}\\.json$`).test(name)) return { is: 'pour' }
  if (new RegExp(`^pours/${UUID}\\.\\d{1,4}\\.json$`).test(name)) return { is: 'pour_more' }
  const id = new RegExp(`^photos/(${UUID})\\.jpg$`).exec(name)?.[1]
  return id ? { is: 'photo', id } : undefined
}

const MOST_CARDS = 20_000

/** A small file's JSON as a whole. @throws DomainError as jsonItems does. */
async function jsonOf(content: AsyncIterable<Uint8Array>): Promise<unknown> {
  let whole: unknown
  for await (const { value } of jsonItems(content, ['$'])) whole = value
  return whole
}

const POUR_PATHS = [
  ...['format', 'version', 'id', 'createdAtMs', 'revision', 'plan'].map((key) => `$.${key}`),
  ...Object.keys(MOST_OF).map((list) => `$.${list}.*`),
]

/** A pour's file, read piece by piece and put together again. */
async function pourOf(content: AsyncIterable<Uint8Array>): Promise<object> {
  const whole: Record<string, unknown> = {}
  for (const list of Object.keys(MOST_OF)) whole[list] = []
  for await (const { path, value } of jsonItems(content, POUR_PATHS)) {
    const [key, nth] = path as [string, number | string | undefined]
    if (nth === undefined) whole[key] = value
    else {
      const list = whole[key] as unknown[]
      if (typeof nth !== 'number' || list.length >= MOST_OF[key as keyof typeof MOST_OF])
        throw new DomainError('invalid_input')
      list.push(value)
    }
  }
  return whole
}

/** Goes through a bundle once, in the order it was written: cards, pours, photographs. */
class Reading {
  readonly report: BundleReport
  private readonly owners = new Map<string, { owner: PhotoOwner; caption: string }>()
  /** Pours by what became of their first file: what follows of one that says otherwise than here is left, too. */
  private readonly begun = new Map<string, 'goes_on' | 'is_left'>()
  private unpackedBytes = 0

  constructor(
    private readonly db: Db,
    private readonly job: Job,
    /** Undefined: only looked at. */
    private readonly apply: { clashes: 'keep' | 'take' } | undefined,
  ) {
    const manifest = {
      format: 'nine-ripples.workshop',
      version: 1,
      of: 'workshop',
      name: '',
      pours: 0,
      photos: 0,
    } as const
    this.report = { manifest, counts: {}, clashes: [], unreadable: [], moreUnreadable: 0 }
  }

  private count(kind: BundleKind, what: keyof BundleCount, name = ''): void {
    const counts = (this.report.counts[kind] ??= { add: 0, same: 0, grow: 0, clash: 0 })
    counts[what] += 1
    if (what === 'clash' && this.report.clashes.length < MOST_NAMED) this.report.clashes.push({ kind, name })
  }

  private cannotRead(file: string, error: unknown): void {
    const why = error instanceof DomainError ? error.code : complaints(error).slice(0, 3).join('; ')
    if (this.report.unreadable.length < MOST_NAMED) this.report.unreadable.push({ file, why })
    else this.report.moreUnreadable += 1
  }

  async run(path: string): Promise<BundleReport> {
    const zip = await openZip(path)
    try {
      if (zip.entryCount > MOST_FILES) throw new DomainError('payload_too_large')
      this.job.view.total = zip.entryCount
      this.job.view.done = 0
      let first = true
      for await (const entry of entriesOf(zip)) {
        stopIfCancelled(this.job)
        const what = whatIs(entry.fileName)
        // What kind of file it is stands before everything else.
        if (first && what?.is !== 'manifest') throw noZip('is no workshop’s file')
        first = false
        if (what) await this.take(zip, entry, what)
        this.job.view.done += 1
      }
      if (first) throw noZip('is empty')
      return this.report
    } finally {
      zip.close()
    }
  }

  private async take(zip: ZipFile, entry: Entry, what: NonNullable<What>): Promise<void> {
    const { fileName, uncompressedSize } = entry
    const most = what.is === 'photo' ? MOST_PHOTO_BYTES : MOST_FILE_BYTES
    this.unpackedBytes += uncompressedSize
    // Also of many files that lie in one place of the zip.
    if (this.unpackedBytes > MOST_FILE_BYTES + MOST_RATIO * zip.fileSize)
      throw new DomainError('payload_too_large')
    try {
      if (uncompressedSize > most) throw new DomainError('payload_too_large')
      const content = contentOf(zip, entry)
      if (what.is === 'manifest') this.report.manifest = manifestSchema.parse(await jsonOf(content))
      else if (what.is === 'settings') await this.settings(await jsonOf(content))
      else if (what.is === 'cards') {
        // Cards are put in one by one: that the file is whole is known before.
        await finished(Readable.from(contentOf(zip, entry)).resume())
        await this.cards(what.kind, fileName, content)
      } else if (what.is === 'pour') await this.pour(content)
      else if (what.is === 'pour_more') await this.pourMore(content)
      else if (what.is === 'photo') await this.photo(what.id, await readBuffer(content))
      else this.leftOut(await jsonOf(content))
    } catch (error) {
      if (!(error instanceof z.ZodError || error instanceof DomainError)) throw error
      if (what.is === 'manifest')
        throw new DomainError('invalid_input', [{ path: 'manifest', message: 'is not one that is known' }])
      this.cannotRead(fileName, error)
    }
  }

  private leftOut(value: unknown): void {
    for (const { file, why } of leftOutSchema.parse(value).items) this.cannotRead(file, new Error(why))
  }

  private async settings(value: unknown): Promise<void> {
    const settings = settingsFileSchema.parse(value)
    const { settings: now } = await settingsNow(this.db)
    const same = isDeepStrictEqual(now, settings)
    this.count('settings', same ? 'same' : 'clash', settings.workshopName)
    if (!same && this.apply?.clashes === 'take') await takeSettings(this.db, settings)
  }

  /** Card by card: one that cannot be read or kept takes no other with it. */
  private async cards<K extends CardKind>(
    kind: K,
    fileName: string,
    content: AsyncIterable<Uint8Array>,
  ): Promise<void> {
    let nth = 0
    for await (const { path, value } of jsonItems(content, ['$.*'])) {
      stopIfCancelled(this.job)
      nth += 1
      if (typeof path[0] !== 'number' || nth > MOST_CARDS) throw new DomainError('invalid_input')
      try {
        await this.card(kind, value)
      } catch (error) {
        if (!(error instanceof z.ZodError || error instanceof DomainError)) throw error
        this.cannotRead(`${fileName}, no. ${nth}`, error)
      }
    }
  }

  private async card<K extends CardKind>(kind: K, value: unknown): Promise<void> {
    const way = CARD_WAYS[kind]
    const card = await this.fitting(kind, CARD_SCHEMAS[kind].parse(value) as CardFile<K>)
    if (kind === 'moulds') {
      const { id, photos } = card as CardFile<'moulds'>
      for (const photo of photos) this.owners.set(photo.id, { owner: { mould: id }, caption: photo.caption })
    }
    const { standing, seen } = await standingOf(this.db, kind, card)
    const wanted = standing === 'add' || (standing === 'clash' && this.apply?.clashes === 'take')
    if (this.apply && wanted) await way.put(this.db, card, seen)
    this.count(kind, standing, way.name(card))
  }

  /** A mould that comes alone may name a plaster that is not here: it comes without. */
  private async fitting<K extends CardKind>(kind: K, card: CardFile<K>): Promise<CardFile<K>> {
    if (kind !== 'moulds') return card
    const { usualPlasterId } = card as CardFile<'moulds'>
    if (usualPlasterId === null) return card
    const known = await this.db
      .selectFrom('plaster')
      .select('id')
      .where('id', '=', usualPlasterId)
      .executeTakeFirst()
    return known ? card : { ...card, usualPlasterId: null }
  }

  /** A pour is one thing: what cannot be read of it leaves all of it out. */
  private async pour(content: AsyncIterable<Uint8Array>): Promise<void> {
    const file = pourFileSchema.parse(await pourOf(content))
    for (const photo of file.photos)
      this.owners.set(photo.id, { owner: { pour: file.id }, caption: photo.caption })
    const standing = this.apply
      ? await putPourFile(this.db, file)
      : (await pourStanding(this.db, file)).standing
    this.begun.set(file.id, standing === 'clash' ? 'is_left' : 'goes_on')
    this.count('pours', standing, file.plan.piece)
  }

  private async pourMore(content: AsyncIterable<Uint8Array>): Promise<void> {
    const more = pourMoreSchema.parse(await pourOf(content))
    const begun = this.begun.get(more.id)
    if (!begun) throw new DomainError('not_found')
    if (this.apply && begun === 'goes_on') await putPourMore(this.db, more)
  }

  private async photo(id: string, jpeg: Buffer): Promise<void> {
    const known = this.owners.get(id)
    const there = await this.db.selectFrom('photo').select('id').where('id', '=', id).executeTakeFirst()
    // Whose it is was in what could not be read, and is said there.
    if (!known) return
    if (this.apply && !there) await addPhoto(this.db, known.owner, id, known.caption, jpeg)
    this.count('photos', there ? 'same' : 'add')
  }
}

/** What reading the job's file in would do. */
export async function lookAtBundle(db: Db, job: Job): Promise<void> {
  job.view.report = await new Reading(db, job, undefined).run(join(job.folder, BUNDLE_FILE))
  job.view.name = job.view.report.manifest.name
  job.view.state = 'ready'
}

/** Reads the job's file in. What is here and says otherwise stays, or gives way; a pour is only ever added to. */
export async function applyBundle(db: Db, job: Job, clashes: 'keep' | 'take'): Promise<void> {
  job.view.report = await new Reading(db, job, { clashes }).run(join(job.folder, BUNDLE_FILE))
  job.view.state = 'done'
}
