import type { Issue } from '../errors'
import { distanceMm, distancePx, mean, type Pixel, type Spot } from './geometry'
import { planeOf, type Plane, type PlaneIssueCode, type Scale } from './plane'

/** A photograph that is measured on, and what is known of how it was taken. */
export interface Shot {
  widthPx: number
  heightPx: number
  scale: Scale
  /** How far from straight down it was held, as the device said; null: nobody knows. */
  tiltDeg: number | null
  /** The camera over the plane of the marks, mm; null: nobody knows. */
  cameraHeightMm: number | null
}

/** What can be measured between points, and how many it takes. */
export const MARK_POINTS = { length: 2, width: 2, stride: 2, straddle: 3, angle: 3 } as const
export type MarkKind = keyof typeof MARK_POINTS
export const MARK_KINDS = Object.keys(MARK_POINTS) as MarkKind[]

export interface Mark {
  kind: MarkKind
  /** `straddle`: two of one side, then one of the other. `angle`: the vertex in the middle. */
  points: readonly Pixel[]
  /** How far under the plane of the marks this lies, mm, as on the floor of a print; 0: in it. */
  belowMm: number
}

export const SHOT_NOTES = [
  'tilted',
  'tilt_unknown',
  'near_edge',
  'floor_lower',
  'floor_corrected',
  'marks_disagree',
  'scale_unlikely',
] as const
export type ShotNote = (typeof SHOT_NOTES)[number]

export interface Measured {
  /** mm, or degrees where it is an angle. */
  value: number
  unit: 'mm' | 'deg'
  /** Half the range that holds the truth nine times in ten. */
  plusMinus: number
  /** What that comes from, each as one standard deviation. */
  from: { pixel: number; scale: number; lens: number; tilt: number; floor: number }
  notes: ShotNote[]
}
export type MeasureIssueCode =
  | PlaneIssueCode
  | 'too_few_points'
  | 'beyond_horizon'
  | 'points_too_near'
  | 'outline_crosses'
export type MeasureIssue = Issue<MeasureIssueCode>
export type MeasureResult = { ok: true; measured: Measured } | { ok: false; issue: MeasureIssue }

/** How exactly a mark is set by touch with the picture drawn large, px, one standard deviation [E]. */
const TOUCH_PX = 1
/** How exactly a rule, a card or a sheet is as long as it says, or as it was typed, mm [E]. */
const RULE_MM = 0.3
/** What a lens moves the corner of a frame by, as a share of how far that is from the middle [E]. */
const LENS = 0.01
/** Held by hand and called straight down [E]; and as near as a device's own level tells it. */
const HAND_TILT_DEG = 6
const LEVEL_DEG = 2
/** From here on it is said. */
const TILTED_DEG = 5
/** Focal length of a telephone's camera as a share of the frame's longer side [E]. */
const FOCAL = 0.75
/** A sheet leaning by half a right angle is so much nearer at one end than at the other, and nobody holds it flatter [E]. */
const STEEPEST = 2.2
/** The middle of the frame, as a share of it, in which a lens hardly bends anything. */
export const MIDDLE = 0.6
const NINE_IN_TEN = 1.6449

const rad = (deg: number) => (deg * Math.PI) / 180

export const pixelsOf = (scale: Scale): readonly Pixel[] =>
  scale.by === 'rule' ? scale.marks : scale.by === 'rectangle' ? scale.corners : scale.places.map((p) => p.at)

