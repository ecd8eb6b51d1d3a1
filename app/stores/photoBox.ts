import { openDB, type DBSchema } from 'idb'
import { placed } from './place'

/** Whose photograph it is; as it is asked for on the way to the workshop. */
export type PhotoOf = { pour: string } | { mould: string }

/** A photograph that the server does not have yet. */
export interface WaitingPhoto {
  id: string
  of: PhotoOf
  caption: string
  picture: Blob
  widthPx: number
  heightPx: number
}

/** As it was kept when only pours had any. */
type OldRow = Omit<WaitingPhoto, 'of'> & { pourId: string }

interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingPhoto }
}

/** Photographs on their way, in a database of the browser's own. @throws where the browser keeps none. */
export async function openPhotoBox() {
  const db = await openDB<Schema>(placed('nine-ripples.photos'), 1, {
    upgrade: (made) => void made.createObjectStore('waiting', { keyPath: 'id' }),
  })
  return {
    all: async (): Promise<WaitingPhoto[]> =>
      ((await db.getAll('waiting')) as (WaitingPhoto | OldRow)[]).map((row) =>
        'of' in row ? row : { ...row, of: { pour: row.pourId } },
      ),
    add: (photo: WaitingPhoto) => db.put('waiting', photo),
    drop: (id: string) => db.delete('waiting', id),
  }
}
