import { type BatchLimits, type BatchSplit, blendWater, type Scoop } from '#core/mix'
import {
  batchesOf,
  covered,
  type DescribedMould,
  type PlanLearnt,
  planMould,
  type PourPlan,
  refusalsOf,
} from '#core/pour'
import type { BowlCard } from '~~/shared/stock'
import { memberOf } from '~/parts/mould/shelf'
import { thicknessOf } from '~/parts/mould/mouldDraft'
import { PURPOSE_WORDS } from '~/parts/words/mould'
import { shareOf } from '~/parts/learn/shares'
import { spotOf } from '~/parts/learn/places'
import { plasterOf } from '~/parts/plaster/plasterChoice'
import type { PlanDraft, Stock } from './planDraft'

/** Name of a mould that was described for one pour and has none. */
const UNNAMED_MOULD = 'Mould described for this pour'

/** The moulds that the worksheet means to fill. Empty when they are no longer there. */
function mouldsOf(draft: PlanDraft, stock: Stock): DescribedMould[] {
  const moulds = asTheyStand(draft, stock)
  const { coverMm, source } = draft
  return coverMm === null || source === 'describe' ? moulds : moulds.map((m) => covered(m, coverMm))
}

function asTheyStand(draft: PlanDraft, stock: Stock): DescribedMould[] {
  const cardOf = (id: string) => stock.moulds.find((m) => m.id === id)
  if (draft.source === 'shelf') {
    const card = cardOf(draft.shelfId)
    return card ? [memberOf(card, Math.round(draft.shelfCount))] : []
  }
  if (draft.source === 'set') {
    const members = stock.mouldSets.find((s) => s.id === draft.setId)?.members ?? []
    const found = members.map((m) => ({ card: cardOf(m.mouldId), count: m.count }))
    return found.every((m) => m.card !== undefined) ? found.map((m) => memberOf(m.card!, m.count)) : []
  }
  const { name, purpose, facts, volume } = draft.described
  return [
    {
      mouldId: null,
      name: name.trim() || UNNAMED_MOULD,
      unnamed: name.trim() === '',
      count: 1,
      purpose,
      facts,
      volume,
      thicknessMm: thicknessOf(draft.described),
    },
  ]
}

/** Whether a plan is carried out where the print lies: what stands on the shelf is not there. */
export const isOutside = (draft: PlanDraft, stock: Stock): boolean =>
  mouldsOf(draft, stock).some((m) => m.facts.material === 'sand_soil')

/** Small moulds kept ready for leftovers that this plan does not fill anyway. */
export function spillOf(draft: PlanDraft, stock: Stock): NonNullable<PourPlan['spill']> {
  if (!draft.useSpill || isOutside(draft, stock)) return []
  const used = new Set(mouldsOf(draft, stock).map((m) => m.mouldId))
  return stock.moulds
    .filter((m) => m.isSpill && !used.has(m.id))
    .slice(0, 24)
    .map(({ id: mouldId, name, cavityMl }) => ({ mouldId, name, cavityMl }))
}

function splitOf(draft: PlanDraft): BatchSplit {
  switch (draft.splitBy) {
    case 'need':
      return draft.toTheRim ? { by: 'need', toTheRim: true } : { by: 'need' }
    case 'bowls':
      return { by: 'bowls', count: Math.round(draft.bowlCount) }
    case 'layers':
      return { by: 'layers', layers: draft.layers }
    case 'casts':
      return { by: 'casts', castsPerBag: Math.round(draft.castsPerBag) }
    case 'whole_bags':
      return { by: 'whole_bags', bagPowderG: draft.bagPowderG }
  }
}

function batchingOf(draft: PlanDraft, stock: Stock): BatchLimits {
  const bowl = stock.bowls.find((b) => b.id === draft.bowlId)
  return {
    split: splitOf(draft),
    bowl: bowl ? planBowlOf(bowl) : null,
    pourRateMlMin: draft.pourRateMlMin > 0 ? draft.pourRateMlMin : null,
    scaleCapacityG: stock.settings.scaleCapacityG,
  }
}

const planBowlOf = ({ id, name, volumeMl, tareG }: BowlCard) => ({ bowlId: id, name, volumeMl, tareG })

/**
 * The bowl for a job nobody chose one for: the smallest of the shelf that takes it in one go, else the largest, and the
 * job is cut to that. None where the shelf is empty, or the powder is weighed into bags of its own.
 */
function shelfBowl(plan: PourPlan, bowls: readonly BowlCard[]): BatchLimits['bowl'] {
  const kneaded = plan.addingWay === 'kneaded'
  if (kneaded || bowls.length === 0 || refusalsOf(plan).length > 0) return null
  const wantedMl = Math.max(0, ...batchesOf(plan).batches.map((b) => b.bowlMl))
  const bySize = [...bowls].sort((a, b) => a.volumeMl - b.volumeMl)
  return planBowlOf(bySize.find((b) => b.volumeMl >= wantedMl) ?? bySize.at(-1)!)
}

