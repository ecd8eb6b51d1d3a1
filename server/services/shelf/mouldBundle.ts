import { isDeepStrictEqual } from 'node:util'
import { placedAs, placeless } from '../../../shared/findPlace'
import type { ImportOutcome, MouldBundle, MouldSetInput } from '../../../shared/moulds'
import type { Db } from '../../db/client'
import { DomainError } from '../domainError'
import { insertPhoto, reducePhoto } from '../photos'
import { listMouldSets, putMouldSet } from './mouldSets'
import { inputOf, insertMould } from './moulds'

type BundledMould = MouldBundle['moulds'][number]
type BundledSet = MouldBundle['sets'][number]

/**
 * The whole shelf as one file, in pieces: no more than one mould and one photo are held at a time.
 * @param withPlaces where prints lie goes along; else nothing of it does.
 */
export async function* exportMoulds(db: Db, withPlaces: boolean): AsyncGenerator<string> {
  const plasters = await db.selectFrom('plaster').select(['id', 'name']).execute()
  yield '{"format":"nine-ripples.moulds","version":1,"moulds":['
  const ids = await db.selectFrom('mould').select('id').orderBy('name').orderBy('id').execute()
  let comma = ''
  for (const { id } of ids) {
    const row = await db.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirst()
    if (!row) continue
    const { usualPlasterId, ...mould } = withPlaces ? inputOf(row) : placeless(inputOf(row))
    const usualPlaster = plasters.find((p) => p.id === usualPlasterId) ?? null
    yield `${comma}${JSON.stringify({ id, ...mould, usualPlaster }).slice(0, -1)},"photos":[`
    comma = ','
    yield* exportPhotos(db, id)
    yield ']}'
  }
  const sets = (await listMouldSets(db)).filter((s) => s.members.length > 0)
  yield `],"sets":${JSON.stringify(sets.map(({ id, name, members }) => ({ id, name, members })))}}`
}

async function* exportPhotos(db: Db, mouldId: string): AsyncGenerator<string> {
  const photos = await db
    .selectFrom('photo')
    .select(['id', 'caption'])
    .where('mould_id', '=', mouldId)
    .orderBy('created_at')
    .orderBy('id')
    .execute()
  let comma = ''
  for (const { id, caption } of photos) {
    const row = await db.selectFrom('photo').select('full_jpeg').where('id', '=', id).executeTakeFirst()
    if (!row) continue
    yield comma + JSON.stringify({ id, caption, jpegBase64: row.full_jpeg.toString('base64') })
    comma = ','
  }
}

/** A shelf's file on its way in, mould by mould. What is there already stays as it is: a file never overwrites work. */
export class MouldImport {
  readonly outcome: ImportOutcome = { added: 0, same: 0, kept: [], plasterMissing: [], setsAdded: 0 }

  private readonly inFile = new Set<string>()
  private readonly wanted = new Set<string>()

  constructor(private readonly db: Db) {}

  /** What the file will bring: looked at before anything of it is put on the shelf. */
  expect(item: { list: 'moulds'; value: BundledMould } | { list: 'sets'; value: BundledSet }): void {
    if (item.list === 'moulds') this.inFile.add(item.value.id)
    else for (const { mouldId } of item.value.members) this.wanted.add(mouldId)
  }

  /** @throws DomainError invalid_input where a set names a mould that is neither in the file nor on the shelf. */
  async checkSets(): Promise<void> {
    const elsewhere = [...this.wanted].filter((id) => !this.inFile.has(id))
    if (elsewhere.length === 0) return
    const known = await this.db.selectFrom('mould').select('id').where('id', 'in', elsewhere).execute()
    if (known.length < elsewhere.length)
      throw new DomainError('invalid_input', [
        { path: 'sets', message: 'names a mould that is not on the shelf' },
      ])
  }

  async addMould({ id, usualPlaster, photos, ...mould }: BundledMould): Promise<void> {
    const plaster = usualPlaster && (await this.plasterHere(usualPlaster.id))
    const input = { ...mould, usualPlasterId: plaster?.id ?? null }
    // Scaled before anything is locked: nobody waits for a picture.
    const known = await this.db.selectFrom('mould').select('id').where('id', '=', id).executeTakeFirst()
    const pictures: {
      photo: BundledMould['photos'][number]
      made: Awaited<ReturnType<typeof reducePhoto>>
    }[] = []
    if (!known)
      for (const photo of photos)
        pictures.push({ photo, made: await reducePhoto(Buffer.from(photo.jpegBase64, 'base64'), 'mould') })
    const added = await this.db.transaction().execute(async (trx) => {
      if (!(await insertMould(trx, id, input))) return false
      for (const { photo, made } of pictures)
        await insertPhoto(trx, { mould: id }, photo.id, photo.caption, made)
      return true
    })
    if (added) {
      this.outcome.added += 1
      if (usualPlaster && !plaster)
        this.outcome.plasterMissing.push({ mould: mould.name, plaster: usualPlaster.name })
      return
    }
    const row = await this.db.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
    const here = inputOf(row)
    if (isDeepStrictEqual(here, placedAs(input, here))) this.outcome.same += 1
    else this.outcome.kept.push(row.name)
  }

  async addSet({ id, ...set }: BundledSet): Promise<void> {
    const known = await this.db.selectFrom('mould_set').select('id').where('id', '=', id).executeTakeFirst()
    if (known) return
    await putMouldSet(this.db, id, null, set satisfies MouldSetInput)
    this.outcome.setsAdded += 1
  }

  private plasterHere(id: string): Promise<{ id: string } | undefined> {
    return this.db.selectFrom('plaster').select('id').where('id', '=', id).executeTakeFirst()
  }
}
