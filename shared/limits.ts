/** Of a photo as it leaves the camera. Apart from its contract, so that the bench need not wait for what parses one. */
export const MAX_PHOTO_BYTES = 25 * 1024 * 1024

/** The longest side that is kept of a photograph: on a print's it is measured, of a cast's it is looked at. */
export const PHOTO_FULL_PX = { mould: 2400, pour: 1600 } as const
export type PhotoSort = keyof typeof PHOTO_FULL_PX
