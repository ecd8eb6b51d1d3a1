import { LATEST_OUT } from '../demould'
import { timeToFractionS } from '../drying'
import type { TouchCue } from '../forecast'
import type { SettingEvent } from '../setting'
import { finishWindows } from './after/dryingAhead'
import { filledMs, stirFrom } from './bowl'
import type { PourOutlook } from './outlook'
import { soakTimeS } from './plan/plan'
import { clockOf, isWetStep, keyCompletedBy, stageOf, type PlanStep, type StepClock } from './plan/steps'

export type ClockId =
  | 'sift'
  | 'soak'
  | 'stir'
  | 'tap'
  | 'layer_ready'
  | 'peak'
  | 'build_end'
  | 'soft_window'
  | 'soft_finish'
  | 'own'
  | 'look'
  | Exclude<SettingEvent, 'hardened' | 'vicat_set'>
  | 'demould'
  | 'next_weighing'
  | 'dry_enough'

/**
 * A running clock. `dueMs` is when it rings; `lowMs`–`highMs` is the 80 % range where the truth is one. A window opens
 * when it rings and stays open until `untilMs`.
 */
export interface Clock {
  id: ClockId
  startMs: number
  dueMs: number
  lowMs?: number
  highMs?: number
  untilMs?: number
  /** What to look at, where that is what it rings for. */
  cue?: TouchCue
}

/** Powder and water have met: in the bowl in hand, or in the one before it, whose mould is waiting. */
export function isWet(facts: PourOutlook, step: PlanStep): boolean {
  if (isWetStep(step)) return true
  const stage = stageOf(step)
  const between = stage === 'weigh' || stage === 'sift'
  return between && facts.batches.slice(0, facts.batch).some((b) => b.settingStartMs !== undefined)
}

function stepClock(id: ClockId, startMs: number | undefined, durationS: number): Clock | undefined {
  return startMs === undefined ? undefined : { id, startMs, dueMs: startMs + durationS * 1000 }
}

/**
 * Working time rings at the early end of its range: too soon is an inconvenience, too late is a lost pour.
 * The setting marks ring at the middle.
 */
function settingClock(facts: PourOutlook, id: 'work_end' | 'initial_set' | 'final_set'): Clock | undefined {
  const startMs = facts.settingStartMs
  if (startMs === undefined) return undefined
  const range = facts.setting.timeS[id]
  const at = (s: number) => startMs + s * 1000
  return {
    id,
    startMs,
    dueMs: at(id === 'work_end' ? range.low : range.mid),
    lowMs: at(range.low),
    highMs: at(range.high),
  }
}

/** Of a bowl's setting: rings at one mark's middle and closes, where it is a window, at the early end of another. */
function bowlClock(
  id: ClockId,
  bowl: PourOutlook['inHand'] | undefined,
  opens: SettingEvent,
  closes?: SettingEvent,
): Clock | undefined {
  if (bowl?.settingStartMs === undefined) return undefined
  const at = (s: number) => bowl.settingStartMs! + s * 1000
  const { low, mid, high } = bowl.setting.timeS[opens]
  return {
    id,
    startMs: filledMs(bowl.doneAtMs) ?? bowl.doneAtMs.stir ?? bowl.settingStartMs,
    dueMs: at(mid),
    lowMs: at(low),
    highMs: at(high),
    ...(closes ? { untilMs: Math.max(at(mid), at(bowl.setting.timeS[closes].low)) } : {}),
  }
}

/** The next layer is mixed when the last one thickens; once that has set it holds only where it is scored. */
function layerClock(facts: PourOutlook): Clock | undefined {
  if (facts.inHand.planned.start !== 'when_it_thickens') return undefined
  return bowlClock('layer_ready', facts.batches[facts.batch - 1], 'work_end', 'initial_set')
}

/** Until it is too stiff to be built with: the gloss goes. The early end counts. */
function buildClock(facts: PourOutlook): Clock | undefined {
  const clock = bowlClock('build_end', facts.inHand, 'initial_set')
  return clock && { ...clock, dueMs: clock.lowMs! }
}

/** It holds a line and is not yet hard: marks, hangers, the excess cut. */
function softWindow(facts: PourOutlook): Clock | undefined {
  return bowlClock('soft_window', facts.inHand, 'initial_set', 'final_set')
}

/** A step of one's own, from the step before it. */
function ownClock(facts: PourOutlook): Clock | undefined {
  const timeS = facts.next?.own?.timeS
  const before = facts.live.findLast((e) => keyCompletedBy(e.body) !== undefined)
  return timeS === undefined || timeS === null ? undefined : stepClock('own', before?.occurredAtMs, timeS)
}

function demouldClock(facts: PourOutlook): Clock | undefined {
  if (facts.settingStartMs === undefined) return undefined
  const at = (s: number) => facts.settingStartMs! + s * 1000
  const { strongEnoughS, recommendedS } = facts.demould
  const latest = LATEST_OUT[facts.plan.mould.kind]
  return {
    id: 'demould',
    startMs: facts.doneAtMs.tap ?? facts.doneAtMs.level ?? filledMs(facts.doneAtMs) ?? facts.settingStartMs,
    dueMs: at(recommendedS),
    lowMs: at(strongEnoughS.low),
    highMs: at(Math.max(strongEnoughS.high, recommendedS)),
    ...(latest ? { untilMs: Math.max(at(recommendedS), at(60 * latest.latestMin)) } : {}),
  }
}

