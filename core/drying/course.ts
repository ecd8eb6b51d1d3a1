import { ArgumentError } from '../errors'
import {
  USUAL_SHAPE,
  curvesFrom,
  dryingTimeS,
  fractionLeftAt,
  type DryingCurve,
  type DryingInput,
  type DryingShape,
} from './curve'

/** What is known of how much faster a place dries than the model says: ln s, and its σ. */
export interface DryingPace {
  meanLn: number
  sigmaLn: number
}

/** ln-spread of drying speed before a place has been calibrated (estimate; still air is worst). */
export const UNKNOWN_PLACE: DryingPace = { meanLn: 0, sigmaLn: 0.35 }

/** Where a piece dries from some moment on, s since it started to dry. */
export interface DryingStretch extends Omit<DryingInput, 'speedFactor'> {
  fromS: number
  pace: DryingPace
}

/** A piece's drying, place after place, each at the pace that is expected there. Plain data. */
export interface DryingCourse {
  legs: { fromS: number; curve: DryingCurve }[]
  /** How little is known of its pace: σ of ln s. */
  sigmaLn: number
}

/** @param stretches in order of time, the first from 0 on. @throws ArgumentError unless they are, or on a bad input. */
export function dryingCourse(stretches: readonly DryingStretch[]): DryingCourse {
  return dryingCourses(stretches, [USUAL_SHAPE])[0]!
}

/** The same way at several shapes of its curve: what the air does is reckoned once. */
export function dryingCourses(
  stretches: readonly DryingStretch[],
  shapes: readonly DryingShape[],
): DryingCourse[] {
  if (stretches[0]?.fromS !== 0 || stretches.some((s, i) => i > 0 && s.fromS < stretches[i - 1]!.fromS))
    throw new ArgumentError('stretches must begin at 0 and follow one another')
  const legs = stretches.map(({ fromS, pace, ...input }) => ({
    fromS,
    curves: curvesFrom({ ...input, speedFactor: Math.exp(pace.meanLn) }, shapes),
  }))
  // Where the next place is less known, so is the rest of the way.
  const sigmaLn = Math.max(...stretches.map((s) => s.pace.sigmaLn))
  return shapes.map((_, i) => ({
    legs: legs.map(({ fromS, curves }) => ({ fromS, curve: curves[i]! })),
    sigmaLn,
  }))
}

/** Each leg with how far along its own curve it begins and where it ends, s, at so many times the expected pace. */
function* alongAt(course: DryingCourse, speed: number) {
  let left = 1
  for (const [i, { fromS, curve }] of course.legs.entries()) {
    const untilS = course.legs[i + 1]?.fromS ?? Infinity
    const reachedS = dryingTimeS(curve, left)
    yield { fromS, untilS, curve, reachedS }
    left = fractionLeftAt(curve, reachedS + speed * (untilS - fromS))
  }
}

/** Share of the free water left at a time, s since it started to dry. */
export function leftOfCourse(course: DryingCourse, speed: number, atS: number): number {
  // Asked thousands of times while it learns: most pieces stay where they are.
  if (course.legs.length === 1) return fractionLeftAt(course.legs[0]!.curve, speed * atS)
  let left = 1
  for (const { fromS, untilS, curve, reachedS } of alongAt(course, speed)) {
    if (atS <= fromS) return left
    left = fractionLeftAt(curve, reachedS + speed * (Math.min(atS, untilS) - fromS))
    if (atS <= untilS) return left
  }
  return left
}

/** When so much of the free water is left, s since it started to dry. @param fractionLeft in (0, 1]. */
export const timeOfCourse = (course: DryingCourse, speed: number, fractionLeft: number): number =>
  timesOfCourse(course, fractionLeft)(speed)

/** The same by the speed it dries at, for whoever asks for many of them. */
export function timesOfCourse(course: DryingCourse, fractionLeft: number): (speed: number) => number {
  const [first, ...others] = course.legs
  if (others.length === 0) {
    // Asked for many speeds, of most pieces: they stay where they are.
    const atOnceS = dryingTimeS(first!.curve, fractionLeft)
    return (speed) => atOnceS / speed
  }
  return (speed) => {
    for (const { fromS, untilS, curve, reachedS } of alongAt(course, speed)) {
      const atS = fromS + Math.max(0, dryingTimeS(curve, fractionLeft) - reachedS) / speed
      if (atS <= untilS) return atS
    }
    return Infinity
  }
}
