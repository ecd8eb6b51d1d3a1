import { isDeepStrictEqual } from 'node:util'
import type { Selectable } from 'kysely'
import type { z } from 'zod'
import type { pageQuerySchema } from '../../shared/contracts'
import type { Page, UnreadableCard } from '../../shared/records'
import { plasterInputSchema, type PlasterCard, type PlasterInput } from '../../shared/stock'
import type { Db } from '../db/client'
import { countRows } from '../db/countRows'
import type { PlasterTable } from '../db/schema'
import { readRow, readable } from './complaints'
import { DomainError } from './domainError'
import { putRevisioned } from './revisioned'

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

function columnsOf({ name, label, printedRatio, additions, note }: PlasterInput) {
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
  { offset, limit }: z.output<typeof pageQuerySchema>,
): Promise<Page<PlasterCard | UnreadableCard>> {
  const rows = await db
    .selectFrom('plaster')
    .selectAll()
    .orderBy('name')
    .orderBy('id')
    .offset(offset)
    .limit(limit)
    .execute()
  return { items: rows.map(cardOf), total: await countRows(db, 'plaster') }
}

export async function putPlaster(
  db: Db,
  id: string,
  seenRevision: number | null,
  plaster: PlasterInput,
): Promise<PlasterCard> {
  await putRevisioned<PlasterRow>(db, 'plaster', id, seenRevision, columnsOf(plaster), (row) =>
    isDeepStrictEqual(inputOf(row), plaster),
  )
  return readable(
    cardOf(await db.selectFrom('plaster').selectAll().where('id', '=', id).executeTakeFirstOrThrow()),
  )
}

/** A card with bags stays: the bags know their plaster by it. Pours keep what they knew. */
export async function deletePlaster(db: Db, id: string): Promise<void> {
  const bag = await db.selectFrom('bag').select('id').where('plaster_id', '=', id).executeTakeFirst()
  if (bag) throw new DomainError('in_use')
  const gone = await db.deleteFrom('plaster').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
