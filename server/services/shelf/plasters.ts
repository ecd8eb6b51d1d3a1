import { sql, type Selectable } from 'kysely'
import type { PageQuery } from '../../../shared/contracts'
import type { Page, UnreadableCard } from '../../../shared/records'
import { plasterInputSchema, type PlasterCard, type PlasterInput } from '../../../shared/stock'
import type { Db } from '../../db/client'
import type { Columns, PlasterTable } from '../../db/schema'
import { readRow, readable } from '../complaints'
import { DomainError } from '../domainError'
import { pageOf, readKey, requireId } from '../paging'
import { putRevisioned } from '../revisioned'

type PlasterRow = Selectable<PlasterTable>

function inputOf(r: PlasterRow): PlasterInput {
  return {
    name: r.name,
    label: {
      classId: r.class_id,
      consistency: r.label_consistency,
      range:
        r.label_consistency_low === null || r.label_consistency_high === null
          ? null
          : { low: r.label_consistency_low, high: r.label_consistency_high },
      setMin: r.label_set_min,
      setTest: r.label_set_test,
      expansionPct: r.label_expansion_pct,
      dryStrengthMPa: r.label_dry_strength_mpa,
    },
    printedRatio: r.printed_ratio,
    additions: r.additions,
    note: r.note,
  }
}

const cardOf = (row: PlasterRow) =>
  readRow(row, (): PlasterCard => ({
    ...plasterInputSchema.parse(inputOf(row)),
    id: row.id,
    revision: row.revision,
  }))

function columnsOf({ name, label, printedRatio, additions, note }: PlasterInput): Columns<PlasterTable> {
  return {
    name,
    class_id: label.classId,
    label_consistency: label.consistency,
    label_consistency_low: label.range?.low ?? null,
    label_consistency_high: label.range?.high ?? null,
    label_set_min: label.setMin,
    label_set_test: label.setTest,
    label_expansion_pct: label.expansionPct,
    label_dry_strength_mpa: label.dryStrengthMPa,
    printed_ratio: printedRatio,
    additions: JSON.stringify(additions),
    note,
  }
}

export async function listPlasters(
  db: Db,
  { after, limit }: PageQuery,
): Promise<Page<PlasterCard | UnreadableCard>> {
  const key = readKey(after, 2)
  let query = db
    .selectFrom('plaster')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .limit(limit + 1)
  if (key) query = query.where(sql<boolean>`(name, id) > (${key[0]}, ${requireId(key[1]!)}::uuid)`)
  return pageOf(await query.execute(), limit, cardOf, (r) => [r.name, r.id])
}

/** Those of these that are there. */
export async function plastersById(
  db: Db,
  ids: readonly string[],
): Promise<(PlasterCard | UnreadableCard)[]> {
  return (await db.selectFrom('plaster').selectAll().where('id', 'in', ids).execute()).map(cardOf)
}

export async function putPlaster(
  db: Db,
  id: string,
  seenRevision: number | null,
  plaster: PlasterInput,
): Promise<PlasterCard> {
  const rowNow = (now: Db) =>
    now.selectFrom('plaster').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
  await putRevisioned(db, 'plaster', id, seenRevision, columnsOf(plaster), plaster, async (now) => {
    const row = await rowNow(now)
    return { input: inputOf(row), card: cardOf(row) }
  })
  return readable(cardOf(await rowNow(db)))
}

/** A card with bags stays: the bags know their plaster by it. Pours keep what they knew. */
export async function deletePlaster(db: Db, id: string): Promise<void> {
  const bag = await db.selectFrom('bag').select('id').where('plaster_id', '=', id).executeTakeFirst()
  if (bag) throw new DomainError('in_use')
  const gone = await db.deleteFrom('plaster').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
