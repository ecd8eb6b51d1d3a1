import { randomUUID } from 'node:crypto'
import { dryingCurve, dryingDepths, fractionLeftAt } from '../../core/drying'
import { mixProperties } from '../../core/mix'
import {
  bodyOfStep,
  keepPlan,
  outlookFrom,
  stageOf,
  stepTakesS,
  type EventBody,
  type PlanStep,
  type PourEvent,
  type PourOutlook,
  type PourPlan,
  type StepId,
} from '../../core/pour'

/** What was done and when, s before or after the moment the demo is loaded. */

export const MIN = 60
export const HOUR = 3600
export const DAY = 24 * HOUR

type Pace = Pick<PourPlan, 'soakS' | 'stirS' | 'stirManner'>
export type Timed = [atS: number, who: string, body: EventBody]

/** How long after the one before a step was done, s, where it is not what is reckoned for it. */
const AFTER_S: Partial<Record<StepId, number | ((pace: Pace) => number)>> = {
  key_layer: 3 * MIN,
  check_air: MIN,
  weigh_water: 4 * MIN,
  weigh_powder: 3 * MIN,
  weigh_filler: 2 * MIN,
  start_sift: MIN,
  soak: (pace) => pace.soakS + 8,
  stir: (pace) => pace.stirS + 5,
  face_coat: 25,
  part_fill: 20,
  thicken: 4 * MIN,
  build: 3 * MIN,
  pour: 70,
  roughen: 40,
}
/** What was weighed of a bowl: a gram or two beside the plan, g. */
const WEIGHED_G: Partial<Record<StepId, (planned: PourOutlook['inHand']['planned']) => number>> = {
  weigh_water: ({ waterG }) => waterG + 1,
  weigh_powder: ({ powderG }) => powderG - 2,
  weigh_filler: ({ fillerG }) => fillerG,
}

/** What a step of a plan records, and how long after the one before. */
function stepDone(facts: PourOutlook, step: PlanStep, pace: Pace): [afterS: number, body: EventBody] {
  const after = AFTER_S[step.id] ?? stepTakesS(facts, step)
  const massG = WEIGHED_G[step.id]?.(facts.batches[step.batch]!.planned) ?? NaN
  const body = bodyOfStep(step, { massG, stirManner: pace.stirManner })
  if (!body) throw new Error(`what ${step.id} records is asked`)
  return [typeof after === 'number' ? after : after(pace), body]
}

/** The wet steps in order, up to one of them, the last `lastDoneS` ago, at the planned pace or another. */
export function run(of: PourPlan, who: string, upTo: StepId, lastDoneS: number, pace: Pace = of): Timed[] {
  const facts = outlookFrom(keepPlan(of), [])
  const end = facts.steps.findLastIndex((s) => s.id === upTo)
  const done = facts.steps.slice(0, end + 1).map((s) => stepDone(facts, s, pace))
  let at = -lastDoneS - done.slice(1).reduce((sum, [afterS]) => sum + afterS, 0)
  return done.map(([afterS, body], i) => {
    at += i === 0 ? 0 : afterS
    return [at, who, body]
  })
}

/** The last thing done before it is left to set. */
const lastWet = (of: PourPlan): StepId =>
  outlookFrom(keepPlan(of), []).steps.findLast((s) => stageOf(s) === 'pour')!.id

/** As the log would hold them. */
export function toEvents(nowMs: number, timed: readonly Timed[]): PourEvent[] {
  return timed.map(([atS, who, body]) => ({
    id: randomUUID(),
    occurredAtMs: Math.round(nowMs + atS * 1000),
    who,
    body,
  }))
}

/** A whole wet run that ended so long ago that demoulding falls due in `inS`. */
export function settingDueIn(of: PourPlan, who: string, inS: number, pace: Pace = of): Timed[] {
  const last = lastWet(of)
  const facts = outlookFrom(keepPlan(of), toEvents(0, run(of, who, last, 0, pace)))
  const dueS = facts.settingStartMs! / 1000 + facts.demould.recommendedS
  return run(of, who, last, dueS - inS, pace)
}

/** Out of the mould `agoS` ago, after a whole wet run and its wait. */
export function demouldedAgo(of: PourPlan, who: string, agoS: number, pace: Pace = of): Timed[] {
  const wet = settingDueIn(of, who, -5 * MIN, pace).map(([atS, w, body]): Timed => [atS - agoS, w, body])
  return [...wet, [-agoS, who, { type: 'demoulded', outcome: 'whole' }]]
}

/** Weighings as this shed's air would give them: a little slower than the class default. */
export function weighings(of: PourPlan, who: string, demouldAgoS: number, atS: readonly number[]): Timed[] {
  const mix = mixProperties({ ...of, plaster: of.plaster.properties })
  const powderG = of.mould.cavityMl / mix.slurryMlPerG
  const curve = dryingCurve({
    freeWaterKgM3: mix.freeWaterKgM3,
    ...dryingDepths(of.mould.thicknessMm, of.dryingExposure),
    air: of.air,
    speedFactor: 0.8,
  })
  return atS.map((s, i) => [
    s - demouldAgoS,
    who,
    {
      type: 'weighing',
      massG: Math.round(
        powderG * (mix.dryMassPerPowder * 0.995 + mix.freeWaterPerPowder * fractionLeftAt(curve, s)) +
          (i % 2),
      ),
    },
  ])
}
