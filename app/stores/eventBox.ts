import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { NewEvent } from '~~/shared/pourEvents'
import type { FieldError } from '~~/shared/errors'
import type { ApiFailure } from './api'
import { placed } from './place'

/** What was recorded on this device and the server does not have yet, in a database of the browser's own. */

/** An event on its way. */
export interface Unsent {
  pourId: string
  event: NewEvent
  /** Another window may have recorded the same under the same id: then that one counts. */
  isShared?: true
  /** The clock's setting by which it was timed. */
  settingMs: number
}

/** One that the server will not take as it is: kept until somebody has looked at it. */
export interface Refused extends Unsent {
  code: ApiFailure['code']
  fields: FieldError[]
  refusedAtMs: number
}

export interface EventBox {
  all: () => Promise<{ unsent: Unsent[]; refused: Refused[] }>
  /** Resolves when they are kept, all or none. @throws where the browser has no room, or keeps nothing. */
  add: (rows: readonly Unsent[]) => Promise<void>
  /** Takes an event out, whichever list it is in. */
  drop: (eventId: string) => Promise<void>
  /** From the way to the server to the list of those it would not take. */
  refuse: (row: Refused) => Promise<void>
  /** From that list on its way again, as it is or as it was corrected: never in neither. */
  sendAgain: (refusedId: string, row: Unsent) => Promise<void>
}

interface Schema extends DBSchema {
  unsent: { key: number; value: Unsent; indexes: { id: string } }
  refused: { key: string; value: Refused }
}

const NAME = placed('nine-ripples')

async function open(): Promise<IDBPDatabase<Schema>> {
  return openDB<Schema>(NAME, 1, {
    upgrade(db) {
      // Numbered as they come: each pour's events leave in the order they were made.
      db.createObjectStore('unsent', { autoIncrement: true }).createIndex('id', 'event.id', { unique: true })
      db.createObjectStore('refused', { keyPath: 'event.id' })
    },
  })
}

/** @throws where the browser keeps no such database. */
export async function openEventBox(): Promise<EventBox> {
  const db = await open()
  return {
    all: async () => {
      const tx = db.transaction(['unsent', 'refused'])
      const [unsent, refused] = await Promise.all([
        tx.objectStore('unsent').getAll(),
        tx.objectStore('refused').getAll(),
      ])
      return { unsent, refused: refused.sort((a, b) => a.refusedAtMs - b.refusedAtMs) }
    },
    add: async (rows) => {
      // `strict`: on the disk, not merely on its way there, before it counts.
      const tx = db.transaction('unsent', 'readwrite', { durability: 'strict' })
      await Promise.all([...rows.map((row) => tx.store.add(row)), tx.done])
    },
    drop: async (eventId) => {
      const tx = db.transaction(['unsent', 'refused'], 'readwrite')
      const key = await tx.objectStore('unsent').index('id').getKey(eventId)
      if (key !== undefined) await tx.objectStore('unsent').delete(key)
      await tx.objectStore('refused').delete(eventId)
      await tx.done
    },
    refuse: async (row) => {
      const tx = db.transaction(['unsent', 'refused'], 'readwrite')
      const key = await tx.objectStore('unsent').index('id').getKey(row.event.id)
      if (key !== undefined) await tx.objectStore('unsent').delete(key)
      await tx.objectStore('refused').put(row)
      await tx.done
    },
    sendAgain: async (refusedId, row) => {
      const tx = db.transaction(['unsent', 'refused'], 'readwrite', { durability: 'strict' })
      await tx.objectStore('unsent').add(row)
      await tx.objectStore('refused').delete(refusedId)
      await tx.done
    },
  }
}
