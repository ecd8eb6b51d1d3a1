import {
  RING_CLEAR_MM,
  outlineOf,
  ringFor,
  type FieldGround,
  type Outline,
  type PrintForm,
  type Ring,
  type Shot,
} from '#core/field'
import { tracedWay, usualFacts, type PrintSize, type VolumeMethod } from '#core/mould'
import type { Find, FindShot } from '~~/shared/finds'
import type { MouldInput } from '~~/shared/moulds'

type Traced = Extract<VolumeMethod, { by: 'traced' }>

/** How far an area may be off that is only an oval between two lengths, as a share of it, nine times in ten [E]. */
const OVAL_OFF = 0.25

export const ovalOf = (lengthMm: number, widthMm: number): PrintSize => {
  const areaMm2 = (Math.PI / 4) * lengthMm * widthMm
  return { lengthMm, widthMm, areaMm2, areaPlusMinusMm2: OVAL_OFF * areaMm2 }
}
const ofOutline = (o: Outline): PrintSize => ({
  lengthMm: o.lengthMm,
  widthMm: o.widthMm,
  areaMm2: o.areaMm2,
  areaPlusMinusMm2: o.areaPlusMinusMm2,
})

/** A photograph that can be measured on. */
export const isScaled = (shot: FindShot): shot is FindShot & Shot => shot.scale !== null

/** What the first outline that holds comes to; undefined where none was traced. */
export function tracedSize(find: Find): PrintSize | undefined {
  for (const shot of find.shots) {
    if (!isScaled(shot) || !shot.outline) continue
    const found = outlineOf(shot, shot.outline.points, shot.outline.belowMm)
    if (found.ok) return ofOutline(found.outline)
  }
  return undefined
}

/** A way of finding a print's volume as its card's description. */
export const volumeOf = (method: Traced): MouldInput['volume'] => ({
  parts: [{ role: 'add', count: 1, method }],
  cavities: 1,
  check: null,
  trust: 'parts',
})

export const wayOf = ({ volume }: Pick<MouldInput, 'volume'>): Traced | undefined => {
  const method = volume.parts[0]?.method
  return method?.by === 'traced' ? method : undefined
}

/** The strip and the height of the ring that a print's card asks for. */
export function ringOf(way: Traced): Ring {
  return ringFor(
    {
      lengthMm: way.ringLengthMm - 2 * RING_CLEAR_MM,
      widthMm: way.ringWidthMm - 2 * RING_CLEAR_MM,
      depthMm: way.printDepthMm,
    },
    way.coverMm,
  )
}

/** Nothing said yet but what it lies in. */
export const newFind = (ground: FieldGround, foundAtMs: number): Find => ({
  foundAtMs,
  place: '',
  position: null,
  ground,
  weather: '',
  light: '',
  airTempC: null,
  depthsMm: [],
  shots: [],
  casts: [],
})

/** A print as somebody found it: roughly so long, wide and deep, and not yet measured. */
export function firstPrint(said: {
  name: string
  find: Find
  lengthMm: number
  widthMm: number
  depthMm: number
}): MouldInput {
  const way = tracedWay(ovalOf(said.lengthMm, said.widthMm), [said.depthMm], 'between', said.find.ground)
  return {
    name: said.name,
    purpose: 'print',
    facts: usualFacts('sand_soil'),
    volume: volumeOf(way),
    thicknessMm: Math.round(way.coverMm + way.printDepthMm / 2),
    usualPlasterId: null,
    isSpill: false,
    castsBefore: 0,
    lifeCasts: null,
    note: '',
    find: said.find,
  }
}

/** A print's card with what its photographs and a stick have come to since. */
export function remeasured(print: MouldInput, find: Find, form?: PrintForm): MouldInput {
  const known = wayOf(print)
  if (!known) return { ...print, find }
  const size = tracedSize(find) ?? {
    lengthMm: known.printLengthMm,
    widthMm: known.ringWidthMm - 2 * RING_CLEAR_MM,
    areaMm2: known.areaMm2,
    areaPlusMinusMm2: known.areaPlusMinusMm2,
  }
  const depths = find.depthsMm.length > 0 ? find.depthsMm : [known.printDepthMm]
  const way = tracedWay(size, depths, form ?? known.form, find.ground)
  return {
    ...print,
    find,
    volume: volumeOf(way),
    thicknessMm: Math.max(1, Math.round(way.coverMm + way.printDepthMm / 2)),
  }
}
