import { weighingOf, type Weighing } from '#core/mix'

/** What a scale says now; no mass where it is overloaded. */
export interface ScaleSays {
  massG: number | null
  stable: boolean
  overload: boolean
  /** When it last stood at nothing with the bowl on it; null where nothing is known of that. */
  zeroedAtMs: number | null
  atMs: number
}

/** Right and still for this long, and the next step offers itself. */
const OFFER_AFTER_MS = 2000

export type WeighPhase =
  /** The bowl is to stand on it, and it at nothing. */
  | { phase: 'zero' }
  | { phase: 'overload' }
  | { phase: 'filling'; weighing: Weighing; stable: boolean }
  /** It may be recorded; `offered` once it has lain still. */
  | { phase: 'enough'; weighing: Weighing; offered: boolean }

/**
 * Where a weighing stands.
 * @param zeroed for this weighing, with its bowl on it.
 * @param rightForMs how long it has lain there right and still.
 */
export function weighPhaseOf(
  says: ScaleSays,
  zeroed: boolean,
  targetG: number,
  divisionG: number,
  rightForMs: number,
): WeighPhase {
  if (says.massG === null) return { phase: 'overload' }
  if (!zeroed) return { phase: 'zero' }
  const weighing = weighingOf(targetG, says.massG, divisionG)
  return says.stable && (weighing.state === 'right' || weighing.state === 'over')
    ? { phase: 'enough', weighing, offered: weighing.state === 'right' && rightForMs >= OFFER_AFTER_MS }
    : { phase: 'filling', weighing, stable: says.stable }
}

/** Right and still. */
export const isRight = (phase: WeighPhase): boolean =>
  phase.phase === 'enough' && phase.weighing.state === 'right'