function withPixels(scale: Scale, pixels: readonly Pixel[]): Scale {
  if (scale.by === 'rule') return { ...scale, marks: [pixels[0]!, pixels[1]!] }
  if (scale.by === 'rectangle') return { ...scale, corners: pixels }
  return { ...scale, places: scale.places.map((p, i) => ({ ...p, at: pixels[i]! })) }
}
/** The same marks on a rule, a card or a sheet that is so much longer than it says, by each of its lengths. */
function longer(scale: Scale, byMm: number): Scale[] {
  if (scale.by === 'rule') return [{ ...scale, lengthMm: scale.lengthMm + byMm }]
  if (scale.by === 'rectangle') {
    const [w, h] = scale.sidesMm
    return [
      { ...scale, sidesMm: [w + byMm, h] },
      { ...scale, sidesMm: [w, h + byMm] },
    ]
  }
  return scale.places.flatMap((_, i) =>
    (['xMm', 'yMm'] as const).map((axis) => ({
      ...scale,
      places: scale.places.map((p, j) => (j === i ? { ...p, [axis]: p[axis] + byMm } : p)),
    })),
  )
}

/** A place as a lens that bends by `by` at the corner would have shown it. */
function bent({ widthPx, heightPx }: Shot, by: number) {
  const [cx, cy] = [widthPx / 2, heightPx / 2]
  const corner = Math.hypot(cx, cy)
  return (p: Pixel): Pixel => {
    const r = Math.hypot(p.x - cx, p.y - cy) / corner
    return { x: p.x + (p.x - cx) * by * r * r, y: p.y + (p.y - cy) * by * r * r }
  }
}

/** Whatever is read off points on the ground. */
type Reading = (spots: readonly Spot[]) => number

const angleOf = (a: Spot, b: Spot, c: Spot): number => {
  const [ux, uy, vx, vy] = [a.xMm - b.xMm, a.yMm - b.yMm, c.xMm - b.xMm, c.yMm - b.yMm]
  return (Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) * 180) / Math.PI
}
/** How far a place lies from the line through two others. */
const offLine = (a: Spot, b: Spot, c: Spot): number =>
  Math.abs((b.xMm - a.xMm) * (c.yMm - a.yMm) - (b.yMm - a.yMm) * (c.xMm - a.xMm)) / distanceMm(a, b)

function readingOf(kind: MarkKind): Reading {
  if (kind === 'angle') return ([a, b, c]) => angleOf(a!, b!, c!)
  if (kind === 'straddle') return ([a, b, c]) => offLine(a!, b!, c!)
  return ([a, b]) => distanceMm(a!, b!)
}

const rootSum = (values: readonly number[]) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0))

/** How the value of a reading goes with each thing that may be a little off. */
export interface Doubt {
  value: number
  pixel: number
  scale: number
  lens: number
}

/**
 * A reading with what its marks and points make of it, by differences of one standard deviation to both sides.
 * @param sigmaPx of each point; what is spread along a traced line is reckoned by the caller.
 */
export function doubtOf(
  shot: Shot,
  plane: Plane,
  points: readonly Pixel[],
  read: (spots: readonly Spot[]) => number,
  sigmaPx = TOUCH_PX,
): Doubt {
  const at = (scale: Scale, pixels: readonly Pixel[]): number | undefined => {
    const found = planeOf(scale)
    return found.ok ? read(pixels.map(found.plane.toGround)) : undefined
  }
  const value = read(points.map(plane.toGround))
  const marks = pixelsOf(shot.scale)
  // Where there are more marks than it takes they say themselves how good they are.
  const mmPx = localMmPx(plane, marks)
  const markPx = Math.max(TOUCH_PX, plane.residualMm / mmPx)
  const half = (up: number | undefined, down: number | undefined) =>
    up === undefined || down === undefined ? 0 : (up - down) / 2
  const nudged = (pixels: readonly Pixel[], i: number, axis: 'x' | 'y', by: number) =>
    pixels.map((p, j) => (j === i ? { ...p, [axis]: p[axis] + by } : p))
  const axes = ['x', 'y'] as const
  const loose = sigmaPx > 0 ? points : []
  const byPoints = loose.flatMap((_, i) =>
    axes.map((axis) =>
      half(
        at(shot.scale, nudged(points, i, axis, sigmaPx)),
        at(shot.scale, nudged(points, i, axis, -sigmaPx)),
      ),
    ),
  )
  const byMarks = marks.flatMap((_, i) =>
    axes.map((axis) =>
      half(
        at(withPixels(shot.scale, nudged(marks, i, axis, markPx)), points),
        at(withPixels(shot.scale, nudged(marks, i, axis, -markPx)), points),
      ),
    ),
  )
  const up = longer(shot.scale, RULE_MM)
  const down = longer(shot.scale, -RULE_MM)
  const byLengths = up.map((scale, i) => half(at(scale, points), at(down[i]!, points)))
  const bending = (by: number) => {
    const bend = bent(shot, by)
    return at(withPixels(shot.scale, marks.map(bend)), points.map(bend))
  }
  return {
    value,
    pixel: rootSum([...byPoints, ...byMarks]),
    scale: rootSum(byLengths),
    lens: Math.abs(half(bending(LENS), bending(-LENS))),
  }
}

