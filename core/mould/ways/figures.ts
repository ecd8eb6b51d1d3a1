import type { ProfileNode } from '../profile'
import type { CavityShape } from '../shapes'
import { MOST_VOLUME_ML, MOST_WEIGHED_G } from '../../bounds'

/** What a figure of a way may be. How it is asked for is the interface's, how it crosses the wire the schema's. */
export type Figure =
  | { is: 'number'; min: number; max: number }
  | { is: 'number_or_none'; min: number; max: number }
  | { is: 'one_of'; of: readonly string[] }
  | { is: 'yes_no' }
  | { is: 'profile' }
  | { is: 'shape' }
export type Figures = Record<string, Figure>

type ValueOf<F extends Figure> = F extends { is: 'one_of'; of: readonly (infer Key)[] }
  ? Key
  : {
      number: number
      number_or_none: number | null
      one_of: string
      yes_no: boolean
      profile: ProfileNode[]
      shape: CavityShape
    }[F['is']]

/** A volume found by one way: its name and its figures. */
export type Method<By extends string, F extends Figures> = { by: By } & { [K in keyof F]: ValueOf<F[K]> }

export const between = (min: number, max: number) => ({ is: 'number', min, max }) as const
export const lengthMm = between(0, 10_000)
export const lengthMmOrNone = { ...lengthMm, is: 'number_or_none' } as const
export const areaMm2 = between(0, 1e8)
export const volumeMl = between(0, MOST_VOLUME_ML)
export const massG = between(0, MOST_WEIGHED_G)
export const yesNo = { is: 'yes_no' } as const
export const oneOf = <const Key extends string>(...of: Key[]) => ({ is: 'one_of', of }) as const
export const keyOf = <Key extends string>(of: Record<Key, unknown>) => oneOf(...(Object.keys(of) as Key[]))