/** When to look at the piece next, and at what: rung for once. */
function lookClock(facts: PourOutlook): Clock | undefined {
  const { settingStartMs, learnt } = facts
  if (settingStartMs === undefined || !learnt?.next) return undefined
  const { cue, atS } = learnt.next
  return {
    id: 'look',
    cue,
    startMs: filledMs(facts.doneAtMs) ?? settingStartMs,
    dueMs: settingStartMs + atS * 1000,
  }
}

function dryEnoughClock(facts: PourOutlook): Clock | undefined {
  if (!facts.drying) return undefined
  const { startMs, forecast, targetLeft } = facts.drying
  const range = timeToFractionS(forecast, targetLeft)
  return {
    id: 'dry_enough',
    startMs,
    dueMs: startMs + range.mid * 1000,
    lowMs: startMs + range.low * 1000,
    highMs: startMs + range.high * 1000,
  }
}

/** Weighed when it comes out, then when it tells most; where it tells little any more, once it should be dry. */
function nextWeighingClock(facts: PourOutlook): Clock | undefined {
  if (!facts.drying) return undefined
  const { startMs, weighings, weighNext } = facts.drying
  const last = weighings.at(-1)
  if (!last) return { id: 'next_weighing', startMs, dueMs: startMs }
  const fromMs = startMs + last.timeS * 1000
  if (weighNext) return { id: 'next_weighing', startMs: fromMs, dueMs: startMs + weighNext.atS * 1000 }
  const dry = dryEnoughClock(facts)!
  return { ...dry, startMs: fromMs, dueMs: Math.max(dry.dueMs, fromMs) }
}

/** What wants doing while the piece is soft, before it is too hard for the first of it: rung for in good time. */
function softFinishClock(facts: PourOutlook): Clock | undefined {
  const open = finishWindows(facts).filter((w) => w.untilMs !== undefined && !w.done)
  if (!facts.drying || open.length === 0) return undefined
  const untilMs = Math.min(...open.map((w) => w.untilMs!))
  const { startMs } = facts.drying
  return { id: 'soft_finish', startMs, dueMs: startMs + 0.5 * (untilMs - startMs), untilMs }
}

/** The clocks that a step may name, each as it runs. */
const CLOCK_OF: Record<StepClock, (facts: PourOutlook) => Clock | undefined> = {
  layer_ready: layerClock,
  sift: ({ doneAtMs, siftS }) => stepClock('sift', doneAtMs.start_sift, siftS),
  soak: ({ doneAtMs, plan }) => stepClock('soak', doneAtMs.sift ?? doneAtMs.start_sift, soakTimeS(plan)),
  stir: ({ doneAtMs, plan }) =>
    stepClock('stir', stirFrom(plan, doneAtMs) ?? doneAtMs.sift ?? doneAtMs.start_sift, plan.stirS),
  work_end: (facts) => settingClock(facts, 'work_end'),
  peak: (facts) => bowlClock('peak', facts.inHand, 'work_end'),
  build_end: buildClock,
  bed_ready: (facts) => bowlClock('layer_ready', facts.inHand, 'work_end', 'initial_set'),
  tap: ({ doneAtMs, inHand }) => stepClock('tap', doneAtMs.pour, inHand.flow.tapping.tapS),
  own: ownClock,
  demould: demouldClock,
  next_weighing: nextWeighingClock,
}

/** The clock of the step in hand. */
export function clockOfStep(facts: PourOutlook): Clock | undefined {
  const clock = facts.step && clockOf(facts.step)
  return clock && CLOCK_OF[clock](facts)
}

/** What else runs meanwhile, soonest first. */
export function otherClocksOf(facts: PourOutlook, nowMs: number): Clock[] {
  const { step, next } = facts
  const candidates =
    next !== undefined && isWet(facts, next)
      ? [settingClock(facts, 'work_end'), settingClock(facts, 'initial_set'), demouldClock(facts)]
      : step === 'demould'
        ? [
            lookClock(facts),
            softWindow(facts),
            settingClock(facts, 'initial_set'),
            settingClock(facts, 'final_set'),
          ]
        : step === 'dry'
          ? [softFinishClock(facts), dryEnoughClock(facts)]
          : []
  const primary = clockOfStep(facts)?.id
  // While it is stirred the time to pour hangs on when one stops: that is said of the stirring itself (`stirringOf`).
  const said = step === 'stir' ? 'work_end' : undefined
  return candidates
    .filter(
      (c): c is Clock =>
        c !== undefined && c.id !== primary && c.id !== said && (c.untilMs ?? c.highMs ?? c.dueMs) > nowMs,
    )
    .sort((a, b) => a.dueMs - b.dueMs)
}
