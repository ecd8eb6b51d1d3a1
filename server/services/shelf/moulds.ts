import { sql } from 'kysely'
import { describeCavity, mouldKindOf } from '../../../core/mould'
import type { PageQuery } from '../../../shared/contracts'
import type { Page, UnreadableCard } from '../../../shared/records'
import { mouldInputSchema, type MouldCard, type MouldInput } from '../../../shared/moulds'
import type { Photo } from '../../../shared/photos'
import type { Db } from '../../db/client'
import type { Columns, MouldRow, MouldTable } from '../../db/schema'
import { readRow, readable } from '../complaints'
import { DomainError } from '../domainError'
import { pageOf, readKey, requireId } from '../paging'
import { putRevisioned } from '../revisioned'

type History = MouldCard['history']

/** What was done with these moulds: how many casts, how the last came out, what happened to the mould. */
async function historiesOf(db: Db, rows: readonly MouldRow[]): Promise<Map<string, History>> {
  const ids = rows.map((r) => r.id)
  const [lasts, damaged] = await Promise.all([
    db
      .selectFrom('mould')
      .innerJoinLateral(
        (eb) =>
          eb
            .selectFrom('mould_use')
            .select(['pour_id', 'piece', 'poured_at', 'outcomes', 'faults'])
            .whereRef('mould_use.mould_id', '=', 'mould.id')
            .where('poured_at', 'is not', null)
            .orderBy('poured_at', 'desc')
            .limit(1)
            .as('last'),
        (join) => join.onTrue(),
      )
      .select(['mould.id', 'last.pour_id', 'last.piece', 'last.poured_at', 'last.outcomes', 'last.faults'])
      .where('mould.id', 'in', ids)
      .execute(),
    db
      .selectFrom('mould_use')
      .select(['mould_id', 'damages'])
      .where('mould_id', 'in', ids)
      .where(sql<boolean>`damages <> '[]'::jsonb`)
      .execute(),
  ])
  const lastOf = new Map(lasts.map((l) => [l.id, l]))
  return new Map(
    rows.map((row) => {
      const last = lastOf.get(row.id)
      return [
        row.id,
        {
          casts: row.casts_here,
          last: last
            ? {
                pourId: last.pour_id,
                piece: last.piece,
                atMs: last.poured_at!.getTime(),
                outcomes: last.outcomes,
                faults: last.faults,
              }
            : null,
          damages: damaged
            .filter((d) => d.mould_id === row.id)
            .flatMap((d) => d.damages)
            .sort((a, b) => b.atMs - a.atMs),
        },
      ]
    }),
  )
}

async function photosOf(db: Db, ids: readonly string[]): Promise<Map<string, Photo[]>> {
  const rows = await db
    .selectFrom('photo')
    .select(['id', 'mould_id', 'caption', 'width_px', 'height_px'])
    .where('mould_id', 'in', ids)
    .orderBy('created_at')
    .orderBy('id')
    .execute()
  const found = new Map<string, Photo[]>()
  for (const r of rows) {
    const photo = { id: r.id, caption: r.caption, widthPx: r.width_px, heightPx: r.height_px }
    found.set(r.mould_id!, [...(found.get(r.mould_id!) ?? []), photo])
  }
  return found
}

export function inputOf(row: MouldRow): MouldInput & Pick<MouldCard, 'find'> {
  return {
    name: row.name,
    purpose: row.purpose,
    facts: row.facts,
    volume: row.volume,
    thicknessMm: row.thickness_mm,
    usualPlasterId: row.usual_plaster_id,
    isSpill: row.is_spill,
    castsBefore: row.casts_before,
    lifeCasts: row.life_casts,
    note: row.note,
    find: row.find,
  }
}

async function toCards(db: Db, rows: readonly MouldRow[]): Promise<(MouldCard | UnreadableCard)[]> {
  if (rows.length === 0) return []
  const ids = rows.map((r) => r.id)
  const [histories, photos] = await Promise.all([historiesOf(db, rows), photosOf(db, ids)])
  return rows.map((row) =>
    readRow(row, () => ({
      ...mouldInputSchema.parse(inputOf(row)),
      find: row.find,
      id: row.id,
      revision: row.revision,
      kind: row.kind,
      cavityMl: row.cavity_ml,
      plusMinusMl: row.plus_minus_ml,
      volumeProvenance: row.volume_provenance,
      thinnestMm: row.thinnest_mm,
      photos: photos.get(row.id) ?? [],
      history: histories.get(row.id)!,
    })),
  )
}

