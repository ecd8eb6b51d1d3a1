import type { DryingSpot } from '../../drying'
import { LEAST_BOWL_ML, LEAST_VOLUME_ML, MOST_STOCKED_G, MOST_VOLUME_ML, MOST_WEIGHED_G } from '../../bounds'
import { MAX_WATER_TEMP_C, checkConsistency, mixTempC, type ConsistencyIssueCode } from '../../mix'
import { ADDITIONS, LEAST_ADDITION_PCT } from '../../plaster'
import type { Issue } from '../../errors'
import { faultOfScript, type ScriptFault } from './script'
import type { PourPlan } from './plan'

export type RefusalCode =
  | 'out_of_range'
  | 'mix_freezing'
  | 'mould_freezing'
  | 'air_freezing'
  | 'water_too_hot'
  | 'air_too_damp'
  | 'air_beyond_drying'
  | ScriptFault

/** A figure of the plan with the least and the most it may be. */
type Bound = readonly [
  path: string,
  actual: number | null | undefined,
  min: number,
  max: number,
  unit: string,
]

/** Air that takes up next to nothing: no drying forecast holds there. */
const DAMPEST_RH_PCT = 97
/** Gypsum gives its water up again in air like this (science.md#drying). */
export const HOTTEST_DRYING_AIR_C = 50
/** Neither bags nor buckets get warmer than this and are still handled. */
const HOTTEST_POWDER_C = 50

/** A step of one's own is part of the pour, not of the week. */
const LONGEST_OWN_S = 6 * 3600

/** By day, and where it differs, by night. */
export const airsOf = ({ air, nightAir }: DryingSpot) => [air, ...(nightAir ? [nightAir] : [])]

/** Every figure that a caster sets, once, with its limits; what is not given is not judged. */
function boundsOf(plan: PourPlan): Bound[] {
  const { mould, batching, taps, scoop, air } = plan
  const split = batching?.split
  return [
    ['mould.cavityMl', mould.cavityMl, LEAST_VOLUME_ML, MOST_VOLUME_ML, 'ml'],
    ['mould.plusMinusMl', mould.plusMinusMl, 0, MOST_VOLUME_ML, 'ml'],
    ['mould.thicknessMm', mould.thicknessMm, 1, 500, 'mm'],
    ...(mould.members ?? []).flatMap((m): Bound[] => [
      ['mould.count', m.count, 1, 100, ''],
      ['mould.cavityMl', m.cavityMl, LEAST_VOLUME_ML, MOST_VOLUME_ML, 'ml'],
    ]),
    ...(plan.spill ?? []).map((s): Bound => ['spill', s.cavityMl, LEAST_VOLUME_ML, MOST_VOLUME_ML, 'ml']),
    ...(plan.plaster.additions ?? []).map((a): Bound => [
      'plaster.additions',
      a.pct,
      LEAST_ADDITION_PCT,
      ADDITIONS[a.id].maxPct,
      '%',
    ]),
    ['consistency', plan.consistency, 15, 200, 'parts of water to 100 of plaster'],
    ['scoop.measureMl', scoop?.measureMl, 1, 50_000, 'ml'],
    ['scoop.weighedKgM3', scoop?.weighedKgM3, 300, 2500, 'kg/m³'],
    ['batching.count', split?.by === 'bowls' ? split.count : undefined, 1, 60, ''],
    ['batching.castsPerBag', split?.by === 'casts' ? split.castsPerBag : undefined, 1, 10, ''],
    [
      'batching.bagPowderG',
      split?.by === 'whole_bags' ? split.bagPowderG : undefined,
      1,
      MOST_WEIGHED_G,
      'g',
    ],
    ...(split?.by === 'layers' ? split.layers : []).map((l): Bound => [
      'batching.sharePct',
      l.sharePct,
      0.1,
      100,
      '%',
    ]),
    ['batching.bowl', batching?.bowl?.volumeMl, LEAST_BOWL_ML, MOST_VOLUME_ML, 'ml'],
    ['batching.tareG', batching?.bowl?.tareG, 0, 100_000, 'g'],
    ['batching.pourRateMlMin', batching?.pourRateMlMin, 10, 100_000, 'ml'],
    ['batching.scaleCapacityG', batching?.scaleCapacityG, 10, MOST_STOCKED_G, 'g'],
    ['hands', plan.hands, 1, 6, ''],
    ['taps.coldTempC', taps?.coldTempC, 0.5, MAX_WATER_TEMP_C, '°C'],
    ['taps.hotTempC', taps?.hotTempC, 1, 95, '°C'],
    ['taps.targetTempC', taps?.targetTempC, 2, 40, '°C'],
    ['sparePct', plan.sparePct, 0, 200, '%'],
    ['airFraction', plan.airFraction, 0, 0.3, ''],
    ['waterTempC', plan.waterTempC, 0.5, Infinity, '°C'],
    ['powderTempC', plan.powderTempC, -20, HOTTEST_POWDER_C, '°C'],
    ['mouldTempC', plan.mouldTempC, -Infinity, 60, '°C'],
    ['soakS', plan.soakS, 0, 3600, 's'],
    ...(plan.script?.order ?? []).map((l): Bound => [
      'script',
      'own' in l ? l.own.timeS : undefined,
      1,
      LONGEST_OWN_S,
      's',
    ]),
    ['stirS', plan.stirS, 10, 3600, 's'],
    ['air.rhPct', air.rhPct, 1, Infinity, '%'],
    ['air.speedMS', air.speedMS, 0.02, 10, 'm/s'],
    ...(plan.dryingPlace ? airsOf(plan.dryingPlace) : []).flatMap((a): Bound[] => [
      ['dryingPlace', a.tempC, 0, Infinity, '°C'],
      ['dryingPlace', a.rhPct, 1, Infinity, '%'],
      ['dryingPlace', a.speedMS, 0.02, 10, 'm/s'],
    ]),
    ['scaleDivisionG', plan.scaleDivisionG, 0.01, 1000, 'g'],
  ]
}