/** Water as one tap gives it, or as two are mixed for the temperature wanted. */
function waterOf(draft: PlanDraft, fillerRatio: number): Pick<PourPlan, 'waterTempC' | 'taps'> {
  if (draft.waterFrom === 'one_tap') return { waterTempC: draft.waterTempC }
  const taps = { coldTempC: draft.coldTempC, hotTempC: draft.hotTempC, targetTempC: draft.targetTempC }
  const { waterTempC } = blendWater({
    consistency: draft.consistency,
    fillerRatio,
    powderTempC: draft.powderTempC,
    waterG: 1,
    ...taps,
  })
  return { waterTempC, taps }
}

/** The plan that the worksheet means. Undefined when its moulds or plaster are not there or cannot be cast. */
export function planOf(draft: PlanDraft, stock: Stock, nowMs: number): PourPlan | undefined {
  const mould = planMould(mouldsOf(draft, stock))
  const plaster = plasterOf(draft, stock, nowMs)
  if (!mould || !plaster) return undefined
  const described = draft.source === 'describe' && draft.described.name.trim() === ''
  const plan: PourPlan = {
    schemaVersion: 2,
    piece: draft.piece.trim() || (described ? PURPOSE_WORDS[draft.described.purpose] : mould.name),
    mould,
    spill: spillOf(draft, stock),
    plaster,
    consistency: draft.consistency,
    ratioMethod: draft.ratioMethod,
    ...(draft.ratioMethod === 'by_volume' ? { scoop: scoopOf(draft, stock, nowMs) } : {}),
    ...(draft.ratioMethod === 'by_eye' ? { siftStage: draft.siftStage } : {}),
    batching: batchingOf(draft, stock),
    ...(draft.hands > 1 ? { hands: Math.round(draft.hands) } : {}),
    addingWay: draft.addingWay,
    ...(draft.filling === 'poured' ? {} : { filling: draft.filling }),
    ...(draft.script === null ? {} : { script: draft.script }),
    sparePct: draft.sparePct,
    airFraction: 0.01,
    ...waterOf(draft, plaster.properties.fillerRatio),
    ...(draft.water === 'soft' ? {} : { water: draft.water }),
    powderTempC: draft.powderTempC,
    mouldTempC: draft.mouldTempC,
    ...(draft.sun === 'none' ? {} : { sun: draft.sun }),
    soakS: draft.soakMin * 60,
    stirS: draft.stirMin * 60,
    stirManner: draft.stirManner,
    air: { tempC: draft.roomTempC, rhPct: draft.roomRhPct, speedMS: draft.airSpeedMS },
    ...dryingOf(draft, stock, nowMs),
    dryTarget: draft.dryTarget,
    scaleDivisionG: stock.settings.scaleDivisionG,
    ...(draft.heed.length > 0 ? { heed: [...draft.heed] } : {}),
    ...(draft.deadline ? { deadline: { ...draft.deadline } } : {}),
    ...(draft.recipe === null ? {} : { recipe: { ...draft.recipe } }),
  }
  const bowl = draft.bowlId === '' ? shelfBowl(plan, stock.bowls) : plan.batching!.bowl
  const learnt = learntOf(draft, stock, bowl?.bowlId, nowMs)
  return { ...plan, ...(learnt ? { learnt } : {}), batching: { ...batchingOf(draft, stock), bowl } }
}

/** A scoop of a bag whose slurries were weighed is known better than its class's. */
function scoopOf({ scoop, bagId }: PlanDraft, { seenOf }: Stock, nowMs: number): Scoop {
  const { measureMl, packing, weighedKgM3 } = scoop
  const learnt = bagId === '' ? undefined : shareOf(`scoop:${bagId}`, 'scoop_density', seenOf, nowMs)
  return { measureMl, packing, weighedKgM3, ...(learnt ? { learnt } : {}) }
}

/** Where it is carried to dry, with what that place has shown. */
function dryingOf(
  draft: PlanDraft,
  { places, seenOf }: Stock,
  nowMs: number,
): Pick<PourPlan, 'dryingPlace' | 'dryingExposure'> {
  const place = places.find((p) => p.id === draft.dryingPlaceId)
  return {
    ...(place ? { dryingPlace: spotOf(place, seenOf, nowMs) } : {}),
    dryingExposure: draft.dryingExposure,
  }
}

/** What the workshop's own pours say of this bag's heat, these hands and this bowl. */
function learntOf(
  draft: PlanDraft,
  { seenOf, hand }: Stock,
  bowlId: string | undefined,
  nowMs: number,
): PlanLearnt | undefined {
  const heat = draft.bagId === '' ? undefined : shareOf(`bag:${draft.bagId}`, 'heat', seenOf, nowMs)
  const byEye = draft.ratioMethod === 'by_eye' && hand
  const sprinkled = byEye ? shareOf(`person:${hand}`, 'sprinkled', seenOf, nowMs) : undefined
  const slurryYield = bowlId ? shareOf(`bowl:${bowlId}`, 'slurry_yield', seenOf, nowMs) : undefined
  if (!heat && !sprinkled && !slurryYield) return undefined
  return {
    ...(heat ? { heat } : {}),
    ...(sprinkled ? { sprinkled } : {}),
    ...(slurryYield ? { slurryYield } : {}),
  }
}
