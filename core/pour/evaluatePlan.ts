import { forecastDemould, type DemouldForecast } from '../demould'
import {
  dryingDepthMm,
  forecastDrying,
  targetFractionLeft,
  type DryingForecast,
  type Weighing,
} from '../drying'
import type { Issue } from '../errors'
import { checkThickness, placeLeftover, type LeftoverPlan, type ThicknessCode } from '../mould'
import {
  checkConsistency,
  compressiveStrengthMPa,
  mixTempC,
  ratioSigmaLn,
  weighOutForVolume,
  type MixInput,
  type MixProperties,
  type WeighOut,
} from '../mix'
import type { Range } from '../provenance'
import { forecastSetting, type SettingForecast, type SettingInput } from '../setting'
import { siftTimeS, type PourPlan } from './plan'

export type PlanIssueCode =
  | ReturnType<typeof checkConsistency>[number]['code']
  | 'mix_too_warm'
  | 'mix_too_cold'
  | 'working_time_shorter_than_steps'
  | 'air_too_damp'
  | 'air_too_hot'
  | 'piece_too_thin'
  | ThicknessCode

/** What the plan comes to: everything here is computed, nothing of it is stored. */
export interface PlanOutcome {
  weighOut: WeighOut
  /** What the mould does not take, and where it goes. */
  leftover: LeftoverPlan
  mixTempC: number
  siftS: number
  setting: SettingForecast
  demould: DemouldForecast
  /** Time left for pouring once stirring ends, s, with its range; may be negative. */
  pourWindowS: Range
  dryMassG: number
  wetMassG: number
  strength: { dry: Range; wetOneHour: Range }
  drying: DryingForecast
  /** Fraction of free water that may be left when the piece is dry enough. */
  targetFractionLeft: number
  /** Time from demoulding to dry enough, s. */
  dryS: Range
}

export type PlanEvaluation =
  | { ok: true; outcome: PlanOutcome; issues: Issue<PlanIssueCode>[] }
  | { ok: false; issues: Issue<PlanIssueCode>[] }

export function mixInputOf(plan: PourPlan): MixInput {
  return {
    plaster: plan.plaster.properties,
    consistency: plan.consistency,
    waterTempC: plan.waterTempC,
    airFraction: plan.airFraction,
  }
}

export function settingInputOf(plan: PourPlan, powderG: number): SettingInput {
  const { properties } = plan.plaster
  return {
    plaster: properties,
    consistency: plan.consistency,
    mixTempC: mixTempC(plan.consistency, plan.waterTempC, plan.powderTempC, properties.fillerRatio),
    stirS: plan.stirS,
    stirManner: plan.stirManner,
    restS: siftTimeS(powderG, properties.fillerRatio) / 2 + plan.soakS,
    ratioSigmaLn: ratioSigmaLn(plan),
  }
}

/** Drying of the piece itself: its cavity's worth of the mix, spare and leftovers not counted. */
export function pieceDrying(plan: PourPlan, mix: MixProperties, weighings: readonly Weighing[]) {
  const powderInPieceG = plan.mould.cavityMl / mix.slurryMlPerG
  const dryMassG = powderInPieceG * mix.dryMassPerPowder
  const freeWaterG = powderInPieceG * mix.freeWaterPerPowder
  const forecast = forecastDrying(
    {
      freeWaterKgM3: mix.freeWaterKgM3,
      depthMm: dryingDepthMm(plan.mould.thicknessMm, plan.dryingExposure),
      air: plan.air,
    },
    dryMassG,
    freeWaterG,
    weighings,
    plan.scaleDivisionG,
  )
  return {
    forecast,
    dryMassG,
    freeWaterG,
    targetLeft: targetFractionLeft(plan.dryTarget, mix.freeWaterOfDryMass),
  }
}

const MAX_DRYING_AIR_C = 45

function planIssues(plan: PourPlan): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = [...checkConsistency(plan.consistency, plan.plaster.properties)]
  const add = (
    code: PlanIssueCode,
    severity: Issue['severity'],
    path: string,
    actual: number,
    limit: number,
    unit: string,
  ) => issues.push({ code, severity, path, actual, limit, unit })
  const mixC = mixTempC(
    plan.consistency,
    plan.waterTempC,
    plan.powderTempC,
    plan.plaster.properties.fillerRatio,
  )
  if (mixC > 40) add('mix_too_warm', 'warning', 'waterTempC', mixC, 40, '°C')
  if (mixC < 2) add('mix_too_cold', 'error', 'waterTempC', mixC, 2, '°C')
  if (plan.air.rhPct >= 97) add('air_too_damp', 'error', 'air.rhPct', plan.air.rhPct, 97, '%')
  if (plan.air.tempC > MAX_DRYING_AIR_C)
    add('air_too_hot', 'warning', 'air.tempC', plan.air.tempC, MAX_DRYING_AIR_C, '°C')
  if (plan.mould.thicknessMm < 5)
    add('piece_too_thin', 'warning', 'mould.thicknessMm', plan.mould.thicknessMm, 5, 'mm')
  for (const member of plan.mould.members ?? []) {
    const found = checkThickness(member.purpose, member.thinnestMm ?? plan.mould.thicknessMm)
    issues.push(...found.filter((i) => !issues.some((known) => known.code === i.code)))
  }
  return issues
}

/**
 * The whole worksheet at once: what to weigh, when it sets, what it becomes, when it is dry.
 * Pure and cheap enough to run while a slider is dragged (see docs/performance.md).
 * @returns ok false when an issue of severity `error` makes the figures meaningless.
 */
export function evaluatePlan(plan: PourPlan): PlanEvaluation {
  const issues = planIssues(plan)
  if (issues.some((i) => i.severity === 'error')) return { ok: false, issues }
  const weighOut = weighOutForVolume(
    mixInputOf(plan),
    plan.mould.cavityMl,
    plan.sparePct,
    plan.scaleDivisionG,
  )
  const siftS = siftTimeS(weighOut.powderG, plan.plaster.properties.fillerRatio)
  const settingInput = settingInputOf(plan, weighOut.powderG)
  const setting = forecastSetting(settingInput)
  const stirEndS = settingInput.restS + plan.stirS
  const work = setting.timeS.work_end
  const pourWindowS = { low: work.low - stirEndS, mid: work.mid - stirEndS, high: work.high - stirEndS }
  if (pourWindowS.mid < 60) {
    issues.push({
      code: 'working_time_shorter_than_steps',
      severity: 'warning',
      path: 'stirS',
      actual: pourWindowS.mid,
      limit: 60,
      unit: 's',
    })
  }
  const mix = weighOut.properties
  const piece = pieceDrying(plan, mix, [])
  return {
    ok: true,
    issues,
    outcome: {
      weighOut,
      leftover: placeLeftover(weighOut.slurryMl - plan.mould.cavityMl, plan.spill ?? []),
      mixTempC: settingInput.mixTempC,
      siftS,
      setting,
      demould: forecastDemould(settingInput, setting, plan.mould.kind),
      pourWindowS,
      dryMassG: piece.dryMassG,
      wetMassG: piece.dryMassG + piece.freeWaterG,
      strength: compressiveStrengthMPa(mix.porosity, plan.plaster.properties.strengthFactor),
      drying: piece.forecast,
      targetFractionLeft: piece.targetLeft,
      dryS: piece.forecast.timeToFractionS(piece.targetLeft),
    },
  }
}
