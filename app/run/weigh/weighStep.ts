import { weighingOf, type Weighing } from '#core/mix'

/** What a scale says now; no mass where it is overloaded. */
export interface ScaleSays {
  massG: number | null
  stable: boolean
  /** It counts from where it was zeroed with something on it; null where it does not say. */
  tared: boolean | null
  overload: boolean
  atMs: number
}

/** A weighing as it is followed: kept from one look to the next. */
export interface WeighWatch {
  /** It was asked to zero itself for this step: taken for done where it does not say. */
  zeroAsked: boolean
  /**
   * It has stood at nothing with the bowl on it: from there what it shows is what went in. An empty scale stands at
   * nothing as well, and a bowl that is put on it then would count as water: so only where it was zeroed.
   */
  zeroed: boolean
  /** It said nothing for a while: one that cannot say whether it is zeroed may have been switched off. */
  silent: boolean
  /** Since when it has lain there right and still. */
  rightSinceMs: number | undefined
}
export const NOT_YET: WeighWatch = {
  zeroAsked: false,
  zeroed: false,
  silent: false,
  rightSinceMs: undefined,
}

/** Right and still for this long, and the next step offers itself. */
const OFFER_AFTER_MS = 2000
/** An empty bowl that was zeroed may show so many divisions. */
const ZERO_DIVISIONS = 2

export function watchWeighing(
  before: WeighWatch,
  says: ScaleSays | undefined,
  targetG: number,
  divisionG: number,
  nowMs: number,
): WeighWatch {
  if (!says) return { ...before, silent: true, rightSinceMs: undefined }
  // Switched off and on it counts from elsewhere: what it shows now is not what went in.
  const lostZero = says.tared === false || (says.tared === null && before.silent)
  const known: WeighWatch = lostZero
    ? { ...before, zeroed: false, zeroAsked: before.zeroAsked && !before.silent, silent: false }
    : { ...before, silent: false }
  if (says.massG === null) return { ...known, rightSinceMs: undefined }
  const atNothing = says.stable && Math.abs(says.massG) <= ZERO_DIVISIONS * divisionG
  const zeroed = known.zeroed || (atNothing && (says.tared ?? known.zeroAsked))
  const right = zeroed && says.stable && weighingOf(targetG, says.massG, divisionG).state === 'right'
  return { ...known, zeroed, rightSinceMs: right ? (before.rightSinceMs ?? nowMs) : undefined }
}

export type WeighPhase =
  /** The bowl is to stand on it, and it at nothing. */
  | { phase: 'zero' }
  | { phase: 'overload' }
  | { phase: 'filling'; weighing: Weighing; stable: boolean }
  /** It may be recorded; `offered` once it has lain still. */
  | { phase: 'enough'; weighing: Weighing; offered: boolean }

/** Where a weighing stands; undefined where no scale says anything. */
export function weighPhaseOf(
  watch: WeighWatch,
  says: ScaleSays | undefined,
  targetG: number,
  divisionG: number,
  nowMs: number,
): WeighPhase | undefined {
  if (!says) return undefined
  if (says.massG === null) return { phase: 'overload' }
  if (!watch.zeroed) return { phase: 'zero' }
  const weighing = weighingOf(targetG, says.massG, divisionG)
  if (says.stable && (weighing.state === 'right' || weighing.state === 'over'))
    return {
      phase: 'enough',
      weighing,
      offered: watch.rightSinceMs !== undefined && nowMs - watch.rightSinceMs >= OFFER_AFTER_MS,
    }
  return { phase: 'filling', weighing, stable: says.stable }
}
