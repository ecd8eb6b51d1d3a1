import { text as readText, buffer as readBuffer } from 'node:stream/consumers'
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import { z } from 'zod'
import {
  CARD_KINDS,
  CARD_SCHEMAS,
  manifestSchema,
  pourFileSchema,
  settingsFileSchema,
  type BundleCount,
  type BundleKind,
  type BundleReport,
  type CardKind,
} from '../../../shared/bundle'
import type { Db } from '../../db/client'
import { DomainError } from '../domainError'
import { complaints } from '../complaints'
import { addPhoto, type PhotoOwner } from '../photos'
import { CARD_WAYS, settingsNow, standingOf, takeSettings, type CardFile } from './cards'
import { isDeepStrictEqual } from 'node:util'
import { BUNDLE_FILE } from './exportBundle'
import { stopIfCancelled, type Job } from './jobs'
import { pourStanding, putPourFile } from './pourFile'

/** One pour with its readings, or one kind of cards, unpacked: more is none of ours. */
const MOST_JSON_BYTES = 64 * 1024 * 1024
const MOST_PHOTO_BYTES = 8 * 1024 * 1024
/** Files of more than a large workshop. */
const MOST_FILES = 500_000
const MOST_NAMED = 50

async function openZip(path: string): Promise<ZipFile> {
  try {
    return await yauzl.openPromise(path, { lazyEntries: true, autoClose: false })
  } catch {
    throw new DomainError('invalid_input', [{ path: 'file', message: 'is no zip file' }])
  }
}

async function streamOf(zip: ZipFile, entry: Entry): Promise<Readable> {
  return (await zip.openReadStreamPromise(entry)) as Readable
}

type What =
  | { is: 'manifest' | 'settings' }
  | { is: 'cards'; kind: CardKind }
  | { is: 'pour' }
  | { is: 'photo'; id: string }
  | undefined

const UUID = '[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}'

function whatIs(name: string): What {
  if (name === 'manifest.json') return { is: 'manifest' }
  if (name === 'settings.json') return { is: 'settings' }
  const kind = CARD_KINDS.find((k) => name === `cards/${k}.json`)
  if (kind) return { is: 'cards', kind }
  if (new RegExp(`^pours/${UUID}\\.json$`).test(name)) return { is: 'pour' }
  const id = new RegExp(`^photos/(${UUID})\\.jpg$`).exec(name)?.[1]
  return id ? { is: 'photo', id } : undefined
}

/** Goes through a bundle once, in the order it was written: cards, pours, photographs. */
class Reading {
  readonly report: BundleReport
  private readonly owners = new Map<string, { owner: PhotoOwner; caption: string }>()

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
    this.report = { manifest, counts: {}, clashes: [], unreadable: [] }
  }

  private count(kind: BundleKind, what: keyof BundleCount, name = ''): void {
    const counts = (this.report.counts[kind] ??= { add: 0, same: 0, grow: 0, clash: 0 })
    counts[what] += 1
    if (what === 'clash' && this.report.clashes.length < MOST_NAMED) this.report.clashes.push({ kind, name })
  }

  async run(path: string): Promise<BundleReport> {
    const zip = await openZip(path)
    try {
      if (zip.entryCount > MOST_FILES) throw new DomainError('payload_too_large')
      this.job.view.total = zip.entryCount
      this.job.view.done = 0
      let first = true
      for await (const entry of zip.eachEntry()) {
        stopIfCancelled(this.job)
        const what = whatIs(entry.fileName)
        // What kind of file it is stands before everything else.
        if (first && what?.is !== 'manifest')
          throw new DomainError('invalid_input', [{ path: 'file', message: 'is no workshop’s file' }])
        first = false
        if (what) await this.take(zip, entry, what)
        this.job.view.done += 1
      }
      if (first) throw new DomainError('invalid_input', [{ path: 'file', message: 'is empty' }])
      return this.report
    } finally {
      zip.close()
    }
  }

  private async take(zip: ZipFile, entry: Entry, what: NonNullable<What>): Promise<void> {
    const most = what.is === 'photo' ? MOST_PHOTO_BYTES : MOST_JSON_BYTES
    if (entry.uncompressedSize > most) {
      this.report.unreadable.push({ file: entry.fileName, why: 'too large' })
      return
    }
    const stream = await streamOf(zip, entry)
    if (what.is === 'photo') return this.photo(what.id, await readBuffer(stream))
    const told = await readText(stream)
    try {
      const value: unknown = JSON.parse(told)
      if (what.is === 'manifest') this.report.manifest = manifestSchema.parse(value)
      else if (what.is === 'settings') await this.settings(value)
      else if (what.is === 'cards') await this.cards(what.kind, value)
      else await this.pour(value)
    } catch (error) {
      const fault =
        error instanceof z.ZodError || error instanceof SyntaxError || error instanceof DomainError
      if (!fault) throw error
      if (what.is === 'manifest')
        throw new DomainError('invalid_input', [{ path: 'manifest', message: 'is not one that is known' }])
      if (this.report.unreadable.length < MOST_NAMED)
        this.report.unreadable.push({
          file: entry.fileName,
          why: error instanceof DomainError ? error.code : complaints(error).slice(0, 3).join('; '),
        })
    }
  }

  private async settings(value: unknown): Promise<void> {
    const settings = settingsFileSchema.parse(value)
    const { settings: now } = await settingsNow(this.db)
    const same = isDeepStrictEqual(now, settings)
    this.count('settings', same ? 'same' : 'clash', settings.workshopName)
    if (!same && this.apply?.clashes === 'take') await takeSettings(this.db, settings)
  }

  private async cards<K extends CardKind>(kind: K, value: unknown): Promise<void> {
    const way = CARD_WAYS[kind]
    for (const item of z.array(z.unknown()).parse(value)) {
      stopIfCancelled(this.job)
      const card = await this.fitting(kind, CARD_SCHEMAS[kind].parse(item) as CardFile<K>)
      if (kind === 'moulds') {
        const { id, photos } = card as CardFile<'moulds'>
        for (const photo of photos)
          this.owners.set(photo.id, { owner: { mould: id }, caption: photo.caption })
      }
      const { standing, seen } = await standingOf(this.db, kind, card)
      this.count(kind, standing, way.name(card))
      const wanted = standing === 'add' || (standing === 'clash' && this.apply?.clashes === 'take')
      if (this.apply && wanted) await way.put(this.db, card, seen)
    }
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

  private async pour(value: unknown): Promise<void> {
    const file = pourFileSchema.parse(value)
    for (const photo of file.photos)
      this.owners.set(photo.id, { owner: { pour: file.id }, caption: photo.caption })
    const standing = this.apply
      ? await putPourFile(this.db, file)
      : (await pourStanding(this.db, file)).standing
    this.count('pours', standing, file.plan.piece)
  }

  private async photo(id: string, jpeg: Buffer): Promise<void> {
    const known = this.owners.get(id)
    const there = await this.db.selectFrom('photo').select('id').where('id', '=', id).executeTakeFirst()
    if (!known) return
    this.count('photos', there ? 'same' : 'add')
    if (!this.apply || there) return
    try {
      await addPhoto(this.db, known.owner, id, known.caption, jpeg)
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      this.report.unreadable.push({ file: `photos/${id}.jpg`, why: error.code })
    }
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
