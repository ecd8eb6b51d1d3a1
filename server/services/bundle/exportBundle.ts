import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { sql } from 'kysely'
import { ZipFile } from 'yazl'
import {
  CARD_KINDS,
  CARD_SCHEMAS,
  pourFileSchema,
  pourMoreSchema,
  type CardKind,
  type ExportRequest,
  type LeftOut,
  type Manifest,
} from '../../../shared/bundle'
import { placeless } from '../../../shared/findPlace'
import type { Find } from '../../../shared/finds'
import { isUnreadableCard } from '../../../shared/records'
import type { Db } from '../../db/client'
import { complaints } from '../complaints'
import { DomainError } from '../domainError'
import { CARD_WAYS, settingsNow } from './cards'
import { stopIfCancelled, type Job } from './jobs'
import { pourPieces } from './pourFile'
import { TABLE_NAMES, tableCsv } from './tables'

export const BUNDLE_FILE = 'workshop.zip'

interface Contents {
  of: Manifest['of']
  name: string
  pourIds: string[]
  photoIds: string[]
  moulds: ReadonlySet<string> | 'all'
  /** Where prints lie goes along. */
  withPlaces: boolean
}

async function photosWhere(db: Db, column: 'pour_id' | 'mould_id', id: string): Promise<string[]> {
  const rows = await db.selectFrom('photo').select('id').where(column, '=', id).orderBy('id').execute()
  return rows.map((r) => r.id)
}

async function contentsOf(db: Db, request: ExportRequest): Promise<Contents> {
  if (request.of === 'workshop') {
    const { settings } = await settingsNow(db)
    const pours = await db.selectFrom('pour').select('id').orderBy('id').execute()
    const photos = await db.selectFrom('photo').select('id').orderBy('id').execute()
    return {
      of: 'workshop',
      name: settings.workshopName,
      pourIds: pours.map((p) => p.id),
      photoIds: photos.map((p) => p.id),
      moulds: 'all',
      withPlaces: true,
    }
  }
  const { id } = request
  if (request.of === 'mould') {
    const mould = await db.selectFrom('mould').select('name').where('id', '=', id).executeTakeFirst()
    if (!mould) throw new DomainError('not_found')
    const photoIds = await photosWhere(db, 'mould_id', id)
    return {
      of: 'mould',
      name: mould.name,
      pourIds: [],
      photoIds,
      moulds: new Set([id]),
      withPlaces: request.withPlace ?? false,
    }
  }
  const pour = await db
    .selectFrom('pour_summary')
    .select('piece')
    .where('pour_id', '=', id)
    .executeTakeFirst()
  if (!pour) throw new DomainError('not_found')
  const photoIds = await photosWhere(db, 'pour_id', id)
  return { of: 'pour', name: pour.piece || id, pourIds: [id], photoIds, moulds: new Set(), withPlaces: false }
}

/** Cards that can be read in again; what of them cannot is left out, and said. */
async function cardsOf(
  db: Db,
  kind: CardKind,
  { of, moulds, withPlaces }: Contents,
  leaveOut: (item: LeftOut) => void,
): Promise<object[]> {
  if (of !== 'workshop' && kind !== 'moulds') return []
  const cards: object[] = []
  for await (const card of CARD_WAYS[kind].all(db)) {
    const { id, name = id } = card as { id?: string; name?: string }
    if (kind === 'moulds' && moulds !== 'all' && !moulds.has(id!)) continue
    const read = CARD_SCHEMAS[kind].safeParse(card)
    if (read.success) cards.push(withPlaces ? read.data : placeless(read.data as { find?: Find | null }))
    else
      leaveOut({
        file: `cards/${kind}.json: ${name ?? ''}`,
        why: isUnreadableCard(card) ? card.unreadable.join('; ') : complaints(read.error).join('; '),
      })
  }
  return cards
}

const pretty = (value: unknown) => `${JSON.stringify(value, null, 1)}\n`

export async function databaseBytes(db: Db): Promise<number> {
  const { rows } = await sql<{ bytes: number }>`
    select pg_database_size(current_database())::float as bytes`.execute(db)
  return rows[0]!.bytes
}