export async function listMoulds(
  db: Db,
  { after, limit }: PageQuery,
): Promise<Page<MouldCard | UnreadableCard>> {
  const key = readKey(after, 2)
  let query = db
    .selectFrom('mould')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .limit(limit + 1)
  if (key) query = query.where(sql<boolean>`(name, id) > (${key[0]}, ${requireId(key[1]!)}::uuid)`)
  const rows = await query.execute()
  const { items, ...rest } = pageOf(
    rows,
    limit,
    (row) => row,
    (r) => [r.name, r.id],
  )
  return { items: await toCards(db, items), ...rest }
}

/** Those of these that are there. */
export async function mouldsById(db: Db, ids: readonly string[]): Promise<(MouldCard | UnreadableCard)[]> {
  return toCards(db, await db.selectFrom('mould').selectAll().where('id', 'in', ids).execute())
}

export async function getMould(db: Db, id: string): Promise<MouldCard> {
  const row = await db.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirst()
  if (!row) throw new DomainError('not_found')
  const [card] = await toCards(db, [row])
  return readable(card!)
}

/** The columns of a description: what was typed, and what follows from it, so that the shelf can sort by it. */
function columnsOf(mould: MouldInput): Columns<MouldTable> {
  const described = describeCavity(mould.volume)
  if (!described.ok) throw new DomainError('invalid_input', [{ path: 'volume', message: 'cannot be cast' }])
  const { volumeMl, plusMinusMl, provenance, thinnestMm } = described.finding
  return {
    name: mould.name,
    kind: mouldKindOf(mould.facts, mould.volume),
    cavity_ml: volumeMl,
    plus_minus_ml: plusMinusMl,
    volume_provenance: JSON.stringify(provenance),
    thickness_mm: mould.thicknessMm,
    thinnest_mm: thinnestMm ?? null,
    purpose: mould.purpose,
    facts: JSON.stringify(mould.facts),
    volume: JSON.stringify(mould.volume),
    usual_plaster_id: mould.usualPlasterId,
    is_spill: mould.isSpill,
    casts_before: mould.castsBefore,
    life_casts: mould.lifeCasts,
    note: mould.note,
    find: mould.find ? JSON.stringify(mould.find) : null,
  }
}

async function requirePlaster(db: Db, id: string | null): Promise<void> {
  if (id === null) return
  const found = await db.selectFrom('plaster').select('id').where('id', '=', id).executeTakeFirst()
  if (!found)
    throw new DomainError('invalid_input', [
      { path: 'mould.usualPlasterId', message: 'is not a plaster here' },
    ])
}

/** @returns whether it was put on the shelf; false where the id is there already. */
export async function insertMould(db: Db, id: string, mould: MouldInput): Promise<boolean> {
  const inserted = await db
    .insertInto('mould')
    .values({ id, ...columnsOf(mould) })
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .returning('id')
    .executeTakeFirst()
  return inserted !== undefined
}

/** What is there of it, for who does not know that there is such a thing. */
async function findOf(db: Db, id: string): Promise<MouldCard['find']> {
  const row = await db.selectFrom('mould').select('find').where('id', '=', id).executeTakeFirst()
  return row?.find ?? null
}

/** A new mould (`seenRevision` null), or a change of the one the caller saw. */
export async function putMould(
  db: Db,
  id: string,
  seenRevision: number | null,
  asked: MouldInput,
): Promise<MouldCard> {
  await requirePlaster(db, asked.usualPlasterId)
  const mould = { ...asked, find: asked.find === undefined ? await findOf(db, id) : asked.find }
  await putRevisioned(db, 'mould', id, seenRevision, columnsOf(mould), mould, async (now) => {
    const row = await now.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
    return { input: inputOf(row), card: (await toCards(now, [row]))[0] }
  })
  return getMould(db, id)
}

/** Takes a mould off the shelf, with its photos and from its sets. Its pours keep what they knew of it. */
export async function deleteMould(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('mould').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
