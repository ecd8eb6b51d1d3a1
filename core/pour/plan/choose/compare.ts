import { timeToFractionS } from '../../../drying'
import { forecastEvent } from '../../../forecast'
import {
  MOULD_RULES,
  compressiveStrengthMPa,
  chemicalMinimumConsistency,
  consistencyRangeByVolume,
  mixProperties,
  type MouldRule,
} from '../../../mix'
import type { Range } from '../../../provenance'
import { pieceDrying } from '../../drying'
import { FIRST_SCOOP } from '../mix/classValues'
import { batchesOf, flowOf, givesMl, largestBowlOf, largestOf, mixInputOf, pourWindowOf } from '../mix/mixing'
import type { PourPlan } from '../plan'
import { workingTimeS } from '../../../setting'
import { setProblemOf } from '../setProblem'

/** What one consistency is like for this plan's piece. */
export interface MixSketch {
  consistency: number
  /** From the end of stirring, s; the early end of its range may be below nothing. */
  pourWindowS: Range
  initialSetS: Range
  dryMPa: Range
  dryMassG: number
  /** From demoulding to dry enough, s. */
  dryS: Range
  viscosityPaS: Range
  /** Time a bubble of 1 mm takes from the deepest point while it is tapped, s. */
  riseS: number
}

/**
 * What the plan's mix would be like at another consistency; everything else stays.
 * Undefined where not all of the plaster could turn to gypsum, or it would take more bowls than anybody mixes.
 */
export function sketchMix(plan: PourPlan, consistency: number): MixSketch | undefined {
  return sketchWith(plan, consistency, (at) => {
    const { batches } = batchesOf(at)
    return batches.length === 0 ? undefined : largestOf(batches)
  })
}

function sketchWith(
  plan: PourPlan,
  consistency: number,
  largest: (at: PourPlan) => { powderG: number; slurryMl: number } | undefined,
  fineness: Parameters<typeof forecastEvent>[2] = {},
): MixSketch | undefined {
  const { properties } = plan.plaster
  if (!(consistency > chemicalMinimumConsistency(properties.hemihydrateFraction))) return undefined
  const at: PourPlan = { ...plan, consistency }
  const mix = mixProperties(mixInputOf(at))
  const bowl = largest(at)
  if (!bowl) return undefined
  const { settingInput, stirEndS, windowS } = pourWindowOf(at, bowl)
  const pouredAtS = Math.max(0, stirEndS)
  const piece = pieceDrying(at, mix, [])
  const flow = flowOf(at, consistency, workingTimeS(settingInput).mid, pouredAtS)
  return {
    consistency,
    pourWindowS: windowS,
    initialSetS: forecastEvent(setProblemOf(at, settingInput, pouredAtS, false), 'initial_set', fineness),
    dryMPa: compressiveStrengthMPa(mix.porosity, properties.strengthFactor).dry,
    dryMassG: piece.dryMassG,
    dryS: timeToFractionS(piece.forecast, piece.targetLeft),
    viscosityPaS: flow.viscosityPaS,
    riseS: flow.tapping.riseS,
  }
}

/** From stiff to thin, over all this plaster is mixed at and a little beyond. */
export function consistencySpan(plan: PourPlan): { min: number; max: number } {
  const { consistencyLow, consistencyHigh, hemihydrateFraction } = plan.plaster.properties
  return {
    min: Math.ceil(Math.max(consistencyLow * 0.85, chemicalMinimumConsistency(hemihydrateFraction) + 0.5)),
    max: Math.min(200, Math.ceil(consistencyHigh * 1.15)),
  }
}

/** For a curve to look at, not for a figure: within 1 % of a run as fine as the forecast's (test). */
const CURVE_FINENESS = { stepS: 60, castCells: 5 }

/** Sketches over the whole span, to be drawn: what each step thinner or stiffer costs. */
export function tradeOffs(plan: PourPlan, steps = 24): MixSketch[] {
  const { min, max } = consistencySpan(plan)
  const at = Array.from({ length: steps + 1 }, (_, i) =>
    sketchWith(plan, min + ((max - min) * i) / steps, largestBowlOf, CURVE_FINENESS),
  )
  return at.filter((sketch) => sketch !== undefined)
}

export type SchoolId = MouldRule | 'two_to_one' | 'three_to_one' | 'maker' | 'last_time' | 'plan'

/** One school's way of doing this job. */
export interface SchoolOutcome {
  id: SchoolId
  waterG: number
  powderG: number
  slurryMl: number
  /** How far the moulds get filled, 1 is full; what is more is left over. */
  fill: number
  leftMl: number
  sketch: MixSketch
}

/**
 * The schools side by side on this job. Rules that go by the mould take that share of it in water, at the plan's
 * consistency; the others take the plan's water, at a consistency of their own.
 * @param lastConsistency of the last pour like this, where there was one.
 */
export function compareSchools(plan: PourPlan, lastConsistency: number | undefined): SchoolOutcome[] {
  const { properties } = plan.plaster
  const planWaterG = batchesOf(plan).total.waterG
  const { cavityMl } = plan.mould
  const byVolume = (parts: number) =>
    consistencyRangeByVolume(parts, properties.classId, plan.scoop ?? FIRST_SCOOP).mid
  // A filler takes up room of its own: rules spoken in scoops are for plain mixes.
  const plain = properties.fillerRatio === 0
  const asked: [id: SchoolId, consistency: number, waterG: number][] = [
    ['third', plan.consistency, MOULD_RULES.third * cavityMl],
    ['half', plan.consistency, MOULD_RULES.half * cavityMl],
    ['two_thirds', plan.consistency, MOULD_RULES.two_thirds * cavityMl],
    ...(plain
      ? ([
          ['two_to_one', byVolume(2), planWaterG],
          ['three_to_one', byVolume(3), planWaterG],
        ] as [SchoolId, number, number][])
      : []),
    ['maker', properties.useConsistency, planWaterG],
    ...(lastConsistency === undefined
      ? []
      : [['last_time', lastConsistency, planWaterG] as [SchoolId, number, number]]),
    ['plan', plan.consistency, planWaterG],
  ]
  // The rules that go by the mould are all at the plan's own consistency.
  const consistencies = [...new Set(asked.map(([, consistency]) => consistency))]
  const sketches = new Map(consistencies.map((c) => [c, sketchMix(plan, c)]))
  return asked.flatMap(([id, consistency, waterG]): SchoolOutcome[] => {
    const sketch = sketches.get(consistency)
    if (!sketch) return []
    const powderG = waterG / (consistency / 100 - (properties.admixWaterRatio ?? 0))
    const slurryMl = powderG * mixProperties({ ...mixInputOf(plan), consistency }).slurryMlPerG
    return [
      {
        id,
        waterG,
        powderG,
        slurryMl,
        fill: givesMl(plan, slurryMl) / cavityMl,
        leftMl: Math.max(0, givesMl(plan, slurryMl) - cavityMl),
        sketch,
      },
    ]
  })
}
