import { timeToFractionS } from '../drying'
import { MS_PER } from '../units'
import { filledMs } from './bowl'
import { clockOfStep, isWet, otherClocksOf, type Clock } from './clocks'
import type { PourFacts } from './facts'
import type { PourOutlook } from './outlook'
import { STAGES, stageOf, type PlanStep, type Stage, type StepId } from './plan/steps'

/** How urgently a pour wants its caster. In order: the bench sorts by it. */
export const URGENCIES = ['hands', 'now', 'soon', 'later', 'idle'] as const
export type Urgency = (typeof URGENCIES)[number]

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

function stageNow(step: PlanStep, clock: Clock | undefined, nowMs: number): Stage {
  // Setting is not something the caster does: it is over when the piece is ready to come out.
  if (step.id === 'demould') return clock && nowMs < clock.dueMs ? 'set' : 'demould'
  return stageOf(step)
}

function progress(facts: PourOutlook, stage: Stage, clock: Clock | undefined, nowMs: number): number {
  if (stage === 'weigh') {
    const done = facts.steps.flatMap((s, i) => (stageOf(s) === 'weigh' ? [facts.stepsDone[i]!] : []))
    return done.filter(Boolean).length / done.length
  }
  if (stage === 'dry' && facts.drying) {
    const { startMs, forecast, targetLeft } = facts.drying
    return (nowMs - startMs) / (timeToFractionS(forecast, targetLeft).mid * 1000)
  }
  if (!clock || stage === 'demould') return 0
  return (nowMs - clock.startMs) / Math.max(1, clock.dueMs - clock.startMs)
}

function isPastWorking(facts: PourOutlook, step: PlanStep, nowMs: number): boolean {
  if (facts.settingStartMs === undefined || !isWet(facts, step)) return false
  return nowMs > facts.settingStartMs + facts.setting.timeS.final_set.high * 1000
}

function urgencyOf(
  facts: PourOutlook,
  step: PlanStep,
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
  const last = facts.steps.findLast((s, i) => s.id !== 'dry' && facts.stepsDone[i])
  if (last === undefined) return 'mould'
  if (last.id === 'demould') return 'dry'
  const stage = stageOf(last)
  // Once it is in the mould, it sets.
  return stage === 'pour' && filledMs(facts.doneAtMs) !== undefined ? 'set' : stage
}

const endedWell = ({ verdict }: PourFacts) => verdict?.verdict === 'good' || verdict?.verdict === 'usable'

/** Stage and rings by the record alone, no model asked: the stage in hand is drawn half full. */
export function stageReached(facts: PourFacts): Pick<PourView, 'stage' | 'rings'> {
  const { next } = facts
  const well = next === undefined && endedWell(facts)
  // Until it is out it sets: whether it is ready is a forecast's to say.
  const stage = well ? 'dry' : !next ? lastStage(facts) : next.id === 'demould' ? 'set' : stageOf(next)
  const reached = STAGES.indexOf(stage)
  return { stage, rings: STAGES.map((_, i) => (well || i < reached ? 1 : i === reached ? 0.5 : 0)) }
}

/** What a pour looks like at one moment. Cheap: made again every tick from the same facts. */
export function viewPour(facts: PourOutlook, nowMs: number): PourView {
  const { step, next } = facts
  if (next === undefined) {
    return {
      status: endedWell(facts) ? 'finished' : 'failed',
      ...stageReached(facts),
      step,
      clock: undefined,
      otherClocks: [],
      urgency: 'idle',
      pastWorking: false,
    }
  }
  const clock = clockOfStep(facts)
  const stage = stageNow(next, clock, nowMs)
  const current = STAGES.indexOf(stage)
  const pastWorking = isPastWorking(facts, next, nowMs)
  const fill = Math.min(0.97, Math.max(0, progress(facts, stage, clock, nowMs)))
  return {
    status: 'running',
    stage,
    step,
    rings: STAGES.map((_, i) => (i < current ? 1 : i === current ? fill : 0)),
    clock,
    otherClocks: otherClocksOf(facts, nowMs),
    urgency: urgencyOf(facts, next, clock, nowMs, pastWorking),
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
