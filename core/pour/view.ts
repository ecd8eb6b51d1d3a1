import { MS_PER } from '../units'
import type { SettingEvent } from '../setting'
import type { PourFacts } from './facts'
import { soakTimeS } from './plan'
import { STAGES, STEP, stageOfStep, type Stage, type StepId } from './steps'

/** How urgently a pour wants its caster. In order: the bench sorts by it. */
export const URGENCIES = ['hands', 'now', 'soon', 'later', 'idle'] as const
export type Urgency = (typeof URGENCIES)[number]

export type ClockId =
  | 'sift'
  | 'soak'
  | 'stir'
  | 'tap'
  | 'layer_ready'
  | Exclude<SettingEvent, 'hardened' | 'vicat_set'>
  | 'demould'
  | 'next_weighing'
  | 'dry_enough'

/** A running clock. `dueMs` is when it rings; `lowMs`–`highMs` is the 80 % range where the truth is one. */
export interface Clock {
  id: ClockId
  startMs: number
  dueMs: number
  lowMs?: number
  highMs?: number
}

export interface PourView {
  status: 'running' | 'finished' | 'failed'
  stage: Stage
  step: StepId | undefined
  /** Fill of each of the nine rings, 0–1, centre first. */
  rings: number[]
  /** The clock that matters now; undefined where the caster sets the pace. */
  clock: Clock | undefined
  /** Every other clock still running, soonest first. */
  otherClocks: Clock[]
  urgency: Urgency
  /** Still wet by the record, yet beyond any believable working time: somebody forgot to note what happened. */
  pastWorking: boolean
}

const SOON_MS = 15 * MS_PER.min
const WEIGHING_INTERVAL_MS = MS_PER.day

