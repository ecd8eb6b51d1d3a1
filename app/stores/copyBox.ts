import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { placed } from './place'

/** What is kept of one thing: what it is among, its id there, and itself. */
export interface Copy<T = unknown> {
  kind: string
  id: string
  value: T
  /** When it was last seen to stand so, by the workshop's clock. */
  atMs: number
  /** Of a pour: it was on the go then. */
  isOpen?: boolean
}

/** What the workshop last answered to a question: the first of the kinds, by the alphabet. */
export const ANSWERS = 'answer'

interface Schema extends DBSchema {
  copy: { key: [string, string]; value: Copy }
}

/** Where the service worker keeps photographs: nuxt.config.ts names it so, too. */
export const PICTURES_CACHE = 'photographs'
export const COPY_NAME = placed('nine-ripples.copy')

/**
 * What this device keeps of its workshop so that it can be worked on without it, in a database of the browser's own.
 * @throws where the browser keeps none.
 */
export async function openCopyBox() {
  const db: IDBPDatabase<Schema> = await openDB<Schema>(COPY_NAME, 1, {
    upgrade: (made) => void made.createObjectStore('copy', { keyPath: ['kind', 'id'] }),
  })
  return {
    all: <T>(kind: string) => db.getAll('copy', IDBKeyRange.bound([kind], [kind, []])) as Promise<Copy<T>[]>,
    /** Whatever is no answer, at one go: each request more is a round through the browser. */
    allButAnswers: () => db.getAll('copy', IDBKeyRange.lowerBound([ANSWERS, []], true)),
    one: <T>(kind: string, id: string) => db.get('copy', [kind, id]) as Promise<Copy<T> | undefined>,
    /** All or none of it. @throws where there is no room. */
    write: async (puts: readonly Copy[], drops: readonly Pick<Copy, 'kind' | 'id'>[] = []) => {
      const tx = db.transaction('copy', 'readwrite')
      await Promise.all([
        ...puts.map((copy) => tx.store.put(copy)),
        ...drops.map(({ kind, id }) => tx.store.delete([kind, id])),
        tx.done,
      ])
    },
    clear: () => db.clear('copy'),
  }
}
export type CopyBox = Awaited<ReturnType<typeof openCopyBox>>
