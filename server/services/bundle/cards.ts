import { isDeepStrictEqual } from 'node:util'
import type { z } from 'zod'
import { CARD_SCHEMAS, type CardKind } from '../../../shared/bundle'
import { settingsSchema, type Settings } from '../../../shared/contracts'
import type { Page } from '../../../shared/records'
import { placedAs } from '../../../shared/findPlace'
import { isUnreadableCard } from '../../../shared/records'
import type { Db } from '../../db/client'
import { addSpoonTest, getBag, listBags, putBag } from '../shelf/bags'
import {
  bowlsById,
  listBowls,
  listPlaces,
  listRecipes,
  placesById,
  putBowl,
  putPlace,
  putRecipe,
  recipesById,
} from '../shelf/cupboard'
import { chooseLearning } from '../learnt/learning'
import { listMouldSets, mouldSetsById, putMouldSet } from '../shelf/mouldSets'
import { getMould, listMoulds, putMould } from '../shelf/moulds'
import { listPlasters, plastersById, putPlaster } from '../shelf/plasters'
import { addSettling } from '../learnt/settling'
import { getSettings, saveSettings } from '../workshop'

export type CardFile<K extends CardKind> = z.output<(typeof CARD_SCHEMAS)[K]>

/** A card as it is there now, to be laid beside the file's. */
interface Here<Card> {
  card: Card
  revision: number
}

/** How the cards of one kind go out and come in again. */
interface CardWay<K extends CardKind> {
  /** As they lie there: also those that cannot be read. */
  all: (db: Db) => AsyncGenerator<object>
  /** Undefined where there is none. */
  find: (db: Db, card: CardFile<K>) => Promise<Here<CardFile<K>> | undefined>
  /** Puts it in; `seen` is the revision of the one that it takes the place of, null for a new one. */
  put: (db: Db, card: CardFile<K>, seen: number | null) => Promise<unknown>
  name: (card: CardFile<K>) => string
}

async function* pages(
  list: (query: { after: string; limit: number }) => Promise<Page<object>>,
): AsyncGenerator<object> {
  for (let after = ''; ;) {
    const { items, next } = await list({ after, limit: 100 })
    yield* items
    if (next === undefined) return
    after = next
  }
}

async function* each(all: Promise<readonly object[]>): AsyncGenerator<object> {
  yield* await all
}

async function there<Card extends { revision: number }, K extends CardKind>(
  kind: K,
  get: () => Promise<Card | undefined>,
): Promise<Here<CardFile<K>> | undefined> {
  const card = await get()
  return card && { card: CARD_SCHEMAS[kind].parse(card) as CardFile<K>, revision: card.revision }
}

const orNone = <T>(found: Promise<T>): Promise<T | undefined> =>
  found.catch((error: unknown) => {
    if ((error as { code?: string }).code === 'not_found') return undefined
    throw error
  })
const first = async <T>(found: Promise<readonly T[]>): Promise<T | undefined> => (await found)[0]

