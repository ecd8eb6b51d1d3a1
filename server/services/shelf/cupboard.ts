import type { Selectable } from 'kysely'
import { planSchema } from '../../../shared/plans'
import type { PlaceCard, PlaceInput } from '../../../shared/learning'
import type { UnreadableCard } from '../../../shared/records'
import type { BowlCard, BowlInput, Recipe, RecipeInput } from '../../../shared/stock'
import type { Db } from '../../db/client'
import type { BowlTable, PlaceTable, RecipeTable } from '../../db/schema'
import { readRow, readable } from '../complaints'
import { DomainError } from '../domainError'
import { putRevisioned } from '../revisioned'

/** Bowls, places to dry in and recipes: small things, of which there are few. */

const bowlInput = (r: Selectable<BowlTable>): BowlInput => ({
  name: r.name,
  volumeMl: r.volume_ml,
  tareG: r.tare_g,
})
const bowlOf = (r: Selectable<BowlTable>): BowlCard => ({ id: r.id, revision: r.revision, ...bowlInput(r) })

const placeInput = (r: Selectable<PlaceTable>): PlaceInput => ({
  name: r.name,
  kind: r.kind,
  air: r.air,
  nightAir: r.night_air,
})
const placeOf = (r: Selectable<PlaceTable>): PlaceCard => ({
  id: r.id,
  revision: r.revision,
  ...placeInput(r),
})

const recipeInput = (r: Selectable<RecipeTable>): RecipeInput => ({
  name: r.name,
  plan: planSchema.parse(r.plan),
})
const recipeOf = (row: Selectable<RecipeTable>): Recipe | UnreadableCard =>
  readRow(row, () => ({ id: row.id, revision: row.revision, ...recipeInput(row) }))

export async function listBowls(db: Db): Promise<BowlCard[]> {
  return (await db.selectFrom('bowl').selectAll().orderBy('volume_ml').orderBy('id').execute()).map(bowlOf)
}

export async function listPlaces(db: Db): Promise<PlaceCard[]> {
  return (await db.selectFrom('place').selectAll().orderBy('name').orderBy('id').execute()).map(placeOf)
}

export async function listRecipes(db: Db): Promise<(Recipe | UnreadableCard)[]> {
  return (await db.selectFrom('recipe').selectAll().orderBy('name').orderBy('id').execute()).map(recipeOf)
}

/** Those of these that are there. */
export async function bowlsById(db: Db, ids: readonly string[]): Promise<BowlCard[]> {
  return (await db.selectFrom('bowl').selectAll().where('id', 'in', ids).execute()).map(bowlOf)
}
export async function placesById(db: Db, ids: readonly string[]): Promise<PlaceCard[]> {
  return (await db.selectFrom('place').selectAll().where('id', 'in', ids).execute()).map(placeOf)
}
export async function recipesById(db: Db, ids: readonly string[]): Promise<(Recipe | UnreadableCard)[]> {
  return (await db.selectFrom('recipe').selectAll().where('id', 'in', ids).execute()).map(recipeOf)
}

export async function putBowl(
  db: Db,
  id: string,
  seenRevision: number | null,
  bowl: BowlInput,
): Promise<BowlCard> {
  const columns = { name: bowl.name, volume_ml: bowl.volumeMl, tare_g: bowl.tareG }
  const rowNow = (now: Db) =>
    now.selectFrom('bowl').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
  await putRevisioned(db, 'bowl', id, seenRevision, columns, bowl, async (now) => {
    const row = await rowNow(now)
    return { input: bowlInput(row), card: bowlOf(row) }
  })
  return bowlOf(await rowNow(db))
}

export async function putPlace(
  db: Db,
  id: string,
  seenRevision: number | null,
  place: PlaceInput,
): Promise<PlaceCard> {
  const { name, kind, air, nightAir } = place
  const columns = {
    name,
    kind,
    air: JSON.stringify(air),
    night_air: nightAir && JSON.stringify(nightAir),
  }
  const rowNow = (now: Db) =>
    now.selectFrom('place').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
  await putRevisioned(db, 'place', id, seenRevision, columns, place, async (now) => {
    const row = await rowNow(now)
    return { input: placeInput(row), card: placeOf(row) }
  })
  return placeOf(await rowNow(db))
}

export async function putRecipe(
  db: Db,
  id: string,
  seenRevision: number | null,
  recipe: RecipeInput,
): Promise<Recipe> {
  const columns = { name: recipe.name, plan: JSON.stringify(recipe.plan) }
  const rowNow = (now: Db) =>
    now.selectFrom('recipe').selectAll().where('id', '=', id).executeTakeFirstOrThrow()
  await putRevisioned(db, 'recipe', id, seenRevision, columns, recipe, async (now) => {
    const row = await rowNow(now)
    return { input: recipeInput(row), card: recipeOf(row) }
  })
  return readable<Recipe>(recipeOf(await rowNow(db)))
}

export async function deleteFromCupboard(
  db: Db,
  table: 'bowl' | 'place' | 'recipe',
  id: string,
): Promise<void> {
  const gone = await db.deleteFrom(table).where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
