import type { Transaction } from 'kysely'
import sharp from 'sharp'
import type { MouldPhoto } from '../../shared/moulds'
import type { Db } from '../db/client'
import type { Database } from '../db/schema'
import { DomainError } from './domainError'

/** A camera's own file is smaller than this. */
export const MAX_PHOTO_BYTES = 25 * 1024 * 1024
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

/**
 * A photo made small and anonymous: turned upright, scaled down, and written anew as JPEG without the camera's data,
 * so that where it was taken does not travel with it.
 */
export async function reducePhoto(file: Buffer): Promise<Pictures> {
  try {
    const source = sharp(file, { limitInputPixels: MAX_PIXELS, failOn: 'error' })
    const { format } = await source.metadata()
    if (!FORMATS.includes(format)) throw new DomainError('not_a_picture')
    const upright = source.autoOrient().flatten({ background: '#ffffff' })
    const fit = (px: number) =>
      upright
        .clone()
        .resize(px, px, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 80, mozjpeg: true })
        .toBuffer({ resolveWithObject: true })
    const [full, thumb] = [await fit(FULL_PX), await fit(THUMB_PX)]
    return { full: full.data, thumb: thumb.data, widthPx: full.info.width, heightPx: full.info.height }
  } catch (error) {
    // The library says only in words what it could not read; whatever it was, it was no picture to us.
    if (error instanceof DomainError) throw error
    throw new DomainError('not_a_picture')
  }
}

/** Adds a photo to a mould, as long as there is room for it. */
export async function addPhoto(
  db: Db,
  mouldId: string,
  id: string,
  caption: string,
  file: Buffer,
): Promise<MouldPhoto> {
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
  return { id, caption, widthPx: pictures.widthPx, heightPx: pictures.heightPx }
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
    .onConflict((c) => c.column('id').doNothing())
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
