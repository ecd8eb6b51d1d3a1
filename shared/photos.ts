import { z } from 'zod'
import { id, text } from './text'

export interface Photo {
  id: string
  caption: string
  widthPx: number
  heightPx: number
}

/** The longest side that is kept of one: on a print's it is measured, of a cast's it is looked at. */
export const PHOTO_FULL_PX = { mould: 2400, pour: 1600 } as const
export type PhotoSort = keyof typeof PHOTO_FULL_PX

const ofPhoto = { id, caption: text(200).default('') }
/** A photo's id is made by who takes it, so that sending it twice is harmless; it is of a mould or of a pour. */
export const newPhotoSchema = z.union([
  z.strictObject({ ...ofPhoto, mould: id }),
  z.strictObject({ ...ofPhoto, pour: id }),
])
