import { useStorage, type RemovableRef, type UseStorageOptions } from '@vueuse/core'
import { ref } from 'vue'
import { placed } from './place'

type Where = 'localStorage' | 'sessionStorage'
type Place = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>

/** This browser lets nothing be kept, or somebody has told it so: what is chosen here goes with the window. */
export const keepsNothing = ref(false)

function inThisWindow(): Place {
  const items = new Map<string, string>()
  return {
    getItem: (key) => items.get(key) ?? null,
    setItem: (key, value) => void items.set(key, value),
    removeItem: (key) => void items.delete(key),
  }
}

const places: Partial<Record<Where, Place>> = {}

/** The browser's own place for small things, or, where that is denied, one that lasts as long as the window. */
export function placeOf(where: Where): Place {
  const known = places[where]
  if (known) return known
  let place: Place
  try {
    // To look at it is enough to be refused.
    place = window[where]
    place.getItem('')
  } catch {
    keepsNothing.value = true
    place = inThisWindow()
  }
  places[where] = place
  return place
}

const keptIn = <T>(where: Where, key: string, initial: T, options?: UseStorageOptions<T>) =>
  useStorage(key, initial as never, placeOf(where), options as never) as RemovableRef<T>

/** Kept in this browser of this workshop, for all of its windows, under a name of its own. */
export const useKept = <T>(key: string, initial: T, options?: UseStorageOptions<T>): RemovableRef<T> =>
  keptIn('localStorage', placed(key), initial, options)

/** Kept for this window alone, also when it is loaded anew. */
export const useKeptHere = <T>(key: string, initial: T, options?: UseStorageOptions<T>): RemovableRef<T> =>
  keptIn('sessionStorage', placed(key), initial, options)

/** The device's own, whichever workshop it is in: how loud it is, what its clock shows. */
export const useKeptByDevice = <T>(
  key: string,
  initial: T,
  options?: UseStorageOptions<T>,
): RemovableRef<T> => keptIn('localStorage', key, initial, options)
