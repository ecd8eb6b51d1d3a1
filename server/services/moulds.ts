import { isDeepStrictEqual } from 'node:util'
import { sql } from 'kysely'
import type { z } from 'zod'
import { describeCavity, mouldKindOf } from '../../core/mould'
import type { pageQuerySchema } from '../../shared/contracts'
import type { Page, UnreadableCard } from '../../shared/records'
import { mouldInputSchema, type MouldCard, type MouldInput, type MouldPhoto } from '../../shared/moulds'
import type { Db } from '../db/client'
import { countRows } from '../db/countRows'
import type { MouldRow } from '../db/schema'
import { readRow, readable } from './complaints'
import { DomainError } from './domainError'

type History = MouldCard['history']

const NOTHING_YET: History = { casts: 0, last: null, damages: [] }

/** An event that has not been taken back. */
const counts = sql`not exists (select from event v where v.voids_event_id = e.id)`

/** What the pours say of these moulds: how many casts, how the last came out, what happened to the mould. */
async function historiesOf(db: Db, ids: readonly string[]): Promise<Map<string, History>> {
  const { rows } = await sql<{ id: string; casts: number; last: History['last'] | null }>`
    select m.id, sum(member.count)::int as casts,
      (array_agg(jsonb_build_object(
        'pourId', p.id, 'piece', p.plan ->> 'piece',
        'atMs', floor(extract(epoch from p.poured_at) * 1000),
        'outcome', coalesce(p.outcome, 'poured')) order by p.poured_at desc))[1] as last
    from mould m
    join lateral (
      select pour.*,
        (select min(e.occurred_at) from event e where e.pour_id = pour.id
          and e.type in ('poured', 'tapped', 'demoulded') and ${counts}) as poured_at,
        (select coalesce(e.body ->> 'verdict', e.body ->> 'outcome') from event e where e.pour_id = pour.id
          and e.type in ('finished', 'demoulded') and ${counts} order by e.occurred_at desc limit 1) as outcome
      from pour
      where plan -> 'mould' -> 'members' @> jsonb_build_array(jsonb_build_object('mouldId', m.id::text))
    ) p on p.poured_at is not null
    join lateral (
      select (x ->> 'count')::int as count from jsonb_array_elements(p.plan -> 'mould' -> 'members') x
      where x ->> 'mouldId' = m.id::text
    ) member on true
    where m.id = any(${ids}::uuid[])
    group by m.id`.execute(db)
  const damages = await sql<{ id: string; kind: History['damages'][number]['kind']; at: Date }>`
    select e.body ->> 'mouldId' as id, e.body ->> 'kind' as kind, e.occurred_at as at
    from event e where e.type = 'mould_damage' and e.body ->> 'mouldId' = any(${ids}::text[]) and ${counts}
    order by e.occurred_at desc`.execute(db)
  const found = new Map<string, History>(
    rows.map((r) => [r.id, { casts: r.casts, last: r.last, damages: [] }]),
  )
  for (const { id, kind, at } of damages.rows) {
    const known = found.get(id) ?? { ...NOTHING_YET }
    found.set(id, { ...known, damages: [...known.damages, { kind, atMs: at.getTime() }] })
  }
  return found
}

async function photosOf(db: Db, ids: readonly string[]): Promise<Map<string, MouldPhoto[]>> {
  const rows = await db
    .selectFrom('mould_photo')
    .select(['id', 'mould_id', 'caption', 'width_px', 'height_px'])
    .where('mould_id', 'in', ids)
    .orderBy('created_at')
    .orderBy('id')
    .execute()
  const found = new Map<string, MouldPhoto[]>()
  for (const r of rows) {
    const photo = { id: r.id, caption: r.caption, widthPx: r.width_px, heightPx: r.height_px }
    found.set(r.mould_id, [...(found.get(r.mould_id) ?? []), photo])
  }
  return found
}

export function inputOf(row: MouldRow): MouldInput {
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
  }
}

async function toCards(db: Db, rows: readonly MouldRow[]): Promise<(MouldCard | UnreadableCard)[]> {
  if (rows.length === 0) return []
  const ids = rows.map((r) => r.id)
  const [histories, photos] = await Promise.all([historiesOf(db, ids), photosOf(db, ids)])
  return rows.map((row) =>
    readRow(row, () => ({
      ...mouldInputSchema.parse(inputOf(row)),
      id: row.id,
      revision: row.revision,
      kind: row.kind,
      cavityMl: row.cavity_ml,
      plusMinusMl: row.plus_minus_ml,
      volumeProvenance: row.volume_provenance,
      thinnestMm: row.thinnest_mm,
      photos: photos.get(row.id) ?? [],
      history: histories.get(row.id) ?? NOTHING_YET,
    })),
  )
}

export async function listMoulds(
  db: Db,
  { offset, limit }: z.output<typeof pageQuerySchema>,
): Promise<Page<MouldCard | UnreadableCard>> {
  const rows = await db
    .selectFrom('mould')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .offset(offset)
    .limit(limit)
    .execute()
  return { items: await toCards(db, rows), total: await countRows(db, 'mould') }
}

export async function getMould(db: Db, id: string): Promise<MouldCard> {
  const row = await db.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirst()
  if (!row) throw new DomainError('not_found')
  const [card] = await toCards(db, [row])
  return readable(card!)
}

/** The columns of a description: what was typed, and what follows from it, so that the shelf can sort by it. */
function columnsOf(mould: MouldInput) {
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
    .onConflict((c) => c.column('id').doNothing())
    .returning('id')
    .executeTakeFirst()
  return inserted !== undefined
}

/** Idempotent: the same id with the same description is one mould. */
export async function createMould(db: Db, id: string, mould: MouldInput): Promise<MouldCard> {
  await requirePlaster(db, mould.usualPlasterId)
  const isNew = await insertMould(db, id, mould)
  if (!isNew) {
    const row = await db.selectFrom('mould').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
    if (!isDeepStrictEqual(inputOf(row), mould)) throw new DomainError('mould_id_conflict')
  }
  return getMould(db, id)
}

/** Changes a mould if it is still the one the caller saw. */
export async function changeMould(
  db: Db,
  id: string,
  revision: number,
  mould: MouldInput,
): Promise<MouldCard> {
  await requirePlaster(db, mould.usualPlasterId)
  const changed = await db
    .updateTable('mould')
    .set({ ...columnsOf(mould), revision: revision + 1 })
    .where('id', '=', id)
    .where('revision', '=', revision)
    .returning('id')
    .executeTakeFirst()
  const card = await getMould(db, id)
  if (!changed) throw new DomainError('stale_mould')
  return card
}

/** Takes a mould off the shelf, with its photos and from its sets. Its pours keep what they knew of it. */
export async function deleteMould(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('mould').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
