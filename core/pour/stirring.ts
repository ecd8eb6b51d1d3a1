import { workingTimeS } from '../setting'
import { stirFrom } from './bowl'
import type { PourOutlook } from './outlook'
import { pourWindowOf } from './plan/mix/mixing'
import type { StepId } from './plan/steps'

/** What the stirring under way has done to the time left, s; early ends throughout: too late is a lost pour. */
export interface Stirring {
  stirredS: number
  /** Time to pour if one stops now; below nothing where it is over. */
  leftS: number
  /** How much of it one more minute costs: the minute itself, and what stirring hurries. */
  minuteCostS: number
  /** Latest moment to stop with the time that pouring takes still left, ms. */
  stopByMs: number
}

/** Longer than anybody stirs. */
const LONGEST_STIR_S = 3600

/** Undefined where nothing is being stirred. */
export function stirringOf(facts: PourOutlook, nowMs: number): Stirring | undefined {
  const { plan, inHand, settingStartMs, settingInput } = facts
  const fromMs = stirFrom(plan, inHand.doneAtMs)
  if (facts.step !== 'stir' || fromMs === undefined || settingStartMs === undefined) return undefined
  const begunS = (fromMs - settingStartMs) / 1000
  const leftAfter = (stirS: number) => workingTimeS({ ...settingInput, stirS }).low - begunS - stirS
  const stirredS = Math.max(0, (nowMs - fromMs) / 1000)
  const leftS = leftAfter(stirredS)
  const { neededS } = pourWindowOf(plan, inHand.actual ?? inHand.planned)
  // What is left only ever shrinks: halving finds where it meets what is needed.
  let [soon, late] = [0, LONGEST_STIR_S]
  for (let i = 0; i < 30; i++) {
    const mid = (soon + late) / 2
    if (leftAfter(mid) > neededS) soon = mid
    else late = mid
  }
  return { stirredS, leftS, minuteCostS: leftS - leftAfter(stirredS + 60), stopByMs: fromMs + soon * 1000 }
}

export interface UsualTime {
  leastS?: number
  mostS?: number
}

/** How long a step takes at least and at most; common practice, no source. */
const USUAL_TIME: Partial<Record<StepId, UsualTime>> = {
  soak: { leastS: 60, mostS: 300 },
  stir: { leastS: 60 },
  vibrate: { leastS: 15, mostS: 120 },
  tap: { leastS: 15, mostS: 120 },
}
/** A filled mix slakes for three minutes, no less and no more. */
const SLAKE: UsualTime = { leastS: 180, mostS: 180 }

/** Of the step in hand; nothing where the signs alone tell. */
export function usualTimeS({ step, plan }: PourOutlook): UsualTime {
  if (step === undefined) return {}
  return (step === 'soak' && plan.addingWay === 'tipped_in' ? SLAKE : USUAL_TIME[step]) ?? {}
}
