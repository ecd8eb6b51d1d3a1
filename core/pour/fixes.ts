import type { LayerBelow } from '../mould'
import {
  addPowder,
  addWater,
  bowlVolumeMl,
  consistencyInBowl,
  mayAdd,
  mixProperties,
  powderForWaterG,
  takeWaterOut,
  type Correction,
  type InBowl,
  type MixInput,
  type MixState,
} from '../mix'
import type { CorrectionKind } from './events'
import type { PourOutlook } from './outlook'
import { givesMl, mixInputOf } from './plan/mix/mixing'

/** One way to bring the bowl in hand back to the plan. */
export interface Fix {
  how: CorrectionKind
  massG: number
  /** Slurry it makes, ml, and the bowl it then wants. */
  slurryMl: number
  /** Undefined where nobody said which bowl it is. */
  bowlTakes: boolean | undefined
  /** What is over once this bowl's share of the mould is filled; negative is short, ml. */
  leftMl: number
}

export interface FixAdvice {
  state: MixState
  may: ReturnType<typeof mayAdd>
  /** Consistency in the bowl now, and the plan's. */
  consistency: number
  planned: number
  /** Best first; empty where it is near enough, or where nothing may be added any more. */
  fixes: Fix[]
}

/** A few grams do not matter (common practice, no source): 2 % is within what the scale and the hand do anyway. */
const NEAR_ENOUGH = 0.02

/** How far the bowl in hand is on. The early end of the range counts: too late is a lost pour. */
export function mixStateOf(facts: PourOutlook, nowMs: number): MixState {
  const { doneAtMs, settingStartMs, setting } = facts.inHand
  if (settingStartMs === undefined) return 'dry_powder_apart'
  const atMs = (s: number) => settingStartMs + s * 1000
  if (nowMs >= atMs(setting.timeS.initial_set.low)) return 'setting'
  if (doneAtMs.stir === undefined) return 'not_stirred'
  // The last quarter of the working time is too short for a second soak and stir.
  return nowMs < atMs(0.75 * setting.timeS.work_end.low) ? 'stirred_fresh' : 'thickening'
}

function fixOf(facts: PourOutlook, how: CorrectionKind, massG: number, after: Correction['after']): Fix {
  const bowl = facts.plan.batching?.bowl ?? null
  const wantedMl = facts.inHand.planned.slurryMl / (1 + facts.plan.sparePct / 100)
  return {
    how,
    massG,
    slurryMl: after.slurryMl,
    bowlTakes: bowl === null ? undefined : after.bowlMl <= bowl.volumeMl,
    leftMl: givesMl(facts.plan, after.slurryMl - wantedMl),
  }
}

/** Plaster overshot and still dry: lift the surplus out. */
function takePowderOut(target: MixInput, bowl: InBowl) {
  const powderG = powderForWaterG(target, bowl.waterG)
  const slurryMl = powderG * mixProperties(target).slurryMlPerG
  return {
    massG: bowl.powderG - powderG,
    after: {
      waterG: bowl.waterG,
      powderG,
      slurryMl,
      bowlMl: bowlVolumeMl(bowl.waterG, slurryMl),
      consistency: target.consistency,
    },
  }
}

/**
 * What can be done about the bowl in hand, from what is really in it.
 * @param bowl as the caster finds it, g.
 */
export function fixesFor(facts: PourOutlook, bowl: InBowl, nowMs: number): FixAdvice {
  const target = mixInputOf(facts.plan)
  const consistency = consistencyInBowl(target, bowl)
  const state = mixStateOf(facts, nowMs)
  const may = mayAdd(state)
  const off = consistency / target.consistency - 1
  const advice = { state, may, consistency, planned: target.consistency }
  if (may === 'never' || Math.abs(off) <= NEAR_ENOUGH) return { ...advice, fixes: [] }
  if (off > 0) {
    const more = addPowder(target, bowl)
    const less = takeWaterOut(target, bowl)
    const powderIn = fixOf(facts, 'powder_in', more.addPowderG, more.after)
    // Once stirred, the water is in the slurry and no sponge gets it out.
    return state === 'stirred_fresh'
      ? { ...advice, fixes: [powderIn] }
      : { ...advice, fixes: [fixOf(facts, 'water_out', less.takeWaterG, less.after), powderIn] }
  }
  const wetter = addWater(target, bowl)
  const waterIn = fixOf(facts, 'water_in', wetter.addWaterG, wetter.after)
  if (state !== 'dry_powder_apart') return { ...advice, fixes: [waterIn] }
  const out = takePowderOut(target, bowl)
  return { ...advice, fixes: [fixOf(facts, 'powder_out', out.massG, out.after), waterIn] }
}

/** What is in the bowl by the record; the plan's amounts stand in for what is not weighed yet. */
export function bowlByRecord({ inHand }: PourOutlook): InBowl {
  const { actual, inBowl, planned } = inHand
  return {
    waterG: actual?.waterG ?? inBowl.waterG ?? planned.waterG,
    powderG: actual?.powderG ?? inBowl.powderG ?? planned.powderG,
  }
}

/** How a second bowl is made to hold on what is in the mould already, by how far that is on. */
export function layerBelow(facts: PourOutlook, nowMs: number): LayerBelow {
  const last = facts.batches.findLast((b) => b.settingStartMs !== undefined)
  if (last?.settingStartMs === undefined) return 'still_soft'
  return nowMs < last.settingStartMs + last.setting.timeS.initial_set.low * 1000 ? 'still_soft' : 'set_today'
}