export const CARD_WAYS: { [K in CardKind]: CardWay<K> } = {
  plasters: {
    all: (db) => pages((q) => listPlasters(db, q)),
    find: async (db, { id }) => {
      const [found] = await plastersById(db, [id])
      return found && !isUnreadableCard(found) ? there('plasters', () => Promise.resolve(found)) : undefined
    },
    put: (db, { id, ...plaster }, seen) => putPlaster(db, id, seen, plaster),
    name: (c) => c.name,
  },
  bags: {
    all: (db) => pages((q) => listBags(db, q)),
    find: (db, { id }) => there('bags', () => orNone(getBag(db, id))),
    put: async (db, { id, spoonTests, ...bag }, seen) => {
      await putBag(db, id, seen, bag)
      for (const test of spoonTests) await addSpoonTest(db, id, test)
    },
    name: (c) => c.name,
  },
  bowls: {
    all: (db) => each(listBowls(db)),
    find: (db, { id }) => there('bowls', () => first(bowlsById(db, [id]))),
    put: (db, { id, ...bowl }, seen) => putBowl(db, id, seen, bowl),
    name: (c) => c.name,
  },
  places: {
    all: (db) => each(listPlaces(db)),
    find: (db, { id }) => there('places', () => first(placesById(db, [id]))),
    put: (db, { id, ...place }, seen) => putPlace(db, id, seen, place),
    name: (c) => c.name,
  },
  moulds: {
    all: (db) => pages((q) => listMoulds(db, q)),
    find: (db, { id }) => there('moulds', () => orNone(getMould(db, id))),
    put: async (db, { id, photos: _, ...mould }, seen) =>
      putMould(db, id, seen, seen === null ? mould : placedAs(mould, await getMould(db, id))),
    name: (c) => c.name,
  },
  mould_sets: {
    all: (db) => each(listMouldSets(db)),
    find: (db, { id }) => there('mould_sets', () => first(mouldSetsById(db, [id]))),
    put: (db, { id, ...set }, seen) => putMouldSet(db, id, seen, set),
    name: (c) => c.name,
  },
  recipes: {
    all: (db) => each(listRecipes(db)),
    find: async (db, { id }) => {
      const found = await first(recipesById(db, [id]))
      return found && !isUnreadableCard(found) ? there('recipes', () => Promise.resolve(found)) : undefined
    },
    put: (db, { id, ...recipe }, seen) => putRecipe(db, id, seen, recipe),
    name: (c) => c.name,
  },
  settling: {
    all: async function* (db) {
      const rows = await db.selectFrom('settling').selectAll().orderBy('at').orderBy('id').execute()
      for (const { id, what, at, who } of rows) yield { id, what, atMs: at.getTime(), who }
    },
    find: async (db, { id }) => {
      const row = await db.selectFrom('settling').selectAll().where('id', '=', id).executeTakeFirst()
      return row && { card: { id, what: row.what, atMs: row.at.getTime(), who: row.who }, revision: 0 }
    },
    put: (db, entry) => addSettling(db, entry),
    name: (c) => c.what,
  },
  learning: {
    all: async function* (db) {
      const rows = await db
        .selectFrom('learn_choice')
        .selectAll()
        .orderBy('subject')
        .orderBy('factor')
        .execute()
      for (const r of rows)
        yield {
          subject: r.subject,
          factor: r.factor,
          choice: { off: r.is_off, sinceMs: r.since?.getTime() ?? 0, leftOut: r.left_out },
        }
    },
    find: async (db, { subject, factor }) => {
      const r = await db
        .selectFrom('learn_choice')
        .selectAll()
        .where('subject', '=', subject)
        .where('factor', '=', factor)
        .executeTakeFirst()
      return (
        r && {
          card: {
            subject,
            factor,
            choice: { off: r.is_off, sinceMs: r.since?.getTime() ?? 0, leftOut: r.left_out },
          },
          revision: 0,
        }
      )
    },
    put: (db, { subject, factor, choice }) => chooseLearning(db, subject, factor, choice),
    name: (c) => c.subject,
  },
}

export type Standing = 'add' | 'same' | 'clash'

/** A mould's photographs come after it, and are told of by themselves. */
function withoutPhotos(card: object): object {
  return 'photos' in card ? { ...card, photos: [] } : card
}
const placedLike = (card: object, here: object): object =>
  'find' in card ? placedAs(card as CardFile<'moulds'>, here as CardFile<'moulds'>) : card

/** How a card of a file stands to what is there. */
export async function standingOf<K extends CardKind>(
  db: Db,
  kind: K,
  card: CardFile<K>,
): Promise<{ standing: Standing; seen: number | null }> {
  const here = await CARD_WAYS[kind].find(db, card)
  if (!here) return { standing: 'add', seen: null }
  const same = isDeepStrictEqual(withoutPhotos(here.card), withoutPhotos(placedLike(card, here.card)))
  return { standing: same ? 'same' : 'clash', seen: here.revision }
}

export async function settingsNow(db: Db): Promise<{ settings: Settings; revision: number }> {
  const { revision, ...settings } = await getSettings(db)
  return { settings: settingsSchema.parse(settings), revision }
}

/** The workshop's own settings always are: the file's take their place only where that is asked for. */
export async function takeSettings(db: Db, settings: Settings): Promise<void> {
  const { revision } = await settingsNow(db)
  await saveSettings(db, revision, settings)
}
