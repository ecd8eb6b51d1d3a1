import { ref } from 'vue'

/** What the browser lets this device keep, bytes; undefined where it does not say. */
export interface Room {
  usedBytes: number
  ofBytes: number
  /** It was promised that nothing is cleared away to make room for others. */
  stays: boolean
}
export const room = ref<Room>()

export async function lookAtRoom(): Promise<void> {
  if (!navigator.storage?.estimate) return
  const [{ usage = 0, quota = 0 }, stays] = await Promise.all([
    navigator.storage.estimate(),
    navigator.storage.persisted?.() ?? false,
  ])
  room.value = { usedBytes: usage, ofBytes: quota, stays }
}

let asked = false
/** Once there is something that no workshop has yet, the browser is asked never to clear it away. */
export function askToStay(): void {
  if (asked) return
  asked = true
  void globalThis.navigator?.storage?.persist?.().catch(() => false)
}
