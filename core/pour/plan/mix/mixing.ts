import {
  largestBowl,
  mixProperties,
  mixTempC,
  planBatches,
  ratioSigmaLn,
  airThatStays,
  tappingAdvice,
  vibratedViscosityPaS,
  type BatchLimits,
  type BatchPlan,
  type MixInput,
  type Pace,
  type AirThatStays,
  type TappingAdvice,
} from '../../../mix'
import type { Range } from '../../../provenance'
import {
  effectiveConsistency,
  eventAlpha,
  timeInBowlS,
  workingTimeS,
  type SettingInput,
} from '../../../setting'
import { castsOf, depthOf, siftPace, siftTimeS, soakTimeS, type PourPlan } from '../plan'

export function mixInputOf(plan: PourPlan): MixInput {
  return {
    plaster: plan.plaster.properties,
    consistency: plan.consistency,
    waterTempC: plan.waterTempC,
    airFraction: plan.airFraction,
  }
}

/** @param powderG of one bowl: what is sifted at a time. */
export function settingInputOf(plan: PourPlan, powderG: number): SettingInput {
  const { properties } = plan.plaster
  return {
    plaster: properties,
    consistency: plan.consistency,
    mixTempC: mixTempC(plan.consistency, plan.waterTempC, plan.powderTempC, properties.fillerRatio),
    stirS: plan.stirS,
    stirManner: plan.stirManner,
    restS: siftTimeS(plan, powderG) / 2 + soakTimeS(plan),
    ratioSigmaLn: ratioSigmaLn(plan),
  }
}

const ONE_BOWL: BatchLimits = {
  split: { by: 'need' },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: null,
}

/** What the clock leaves a bowl of this much powder. */
export function paceOf(plan: PourPlan, powderG: number): Pace {
  return {
    workLowS: workingTimeS(settingInputOf(plan, powderG)).low,
    soakS: soakTimeS(plan),
    stirS: plan.stirS,
    ...siftPace(plan),
  }
}

/** What comes out of the plan's bowl of so much slurry in it, ml, by what that bowl has shown; all of it where nothing is known. */
export function givesMl({ learnt }: Pick<PourPlan, 'learnt'>, slurryMl: number): number {
  return slurryMl * (learnt?.slurryYield?.factor ?? 1)
}

/** The job and what limits its bowls, as the plan has them. */
function jobOf(plan: PourPlan) {
  const job = {
    // A bowl that gives less than it should has to be given more.
    cavityMl: plan.mould.cavityMl / givesMl(plan, 1),
    sparePct: plan.sparePct,
    casts: castsOf(plan),
    divisionG: plan.scaleDivisionG,
  }
  const limits = plan.batching ?? ONE_BOWL
  const pourRateMlMin = limits.pourRateMlMin === null ? null : limits.pourRateMlMin * (plan.hands ?? 1)
  return { job, limits: { ...limits, pourRateMlMin } }
}

/** The bowls as they follow from the plan's moulds, its bowl, its hands and its scale, by the models of today. */
export function batchesOf(
  plan: PourPlan,
  pace: (powderG: number) => Pace = (powderG) => paceOf(plan, powderG),
): BatchPlan {
  const { job, limits } = jobOf(plan)
  return planBatches(mixInputOf(plan), job, limits, pace)
}

/** The largest of them, not rounded to the scale: cheap, for drawing. */
export function largestBowlOf(plan: PourPlan): { powderG: number; slurryMl: number } | undefined {
  const { job, limits } = jobOf(plan)
  return largestBowl(mixInputOf(plan), job, limits, (powderG) => paceOf(plan, powderG))
}

export interface PourWindow {
  settingInput: SettingInput
  /** When its gloss would go while it is still in the bowl, s since mid-sprinkle. */
  bowlInitialSetS: number
  siftS: number
  /** End of stirring, s since mid-sprinkle, when the window opens. */
  stirEndS: number
  /** What is left of the working time then, s, with its range; below nothing where stirring outlasts it. */
  windowS: Range
  /** What pouring this bowl takes, s: by the pouring rate where it is known, else the least that is any use. */
  neededS: number
}

/** A minute: less than that is not time to pour anything (common practice, no source). */
const LEAST_POUR_S = 60

/** Time to pour a bowl: its own powder sifted, soaked and stirred. The one place this is worked out. */
export function pourWindowOf(plan: PourPlan, bowl: { powderG: number; slurryMl: number }): PourWindow {
  const settingInput = settingInputOf(plan, bowl.powderG)
  const stirEndS = settingInput.restS + plan.stirS
  const { low, mid, high } = workingTimeS(settingInput)
  const rateMlS = ((plan.batching?.pourRateMlMin ?? Infinity) * (plan.hands ?? 1)) / 60
  return {
    settingInput,
    bowlInitialSetS: timeInBowlS(settingInput, eventAlpha('initial_set', settingInput)),
    siftS: siftTimeS(plan, bowl.powderG),
    stirEndS,
    windowS: { low: low - stirEndS, mid: mid - stirEndS, high: high - stirEndS },
    neededS: Math.max(LEAST_POUR_S, bowl.slurryMl / rateMlS),
  }
}

export function largestOf<B extends { slurryMl: number }>(batches: readonly B[]): B {
  return batches.reduce((a, b) => (b.slurryMl > a.slurryMl ? b : a))
}

export interface Flow {
  /** While it is tapped or vibrated, Pa·s, with the range it is good to. */
  viscosityPaS: Range
  tapping: TappingAdvice
  air: AirThatStays
}

/** How the slurry runs, and how long tapping is worth it for this depth. */
export function flowOf(plan: PourPlan, consistency: number, workS: number, pouredAtS: number): Flow {
  const { properties } = plan.plaster
  const viscosityPaS = vibratedViscosityPaS(properties.classId, effectiveConsistency(consistency, properties))
  const slurry = {
    depthMm: depthOf(plan),
    viscosityPaS: viscosityPaS.mid,
    densityKgM3: mixProperties({ ...mixInputOf(plan), consistency }).slurryDensityKgM3,
    workS,
    pouredAtS,
  }
  const tapping = tappingAdvice(slurry)
  return { viscosityPaS, tapping, air: airThatStays(slurry, tapping.tapS) }
}
