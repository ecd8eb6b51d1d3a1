/** Of a photo as it leaves the camera. Apart from its contract, so that the bench need not wait for what parses one. */
export const MAX_PHOTO_BYTES = 25 * 1024 * 1024
