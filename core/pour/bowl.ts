import type { Issue } from '../errors'
import {
  SLURRY_TEMP_C,
  checkConsistency,
  checkSlurry,
  mixTempC,
  ratioSigmaLn,
  weighOutFromMasses,
  type Batch,
  type RatioWay,
  type WeighOut,
} from '../mix'
import type { Range } from '../provenance'
import { workingTimeS, type SettingInput } from '../setting'
import type { PourEvent, WeighedWhat } from './events'
import { mixInputOf } from './plan/mix/mixing'
import { siftTimeS, soakTimeS, type PourPlan } from './plan/plan'
import type { StepId } from './plan/steps'

export type PourIssueCode = ReturnType<typeof checkConsistency>[number]['code'] | 'weighed_off_plan'

/** A few grams do not matter; ten percent does (common practice, no source). */
const CONSISTENCY_TOLERANCE = 0.1

export type DoneAt = Partial<Record<StepId, number>>

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
  /** When the temperature was read that it goes by, ms; undefined where that is reckoned. */
  mixReadMs: number | undefined
  /** When it was in the mould, s since mid-sprinkle; as it follows from the record or, until then, from the plan. */
  pouredAtS: number
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
 * ended. Later readings are of the piece, and move no start. What no plan could have is no temperature of its mix either.
 * @param untilS end of the working time by what is known without it, s since mid-sprinkle.
 */
function slurryRead(
  events: readonly PourEvent[],
  settingStartMs: number | undefined,
  metWaterMs: number | undefined,
  untilS: number,
): { tempC: number; atMs: number } | undefined {
  if (settingStartMs === undefined) return undefined
  const fromMs = Math.min(settingStartMs, metWaterMs ?? settingStartMs)
  const untilMs = settingStartMs + untilS * 1000
  const found = events.findLast(
    ({ body, occurredAtMs }) =>
      body.type === 'temperature' &&
      body.place === 'slurry' &&
      body.tempC >= SLURRY_TEMP_C.least &&
      body.tempC <= SLURRY_TEMP_C.most &&
      occurredAtMs >= fromMs &&
      occurredAtMs < untilMs,
  )
  return found?.body.type === 'temperature'
    ? { tempC: found.body.tempC, atMs: found.occurredAtMs }
    : undefined
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

/** By what the ratio was really met. */
const RATIO_BY: Record<'as_planned' | 'by_volume' | 'doubted', (plan: PourPlan) => RatioWay> = {
  as_planned: (plan) => plan,
  by_volume: ({ scoop }) => ({ ratioMethod: 'by_volume', ...(scoop ? { scoop } : {}) }),
  doubted: () => ({ ratioMethod: 'by_eye' }),
}

/** One bowl from its events, and from what was done of it. */
export function foldBowl(
  plan: PourPlan,
  { planned, topUp, events, doneAtMs }: Bowl,
  measured: 'as_planned' | 'by_volume' | 'doubted',
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
      : ratioSigmaLn(RATIO_BY[measured](plan)),
  }
  const untilS = workingTimeS(reckoned).mid
  const mixRead = slurryRead(events, settingStartMs, doneAtMs.start_sift, untilS)
  const settingInput = mixRead === undefined ? reckoned : { ...reckoned, mixTempC: mixRead.tempC }
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
    mixReadMs: mixRead?.atMs,
    pouredAtS:
      pouredMs !== undefined && settingStartMs !== undefined
        ? Math.max(0, (pouredMs - settingStartMs) / 1000)
        : settingInput.restS + settingInput.stirS,
  }
}
