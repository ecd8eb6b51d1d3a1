import { MAX_PHOTO_BYTES } from '~~/shared/limits'
import type { ApiFailure } from './api'

/** Why a file is no photograph, as far as it can be told without the workshop; undefined where it may be one. */
export function whyNoPhoto(file: File): ApiFailure | undefined {
  if (file.size > MAX_PHOTO_BYTES) return { code: 'photo_too_large', fields: [] }
  if (!file.type.startsWith('image/')) return { code: 'not_a_picture', fields: [] }
  return undefined
}

export interface Picture {
  picture: Blob
  /** Upright; 0 where this browser cannot read it and the workshop may. */
  widthPx: number
  heightPx: number
}

/**
 * A photograph as the workshop will keep it: upright, no larger than it is shown, written anew without the camera's data.
 * One that this browser cannot read goes as it is.
 */
export async function scaled(file: Blob, longestPx: number): Promise<Picture> {
  try {
    // Turned by what its header says; a header that lies or is broken gives the picture as it lies there.
    const whole = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const by = Math.min(1, longestPx / Math.max(whole.width, whole.height))
    const [widthPx, heightPx] = [Math.round(whole.width * by), Math.round(whole.height * by)]
    const canvas = new OffscreenCanvas(widthPx, heightPx)
    const pen = canvas.getContext('2d')!
    pen.imageSmoothingQuality = 'high'
    pen.fillStyle = '#ffffff'
    pen.fillRect(0, 0, widthPx, heightPx)
    pen.drawImage(whole, 0, 0, widthPx, heightPx)
    whole.close()
    return { picture: await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.86 }), widthPx, heightPx }
  } catch {
    return { picture: file, widthPx: 0, heightPx: 0 }
  }
}
