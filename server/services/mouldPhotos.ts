import type { Transaction } from 'kysely'
import sharp from 'sharp'
import type { MouldPhoto } from '../../shared/moulds'
import type { Db } from '../db/client'
import type { Database } from '../db/schema'
import { DomainError } from './domainError'

/** A camera's own file is smaller than this. */
const MAX_PIXELS = 100e6
const FULL_PX = 1600
const THUMB_PX = 480
const MAX_PHOTOS = 24

const FORMATS = ['jpeg', 'png', 'webp', 'gif', 'tiff', 'heif']

interface Pictures {
  full: Buffer
  thumb: Buffer
  widthPx: number
  heightPx: number
}

// One picture at a time and one core for it: a hundred megapixels unpacked are a few hundred megabytes, and events go first.
sharp.concurrency(1)
sharp.cache(false)
let lastPicture: Promise<unknown> = Promise.resolve()
function oneAtATime<T>(work: () => Promise<T>): Promise<T> {
  const turn = lastPicture.then(work, work)
  lastPicture = turn
  return turn
}

/**
 * A photo made small and anonymous: turned upright, scaled down, and written anew as JPEG without the camera's data,
 * so that where it was taken does not travel with it. One that is like that already stays as it is, byte for byte.
 */
export function reducePhoto(file: Buffer): Promise<Pictures> {
  return oneAtATime(() => reduce(file))
}

async function reduce(file: Buffer): Promise<Pictures> {
  try {
    const source = sharp(file, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    const { format, width, height } = await source.metadata()
    if (!FORMATS.includes(format)) throw new DomainError('not_a_picture')
    const upright = source.autoOrient().flatten({ background: '#ffffff' })
    const fit = (px: number) =>
      upright
        .clone()
        .resize(px, px, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 80, mozjpeg: true })
        .toBuffer({ resolveWithObject: true })
    const thumb = (await fit(THUMB_PX)).data
    if (Math.max(width, height) <= FULL_PX && isBareJpeg(file))
      return { full: file, thumb, widthPx: width, heightPx: height }
    const full = await fit(FULL_PX)
    return { full: full.data, thumb, widthPx: full.info.width, heightPx: full.info.height }
  } catch (error) {
    // The library says only in words what it could not read; whatever it was, it was no picture to us.
    if (error instanceof DomainError) throw error
    throw new DomainError('not_a_picture')
  }
}

/** Markers of a JPEG that say how it is coded (ITU-T T.81, table B.1), and the plain JFIF header. */
const BARE_MARKERS = new Set([0xc0, 0xc1, 0xc2, 0xc4, 0xdb, 0xdd, 0xe0])
const MOST_BARE_BYTES = 4_000_000

/** Whether a JPEG holds the picture and nothing else: no camera's data, comment, thumbnail or tail. */
export function isBareJpeg(file: Buffer): boolean {
  if (file.length > MOST_BARE_BYTES || file.readUInt16BE(0) !== 0xffd8) return false
  if (
    file.readUInt16BE(file.length - 2) !== 0xffd9 ||
    file.indexOf(Buffer.from([0xff, 0xd9])) !== file.length - 2
  )
    return false
  let at = 2
  while (at + 4 <= file.length) {
    if (file[at] !== 0xff) return false
    const marker = file[at + 1]!
    if (marker === 0xda) {
      at = scanEnd(file, at + 2 + file.readUInt16BE(at + 2))
      if (at === file.length - 2) return true
      continue
    }
    const length = file.readUInt16BE(at + 2)
    // A JFIF header may carry a thumbnail of its own.
    if (!BARE_MARKERS.has(marker) || (marker === 0xe0 && length > 16)) return false
    at += 2 + length
  }
  return false
}

/** Where coded data ends: at the next marker that is neither a stuffed byte nor a restart. */
function scanEnd(file: Buffer, from: number): number {
  for (let at = file.indexOf(0xff, from); at >= 0; at = file.indexOf(0xff, at + 1)) {
    const next = file[at + 1]!
    if (next !== 0 && (next < 0xd0 || next > 0xd7)) return at
  }
  return file.length
}

type Known = MouldPhoto & { mouldId: string }

async function photoOf(db: Db, id: string): Promise<Known | undefined> {
  const row = await db
    .selectFrom('mould_photo')
    .select(['id', 'mould_id', 'caption', 'width_px', 'height_px'])
    .where('id', '=', id)
    .executeTakeFirst()
  return (
    row && {
      id: row.id,
      mouldId: row.mould_id,
      caption: row.caption,
      widthPx: row.width_px,
      heightPx: row.height_px,
    }
  )
}

function sameMould({ mouldId: known, ...photo }: Known, mouldId: string): MouldPhoto {
  if (known !== mouldId) throw new DomainError('card_id_conflict')
  return photo
}

/** Adds a photo to a mould, as long as there is room for it. The same photo sent again is one. */
export async function addPhoto(
  db: Db,
  mouldId: string,
  id: string,
  caption: string,
  file: Buffer,
): Promise<MouldPhoto> {
  const known = await photoOf(db, id)
  if (known) return sameMould(known, mouldId)
  // Scaled before anything is locked.
  const pictures = await reducePhoto(file)
  await db.transaction().execute(async (trx) => {
    const mould = await trx
      .selectFrom('mould')
      .select('id')
      .where('id', '=', mouldId)
      .forUpdate()
      .executeTakeFirst()
    if (!mould) throw new DomainError('not_found')
    const { total } = await trx
      .selectFrom('mould_photo')
      .select((eb) => eb.fn.countAll<number>().as('total'))
      .where('mould_id', '=', mouldId)
      .executeTakeFirstOrThrow()
    if (total >= MAX_PHOTOS) throw new DomainError('too_many_photos')
    await insertPhoto(trx, mouldId, id, caption, pictures)
  })
  return sameMould((await photoOf(db, id))!, mouldId)
}

export async function insertPhoto(
  trx: Transaction<Database>,
  mouldId: string,
  id: string,
  caption: string,
  pictures: Pictures,
): Promise<void> {
  await trx
    .insertInto('mould_photo')
    .values({
      id,
      mould_id: mouldId,
      caption,
      width_px: pictures.widthPx,
      height_px: pictures.heightPx,
      full_jpeg: pictures.full,
      thumb_jpeg: pictures.thumb,
    })
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .execute()
}

export async function readPhoto(db: Db, id: string, size: 'full' | 'thumb'): Promise<Buffer> {
  const column = size === 'full' ? 'full_jpeg' : 'thumb_jpeg'
  const row = await db
    .selectFrom('mould_photo')
    .select(`${column} as jpeg`)
    .where('id', '=', id)
    .executeTakeFirst()
  if (!row) throw new DomainError('not_found')
  return row.jpeg
}

export async function deletePhoto(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('mould_photo').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
