import { openDB, type DBSchema } from 'idb'
import { placed } from './place'

/** A photograph of a pour that the server does not have yet. */
export interface WaitingPhoto {
  id: string
  pourId: string
  caption: string
  picture: Blob
}

interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingPhoto }
}

/** Photographs on their way, in a database of the browser's own. @throws where the browser keeps none. */
export async function openPhotoBox() {
  const db = await openDB<Schema>(placed('nine-ripples.photos'), 1, {
    upgrade: (made) => void made.createObjectStore('waiting', { keyPath: 'id' }),
  })
  return {
    all: () => db.getAll('waiting'),
    add: (photo: WaitingPhoto) => db.put('waiting', photo),
    drop: (id: string) => db.delete('waiting', id),
  }
}
