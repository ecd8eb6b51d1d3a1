import type { Figures, Method } from './figures'
import type { Extent, VolumeResult } from './finding'

/** One way to find the volume of a cavity. */
export interface Way<By extends string, F extends Figures> {
  by: By
  /** What it asks for, in the order that files have it. */
  figures: F
  /** What cannot be is an error, what can be but will go wrong a warning. Assumes figures inside their bounds. */
  find: (m: Method<By, F>) => VolumeResult
  /** How long and deep the cavity is; undefined where this way does not know its form. */
  extent: (m: Method<By, F>) => Extent | undefined
  /** Thickness, mm, of the even slab that a piece of this form is; undefined for any other form. */
  slabMm: (m: Method<By, F>) => number | undefined
}

export const way = <const By extends string, const F extends Figures>(of: Way<By, F>): Way<By, F> => of

/** For a way that knows a volume and no form. */
export const FORMLESS = { extent: () => undefined, slabMm: () => undefined }
