import { targetFractionLeft, type FeltDry, type Weighing } from '../drying'
import type { Issue } from '../errors'
import {
  checkConsistency,
  checkSlurry,
  mixProperties,
  mixTempC,
  ratioSigmaLn,
  weighOutForVolume,
  weighOutFromMasses,
  type Batch,
  type MixProperties,
  type WeighOut,
} from '../mix'
import type { Range } from '../provenance'
import { workingTimeS, type SettingInput } from '../setting'
import { batchOf, bindsPlan, liveEvents, type PourEvent, type WeighedWhat } from './events'
import { allOutMs, foldPieces, verdictOf, type PieceFacts, type PieceVerdict } from './pieces'
import { dryingLegs, type DryingLeg } from './drying'
import { keptTotal, type KeptPlan } from './plan/kept'
import { givesMl, mixInputOf } from './plan/mixing'
import { siftTimeS, soakTimeS, type PourPlan } from './plan/plan'
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

export type PourIssueCode = ReturnType<typeof checkConsistency>[number]['code'] | 'weighed_off_plan'

/** A few grams do not matter; ten percent does (common practice, no source). */
const CONSISTENCY_TOLERANCE = 0.1

type DoneAt = Partial<Record<StepId, number>>

/** One bowl: what was meant, what went in, and how it sets. */
export interface BatchFacts {
  planned: Batch
  /** Asked for when the mould was not full. */
  topUp: boolean
  /** What is in the bowl by the record, corrections and slurry check included, g; undefined until it is weighed. */
  inBowl: InBowl
  /** What that makes. */
  actual: WeighOut | undefined
  /** What the weighing has to say: far from the plan, or too little water to harden. */
  issues: Issue<PourIssueCode>[]
  doneAtMs: DoneAt
  siftS: number
  /** Mid-sprinkle, when this bowl's clock starts, ms; undefined while it is dry. */
  settingStartMs: number | undefined
  settingInput: SettingInput
  /** When it was in the mould, s since mid-sprinkle; as it follows from the record or, until then, from the plan. */
  pouredAtS: number
}

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

/** When the bowl's slurry was in or on the mould, ms. */
export function filledMs({ pour, build }: DoneAt): number | undefined {
  return pour ?? build
}

/** Mid-sprinkle from whichever of the wet steps were recorded, planned durations standing in for the rest. */
function midSprinkleMs(plan: PourPlan, done: DoneAt, siftS: number): number | undefined {
  const halfSiftMs = siftS * 500
  if (done.start_sift !== undefined && done.sift !== undefined) return (done.start_sift + done.sift) / 2
  if (done.start_sift !== undefined) return done.start_sift + halfSiftMs
  if (done.sift !== undefined) return done.sift - halfSiftMs
  const beforeSoakEndMs = halfSiftMs + soakTimeS(plan) * 1000
  if (done.soak !== undefined) return done.soak - beforeSoakEndMs
  const stirred = done.stir ?? filledMs(done) ?? done.tap ?? done.level
  return stirred === undefined ? undefined : stirred - beforeSoakEndMs - plan.stirS * 1000
}

/** A mix that is measured wrongly may still be more than nothing: what the models need at the least. */
const LEAST_MASS_G = 0.1

/** What was put right since, with its sign. */
function corrected(
  massG: number,
  since: readonly PourEvent[],
  more: 'water_in' | 'powder_in',
  less: 'water_out' | 'powder_out',
): number {
  const sum = since.reduce((total, { body }) => {
    if (body.type !== 'corrected') return total
    return total + (body.how === more ? body.massG : body.how === less ? -body.massG : 0)
  }, massG)
  return Math.max(LEAST_MASS_G, sum)
}

function lastWeighing(events: readonly PourEvent[], what: WeighedWhat) {
  const at = events.findLastIndex((e) => e.body.type === 'weighed' && e.body.what === what)
  const body = events[at]?.body
  return body?.type === 'weighed' ? { at, massG: body.massG } : undefined
}

interface InBowl {
  waterG: number | undefined
  powderG: number | undefined
  checked: Range | undefined
  /** What the caster said of the plaster where far more or less water is in than planned; undefined while nothing was. */
  follows: boolean | undefined
}

/** So much water more or less plaster follows by itself: a few grams do not matter (common practice, no source). */
const FOLLOWS_BY_ITSELF = 0.03