const refusal = <C extends string>(
  code: C,
  path: string,
  actual: number,
  limit: number,
  unit: string,
): Issue<C> => ({ code, severity: 'error', path, actual, limit, unit })

/** The mix as water and powder make it, °C. */
export function mixTempOf(plan: PourPlan): number {
  return mixTempC(plan.consistency, plan.waterTempC, plan.powderTempC, plan.plaster.properties.fillerRatio)
}

/**
 * What no plan may be: figures nobody could mean, and conditions in which no model holds. The worksheet and the server
 * both go by this, and by nothing else: what one accepts, the other does.
 */
export function refusalsOf(plan: PourPlan): Issue<RefusalCode | ConsistencyIssueCode>[] {
  const outside = boundsOf(plan).flatMap(([path, actual, min, max, unit]) => {
    if (actual === undefined || actual === null || (actual >= min && actual <= max)) return []
    return [refusal('out_of_range', path, actual, actual < min ? min : max, unit)]
  })
  // The rest asks the models, and they want every figure within its limits.
  if (outside.length > 0) return outside
  const found: Issue<RefusalCode | ConsistencyIssueCode>[] = checkConsistency(
    plan.consistency,
    plan.plaster.properties,
  ).filter((i) => i.severity === 'error')
  const { air, waterTempC, mouldTempC, script, dryingPlace } = plan
  const fault = script && faultOfScript(script)
  if (fault) found.push(refusal(fault, 'script', 0, 0, ''))
  const mixC = mixTempOf(plan)
  if (waterTempC > MAX_WATER_TEMP_C)
    found.push(refusal('water_too_hot', 'waterTempC', waterTempC, MAX_WATER_TEMP_C, '°C'))
  if (mixC < 0) found.push(refusal('mix_freezing', 'waterTempC', mixC, 0, '°C'))
  if (mouldTempC !== undefined && mouldTempC < 0)
    found.push(refusal('mould_freezing', 'mouldTempC', mouldTempC, 0, '°C'))
  if (air.tempC < 0) found.push(refusal('air_freezing', 'air.tempC', air.tempC, 0, '°C'))
  if (air.tempC > HOTTEST_DRYING_AIR_C)
    found.push(refusal('air_beyond_drying', 'air.tempC', air.tempC, HOTTEST_DRYING_AIR_C, '°C'))
  if (air.rhPct >= DAMPEST_RH_PCT)
    found.push(refusal('air_too_damp', 'air.rhPct', air.rhPct, DAMPEST_RH_PCT, '%'))
  for (const there of dryingPlace ? airsOf(dryingPlace) : []) {
    if (there.tempC > HOTTEST_DRYING_AIR_C)
      found.push(refusal('air_beyond_drying', 'dryingPlace', there.tempC, HOTTEST_DRYING_AIR_C, '°C'))
    if (there.rhPct >= DAMPEST_RH_PCT)
      found.push(refusal('air_too_damp', 'dryingPlace', there.rhPct, DAMPEST_RH_PCT, '%'))
  }
  return found
}
