import { MAX_PHOTO_BYTES } from '~~/shared/limits'
import type { ApiFailure } from './api'

/** Why a file is no photograph, as far as it can be told without the workshop; undefined where it may be one. */
export function whyNoPhoto(file: File): ApiFailure | undefined {
  if (file.size > MAX_PHOTO_BYTES) return { code: 'photo_too_large', fields: [] }
  if (!file.type.startsWith('image/')) return { code: 'not_a_picture', fields: [] }
  return undefined
}
