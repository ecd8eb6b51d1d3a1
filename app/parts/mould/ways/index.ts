import type { CavityDescription, VolumeBy, VolumeMethod } from '#core/mould'
import { displacement } from './displacement'
import type { SectionDrawing } from './drawing'
import { dryFill } from './dryFill'
import { ground } from './ground'
import { known } from './known'
import { profile } from './profile'
import { shape } from './shape'
import { shell } from './shell'
import { topUp } from './topUp'
import { traced } from './traced'
import { waterFill } from './waterFill'
import type { ShownWay } from './way'
import { weighedCast } from './weighedCast'

/** Every way to find a volume as it is shown; one that has no line here does not compile. */
export const SHOWN_WAYS: { [By in VolumeBy]: ShownWay<By> } = {
  water_fill: waterFill,
  dry_fill: dryFill,
  shape,
  profile,
  ground,
  traced,
  displacement,
  shell,
  top_up: topUp,
  weighed_cast: weighedCast,
  known,
}

/** The way of this method, for whom its figures are its own business. */
export const shownWay = <By extends VolumeBy>(method: { by: By }) =>
  SHOWN_WAYS[method.by] as unknown as Omit<ShownWay<By>, 'fields' | 'section' | 'hint'> & {
    fields: (m: VolumeMethod, showVolume: (volumeMl: number) => string) => ReturnType<ShownWay<By>['fields']>
    section: (m: VolumeMethod, volumeMl: number) => SectionDrawing
    hint: (m: VolumeMethod) => ReturnType<ShownWay<By>['hint']>
  }

/** Draws one way of finding a volume. `volumeMl` sizes the stand-in where the form is not known. */
export const sectionOf = (method: VolumeMethod, volumeMl: number): SectionDrawing =>
  shownWay(method).section(method, volumeMl)

/** The method that shows a mould's form best: its first part, or the second way where only that knows the form. */
export function pictured(volume: CavityDescription): VolumeMethod {
  const first = volume.parts[0]!.method
  return !shownWay(first).knowsForm && volume.check ? volume.check : first
}

export function fieldValue(method: VolumeMethod, path: string): unknown {
  return path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], method)
}

/** The method with one value changed; `true` and `false` come from pills as words. */
export function withField(method: VolumeMethod, path: string, value: unknown): VolumeMethod {
  const plain = value === 'true' ? true : value === 'false' ? false : value
  const [first, second] = path.split('.') as [string, string | undefined]
  const changed = method as unknown as Record<string, unknown>
  const inner = second === undefined ? plain : { ...(changed[first] as object), [second]: plain }
  return { ...changed, [first]: inner } as unknown as VolumeMethod
}
