import { planSchema } from '../../shared/contracts'
import type { BowlCard, BowlInput, Recipe, RecipeAnswer, RecipeInput } from '../../shared/stock'
import { complaints } from './complaints'
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

export async function listRecipes(db: Db): Promise<RecipeAnswer[]> {
  const rows = await db.selectFrom('recipe').selectAll().orderBy('name').orderBy('id').execute()
  return rows.map(({ id, name, plan }): RecipeAnswer => {
    const read = planSchema.safeParse(plan)
    return read.success
      ? { id, name, plan: read.data }
      : { id, name, unreadable: complaints(read.error), raw: plan }
  })
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
