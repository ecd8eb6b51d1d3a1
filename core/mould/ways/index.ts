import { displacement } from './displacement'
import { dryFill } from './dryFill'
import type { Figures, Method } from './figures'
import type { Extent, VolumeResult } from './finding'
import { ground } from './ground'
import { known } from './known'
import { profile } from './profile'
import { shape } from './shape'
import { shell } from './shell'
import { topUp } from './topUp'
import { traced } from './traced'
import { waterFill } from './waterFill'
import type { Way } from './way'
import { weighedCast } from './weighedCast'

/** Every way the volume of a cavity can be found, in the order of the form. */
export const WAYS = [
  waterFill,
  dryFill,
  shape,
  profile,
  ground,
  traced,
  displacement,
  shell,
  topUp,
  weighedCast,
  known,
] as const

type MethodOf<W> = W extends Way<infer By, infer F> ? Method<By, F> : never
/** A volume as one of them found it. Lengths mm, volumes ml, areas mm², masses g. */
export type VolumeMethod = MethodOf<(typeof WAYS)[number]>
export type VolumeBy = VolumeMethod['by']

/** What a way does, whatever its figures are. */
type AnyWay = Pick<Way<VolumeBy, Figures>, 'by' | 'figures'> & {
  find: (m: VolumeMethod) => VolumeResult
  extent: (m: VolumeMethod) => Extent | undefined
  slabMm: (m: VolumeMethod) => number | undefined
}
const BY = new Map(WAYS.map((w) => [w.by, w as unknown as AnyWay]))

/**
 * Volume of a cavity, ml, with half its 80 % range, by the way chosen. What cannot be is an issue of severity `error`,
 * what can be but will go wrong a warning; both are data. Assumes every figure is finite and not negative.
 * Methods, their corrections and sources: docs/science.md#volumes.
 */
export const findVolume = (method: VolumeMethod): VolumeResult => BY.get(method.by)!.find(method)

/** How long and deep the cavity is, as far as this way knows. */
export const extentOfMethod = (method: VolumeMethod): Extent | undefined => BY.get(method.by)!.extent(method)

/** Thickness, mm, of the even slab that a piece found so is; undefined for any other form. */
export const slabMmOf = (method: VolumeMethod): number | undefined => BY.get(method.by)!.slabMm(method)

export type { Figure } from './figures'
export type { Extent, VolumeFinding, VolumeIssue, VolumeIssueCode, VolumeNote, VolumeResult } from './finding'
export { GRAINS, voidFraction, type Grain } from './dryFill'
export {
  GEL_CLEARANCE_MM,
  TYPICAL_PARTS,
  containerVolumeMl,
  objectVolumeMl,
  type Displacement,
  type TypicalPart,
} from './displacement'
export { damAreaMm2, wantedCoverMm } from './ground'
export { ringAreaMm2, tracedPrint, tracedWay, type PrintSize } from './traced'
export { coveredAreaMm2, shellVolumeMm3, type Shell } from './shell'
export { LAYERS_BELOW, topUpAreaMm2, type LayerBelow } from './topUp'
