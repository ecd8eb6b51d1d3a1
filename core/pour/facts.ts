import { targetFractionLeft, type FeltDry, type Weighing } from '../drying'
import type { Issue } from '../errors'
import {
  checkConsistency,
  mixProperties,
  weighOutForVolume,
  weighOutFromMasses,
  type Batch,
  type MixProperties,
  type WeighOut,
} from '../mix'
import type { SettingInput } from '../setting'
import { foldBowl, type BatchFacts, type DoneAt, type PourIssueCode } from './bowl'
import { batchOf, bindsPlan, liveEvents, type PourEvent } from './events'
import { allOutMs, foldPieces, verdictOf, type PieceFacts, type PieceVerdict } from './pieces'
import { dryingLegs, type DryingLeg } from './drying'
import { keptTotal, type KeptPlan } from './plan/kept'
import { givesMl, mixInputOf } from './plan/mix/mixing'
import type { PourPlan } from './plan/plan'
import {
  STEP,
  isAfterPouring,
  keyCompletedBy,
  keyOfStep,
  stepKey,
  withTopUp,
  type PlanStep,
  type StepId,
} from './plan/steps'

/** All that plan and events say, whatever the time is now. Plain data; what the models make of it is the outlook. */
export interface PourFacts {
  plan: KeptPlan
  live: PourEvent[]
  /** Weighed or mixed for an earlier revision of the plan, and nobody has said whether it holds: it does not count. */
  stale: PourEvent[]
  steps: PlanStep[]
  /** Whether each of them was recorded, in the same order. */
  stepsDone: boolean[]
  /** The step in hand; undefined once finished. */
  step: StepId | undefined
  /** The same with its bowl, and whose it is. */
  next: PlanStep | undefined
  batches: BatchFacts[]
  /** Which bowl is in hand; once all are poured, the last. */
  batch: number
  inHand: BatchFacts
  /** When each step of the whole pour and of the bowl in hand was done, ms; the first record counts. */
  doneAtMs: DoneAt
  /** The whole weigh-out as planned. */
  planned: WeighOut
  /** All bowls as weighed; undefined until every planned one is. */
  actual: WeighOut | undefined
  /** What ran out of the mould, ml. */
  lostMl: number
  /** From some moment on, measured by volume. */
  scaleFailed: boolean
  /** Of the bowl in hand. */
  issues: Issue<PourIssueCode>[]
  siftS: number
  settingStartMs: number | undefined
  settingInput: SettingInput
  /** The mix as it is in the piece: as weighed where that can harden, else as planned. */
  mix: MixProperties
  drying:
    | {
        startMs: number
        /** Where it dried, and how it lay. */
        legs: DryingLeg[]
        weighings: RecordedWeighing[]
        felt: FeltDry[]
        targetLeft: number
      }
    | undefined
  /** Each cast, and what became of it. */
  pieces: PieceFacts[]
  /** Of the pour as a whole, once every piece has one. */
  verdict: PieceVerdict | undefined
}

/** A weighing of the drying piece, by the event that recorded it. */
export interface RecordedWeighing extends Weighing {
  eventId: string
  /** What lay on the scale, by the numbers of the pieces. */
  pieces: number[]
}

/**
 * First time that each step of each bowl was recorded. Running short empties the bowl: it is all in the mould. What is done
 * to each piece is done once it is done to the last.
 */
function firstDoneAt(live: readonly PourEvent[], pieces: readonly PieceFacts[]): Map<string, number> {
  const done = new Map<string, number>()
  const outMs = allOutMs(pieces)
  if (outMs !== undefined) done.set(stepKey('demould', 0), outMs)
  const ended = verdictOf(pieces)
  if (ended) done.set(stepKey('dry', 0), ended.atMs)
  for (const { body, occurredAtMs } of live) {
    const key = keyCompletedBy(body)
    const batch = batchOf(body)
    if (body.type === 'demoulded' || body.type === 'finished') continue
    const emptied = body.type === 'ran_short' ? [stepKey('pour', batch), stepKey('build', batch)] : []
    for (const k of key === undefined ? emptied : [key]) if (!done.has(k)) done.set(k, occurredAtMs)
  }
  return done
}

