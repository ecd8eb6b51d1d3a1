import { z } from 'zod'
import { id, text } from './text'

export interface Photo {
  id: string
  caption: string
  widthPx: number
  heightPx: number
}

const ofPhoto = { id, caption: text(200).default('') }
/** A photo's id is made by who takes it, so that sending it twice is harmless; it is of a mould or of a pour. */
export const newPhotoSchema = z.union([
  z.strictObject({ ...ofPhoto, mould: id }),
  z.strictObject({ ...ofPhoto, pour: id }),
])
