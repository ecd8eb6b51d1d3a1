import { isDeepStrictEqual } from 'node:util'
import type { ImportOutcome, MouldBundle } from '../../shared/moulds'
import type { Db } from '../db/client'
import { insertPhoto, reducePhoto } from './mouldPhotos'
import { listMouldSets, putMouldSet } from './mouldSets'
import { inputOf, insertMould } from './moulds'

/** The whole shelf as one file. */
export async function exportMoulds(db: Db): Promise<MouldBundle> {
  const [rows, plasters, photos, sets] = await Promise.all([
    db.selectFrom('mould').selectAll().orderBy('name').orderBy('id').execute(),
    db.selectFrom('plaster').select(['id', 'name']).execute(),
    db
      .selectFrom('mould_photo')
      .select(['id', 'mould_id', 'caption', 'full_jpeg'])
      .orderBy('created_at')
      .execute(),
    listMouldSets(db),
  ])
  return {
    format: 'nine-ripples.moulds',
    version: 1,
    moulds: rows.map((row) => {
      const { usualPlasterId, ...mould } = inputOf(row)
      return {
        id: row.id,
        ...mould,
        usualPlaster: plasters.find((p) => p.id === usualPlasterId) ?? null,
        photos: photos
          .filter((p) => p.mould_id === row.id)
          .map((p) => ({ id: p.id, caption: p.caption, jpegBase64: p.full_jpeg.toString('base64') })),
      }
    }),
    sets: sets.filter((s) => s.members.length > 0),
  }
}

/**
 * Puts the moulds of a file on the shelf, all or none. What is there already stays as it is: a file never overwrites
 * work done since.
 */
export async function importMoulds(db: Db, bundle: MouldBundle): Promise<ImportOutcome> {
  const outcome: ImportOutcome = { added: 0, same: 0, kept: [], setsAdded: 0 }
  await db.transaction().execute(async (trx) => {
    const plasters = await trx.selectFrom('plaster').select(['id', 'name']).execute()
    for (const { id, usualPlaster, photos, ...mould } of bundle.moulds) {
      const plaster =
        plasters.find((p) => p.id === usualPlaster?.id) ?? plasters.find((p) => p.name === usualPlaster?.name)
      const input = { ...mould, usualPlasterId: plaster?.id ?? null }
      if (await insertMould(trx, id, input)) {
        outcome.added += 1
        for (const photo of photos) {
          const pictures = await reducePhoto(Buffer.from(photo.jpegBase64, 'base64'))
          await insertPhoto(trx, id, photo.id, photo.caption, pictures)
        }
        continue
      }
      const row = await trx.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
      if (isDeepStrictEqual(inputOf(row), input)) outcome.same += 1
      else outcome.kept.push(row.name)
    }
    const known = new Set((await listMouldSets(trx)).map((s) => s.id))
    for (const { id, ...set } of bundle.sets.filter((s) => !known.has(s.id))) {
      await putMouldSet(trx, id, set)
      outcome.setsAdded += 1
    }
  })
  return outcome
}