const waterShare = ({ planned, inBowl }: Pick<BatchFacts, 'planned' | 'inBowl'>) =>
  (inBowl.waterG ?? planned.waterG) / planned.waterG

/** Far more or less water is in than planned, and nobody has said yet what is weighed to it. */
export function asksWhatFollows(bowl: Pick<BatchFacts, 'planned' | 'inBowl'>): boolean {
  const { follows, powderG } = bowl.inBowl
  return follows === undefined && powderG === undefined && Math.abs(waterShare(bowl) - 1) > FOLLOWS_BY_ITSELF
}

/** By how much what is weighed after the water is more or less than planned. */
export function followsWaterBy(bowl: Pick<BatchFacts, 'planned' | 'inBowl'>): number {
  const share = waterShare(bowl)
  return (bowl.inBowl.follows ?? Math.abs(share - 1) <= FOLLOWS_BY_ITSELF) ? share : 1
}

function inBowlOf(plan: PourPlan, events: readonly PourEvent[]): InBowl {
  // Water weighed anew, or put right, is another question.
  const answerAt = events.findLastIndex((e) => e.body.type === 'powder_follows')
  const waterAt = events.findLastIndex(
    ({ body }) =>
      (body.type === 'weighed' && body.what === 'water') ||
      (body.type === 'corrected' && body.how.startsWith('water')),
  )
  const answer = answerAt > waterAt ? events[answerAt]!.body : undefined
  return {
    ...weighedInto(plan, events),
    follows: answer?.type === 'powder_follows' ? answer.follows : undefined,
  }
}

/**
 * What is in a bowl by the record: the last weighings and what was put right after them. A slurry check replaces what
 * the scale said of the water, not of the plaster, and is put right after in its turn.
 */
function weighedInto(plan: PourPlan, events: readonly PourEvent[]): Omit<InBowl, 'follows'> {
  const powderIn = (upTo: readonly PourEvent[]) => {
    const weighed = lastWeighing(upTo, 'powder')
    return weighed && corrected(weighed.massG, upTo.slice(weighed.at + 1), 'powder_in', 'powder_out')
  }
  const powderG = powderIn(events)
  const water = lastWeighing(events, 'water')
  const waterG = water && corrected(water.massG, events.slice(water.at + 1), 'water_in', 'water_out')
  const checkAt = events.findLastIndex((e) => e.body.type === 'slurry_checked')
  const check = events[checkAt]?.body
  if (check?.type !== 'slurry_checked') return { waterG, powderG, checked: undefined }
  const checked = checkSlurry(mixInputOf(plan), check.massG, check.volumeMl)
  const powderThenG = powderIn(events.slice(0, checkAt))
  if (!checked || powderThenG === undefined) return { waterG, powderG, checked: undefined }
  const waterThenG = powderThenG * (checked.mid / 100 - (plan.plaster.properties.admixWaterRatio ?? 0))
  return {
    waterG: corrected(waterThenG, events.slice(checkAt + 1), 'water_in', 'water_out'),
    powderG,
    checked,
  }
}

function weighingIssues(plan: PourPlan, actual: WeighOut | undefined): Issue<PourIssueCode>[] {
  if (!actual) return []
  const issues: Issue<PourIssueCode>[] = checkConsistency(actual.consistency, plan.plaster.properties)
  if (Math.abs(actual.consistency / plan.consistency - 1) > CONSISTENCY_TOLERANCE) {
    issues.push({
      code: 'weighed_off_plan',
      severity: 'warning',
      path: 'consistency',
      actual: actual.consistency,
      limit: plan.consistency,
      unit: 'parts of water to 100 of plaster',
    })
  }
  return issues
}

/**
 * Temperature of a bowl's slurry as it was read while it was one: after its powder met water and before its working time
 * ended. Later readings are of the piece, and move no start.
 * @param untilS end of the working time by what is known without it, s since mid-sprinkle.
 */
function slurryTempC(
  events: readonly PourEvent[],
  settingStartMs: number | undefined,
  metWaterMs: number | undefined,
  untilS: number,
): number | undefined {
  if (settingStartMs === undefined) return undefined
  const fromMs = Math.min(settingStartMs, metWaterMs ?? settingStartMs)
  const untilMs = settingStartMs + untilS * 1000
  const found = events.findLast(
    ({ body, occurredAtMs }) =>
      body.type === 'temperature' &&
      body.place === 'slurry' &&
      occurredAtMs >= fromMs &&
      occurredAtMs < untilMs,
  )
  return found?.body.type === 'temperature' ? found.body.tempC : undefined
}