/** mm a pixel where the marks are. */
function localMmPx(plane: Plane, marks: readonly Pixel[]): number {
  const c = { x: mean(marks.map((p) => p.x)), y: mean(marks.map((p) => p.y)) }
  const o = plane.toGround(c)
  return (
    (distanceMm(o, plane.toGround({ ...c, x: c.x + 1 })) +
      distanceMm(o, plane.toGround({ ...c, y: c.y + 1 }))) /
    2
  )
}

/**
 * What a tilt nobody could put right may do to a length measured by a rule, as a share of it: shortened by up to 1 − cos of
 * it one way, and nearer on one side than on the other. With a rectangle the tilt is put right.
 */
function tiltShare(shot: Shot, points: readonly Pixel[]): number {
  if (shot.scale.by !== 'rule') return 0
  const tilt = rad(shot.tiltDeg === null ? HAND_TILT_DEG : Math.max(LEVEL_DEG, shot.tiltDeg))
  const [a, b] = shot.scale.marks
  const [p, q] = [points[0]!, points.at(-1)!]
  const between = Math.atan2(b.y - a.y, b.x - a.x) - Math.atan2(q.y - p.y, q.x - p.x)
  const shortened = (Math.sin(tilt) ** 2 / 2) * (Math.abs(Math.sin(between)) / Math.SQRT2)
  const middle = (u: Pixel, v: Pixel) => ({ x: (u.x + v.x) / 2, y: (u.y + v.y) / 2 })
  const focalPx = FOCAL * Math.max(shot.widthPx, shot.heightPx)
  const nearer = (distancePx(middle(a, b), middle(p, q)) / focalPx) * (Math.tan(tilt) / Math.SQRT2)
  // Both come of the one lean, so they come together.
  return shortened + nearer
}

/** mm a pixel of a photograph where its scale lies; undefined where its marks make no plane. */
export function mmPerPixel(shot: Pick<Shot, 'scale'>): number | undefined {
  const found = planeOf(shot.scale)
  return found.ok ? localMmPx(found.plane, pixelsOf(shot.scale)) : undefined
}

/** The camera's height over the marks as their scale and a telephone's lens make it. */
export function heightByScaleMm(shot: Shot, plane: Plane): number {
  return FOCAL * Math.max(shot.widthPx, shot.heightPx) * localMmPx(plane, pixelsOf(shot.scale))
}

/** Nobody holds a camera nearer or farther than this over a print, mm; and lenses differ by no more than this [E]. */
const HELD_MM = [100, 4000] as const
const LENSES = 2.2

/** Millimetres taken for centimetres, or inches for either: then the camera would have hung where nobody holds one. */
function isScaleUnlikely(shot: Shot, plane: Plane): boolean {
  const byScale = heightByScaleMm(shot, plane)
  if (shot.cameraHeightMm === null) return byScale < HELD_MM[0] || byScale > HELD_MM[1]
  const off = byScale / shot.cameraHeightMm
  return off > LENSES || off < 1 / LENSES
}

