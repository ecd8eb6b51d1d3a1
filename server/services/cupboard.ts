import { planSchema } from '../../shared/contracts'
import type { UnreadableCard } from '../../shared/records'
import type { BowlCard, BowlInput, Recipe, RecipeInput } from '../../shared/stock'
import { readRow } from './complaints'
import type { Db } from '../db/client'
import { DomainError } from './domainError'

/** Bowls and recipes: small things, put in place of the one with their id. */

export async function listBowls(db: Db): Promise<BowlCard[]> {
  const rows = await db.selectFrom('bowl').selectAll().orderBy('volume_ml').orderBy('id').execute()
  return rows.map((r) => ({ id: r.id, name: r.name, volumeMl: r.volume_ml, tareG: r.tare_g }))
}

export async function putBowl(db: Db, id: string, bowl: BowlInput): Promise<BowlCard> {
  const columns = { name: bowl.name, volume_ml: bowl.volumeMl, tare_g: bowl.tareG }
  await db
    .insertInto('bowl')
    .values({ id, ...columns })
    .onConflict((c) => c.column('id').doUpdateSet(columns))
    .execute()
  return { id, ...bowl }
}

export async function listRecipes(db: Db): Promise<(Recipe | UnreadableCard)[]> {
  const rows = await db.selectFrom('recipe').selectAll().orderBy('name').orderBy('id').execute()
  return rows.map((row) =>
    readRow(row, () => ({ id: row.id, name: row.name, plan: planSchema.parse(row.plan) })),
  )
}

export async function putRecipe(db: Db, id: string, { name, plan }: RecipeInput): Promise<Recipe> {
  const columns = { name, plan: JSON.stringify(plan) }
  await db
    .insertInto('recipe')
    .values({ id, ...columns })
    .onConflict((c) => c.column('id').doUpdateSet(columns))
    .execute()
  return { id, name, plan }
}

export async function deleteFromCupboard(db: Db, table: 'bowl' | 'recipe', id: string): Promise<void> {
  const gone = await db.deleteFrom(table).where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
