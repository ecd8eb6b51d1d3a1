import { openDB, type DBSchema } from 'idb'
import type { ApiFailure } from './api'
import { placed } from './place'

/** A card put in, changed or taken away, a pour begun, a plan changed: while the workshop does not answer. */
export interface Command {
  id: string
  /** What it is about: a kind of card, a pour, a plan. */
  topic: string
  /** The card's or the pour's. */
  of: string
  /** What whoever did it calls it. */
  name: string
  method: 'PUT' | 'POST' | 'DELETE'
  path: string
  body?: object
  /** A card as it stands until the workshop has answered. */
  shown?: object
  atMs: number
  /** The clock's setting by which it was timed. */
  settingMs: number
  /** It was sent, and no answer came: the workshop may have it. */
  tried?: true
}

/** One that the workshop would not take as it is: kept until somebody has looked at it. */
export interface RefusedCommand extends Command {
  code: ApiFailure['code']
  fields: ApiFailure['fields']
  /** What is there instead. */
  current?: unknown
}

interface Schema extends DBSchema {
  waiting: { key: number; value: Command; indexes: { id: string } }
  refused: { key: string; value: RefusedCommand }
}

export const COMMANDS_NAME = placed('nine-ripples.commands')

/** Commands on their way, in a database of the browser's own. @throws where the browser keeps none. */
export async function openCommandBox() {
  const db = await openDB<Schema>(COMMANDS_NAME, 1, {
    upgrade(made) {
      // Numbered as they come: they leave in the order they were given.
      made.createObjectStore('waiting', { autoIncrement: true }).createIndex('id', 'id', { unique: true })
      made.createObjectStore('refused', { keyPath: 'id' })
    },
  })
  const settle = async (id: string, refused?: RefusedCommand) => {
    const tx = db.transaction(['waiting', 'refused'], 'readwrite')
    const key = await tx.objectStore('waiting').index('id').getKey(id)
    if (key !== undefined) await tx.objectStore('waiting').delete(key)
    await (refused ? tx.objectStore('refused').put(refused) : tx.objectStore('refused').delete(id))
    await tx.done
  }
  return {
    all: async () => {
      const tx = db.transaction(['waiting', 'refused'])
      const [waiting, refused] = await Promise.all([
        tx.objectStore('waiting').getAll(),
        tx.objectStore('refused').getAll(),
      ])
      return { waiting, refused }
    },
    /** Resolves when it is on the disk. @throws where the browser has no room. */
    add: async (command: Command) => {
      const tx = db.transaction('waiting', 'readwrite', { durability: 'strict' })
      await Promise.all([tx.store.add(command), tx.done])
    },
    /** The same with what was said of it since. */
    renew: async (command: Command) => {
      const tx = db.transaction('waiting', 'readwrite', { durability: 'strict' })
      const key = await tx.store.index('id').getKey(command.id)
      if (key !== undefined) await tx.store.put(command, key)
      await tx.done
    },
    drop: (id: string) => settle(id),
    refuse: (command: RefusedCommand) => settle(command.id, command),
    /** From the list of those not taken on its way again. */
    sendAgain: async (command: Command) => {
      const tx = db.transaction(['waiting', 'refused'], 'readwrite', { durability: 'strict' })
      await Promise.all([
        tx.objectStore('waiting').add(command),
        tx.objectStore('refused').delete(command.id),
        tx.done,
      ])
    },
  }
}
