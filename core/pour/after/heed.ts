import type { CauseId } from '../../finish'
import { plannedSpot } from '../drying'
import type { PourPlan } from '../plan/plan'
import type { KnownStep, ScriptEdits, Stage } from '../plan/steps'

/** At which stage the next pour is reminded of a cause: where it can still be kept from happening. */
export const HEED_AT: Record<CauseId, Stage> = {
  too_thin: 'weigh',
  too_thick: 'weigh',
  soak_short: 'soak',
  sifted_fast: 'sift',
  stirred_little: 'stir',
  stirred_long: 'stir',
  stirred_hard: 'stir',
  past_working: 'pour',
  poured_high: 'pour',
  no_tap: 'pour',
  air_in_form: 'pour',
  layers_late: 'weigh',
  leaked: 'mould',
  mixed_short: 'weigh',
  water_film: 'mould',
  dirty_bowl: 'weigh',
  old_bag: 'weigh',
  salts: 'weigh',
  cold: 'weigh',
  ground_cold: 'weigh',
  colour_split: 'weigh',
  additions_weaken: 'weigh',
  moved: 'set',
  release_missing: 'mould',
  release_smeared: 'mould',
  release_thick: 'mould',
  undercut_forced: 'demould',
  thin_section: 'demould',
  uneven_wall: 'mould',
  early_out: 'set',
  mould_flaws: 'mould',
  mould_colours: 'mould',
  gel_shrank: 'mould',
  gel_softens: 'set',
  dried_hot: 'dry',
  dried_uneven: 'dry',
  knocked: 'dry',
}

/** Soaked for at least so long, s; a filled mix slakes for three minutes (common practice). */
const GOOD_SOAK_S = 120
const FILLED_SOAK_S = 180
const GOOD_STIR_S = 120
/** Water that brings a cold mix to where plaster sets as it should, °C. */
const WARM_WATER_C = 24
/** What colder water gains in time is worth this much, K; never colder than a tap gives. */
const COLDER_K = 6
const COLDEST_WATER_C = 8
const MORE_SPARE_PCT = 10
const MOST_SPARE_PCT = 50
/** Below this no surface gets near 45 °C (docs/science.md#drying). */
const SAFE_DRYING_C = 38

function restored(script: ScriptEdits | undefined, ...steps: KnownStep[]): Pick<PourPlan, 'script'> {
  if (!script?.leftOut.some((s) => steps.includes(s))) return {}
  return { script: { ...script, leftOut: script.leftOut.filter((s) => !steps.includes(s)) } }
}

/** What a cause changes in the plan's own figures; many change none, and are only to be remembered. */
function figuresFor(cause: CauseId, plan: PourPlan): Partial<PourPlan> {
  const { properties } = plan.plaster
  const tap = (waterTempC: number): Partial<PourPlan> => ({ waterTempC, taps: undefined })
  const more = { sparePct: Math.min(MOST_SPARE_PCT, plan.sparePct + MORE_SPARE_PCT) }
  switch (cause) {
    case 'too_thin':
    case 'too_thick':
      return {
        consistency: properties.useConsistency,
        ratioMethod: 'weighed',
        scoop: undefined,
        siftStage: undefined,
      }
    case 'soak_short': {
      const leastS = properties.fillerRatio > 0 ? FILLED_SOAK_S : GOOD_SOAK_S
      return { soakS: Math.max(plan.soakS, leastS), ...restored(plan.script, 'soak') }
    }
    case 'stirred_little':
      return { stirS: Math.max(plan.stirS, GOOD_STIR_S) }
    case 'stirred_long':
      return { stirS: Math.min(plan.stirS, GOOD_STIR_S) }
    case 'stirred_hard':
      return { stirManner: 'hand' }
    case 'past_working':
      return tap(Math.min(plan.waterTempC, Math.max(COLDEST_WATER_C, plan.waterTempC - COLDER_K)))
    case 'no_tap':
      return restored(plan.script, 'tap', 'vibrate')
    case 'air_in_form':
      return restored(plan.script, 'face_coat', 'part_fill')
    case 'leaked':
    case 'mixed_short':
      return more
    case 'salts':
      return { water: undefined }
    case 'cold':
    case 'ground_cold':
      return tap(Math.max(plan.waterTempC, WARM_WATER_C))
    case 'dried_hot':
      // Another place than the one that is too hot.
      return plannedSpot(plan).air.tempC > SAFE_DRYING_C
        ? { dryingPlace: undefined, air: { ...plan.air, tempC: Math.min(plan.air.tempC, SAFE_DRYING_C) } }
        : {}
    case 'dried_uneven':
      return { dryingExposure: 'both_faces' }
    case 'sifted_fast':
    case 'poured_high':
    case 'layers_late':
    case 'water_film':
    case 'dirty_bowl':
    case 'old_bag':
    case 'moved':
    case 'release_missing':
    case 'release_smeared':
    case 'release_thick':
    case 'gel_shrank':
    case 'uneven_wall':
    case 'colour_split':
    case 'additions_weaken':
    case 'undercut_forced':
    case 'thin_section':
    case 'early_out':
    case 'mould_flaws':
    case 'mould_colours':
    case 'gel_softens':
    case 'knocked':
      return {}
  }
}

/** The same plan with what went wrong put right, as far as figures do it, and kept in mind where it can happen again. */
export function heeding(plan: PourPlan, causes: readonly CauseId[]): PourPlan {
  const changed = causes.reduce((now, cause) => {
    const next: PourPlan = { ...now, ...figuresFor(cause, now) }
    return next
  }, plan)
  const heed = [...new Set([...(plan.heed ?? []), ...causes])]
  const decided = Object.fromEntries(Object.entries(changed).filter(([, value]) => value !== undefined))
  return { ...(decided as unknown as PourPlan), ...(heed.length > 0 ? { heed } : {}) }
}

/** What to keep in mind at a stage. */
export function heedAt(plan: Pick<PourPlan, 'heed'>, stage: Stage): CauseId[] {
  return (plan.heed ?? []).filter((cause) => HEED_AT[cause] === stage)
}
