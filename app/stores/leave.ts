import { openDB } from 'idb'
import { callApi, type ApiResult } from './api'
import { COMMANDS_NAME } from './commandBox'
import { COPY_NAME, PICTURES_CACHE } from './copyBox'
import { placeOf } from './kept'
import { isLetIn, placed, workshopHere } from './place'

/** Every store of one of the browser's databases, emptied: also while other windows hold it open. */
async function emptied(name: string): Promise<void> {
  const db = await openDB(name)
  const stores = [...db.objectStoreNames]
  if (stores.length > 0) {
    const tx = db.transaction(stores, 'readwrite')
    await Promise.all([...stores.map((store) => tx.objectStore(store).clear()), tx.done])
  }
  db.close()
}

/** What this browser has kept of this person in this workshop; what is the device's own, and other people's, stays. */
async function forgetHere(): Promise<void> {
  await Promise.all(
    [placed('nine-ripples'), placed('nine-ripples.photos'), COMMANDS_NAME, COPY_NAME].map(emptied),
  )
  if ('caches' in globalThis) await caches.delete(PICTURES_CACHE)
  for (const where of ['localStorage', 'sessionStorage'] as const) {
    const place = placeOf(where)
    const names = Object.keys(place).filter((name) => name.endsWith(`@${workshopHere}`))
    names.forEach((name) => place.removeItem(name))
  }
}

/** Leaves this device: nobody is let in on it any more, and nothing of theirs can be read here. */
export async function leaveDevice(): Promise<ApiResult<unknown>> {
  const answer = await callApi('/api/me', { method: 'DELETE' })
  if (!answer.ok || !isLetIn) return answer
  await forgetHere().catch(() => {})
  location.replace('/')
  return answer
}
