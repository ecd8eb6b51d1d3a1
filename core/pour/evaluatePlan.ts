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
  blendWater,
  checkConsistency,
  compressiveStrengthMPa,
  mixProperties,
  mixTempC,
  ratioRange,
  type BatchIssueCode,
  type BatchPlan,
  type MixProperties,
  type WaterBlend,
  type WeighOut,
} from '../mix'
import { checkAdditions, type AdditionIssueCode } from '../plaster'
import type { Range } from '../provenance'
import { forecastSetting, type SettingForecast } from '../setting'
import { costOf, type Cost } from '../stock'
import { batchesOf, flowOf, mixInputOf, settingInputOf, type Flow } from './mixing'
import { castsOf, longestSideOf, siftTimeS, type PourPlan } from './plan'
import { suitabilityOf, type Suitability } from './suits'

export type PlanIssueCode =
  | ReturnType<typeof checkConsistency>[number]['code']
  | 'mix_too_warm'
  | 'mix_too_cold'
  | 'working_time_shorter_than_steps'
  | 'air_too_damp'
  | 'air_too_hot'
  | 'piece_too_thin'
  | 'stirring_into_the_set'
  | 'tap_cannot_reach'
  | 'scale_too_coarse'
  | BatchIssueCode
  | AdditionIssueCode
  | ThicknessCode

/** What the plan comes to: everything here is computed, nothing of it is stored. */
export interface PlanOutcome {
  /** The mix as it is meant. */
  mix: MixProperties
  /** The whole job; its bowls are in `batching`. */
  weighOut: WeighOut
  batching: BatchPlan
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
  /** By how well volume and densities are known, g. */
  dryMassRangeG: Range
  /** Pores of the dry piece, 0–1, by how well the ratio is met. */
  porosity: Range
  strength: { dry: Range; wetOneHour: Range }
  drying: DryingForecast
  /** Fraction of free water that may be left when the piece is dry enough. */
  targetFractionLeft: number
  /** Time from demoulding to dry enough, s. */
  dryS: Range
  /** How much longer it gets as it sets, on the longest side of the piece, mm; undefined where no form tells. */
  growthMm: number | undefined
  flow: Flow
  /** How much of each tap; undefined where one tap serves. */
  waterBlend: WaterBlend | undefined
  /** Whether this mix does what each piece is for. */
  suits: Suitability[]
  /** Undefined where the bag has no price. */
  cost: Cost | undefined
}

export type PlanEvaluation =
  | { ok: true; outcome: PlanOutcome; issues: Issue<PlanIssueCode>[] }
  | { ok: false; issues: Issue<PlanIssueCode>[] }

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
/** Rounding to the scale may move the ratio this far before it is said. */
const COARSE = 0.05

const issueOf = (
  code: PlanIssueCode,
  severity: Issue['severity'],
  path: string,
  actual: number,
  limit: number,
  unit: string,
): Issue<PlanIssueCode> => ({ code, severity, path, actual, limit, unit })

function planIssues(plan: PourPlan): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = [...checkConsistency(plan.consistency, plan.plaster.properties)]
  const add = (...of: Parameters<typeof issueOf>) => issues.push(issueOf(...of))
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
  issues.push(...checkAdditions(plan.plaster.additions ?? []))
  return issues
}

/** Time enough to pour, and no stirring planned into the set: crystals broken then do not grow together again. */
function timeIssues(
  plan: PourPlan,
  stirEndS: number,
  pourWindowS: Range,
  setting: SettingForecast,
): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = []
  if (pourWindowS.mid < 60)
    issues.push(issueOf('working_time_shorter_than_steps', 'warning', 'stirS', pourWindowS.mid, 60, 's'))
  const spareS = setting.timeS.initial_set.mid - (stirEndS - plan.stirS)
  if (plan.stirS >= spareS)
    issues.push(issueOf('stirring_into_the_set', 'warning', 'stirS', plan.stirS, Math.max(0, spareS), 's'))
  return issues
}

/** What the scale and the taps cannot do. */
function toolIssues(
  plan: PourPlan,
  weighOut: WeighOut,
  waterBlend: WaterBlend | undefined,
  mixC: number,
): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = []
  const { consistency, taps } = plan
  if (Math.abs(weighOut.consistency / consistency - 1) > COARSE)
    issues.push(
      issueOf(
        'scale_too_coarse',
        'warning',
        'scaleDivisionG',
        weighOut.consistency,
        consistency,
        'parts of water to 100 of plaster',
      ),
    )
  if (taps && waterBlend?.limit)
    issues.push(issueOf('tap_cannot_reach', 'warning', 'taps.targetTempC', taps.targetTempC, mixC, '°C'))
  return issues
}

