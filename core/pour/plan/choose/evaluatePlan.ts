import type { DemouldForecast } from '../../../demould'
import { WARMEST_SURFACE_C, timeToFractionS, type DryingForecast } from '../../../drying'
import type { Issue } from '../../../errors'
import { forecastSet, type SetProblem } from '../../../forecast'
import type { HeatMarks } from '../../../heat'
import { checkThickness, placeLeftover, type LeftoverPlan, type ThicknessCode } from '../../../mould'
import {
  blendWater,
  checkConsistency,
  compressiveStrengthMPa,
  mixProperties,
  ratioRange,
  type BatchIssueCode,
  type BatchPlan,
  type MixProperties,
  type WaterBlend,
  type WeighOut,
} from '../../../mix'
import { checkAdditions, type AdditionIssueCode } from '../../../plaster'
import type { Range } from '../../../provenance'
import type { SettingForecast } from '../../../setting'
import { costOf, type Cost } from '../../../stock'
import { HOTTEST_DRYING_AIR_C, airsOf, mixTempOf, refusalsOf, type RefusalCode } from '../limits'
import { pieceDrying, plannedSpot } from '../../drying'
import { plannedBowls } from '../kept'
import {
  flowOf,
  givesMl,
  largestOf,
  mixInputOf,
  pourWindowOf,
  type Flow,
  type PourWindow,
} from '../mix/mixing'
import { castsOf, longestSideOf, type PourPlan } from '../plan'
import { setProblemOf } from '../setProblem'
import { suitabilityOf, type Suitability } from './suits'

export type PlanIssueCode =
  | ReturnType<typeof checkConsistency>[number]['code']
  | RefusalCode
  | 'mix_too_warm'
  | 'mix_too_cold'
  | 'working_time_shorter_than_steps'
  | 'air_too_hot'
  | 'piece_too_thin'
  | 'thickness_outside_tested'
  | 'stirring_into_the_set'
  | 'tap_cannot_reach'
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
  /** How hot it gets, and when; `even` says whether its form is one the heat model knows. */
  heat: HeatMarks & { even: boolean }
  /** What that follows from, for whoever asks what if. */
  problem: SetProblem
  /** Time left for pouring once stirring ends, s, with its range; may be negative. The early end is what to go by. */
  pourWindowS: Range
  /** What pouring the largest bowl takes at the least, s. */
  pourNeedsS: number
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

/** What the piece weighs as it comes out of the mould, g: its cavity's worth of the mix. */
export function wetMassG(plan: PourPlan, mix: MixProperties): number {
  return (plan.mould.cavityMl / mix.slurryMlPerG) * (mix.dryMassPerPowder + mix.freeWaterPerPowder)
}

/** What the models of the mix were held against. */
const TESTED_MIX_C = { low: 2, high: 40 }
const TESTED_THICKNESS_MM = { low: 3, high: 200 }

const warning = (
  code: PlanIssueCode,
  path: string,
  actual: number,
  limit: number,
  unit: string,
): Issue<PlanIssueCode> => ({ code, severity: 'warning', path, actual, limit, unit })

/** What is computed all the same, but outside what is usual or tested. */
function planWarnings(plan: PourPlan): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = [...checkConsistency(plan.consistency, plan.plaster.properties)]
  const warn = (...of: Parameters<typeof warning>) => issues.push(warning(...of))
  const mixC = mixTempOf(plan)
  const { thicknessMm } = plan.mould
  if (mixC > TESTED_MIX_C.high) warn('mix_too_warm', 'waterTempC', mixC, TESTED_MIX_C.high, '°C')
  if (mixC < TESTED_MIX_C.low) warn('mix_too_cold', 'waterTempC', mixC, TESTED_MIX_C.low, '°C')
  const driesAtC = Math.max(...airsOf(plannedSpot(plan)).map((air) => air.tempC))
  if (driesAtC > WARMEST_SURFACE_C)
    warn('air_too_hot', plan.dryingPlace ? 'dryingPlace' : 'air.tempC', driesAtC, HOTTEST_DRYING_AIR_C, '°C')
  if (thicknessMm < 5) warn('piece_too_thin', 'mould.thicknessMm', thicknessMm, 5, 'mm')
  for (const limit of [TESTED_THICKNESS_MM.low, TESTED_THICKNESS_MM.high])
    if (limit === TESTED_THICKNESS_MM.low ? thicknessMm < limit : thicknessMm > limit)
      warn('thickness_outside_tested', 'mould.thicknessMm', thicknessMm, limit, 'mm')
  for (const member of plan.mould.members ?? []) {
    const found = checkThickness(member.purpose, member.thinnestMm ?? thicknessMm)
    issues.push(...found.filter((i) => !issues.some((known) => known.code === i.code)))
  }
  issues.push(...checkAdditions(plan.plaster.additions ?? [], plan.water))
  return issues
}

/** Time enough to pour, and no stirring planned into the set: crystals broken then do not grow together again. */
function timeIssues(
  plan: PourPlan,
  { windowS, neededS, stirEndS, bowlInitialSetS }: PourWindow,
): Issue<PlanIssueCode>[] {
  const issues: Issue<PlanIssueCode>[] = []
  // Too late is a lost pour: the early end of the range counts.
  if (windowS.low < neededS)
    issues.push(warning('working_time_shorter_than_steps', 'stirS', windowS.low, neededS, 's'))
  const spareS = bowlInitialSetS - (stirEndS - plan.stirS)
  if (plan.stirS >= spareS)
    issues.push(warning('stirring_into_the_set', 'stirS', plan.stirS, Math.max(0, spareS), 's'))
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
  const refused = refusalsOf(plan)
  if (refused.length > 0) return { ok: false, issues: refused }
  const batching = plannedBowls(plan)
  const issues = [...planWarnings(plan), ...batching.issues]
  if (batching.batches.length === 0) return { ok: false, issues }
  const weighOut = batching.total
  const window = pourWindowOf(plan, largestOf(batching.batches))
  const { settingInput, siftS, stirEndS, windowS: pourWindowS } = window
  const problem = setProblemOf(plan, settingInput, Math.max(0, stirEndS), false)
  const { setting, demould, marks } = forecastSet(problem)
  const waterBlend = waterBlendOf(plan, weighOut.waterG)
  issues.push(...timeIssues(plan, window))
  if (plan.taps && waterBlend?.limit)
    issues.push(
      warning('tap_cannot_reach', 'taps.targetTempC', plan.taps.targetTempC, settingInput.mixTempC, '°C'),
    )
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
      leftover: placeLeftover(givesMl(plan, weighOut.slurryMl) - plan.mould.cavityMl, plan.spill ?? []),
      mixTempC: settingInput.mixTempC,
      siftS,
      setting,
      demould,
      heat: { ...marks, even: problem.even },
      problem,
      pourWindowS,
      pourNeedsS: window.neededS,
      dryMassG: piece.dryMassG,
      wetMassG: wetMassG(plan, mix),
      dryMassRangeG: dryMassRange(plan, piece.dryMassG),
      porosity: porosityRange(plan, mix),
      strength,
      drying: piece.forecast,
      targetFractionLeft: piece.targetLeft,
      dryS: timeToFractionS(piece.forecast, piece.targetLeft),
      growthMm:
        longestMm === undefined ? undefined : (longestMm * plan.plaster.properties.expansionPct) / 100,
      flow: flowOf(plan, plan.consistency, setting.timeS.work_end.mid, Math.max(0, stirEndS)),
      waterBlend,
      suits: suitabilityOf(plan, mix, strength),
      cost: planCost(plan, weighOut),
    },
  }
}