/** What was done of one bowl, and of the pour as a whole. */
function doneOf(done: ReadonlyMap<string, number>, steps: readonly PlanStep[], batch: number): DoneAt {
  const found: DoneAt = {}
  for (const step of steps) {
    if (step.own) continue
    const ofThePour = STEP[step.id].of === 'pour' || isAfterPouring(step)
    if (step.batch !== batch && !ofThePour) continue
    const at = done.get(keyOfStep(step))
    if (at !== undefined) found[step.id] = at
  }
  return found
}

function dryingFromEvents(
  plan: PourPlan,
  live: readonly PourEvent[],
  startMs: number | undefined,
  mix: MixProperties,
  weighed: ReadonlyMap<string, number[]>,
): PourFacts['drying'] {
  if (startMs === undefined) return undefined
  const weighings = live.flatMap((e) =>
    e.body.type === 'weighing' && e.occurredAtMs >= startMs
      ? [
          {
            eventId: e.id,
            timeS: (e.occurredAtMs - startMs) / 1000,
            massG: e.body.massG,
            pieces: weighed.get(e.id) ?? [],
          },
        ]
      : [],
  )
  const legs = dryingLegs(plan, live, startMs)
  const felt = live.flatMap(({ body, occurredAtMs }): FeltDry[] =>
    body.type === 'felt_dry' && occurredAtMs > startMs
      ? [{ timeS: (occurredAtMs - startMs) / 1000, clammy: body.clammy }]
      : [],
  )
  return {
    startMs,
    legs,
    weighings,
    felt,
    targetLeft: targetFractionLeft(plan.dryTarget, mix.freeWaterOfDryMass),
  }
}

/** A bowl for what a mould ran short of, with the plan's spare. */
function topUpBatch(plan: PourPlan, missingMl: number): Batch {
  const out = weighOutForVolume(
    mixInputOf(plan),
    missingMl / givesMl(plan, 1),
    plan.sparePct,
    plan.scaleDivisionG,
  )
  return {
    name: '',
    waterG: out.waterG,
    powderG: out.powderG,
    fillerG: out.fillerG,
    slurryMl: out.slurryMl,
    bowlMl: out.bowlMl,
    bowlFill: undefined,
    weighings: { water: 1, powder: 1 },
    start: 'at_once',
  }
}

/** Bowls as they were taken to the bench and those asked for on the way, with all their steps in order. */
function bowlsAndSteps(plan: KeptPlan, live: readonly PourEvent[]) {
  let steps: PlanStep[] = plan.kept.steps
  const bowls = plan.kept.batches.map((batch) => ({ planned: batch, topUp: false }))
  for (const { body, occurredAtMs } of live) {
    if (body.type !== 'ran_short') continue
    const last = Math.max(...steps.map((s) => s.batch))
    const closing = new Set(steps.filter((s) => s.batch === last && isAfterPouring(s)).map(keyOfStep))
    const closed = live.some(
      (e) => e.occurredAtMs <= occurredAtMs && closing.has(keyCompletedBy(e.body) ?? ''),
    )
    steps = withTopUp(steps, closed)
    bowls.push({ planned: topUpBatch(plan, body.missingMl), topUp: true })
  }
  return { steps, bowls }
}

/** Bowls in one, where every planned one of them has been weighed. */
export function wholeOf(plan: PourPlan, batches: readonly BatchFacts[]): WeighOut | undefined {
  const weighed = batches.map((b) => b.actual).filter((a) => a !== undefined)
  if (batches.some((b) => !b.topUp && !b.actual)) return undefined
  const sum = (of: 'waterG' | 'powderG') => weighed.reduce((total, a) => total + a[of], 0)
  return weighOutFromMasses(mixInputOf(plan), sum('powderG'), sum('waterG'))
}

/** Events that count for the plan as it stands, and those nobody has said it of yet. */
function byRevision(live: readonly PourEvent[], revision: number) {
  const held = new Set(
    live.flatMap(({ body, planRevision = revision }) =>
      body.type === 'plan_holds' && planRevision === revision ? [body.revision] : [],
    ),
  )
  const isStale = ({ body, planRevision = revision }: PourEvent) =>
    planRevision < revision && bindsPlan(body) && !held.has(planRevision)
  return { counted: live.filter((e) => !isStale(e)), stale: live.filter(isStale) }
}

