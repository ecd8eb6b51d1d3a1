import { computed, ref } from 'vue'
import { HOME, workshopCookie } from '~~/shared/place'

/**
 * Which workshop this window stands in: decided when it is opened, and for as long as it is open. The cookie says where the
 * browser is now, which another window may change.
 */

const COOKIE = workshopCookie(globalThis.location?.port ?? '')
const YEAR_S = 31_536_000

/** Where the browser is by now, which another window, or being let in, may have changed. */
export const chosenNow = (): string =>
  new RegExp(`(?:^|; )${COOKIE}=([^;]*)`).exec(globalThis.document?.cookie ?? '')?.[1] ?? HOME

/** Its id, or `home`. */
export const workshopHere = chosenNow()
export const isAtHome = workshopHere === HOME
/** On a device that was let in somebody is in it: the place then says who (`placeOf`). */
export const isLetIn = workshopHere.includes('.')

/** The name of something that a browser keeps of this workshop alone. */
export const placed = (name: string, place = workshopHere): string =>
  place === HOME ? name : `${name}@${place}`

/**
 * The browser has gone elsewhere, this workshop is not on this server any more, or this device is not let in: nothing from
 * here lands anywhere.
 */
export const lostPlace = ref<'elsewhere' | 'no_workshop' | 'sign_in'>()

/** Nobody has let this device in: there is nothing here for it but how that is done. */
export const isStranger = computed(() => lostPlace.value === 'sign_in' && !isLetIn)

/** Looks whether the browser is still here, or here again. */
export function lookWhereWeAre(): void {
  if (chosenNow() !== workshopHere) lostPlace.value = 'elsewhere'
  else if (lostPlace.value === 'elsewhere') lostPlace.value = undefined
}

/** Goes into another workshop, this window with it; `home` is the one at first touch. */
export function enterWorkshop(id: string): void {
  const kept = id === HOME ? 'max-age=0' : `max-age=${YEAR_S}`
  document.cookie = `${COOKIE}=${id === HOME ? '' : id}; path=/; samesite=strict; ${kept}`
  location.assign('/')
}