/** When stirring began, ms: at the end of the soak, or where there is none, once the powder was in. */
export function stirFrom(plan: PourPlan, done: DoneAt): number | undefined {
  return done.soak ?? (soakTimeS(plan) === 0 ? (done.sift ?? done.start_sift) : undefined)
}

interface Bowl {
  planned: Batch
  topUp: boolean
  /** Events of this bowl, and what was done of it. */
  events: readonly PourEvent[]
  doneAtMs: DoneAt
}

function foldBatch(
  plan: PourPlan,
  { planned, topUp, events, doneAtMs }: Bowl,
  scaleFailed: boolean,
): BatchFacts {
  const inBowl = inBowlOf(plan, events)
  const { waterG, powderG, checked } = inBowl
  const actual =
    waterG === undefined || powderG === undefined
      ? undefined
      : weighOutFromMasses(mixInputOf(plan), powderG, waterG)
  const issues = weighingIssues(plan, actual)
  // A mix that cannot harden has no forecast of its own: the plan's stands, and the issue says so.
  const sound = actual !== undefined && issues.every((i) => i.severity !== 'error')
  const consistency = sound ? actual.consistency : plan.consistency
  const siftS = siftTimeS(plan, sound ? actual.powderG : planned.powderG)
  const settingStartMs = midSprinkleMs(plan, doneAtMs, siftS)
  const stirred = events.find((e) => e.body.type === 'stirred')?.body
  const stirFromMs = stirFrom(plan, doneAtMs)
  const reckoned: SettingInput = {
    plaster: plan.plaster.properties,
    consistency,
    mixTempC: mixTempC(consistency, plan.waterTempC, plan.powderTempC, plan.plaster.properties.fillerRatio),
    stirS:
      stirFromMs !== undefined && doneAtMs.stir !== undefined
        ? Math.max(0, (doneAtMs.stir - stirFromMs) / 1000)
        : plan.stirS,
    stirManner: stirred?.type === 'stirred' ? stirred.manner : plan.stirManner,
    restS:
      settingStartMs !== undefined && doneAtMs.soak !== undefined
        ? Math.max(0, (doneAtMs.soak - settingStartMs) / 1000)
        : siftS / 2 + soakTimeS(plan),
    ratioSigmaLn: checked
      ? Math.log(checked.high / checked.low) / 2.56
      : ratioSigmaLn(
          scaleFailed ? { ratioMethod: 'by_volume', ...(plan.scoop ? { scoop: plan.scoop } : {}) } : plan,
        ),
  }
  const untilS = workingTimeS(reckoned).mid
  const measuredC = slurryTempC(events, settingStartMs, doneAtMs.start_sift, untilS)
  const settingInput = measuredC === undefined ? reckoned : { ...reckoned, mixTempC: measuredC }
  const pouredMs = filledMs(doneAtMs)
  return {
    planned,
    topUp,
    inBowl,
    actual,
    issues,
    doneAtMs,
    siftS,
    settingStartMs,
    settingInput,
    pouredAtS:
      pouredMs !== undefined && settingStartMs !== undefined
        ? Math.max(0, (pouredMs - settingStartMs) / 1000)
        : settingInput.restS + settingInput.stirS,
  }
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

/**
 * Plan plus events, folded. Any order of arrival and any duplication of events give the same facts, and voiding
 * an event gives the facts from before it (property tests).
 * @param revision of the plan as it stands: what was weighed for an earlier one is set apart.
 */
export function foldPour(plan: KeptPlan, events: readonly PourEvent[], revision = 1): PourFacts {
  const all = liveEvents(events)
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
  const doneOfBowls = bowls.map((_, i) => doneOf(done, steps, i))
  const startsMs = doneOfBowls.map((d) => d.start_sift ?? d.sift)
  const batches = bowls.map((bowl, i) => {
    const events = live.filter((e) => bowlOfEvent(e, startsMs) === i)
    return foldBatch(plan, { ...bowl, events, doneAtMs: doneOfBowls[i]! }, scaleFailed)
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