export function notesOf(shot: Shot, plane: Plane, points: readonly Pixel[]): ShotNote[] {
  const notes: ShotNote[] = []
  if (shot.scale.by === 'rule') {
    if (shot.tiltDeg === null) notes.push('tilt_unknown')
    else if (shot.tiltDeg > TILTED_DEG) notes.push('tilted')
  }
  const outside = (p: Pixel) =>
    Math.abs(p.x - shot.widthPx / 2) > (MIDDLE * shot.widthPx) / 2 ||
    Math.abs(p.y - shot.heightPx / 2) > (MIDDLE * shot.heightPx) / 2
  if ([...points, ...pixelsOf(shot.scale)].some(outside)) notes.push('near_edge')
  const near = pixelsOf(shot.scale).map((p) => localMmPx(plane, [p]))
  if (
    plane.residualMm > 3 * TOUCH_PX * localMmPx(plane, pixelsOf(shot.scale)) ||
    Math.max(...near) > STEEPEST * Math.min(...near)
  )
    notes.push('marks_disagree')
  if (isScaleUnlikely(shot, plane)) notes.push('scale_unlikely')
  return notes
}

/** How much longer what lies under the plane of the marks is than it seems, and how well that is known, as shares. */
function lowered(shot: Shot, plane: Plane, belowMm: number): { by: number; off: number; notes: ShotNote[] } {
  if (belowMm === 0) return { by: 1, off: 0, notes: [] }
  const share = belowMm / (shot.cameraHeightMm ?? heightByScaleMm(shot, plane))
  // Within a tenth, as a height is held and told [E].
  if (shot.cameraHeightMm !== null)
    return { by: 1 + share, off: 0.1 * Math.abs(share), notes: ['floor_corrected'] }
  return { by: 1, off: Math.abs(share), notes: ['floor_lower'] }
}

const refused = (
  code: MeasureIssueCode,
  actual = 0,
  limit = 0,
  unit = '',
): { ok: false; issue: MeasureIssue } => ({
  ok: false,
  issue: { code, severity: 'error', path: 'points', actual, limit, unit },
})

/**
 * A length, a stride, a straddle or an angle off a photograph.
 * @returns why not, where the marks make no plane or a point lies where nothing can be said.
 */
export function measure(shot: Shot, mark: Mark): MeasureResult {
  const found = planeOf(shot.scale)
  if (!found.ok) return found
  const { plane } = found
  const wanted = MARK_POINTS[mark.kind]
  if (mark.points.length !== wanted) return refused('too_few_points', mark.points.length, wanted)
  if (!mark.points.every(plane.isOnGround)) return refused('beyond_horizon')
  const apart = Math.min(...mark.points.slice(1).map((p, i) => distancePx(p, mark.points[i]!)))
  if (apart < 1) return refused('points_too_near', apart, 1, 'px')
  const isAngle = mark.kind === 'angle'
  const doubt = doubtOf(shot, plane, mark.points, readingOf(mark.kind))
  const below = lowered(shot, plane, mark.belowMm)
  const value = isAngle ? doubt.value : doubt.value * below.by
  // A share of a length; of an angle as much of a radian, for it is two lengths that are off against each other.
  const whole = isAngle ? 180 / Math.PI : value
  const from = {
    pixel: doubt.pixel,
    scale: doubt.scale,
    lens: doubt.lens,
    tilt: tiltShare(shot, mark.points) * whole,
    floor: isAngle ? 0 : below.off * value,
  }
  return {
    ok: true,
    measured: {
      value,
      unit: isAngle ? 'deg' : 'mm',
      plusMinus: NINE_IN_TEN * rootSum(Object.values(from)),
      from,
      notes: [...notesOf(shot, plane, mark.points), ...below.notes],
    },
  }
}

export { NINE_IN_TEN, lowered, refused, rootSum, tiltShare, TOUCH_PX }
