import { MS_PER } from '../units'
import type { PourOutlook } from './outlook'
import { pourWindowOf } from './plan/mix/mixing'
import { soakTimeS } from './plan/plan'
import { STEP, isWetStep, stageOf, type PlanStep, type Stage, type StepId } from './plan/steps'
import type { PourView } from './view'

/** A stretch of a pour's nearest future: what it is, from when to when, and whether it takes a pair of hands. */
export interface Stretch {
  stage: Stage
  fromMs: number
  untilMs: number
  hands: boolean
}

/** What is coming of a pour, as far as it follows by itself once begun. */
export interface Ahead {
  stretches: Stretch[]
  /** How much later its next step with hands may begin before the early end of the working time is passed, ms. */
  canWaitMs: number
}

/** A step of the caster's own that names no time (an estimate, no source). */
const OWN_S = 30

const HANDS: Record<Stage, boolean> = {
  mould: true,
  weigh: true,
  sift: true,
  soak: false,
  stir: true,
  pour: true,
  set: false,
  demould: true,
  dry: false,
}

type Worked = Extract<(typeof STEP)[StepId]['takesS'], string>

/** Of what a step's time is worked out, s, where it is no plain estimate. */
const TAKES: Record<Worked, (facts: PourOutlook, step: PlanStep) => number> = {
  sift: (facts) => facts.siftS,
  soak: (facts) => soakTimeS(facts.plan),
  stir: (facts) => facts.plan.stirS,
  thicken: peakWaitS,
  pour: (facts) => pourWindowOf(facts.plan, facts.inHand.planned).neededS,
  tap: (facts) => facts.inHand.flow.tapping.tapS,
  own: (_, step) => step.own?.timeS ?? OWN_S,
}

/** What is reckoned for a step, s. */
export function stepTakesS(facts: PourOutlook, step: PlanStep): number {
  const { takesS } = STEP[step.id]
  return typeof takesS === 'number' ? takesS : TAKES[takesS](facts, step)
}

/** From the end of stirring until a peak stands, s: when it starts to thicken. */
function peakWaitS({ settingInput, setting }: PourOutlook): number {
  return Math.max(0, setting.timeS.work_end.mid - settingInput.restS - settingInput.stirS)
}

/** Steps of the bowl in hand that follow by themselves from here, the one in hand first. */
function wetStepsLeft(facts: PourOutlook): PlanStep[] {
  const from = facts.stepsDone.lastIndexOf(true) + 1
  const found: PlanStep[] = []
  for (const step of facts.steps.slice(from)) {
    if (!isWetStep(step) || step.batch !== facts.batch) break
    found.push(step)
  }
  return found
}

/**
 * What comes next of a pour without anybody deciding anything: from the moment that powder meets water to the piece coming
 * out. Dry steps are the caster's own pace and are left out. Late steps are taken to be done now, in their planned time.
 * @param view of the same facts at `nowMs`.
 */
export function aheadOf(facts: PourOutlook, view: PourView, nowMs: number): Ahead {
  const { step } = view
  const nothing: Ahead = { stretches: [], canWaitMs: Infinity }
  if (step === undefined || view.pastWorking) return nothing
  const setFrom = (fromMs: number): Stretch[] => {
    if (facts.settingStartMs === undefined) return []
    const dueMs = facts.settingStartMs + facts.demould.recommendedS * 1000
    const outMs = Math.max(dueMs, nowMs)
    const set: Stretch = { stage: 'set', fromMs, untilMs: outMs, hands: false }
    const out: Stretch = {
      stage: 'demould',
      fromMs: outMs,
      untilMs: outMs + STEP.demould.takesS * 1000,
      hands: true,
    }
    return fromMs < outMs ? [set, out] : [out]
  }
  if (step === 'demould') return { stretches: setFrom(view.clock?.startMs ?? nowMs), canWaitMs: Infinity }
  if (!facts.next || !isWetStep(facts.next)) return nothing

  const steps = wetStepsLeft(facts)
  const stretches: Stretch[] = []
  let atMs = nowMs
  steps.forEach((step, i) => {
    const begunMs = i === 0 ? (view.clock?.startMs ?? nowMs) : atMs
    // A clock of its own says when it ends; one of the working time only by when it must have.
    const isLimit = view.clock?.id === 'work_end' || view.clock?.id === 'build_end'
    const own = i === 0 && view.clock && !isLimit ? view.clock.dueMs : undefined
    const untilMs = Math.max(own ?? atMs + stepTakesS(facts, step) * 1000, atMs)
    const stage = stageOf(step)
    const before = stretches.at(-1)
    if (before?.stage === stage) before.untilMs = untilMs
    else stretches.push({ stage, fromMs: i === 0 && own ? begunMs : atMs, untilMs, hands: HANDS[stage] })
    atMs = untilMs
  })
  const isLast = facts.batch === facts.batches.length - 1
  const pouredMs = stretches.findLast((s) => s.stage === 'pour')?.untilMs ?? atMs
  const workEndMs =
    facts.settingStartMs === undefined
      ? Infinity
      : facts.settingStartMs + facts.setting.timeS.work_end.low * 1000
  return {
    stretches: isLast ? [...stretches, ...setFrom(atMs)] : stretches,
    canWaitMs: Math.max(0, workEndMs - pouredMs),
  }
}