/** Powder and water have met: in the bowl in hand, or in the one before it, whose mould is waiting. */
function isWet(facts: PourFacts, step: StepId): boolean {
  if (STEP[step].wet) return true
  const stage = stageOfStep(step)
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
function settingClock(facts: PourFacts, id: 'work_end' | 'initial_set' | 'final_set'): Clock | undefined {
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

/** The next layer is mixed when the last one thickens. */
function layerClock(facts: PourFacts): Clock | undefined {
  const before = facts.batches[facts.batch - 1]
  if (facts.inHand.planned.start !== 'when_it_thickens' || before?.settingStartMs === undefined)
    return undefined
  const { low, mid, high } = before.setting.timeS.work_end
  const at = (s: number) => before.settingStartMs! + s * 1000
  return {
    id: 'layer_ready',
    startMs: before.doneAtMs.pour ?? before.settingStartMs,
    dueMs: at(mid),
    lowMs: at(low),
    highMs: at(high),
  }
}

function demouldClock(facts: PourFacts): Clock | undefined {
  if (facts.settingStartMs === undefined) return undefined
  const at = (s: number) => facts.settingStartMs! + s * 1000
  const { strongEnoughS, recommendedS } = facts.demould
  return {
    id: 'demould',
    startMs: facts.doneAtMs.tap ?? facts.doneAtMs.pour ?? facts.settingStartMs,
    dueMs: at(recommendedS),
    lowMs: at(strongEnoughS.low),
    highMs: at(Math.max(strongEnoughS.high, recommendedS)),
  }
}

function dryEnoughClock(facts: PourFacts): Clock | undefined {
  if (!facts.drying) return undefined
  const { startMs, forecast, targetLeft } = facts.drying
  const range = forecast.timeToFractionS(targetLeft)
  return {
    id: 'dry_enough',
    startMs,
    dueMs: startMs + range.mid * 1000,
    lowMs: startMs + range.low * 1000,
    highMs: startMs + range.high * 1000,
  }
}

/** Weighed when it comes out, then once a day. */
function nextWeighingClock(facts: PourFacts): Clock | undefined {
  if (!facts.drying) return undefined
  const { startMs, weighings } = facts.drying
  const last = weighings.at(-1)
  if (!last) return { id: 'next_weighing', startMs, dueMs: startMs }
  const lastMs = startMs + last.timeS * 1000
  return { id: 'next_weighing', startMs: lastMs, dueMs: lastMs + WEIGHING_INTERVAL_MS }
}

function clockOfStep(facts: PourFacts, step: StepId | undefined): Clock | undefined {
  const { doneAtMs, plan } = facts
  switch (step) {
    case 'start_sift':
      return layerClock(facts)
    case 'sift':
      return stepClock('sift', doneAtMs.start_sift, facts.siftS)
    case 'soak':
      return stepClock('soak', doneAtMs.sift ?? doneAtMs.start_sift, soakTimeS(plan))
    case 'stir':
      return stepClock('stir', doneAtMs.soak ?? doneAtMs.sift ?? doneAtMs.start_sift, plan.stirS)
    case 'face_coat':
    case 'part_fill':
    case 'pour':
      return settingClock(facts, 'work_end')
    case 'tap':
      return stepClock('tap', doneAtMs.pour, facts.inHand.flow.tapping.tapS)
    case 'demould':
      return demouldClock(facts)
    case 'dry':
      return nextWeighingClock(facts)
    case 'prepare':
    case 'weigh_water':
    case 'weigh_admix':
    case 'weigh_powder':
    case 'weigh_filler':
    case undefined:
      return undefined
  }
}

function otherClocksOf(facts: PourFacts, step: StepId | undefined, nowMs: number): Clock[] {
  const candidates =
    step !== undefined && isWet(facts, step)
      ? [settingClock(facts, 'work_end'), settingClock(facts, 'initial_set'), demouldClock(facts)]
      : step === 'demould'
        ? [settingClock(facts, 'initial_set'), settingClock(facts, 'final_set')]
        : step === 'dry'
          ? [dryEnoughClock(facts)]
          : []
  const primary = clockOfStep(facts, step)?.id
  return candidates
    .filter((c): c is Clock => c !== undefined && c.id !== primary && (c.highMs ?? c.dueMs) > nowMs)
    .sort((a, b) => a.dueMs - b.dueMs)
}

function stageNow(step: StepId, clock: Clock | undefined, nowMs: number): Stage {
  // Setting is not something the caster does: it is over when the piece is ready to come out.
  if (step === 'demould') return clock && nowMs < clock.dueMs ? 'set' : 'demould'
  return stageOfStep(step)
}

function progress(facts: PourFacts, stage: Stage, clock: Clock | undefined, nowMs: number): number {
  if (stage === 'weigh') {
    const done = facts.steps.flatMap((s, i) => (stageOfStep(s.id) === 'weigh' ? [facts.stepsDone[i]!] : []))
    return done.filter(Boolean).length / done.length
  }
  if (stage === 'dry' && facts.drying) {
    const { startMs, forecast, targetLeft } = facts.drying
    return (nowMs - startMs) / (forecast.timeToFractionS(targetLeft).mid * 1000)
  }
  if (!clock || stage === 'demould') return 0
  return (nowMs - clock.startMs) / Math.max(1, clock.dueMs - clock.startMs)
}

function isPastWorking(facts: PourFacts, step: StepId, nowMs: number): boolean {
  if (facts.settingStartMs === undefined || !isWet(facts, step)) return false
  return nowMs > facts.settingStartMs + facts.setting.timeS.final_set.high * 1000
}

function urgencyOf(
  facts: PourFacts,
  step: StepId,
  clock: Clock | undefined,
  nowMs: number,
  pastWorking: boolean,
): Urgency {
  if (pastWorking) return 'now'
  if (isWet(facts, step)) return 'hands'
  if (!clock) return 'idle'
  if (nowMs >= clock.dueMs) return 'now'
  return clock.dueMs - nowMs <= SOON_MS ? 'soon' : 'later'
}

/** The stage a pour had reached when it was ended. */
function lastStage(facts: PourFacts): Stage {
  const last = facts.steps.findLast((s, i) => s.id !== 'dry' && facts.stepsDone[i])?.id
  if (last === undefined) return 'mould'
  if (last === 'tap' || last === 'pour') return 'set'
  if (last === 'demould') return 'dry'
  return stageOfStep(last)
}

/** What a pour looks like at one moment. Cheap: made again every tick from the same facts. */
export function viewPour(facts: PourFacts, nowMs: number): PourView {
  const { step, verdict } = facts
  if (step === undefined) {
    const well = verdict?.verdict === 'good' || verdict?.verdict === 'usable'
    const stage = well ? 'dry' : lastStage(facts)
    const reached = STAGES.indexOf(stage)
    return {
      status: well ? 'finished' : 'failed',
      stage,
      step,
      rings: STAGES.map((_, i) => (well || i < reached ? 1 : i === reached ? 0.5 : 0)),
      clock: undefined,
      otherClocks: [],
      urgency: 'idle',
      pastWorking: false,
    }
  }
  const clock = clockOfStep(facts, step)
  const stage = stageNow(step, clock, nowMs)
  const current = STAGES.indexOf(stage)
  const pastWorking = isPastWorking(facts, step, nowMs)
  const fill = Math.min(0.97, Math.max(0, progress(facts, stage, clock, nowMs)))
  return {
    status: 'running',
    stage,
    step,
    rings: STAGES.map((_, i) => (i < current ? 1 : i === current ? fill : 0)),
    clock,
    otherClocks: otherClocksOf(facts, step, nowMs),
    urgency: urgencyOf(facts, step, clock, nowMs, pastWorking),
    pastWorking,
  }
}

/** Most urgent first; among equals a piece before a weighing, then the one due first. */
export function compareByUrgency(a: PourView, b: PourView): number {
  return (
    URGENCIES.indexOf(a.urgency) - URGENCIES.indexOf(b.urgency) ||
    Number(a.stage === 'dry') - Number(b.stage === 'dry') ||
    (a.clock?.dueMs ?? Number.MAX_VALUE) - (b.clock?.dueMs ?? Number.MAX_VALUE)
  )
}