/** Densities are good to this (docs/science.md#mix). */
const DENSITY_OFF_BY = 0.03

function dryMassRange({ mould }: PourPlan, mid: number): Range {
  const off = Math.hypot(DENSITY_OFF_BY, (mould.plusMinusMl ?? 0) / mould.cavityMl)
  return { low: mid * (1 - off), mid, high: mid * (1 + off) }
}

function porosityRange(plan: PourPlan, mix: MixProperties): Range {
  const ratio = ratioRange(plan, plan.consistency)
  const at = (consistency: number) => mixProperties({ ...mixInputOf(plan), consistency }).porosity
  return { low: at(ratio.low), mid: mix.porosity, high: at(ratio.high) }
}

function waterBlendOf(plan: PourPlan, waterG: number): WaterBlend | undefined {
  if (!plan.taps) return undefined
  return blendWater({
    consistency: plan.consistency,
    fillerRatio: plan.plaster.properties.fillerRatio,
    powderTempC: plan.powderTempC,
    waterG,
    ...plan.taps,
  })
}

function planCost(plan: PourPlan, weighOut: WeighOut): Cost | undefined {
  const { bag } = plan.plaster
  if (!bag || bag.price === null) return undefined
  return costOf({
    price: bag.price,
    boughtG: bag.boughtG,
    powderG: weighOut.powderG,
    casts: castsOf(plan),
    slurryMl: weighOut.slurryMl,
  })
}

/**
 * The whole worksheet at once: what to weigh, when it sets, what it becomes, when it is dry.
 * Pure and cheap enough to run while a slider is dragged (see docs/performance.md).
 * @returns ok false when an issue of severity `error` makes the figures meaningless.
 */
export function evaluatePlan(plan: PourPlan): PlanEvaluation {
  const issues = planIssues(plan)
  if (issues.some((i) => i.severity === 'error')) return { ok: false, issues }
  const batching = batchesOf(plan)
  issues.push(...batching.issues)
  if (batching.batches.length === 0) return { ok: false, issues }
  const weighOut = batching.total
  const largest = batching.batches.reduce((a, b) => (b.slurryMl > a.slurryMl ? b : a))
  const siftS = siftTimeS(plan, largest.powderG)
  const settingInput = settingInputOf(plan, largest.powderG)
  const setting = forecastSetting(settingInput)
  const stirEndS = settingInput.restS + plan.stirS
  const work = setting.timeS.work_end
  const pourWindowS = { low: work.low - stirEndS, mid: work.mid - stirEndS, high: work.high - stirEndS }
  const waterBlend = waterBlendOf(plan, weighOut.waterG)
  issues.push(...timeIssues(plan, stirEndS, pourWindowS, setting))
  issues.push(...toolIssues(plan, weighOut, waterBlend, settingInput.mixTempC))
  // What it becomes is told of the mix that is meant: rounding a spoonful to a coarse scale can make it impossible.
  const mix = mixProperties(mixInputOf(plan))
  const strength = compressiveStrengthMPa(mix.porosity, plan.plaster.properties.strengthFactor)
  const longestMm = longestSideOf(plan)
  const piece = pieceDrying(plan, mix, [])
  return {
    ok: true,
    issues,
    outcome: {
      mix,
      weighOut,
      batching,
      leftover: placeLeftover(weighOut.slurryMl - plan.mould.cavityMl, plan.spill ?? []),
      mixTempC: settingInput.mixTempC,
      siftS,
      setting,
      demould: forecastDemould(settingInput, setting, plan.mould.kind),
      pourWindowS,
      dryMassG: piece.dryMassG,
      wetMassG: piece.dryMassG + piece.freeWaterG,
      dryMassRangeG: dryMassRange(plan, piece.dryMassG),
      porosity: porosityRange(plan, mix),
      strength,
      drying: piece.forecast,
      targetFractionLeft: piece.targetLeft,
      dryS: piece.forecast.timeToFractionS(piece.targetLeft),
      growthMm:
        longestMm === undefined ? undefined : (longestMm * plan.plaster.properties.expansionPct) / 100,
      flow: flowOf(plan, plan.consistency, setting, Math.max(0, stirEndS)),
      waterBlend,
      suits: suitabilityOf(plan, mix, strength),
      cost: planCost(plan, weighOut),
    },
  }
}