/** Two pours that want hands at once. */
export interface Clash {
  /** Which want them, in the order in which they do. */
  between: [string, string]
  atMs: number
  /** The one to hold back, by how much, and at what: its soak is made longer, or it stays in its mould. */
  hold: { id: string; byMs: number; at: 'soak' | 'set' } | undefined
}

/** Hands that are free for less than this are not free. */
const APART_MS = MS_PER.min

type Lane = { id: string; ahead: Ahead }

/** How a pour's stretch may be begun later: a soak costs nothing while the working time lasts, a mould even less. */
function holdAt({ ahead }: Lane, stretch: Stretch, byMs: number, nowMs: number): 'soak' | 'set' | undefined {
  if (stretch.stage === 'demould') return 'set'
  const before = ahead.stretches[ahead.stretches.indexOf(stretch) - 1]
  const soaks = before?.stage === 'soak' && before.untilMs > nowMs
  return soaks && byMs <= ahead.canWaitMs ? 'soak' : undefined
}

/**
 * Where two pours want hands within a minute of each other, seen ahead, with which to hold back; the first such moment of
 * each two. What is in hand already on both sides is no news, nor is a piece that waits in its mould anyway.
 */
export function clashesOf(lanes: readonly Lane[], nowMs: number): Clash[] {
  const found: Clash[] = []
  lanes.forEach((a, i) => {
    for (const b of lanes.slice(i + 1)) {
      const clash = firstClash(a, b, nowMs)
      if (clash) found.push(clash)
    }
  })
  return found.sort((x, y) => x.atMs - y.atMs)
}

function firstClash(a: Lane, b: Lane, nowMs: number): Clash | undefined {
  const wanting = ({ ahead }: Lane) =>
    ahead.stretches.filter((s) => s.hands && !(s.stage === 'demould' && s.fromMs <= nowMs))
  const pairs = wanting(a)
    .flatMap((s) => wanting(b).map((t) => [s, t] as const))
    .filter(
      ([s, t]) =>
        s.fromMs < t.untilMs + APART_MS &&
        t.fromMs < s.untilMs + APART_MS &&
        Math.max(s.fromMs, t.fromMs) > nowMs,
    )
    .sort((x, y) => Math.max(x[0].fromMs, x[1].fromMs) - Math.max(y[0].fromMs, y[1].fromMs))
  const first = pairs[0]
  if (!first) return undefined
  const [[early, s], [late, t]] =
    first[0].fromMs <= first[1].fromMs
      ? [[a, first[0]] as const, [b, first[1]] as const]
      : [[b, first[1]] as const, [a, first[0]] as const]
  const byMs = s.untilMs + APART_MS - t.fromMs
  const at = holdAt(late, t, byMs, nowMs)
  const otherByMs = t.untilMs + APART_MS - s.fromMs
  const otherAt = at ? undefined : holdAt(early, s, otherByMs, nowMs)
  return {
    between: [early.id, late.id],
    atMs: t.fromMs,
    hold: at
      ? { id: late.id, byMs, at }
      : otherAt
        ? { id: early.id, byMs: otherByMs, at: otherAt }
        : undefined,
  }
}
