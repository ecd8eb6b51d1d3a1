import type { Component } from 'vue'
import type { MouldFacts, Purpose, VolumeBy, VolumeMethod } from '#core/mould'
import type { SectionDrawing } from './drawing'
import type { MethodField } from './fields'

export type MethodBy<By extends VolumeBy> = Extract<VolumeMethod, { by: By }>

/** A way to find a volume, as it is shown and asked for. */
export interface ShownWay<By extends VolumeBy> {
  name: string
  how: string
  icon: Component
  /** Starting figures, so that its picture is never empty. */
  first: MethodBy<By>
  /** What it asks for, in the order of asking; what an earlier answer leaves out is not asked. */
  fields: (m: MethodBy<By>, showVolume: (volumeMl: number) => string) => MethodField[]
  /** Its section, to scale; where it knows only a volume, a stand-in of that volume. */
  section: (m: MethodBy<By>, volumeMl: number) => SectionDrawing
  knowsForm: boolean
  /** What it says of the mould and of its piece. */
  hint: (m: MethodBy<By>) => { facts?: MouldFacts; purpose?: Purpose }
}