/** Which bowl an event is of: the one it names, or the one in hand when a reading was taken that names none. */
function bowlOfEvent(event: PourEvent, startsMs: readonly (number | undefined)[]): number {
  const { body, occurredAtMs } = event
  if (body.type !== 'temperature' || body.batch !== undefined) return batchOf(body)
  const latest = startsMs.findLastIndex((ms) => ms !== undefined && ms <= occurredAtMs)
  return Math.max(0, latest)
}

/** The plan with the plaster that it was really made of, where somebody found that it was another. */
function ofRealPlaster(plan: KeptPlan, live: readonly PourEvent[]): KeptPlan {
  const found = live.findLast((e) => e.body.type === 'plaster_was')?.body
  if (found?.type !== 'plaster_was') return plan
  // What this water could not have hardened, it was not.
  const impossible = checkConsistency(plan.consistency, found.plaster.properties).some(
    (i) => i.severity === 'error',
  )
  return impossible ? plan : { ...plan, plaster: found.plaster }
}

/**
 * Plan plus events, folded. Any order of arrival and any duplication of events give the same facts, and voiding
 * an event gives the facts from before it (property tests).
 * @param revision of the plan as it stands: what was weighed for an earlier one is set apart.
 */
export function foldPour(planned: KeptPlan, events: readonly PourEvent[], revision = 1): PourFacts {
  const all = liveEvents(events)
  const plan = ofRealPlaster(planned, all)
  const { counted: live, stale } = byRevision(all, revision)
  const { steps, bowls } = bowlsAndSteps(plan, live)
  const { pieces, weighed } = foldPieces(plan, live)
  const done = firstDoneAt(live, pieces)
  // A forgotten tap does not hold the pour up: the step in hand follows the furthest one done.
  const first = steps.findLastIndex((s) => done.has(keyOfStep(s))) + 1
  const someOut = pieces.some((p) => p.out)
  const next =
    steps[
      someOut
        ? Math.max(
            first,
            steps.findIndex((s) => s.id === 'demould'),
          )
        : first
    ]
  const batch = next === undefined || isAfterPouring(next) ? bowls.length - 1 : next.batch
  const scaleFailed = live.some((e) => e.body.type === 'scale_failed')
  const doubted = live.some((e) => e.body.type === 'scale_doubted')
  const measured = doubted ? 'doubted' : scaleFailed ? 'by_volume' : 'as_planned'
  const doneOfBowls = bowls.map((_, i) => doneOf(done, steps, i))
  const startsMs = doneOfBowls.map((d) => d.start_sift ?? d.sift)
  const batches = bowls.map((bowl, i) => {
    const events = live.filter((e) => bowlOfEvent(e, startsMs) === i)
    return foldBowl(plan, { ...bowl, events, doneAtMs: doneOfBowls[i]! }, measured)
  })
  const inHand = batches[batch]!
  const actual = wholeOf(plan, batches)
  const sound = actual !== undefined && batches.every((b) => b.issues.every((i) => i.severity !== 'error'))
  const mix = sound ? actual.properties : mixProperties(mixInputOf(plan))
  const { settingInput, siftS, settingStartMs, issues, doneAtMs } = inHand
  return {
    plan,
    live: all,
    stale,
    steps,
    stepsDone: steps.map((s) => done.has(keyOfStep(s))),
    step: next?.id,
    next,
    batches,
    batch,
    inHand,
    doneAtMs,
    planned: keptTotal(plan),
    actual,
    lostMl: live.reduce((sum, { body }) => sum + (body.type === 'leaked' ? body.lostMl : 0), 0),
    scaleFailed,
    issues,
    siftS,
    settingStartMs,
    settingInput,
    mix,
    drying: dryingFromEvents(plan, live, doneAtMs.demould, mix, weighed),
    pieces,
    verdict: verdictOf(pieces),
  }
}
