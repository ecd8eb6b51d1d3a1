/** How a browser says in which workshop it is. Without the contracts: it is wanted before anything is drawn. */

/** The cookie that says which workshop a browser is in, none: the one at home. Ports share cookies, workshops do not. */
export const workshopCookie = (port: string): string => `ripples_workshop${port && `_${port}`}`

/** The header in which a window says which workshop it was opened in, or `home`. */
export const WINDOW_HEADER = 'x-ripples-workshop'
export const HOME = 'home'

/** On a device that somebody was let in on, a window stands in a workshop as that person. */
export const placeOf = (workshopId: string, personId: string): string => `${workshopId}.${personId}`
