import type { Transaction } from 'kysely'
import pLimit from 'p-limit'
import sharp from 'sharp'
import { PHOTO_FULL_PX, type PhotoSort } from '../../shared/limits'
import type { Photo } from '../../shared/photos'
import type { Db } from '../db/client'
import type { Database } from '../db/schema'
import { DomainError } from './domainError'

/** A camera's own file is smaller than this. */
const MAX_PIXELS = 100e6
const THUMB_PX = 480
const MAX_PHOTOS_OF_MOULD = 24
const MAX_PHOTOS_OF_POUR = 60

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
const oneAtATime = pLimit(1)

/**
 * A photo made small and anonymous: turned upright, scaled down, and written anew as JPEG without the camera's data,
 * so that where it was taken does not travel with it. One that is like that already stays as it is, byte for byte.
 */
export function reducePhoto(file: Buffer, of: PhotoSort): Promise<Pictures> {
  return oneAtATime(() => reduce(file, PHOTO_FULL_PX[of]))
}

async function reduce(file: Buffer, fullPx: number): Promise<Pictures> {
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
    if (Math.max(width, height) <= fullPx && isBareJpeg(file))
      return { full: file, thumb, widthPx: width, heightPx: height }
    const full = await fit(fullPx)
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

/** Whose a photo is. */
export type PhotoOwner = { mould: string } | { pour: string }

const ownerOf = (owner: PhotoOwner) =>
  'mould' in owner
    ? { table: 'mould' as const, column: 'mould_id' as const, id: owner.mould, most: MAX_PHOTOS_OF_MOULD }
    : { table: 'pour' as const, column: 'pour_id' as const, id: owner.pour, most: MAX_PHOTOS_OF_POUR }

/** The photo under this id; undefined where there is none. @throws DomainError where it is somebody else's. */
async function photoOf(db: Db, owner: PhotoOwner, id: string): Promise<Photo | undefined> {
  const { column, id: ownerId } = ownerOf(owner)
  const row = await db
    .selectFrom('photo')
    .select(['id', 'caption', 'width_px', 'height_px', `${column} as owner`])
    .where('id', '=', id)
    .executeTakeFirst()
  if (!row) return undefined
  if (row.owner !== ownerId) throw new DomainError('card_id_conflict')
  return { id: row.id, caption: row.caption, widthPx: row.width_px, heightPx: row.height_px }
}

/** Adds a photo to a mould or a pour, as long as there is room for it. The same photo sent again is one. */
export async function addPhoto(
  db: Db,
  owner: PhotoOwner,
  id: string,
  caption: string,
  file: Buffer,
): Promise<Photo> {
  const known = await photoOf(db, owner, id)
  if (known) return known
  // Scaled before anything is locked.
  const pictures = await reducePhoto(file, 'mould' in owner ? 'mould' : 'pour')
  const { table, column, id: ownerId, most } = ownerOf(owner)
  await db.transaction().execute(async (trx) => {
    const found = await trx
      .selectFrom(table)
      .select('id')
      .where('id', '=', ownerId)
      .forUpdate()
      .executeTakeFirst()
    if (!found) throw new DomainError('not_found')
    const { total } = await trx
      .selectFrom('photo')
      .select((eb) => eb.fn.countAll<number>().as('total'))
      .where(column, '=', ownerId)
      .executeTakeFirstOrThrow()
    if (total >= most) throw new DomainError('too_many_photos')
    await insertPhoto(trx, owner, id, caption, pictures)
  })
  return (await photoOf(db, owner, id))!
}

export async function insertPhoto(
  trx: Transaction<Database>,
  owner: PhotoOwner,
  id: string,
  caption: string,
  pictures: Pictures,
): Promise<void> {
  const { column, id: ownerId } = ownerOf(owner)
  await trx
    .insertInto('photo')
    .values({
      id,
      mould_id: null,
      pour_id: null,
      [column]: ownerId,
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
  const row = await db.selectFrom('photo').select(`${column} as jpeg`).where('id', '=', id).executeTakeFirst()
  if (!row) throw new DomainError('not_found')
  return row.jpeg
}

export async function deletePhoto(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('photo').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
