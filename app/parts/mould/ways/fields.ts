import { LEAST_VOLUME_ML, MOST_VOLUME_ML, MOST_WEIGHED_G } from '#core/bounds'
import type { QuantityKind } from '#core/units'

/** What a way of finding a volume asks for, in the order of asking. Paths are those of the method. */
export type MethodField =
  | {
      is: 'quantity'
      path: string
      label: string
      quantity: QuantityKind
      min: number
      max: number
      suffix?: string
      decimals?: number
      water?: boolean
    }
  | { is: 'choice' | 'list'; path: string; label: string; options: { value: string; label: string }[] }

const quantity =
  (kind: QuantityKind, least: number, most: number) =>
  (path: string, label: string, min = least, max = most): MethodField => ({
    is: 'quantity',
    path,
    label,
    quantity: kind,
    min,
    max,
  })
export const length = quantity('length', 1, 5000)
export const volume = quantity('volume', LEAST_VOLUME_ML, MOST_VOLUME_ML)
export const mass = quantity('mass', 1, MOST_WEIGHED_G)
export const area = quantity('area', 100, 1e8)

/** Of water: weighed or measured, it may be typed as either. */
export const ofWater = (field: MethodField): MethodField =>
  field.is === 'quantity' ? { ...field, water: true } : field

type Asked = (path: string, label: string, words: Record<string, string>) => MethodField
const oneOf =
  (is: 'choice' | 'list'): Asked =>
  (path, label, words) => ({
    is,
    path,
    label,
    options: Object.entries(words).map(([value, word]) => ({ value, label: word })),
  })
export const choice = oneOf('choice')
/** As `choice`, for more than fit side by side. */
export const list = oneOf('list')