interface BundleFile {
  path: string
  make: () => Promise<string | Buffer | AsyncGenerator<string>>
  compress?: boolean
  /** One of those that the work is measured by. */
  counts?: boolean
}

/** A pour's files. As it lies there, also where that cannot be read in again: then that is said. */
async function* pourFiles(db: Db, id: string, leaveOut: (item: LeftOut) => void): AsyncGenerator<BundleFile> {
  let nth = 0
  for await (const piece of pourPieces(db, id)) {
    nth += 1
    const path = nth === 1 ? `pours/${id}.json` : `pours/${id}.${nth}.json`
    const read = (nth === 1 ? pourFileSchema : pourMoreSchema).safeParse(piece)
    if (!read.success) leaveOut({ file: path, why: complaints(read.error).slice(0, 3).join('; ') })
    yield { path, counts: nth === 1, make: async () => pretty(piece) }
  }
}

/** What a bundle holds, in order: its kind first, then cards, pours, photographs, what is left out, and tables. */
async function* filesOf(db: Db, contents: Contents, leftOut: LeftOut[]): AsyncGenerator<BundleFile> {
  const { pourIds, photoIds, of, name } = contents
  const leaveOut = (item: LeftOut) => leftOut.push(item)
  const manifest = {
    format: 'nine-ripples.workshop',
    version: 1,
    of,
    name: name.slice(0, 120),
    pours: pourIds.length,
    photos: photoIds.length,
  } satisfies Manifest
  yield { path: 'manifest.json', make: async () => pretty(manifest) }
  if (of === 'workshop')
    yield { path: 'settings.json', make: async () => pretty((await settingsNow(db)).settings) }
  for (const kind of CARD_KINDS)
    yield {
      path: `cards/${kind}.json`,
      make: async () => pretty(await cardsOf(db, kind, contents, leaveOut)),
    }
  for (const id of pourIds) yield* pourFiles(db, id, leaveOut)
  for (const id of photoIds) {
    const row = await db.selectFrom('photo').select('full_jpeg').where('id', '=', id).executeTakeFirst()
    const path = `photos/${id}.jpg`
    if (!row) leaveOut({ file: path, why: 'was taken away meanwhile' })
    else yield { path, counts: true, make: async () => row.full_jpeg, compress: false }
  }
  yield {
    path: 'left-out.json',
    make: async () => pretty({ format: 'nine-ripples.left_out', version: 1, items: leftOut }),
  }
  if (of === 'workshop')
    for (const table of TABLE_NAMES)
      yield { path: `tables/${table}.csv`, counts: true, make: async () => tableCsv(db, table) }
}

/**
 * Writes a bundle into the job's folder, file by file: of pours and photographs no more than one is held at a time.
 * @throws DomainError not_found; Cancelled.
 */
export async function exportBundle(db: Db, request: ExportRequest, job: Job): Promise<void> {
  const contents = await contentsOf(db, request)
  const whole = contents.of === 'workshop'
  job.view.name = contents.name
  const leftOut: LeftOut[] = []
  job.view.total = contents.pourIds.length + contents.photoIds.length + (whole ? TABLE_NAMES.length : 0)
  const zip = new ZipFile()
  const written = pipeline(zip.outputStream, createWriteStream(join(job.folder, BUNDLE_FILE)))
  // Both are heard of below, from the file in hand and at the end.
  written.catch(() => {})
  zip.on('error', () => {})
  try {
    for await (const { path, make, compress = true, counts } of filesOf(db, contents, leftOut)) {
      stopIfCancelled(job)
      const content = await make()
      const pieces = typeof content === 'string' || Buffer.isBuffer(content) ? [content] : content
      const stream = Readable.from(pieces, { highWaterMark: 1 })
      // One after the other: what waits in line would be held in memory.
      zip.addReadStream(stream, path, { compress, mtime: new Date(0) })
      await Promise.race([once(stream, 'end'), written])
      if (counts) job.view.done += 1
    }
    zip.end()
    await written
  } catch (error) {
    ;(zip.outputStream as Readable).destroy()
    throw error
  }
  stopIfCancelled(job)
  job.view.leftOut = leftOut
  job.view.state = 'ready'
}
