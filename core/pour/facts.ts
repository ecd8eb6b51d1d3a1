import { forecastDemould, type DemouldForecast } from '../demould'
import type { DryingForecast, Weighing } from '../drying'
import type { Issue } from '../errors'
import {
  checkConsistency,
  mixTempC,
  ratioSigmaLn,
  weighOutForVolume,
  weighOutFromMasses,
  type WeighOut,
} from '../mix'
import { forecastSetting, type SettingForecast, type SettingInput } from '../setting'
import { mixInputOf, pieceDrying } from './evaluatePlan'
import { liveEvents, type PourEvent, type Verdict } from './events'
import { siftTimeS, type PourPlan } from './plan'
import { stepCompletedBy, stepsOf, type StepId } from './steps'

export type PourIssueCode = ReturnType<typeof checkConsistency>[number]['code'] | 'weighed_off_plan'

/** A few grams do not matter; ten percent does (common practice, no source). */
const CONSISTENCY_TOLERANCE = 0.1

/** All that plan and events say, whatever the time is now. */
export interface PourFacts {
  plan: PourPlan
  live: PourEvent[]
  /** When each step was done, ms; where it was recorded twice, the first time counts. */
  doneAtMs: Partial<Record<StepId, number>>
  /** The step in hand; undefined once finished. */
  step: StepId | undefined
  /** Planned weigh-out, and what was really weighed where both masses are known. */
  planned: WeighOut
  actual: WeighOut | undefined
  /** What the weighing has to say: far from the plan, or too little water to harden. */
  issues: Issue<PourIssueCode>[]
  siftS: number
  /** Mid-sprinkle, when the plaster's clock starts, ms; undefined while it is dry. */
  settingStartMs: number | undefined
  settingInput: SettingInput
  setting: SettingForecast
  demould: DemouldForecast
  drying:
    | {
        startMs: number
        weighings: Weighing[]
        forecast: DryingForecast
        targetLeft: number
      }
    | undefined
  verdict: { verdict: Verdict; reason: string; atMs: number } | undefined
}

function firstDoneAt(live: readonly PourEvent[]): PourFacts['doneAtMs'] {
  const done: PourFacts['doneAtMs'] = {}
  for (const event of live) {
    const step = stepCompletedBy(event.body)
    if (step !== undefined) done[step] ??= event.occurredAtMs
  }
  return done
}

/** A forgotten tap does not hold the pour up: the step in hand follows the furthest one done. */
function stepInHand(plan: PourPlan, done: PourFacts['doneAtMs']): StepId | undefined {
  const steps = stepsOf(plan)
  const furthest = steps.findLastIndex((s) => done[s] !== undefined)
  return steps[furthest + 1]
}

function lastMassG(live: readonly PourEvent[], what: 'water' | 'powder'): number | undefined {
  const found = live.findLast((e) => e.body.type === 'weighed' && e.body.what === what)
  return found?.body.type === 'weighed' ? found.body.massG : undefined
}

/** Mid-sprinkle from whichever of the wet steps were recorded, planned durations standing in for the rest. */
function midSprinkleMs(plan: PourPlan, done: PourFacts['doneAtMs'], siftS: number): number | undefined {
  const halfSiftMs = siftS * 500
  if (done.start_sift !== undefined && done.sift !== undefined) return (done.start_sift + done.sift) / 2
  if (done.start_sift !== undefined) return done.start_sift + halfSiftMs
  if (done.sift !== undefined) return done.sift - halfSiftMs
  const beforeSoakEndMs = halfSiftMs + plan.soakS * 1000
  if (done.soak !== undefined) return done.soak - beforeSoakEndMs
  const stirred = done.stir ?? done.pour ?? done.tap
  return stirred === undefined ? undefined : stirred - beforeSoakEndMs - plan.stirS * 1000
}

function measuredSlurryTempC(live: readonly PourEvent[]): number | undefined {
  const found = live.findLast((e) => e.body.type === 'temperature' && e.body.place === 'slurry')
  return found?.body.type === 'temperature' ? found.body.tempC : undefined
}

function settingInputFromEvents(
  plan: PourPlan,
  live: readonly PourEvent[],
  done: PourFacts['doneAtMs'],
  consistency: number,
  siftS: number,
  startMs: number | undefined,
): SettingInput {
  const stirEvent = live.find((e) => e.body.type === 'stirred')
  const stirManner = stirEvent?.body.type === 'stirred' ? stirEvent.body.manner : plan.stirManner
  const stirS =
    done.soak !== undefined && done.stir !== undefined
      ? Math.max(0, (done.stir - done.soak) / 1000)
      : plan.stirS
  const restS =
    startMs !== undefined && done.soak !== undefined
      ? Math.max(0, (done.soak - startMs) / 1000)
      : siftS / 2 + plan.soakS
  return {
    plaster: plan.plaster.properties,
    consistency,
    mixTempC:
      measuredSlurryTempC(live) ??
      mixTempC(consistency, plan.waterTempC, plan.powderTempC, plan.plaster.properties.fillerRatio),
    stirS,
    stirManner,
    restS,
    ratioSigmaLn: ratioSigmaLn(plan),
  }
}

function dryingFromEvents(
  plan: PourPlan,
  live: readonly PourEvent[],
  startMs: number | undefined,
  mix: WeighOut,
): PourFacts['drying'] {
  if (startMs === undefined) return undefined
  const weighings = live.flatMap((e) =>
    e.body.type === 'weighing' && e.occurredAtMs >= startMs
      ? [{ timeS: (e.occurredAtMs - startMs) / 1000, massG: e.body.massG }]
      : [],
  )
  const { forecast, targetLeft } = pieceDrying(plan, mix.properties, weighings)
  return { startMs, weighings, forecast, targetLeft }
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
 * Plan plus events, folded. Any order of arrival and any duplication of events give the same facts, and voiding
 * an event gives the facts from before it (property tests).
 */
export function foldPour(plan: PourPlan, events: readonly PourEvent[]): PourFacts {
  const live = liveEvents(events)
  const doneAtMs = firstDoneAt(live)
  const planned = weighOutForVolume(mixInputOf(plan), plan.mould.cavityMl, plan.sparePct, plan.scaleDivisionG)
  const waterG = lastMassG(live, 'water')
  const powderG = lastMassG(live, 'powder')
  const actual =
    waterG !== undefined && powderG !== undefined
      ? weighOutFromMasses(mixInputOf(plan), powderG, waterG)
      : undefined
  const issues = weighingIssues(plan, actual)
  // A mix that cannot harden has no forecast of its own: the plan's stands, and the issue says so.
  const mix = actual && issues.every((i) => i.severity !== 'error') ? actual : planned
  const siftS = siftTimeS(mix.powderG, plan.plaster.properties.fillerRatio)
  const settingStartMs = midSprinkleMs(plan, doneAtMs, siftS)
  const settingInput = settingInputFromEvents(plan, live, doneAtMs, mix.consistency, siftS, settingStartMs)
  const setting = forecastSetting(settingInput)
  const end = live.findLast((e) => e.body.type === 'finished')
  return {
    plan,
    live,
    doneAtMs,
    step: stepInHand(plan, doneAtMs),
    planned,
    actual,
    issues,
    siftS,
    settingStartMs,
    settingInput,
    setting,
    demould: forecastDemould(settingInput, setting, plan.mould.kind),
    drying: dryingFromEvents(plan, live, doneAtMs.demould, mix),
    verdict:
      end?.body.type === 'finished'
        ? { verdict: end.body.verdict, reason: end.body.reason, atMs: end.occurredAtMs }
        : undefined,
  }
}
