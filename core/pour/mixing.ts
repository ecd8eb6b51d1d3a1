import {
  mixProperties,
  mixTempC,
  planBatches,
  ratioSigmaLn,
  tappingAdvice,
  vibratedViscosityPaS,
  type BatchLimits,
  type BatchPlan,
  type MixInput,
  type Pace,
  type TappingAdvice,
} from '../mix'
import { plasterClass } from '../plaster'
import { effectiveConsistency, forecastSetting, type SettingForecast, type SettingInput } from '../setting'
import { castsOf, depthOf, siftPace, siftTimeS, soakTimeS, type PourPlan } from './plan'

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

/** The plan's bowls, as they follow from its moulds, its bowl, its hands and its scale. */
export function batchesOf(plan: PourPlan): BatchPlan {
  const paceOf = (powderG: number): Pace => ({
    workLowS: forecastSetting(settingInputOf(plan, powderG)).timeS.work_end.low,
    soakS: soakTimeS(plan),
    stirS: plan.stirS,
    ...siftPace(plan),
  })
  const job = {
    cavityMl: plan.mould.cavityMl,
    sparePct: plan.sparePct,
    casts: castsOf(plan),
    divisionG: plan.scaleDivisionG,
  }
  return planBatches(mixInputOf(plan), job, plan.batching ?? ONE_BOWL, paceOf)
}

export interface Flow {
  /** While it is tapped or vibrated, Pa·s; good to times or divided by 3. */
  viscosityPaS: number
  tapping: TappingAdvice
}

/** How the slurry runs, and how long tapping is worth it for this depth. */
export function flowOf(
  plan: PourPlan,
  consistency: number,
  setting: SettingForecast,
  pouredAtS: number,
): Flow {
  const { properties } = plan.plaster
  const viscosityPaS = vibratedViscosityPaS(
    plasterClass(properties.classId).form,
    effectiveConsistency(consistency, properties),
  )
  const tapping = tappingAdvice({
    depthMm: depthOf(plan),
    viscosityPaS,
    densityKgM3: mixProperties({ ...mixInputOf(plan), consistency }).slurryDensityKgM3,
    workS: setting.timeS.work_end.mid,
    pouredAtS,
  })
  return { viscosityPaS, tapping }
}
