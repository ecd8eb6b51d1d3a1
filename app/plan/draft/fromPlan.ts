import type { CavityDescription } from '#core/mould'
import { FIRST_SCOOP, coverOf, covered, type PourPlan } from '#core/pour'
import type { MouldSet } from '~~/shared/moulds'
import { firstMouldDraft, type MouldDraft } from '~/parts/mould/mouldDraft'
import { emptyDraft, type PlanDraft, type Stock } from './planDraft'

/** Where a stored plan's moulds are now: the card it came from, its set, or what it knew of them. */
function sourceOf(plan: PourPlan, stock: Stock): Partial<PlanDraft> {
  const members = plan.mould.members ?? []
  const [first] = members
  if (!first) return { source: 'describe', described: knownVolumeDraft(plan.mould) }
  const same = (set: MouldSet) =>
    set.members.length === members.length &&
    set.members.every((s) => members.some((m) => m.mouldId === s.mouldId && m.count === s.count))
  const set = members.length > 1 ? stock.mouldSets.find(same) : undefined
  if (set) return { source: 'set', setId: set.id }
  if (members.length > 1) return { source: 'describe', described: knownVolumeDraft(plan.mould) }
  const card = stock.moulds.find((m) => m.id === first.mouldId)
  if (card && isSameVolume(card.volume, first.volume))
    return { source: 'shelf', shelfId: card.id, shelfCount: first.count }
  const coverMm = coverOf(first.volume)
  if (card && coverMm !== undefined && isSameVolume(covered(card, coverMm).volume, first.volume))
    return { source: 'shelf', shelfId: card.id, shelfCount: first.count, coverMm }
  const described: MouldDraft = {
    ...firstMouldDraft(),
    name: first.unnamed ? '' : first.name,
    purpose: first.purpose,
    facts: first.facts,
    volume: { ...first.volume, cavities: first.volume.cavities * first.count },
    thicknessMm: plan.mould.thicknessMm,
    thicknessTyped: true,
  }
  return { source: 'describe', described }
}

const isSameVolume = (a: CavityDescription, b: CavityDescription) => JSON.stringify(a) === JSON.stringify(b)

/** A plan that knows only how much its mould holds, as a mould to describe. */
function knownVolumeDraft(mould: PourPlan['mould']): MouldDraft {
  const plusMinusPct = Math.min(50, Math.round((100 * (mould.plusMinusMl ?? 0)) / mould.cavityMl) || 5)
  return {
    ...firstMouldDraft(),
    name: mould.name,
    volume: {
      parts: [{ role: 'add', count: 1, method: { by: 'known', volumeMl: mould.cavityMl, plusMinusPct } }],
      cavities: 1,
      check: null,
      trust: 'parts',
    },
    thicknessMm: mould.thicknessMm,
    thicknessTyped: true,
  }
}

/** A stored plan's bowls, as the worksheet's fields. */
function batchingDraft({ batching }: PourPlan, stock: Stock): Partial<PlanDraft> {
  if (!batching) return {}
  const { split, bowl, pourRateMlMin } = batching
  return {
    splitBy: split.by,
    toTheRim: split.by === 'need' && split.toTheRim === true,
    ...(split.by === 'bowls' ? { bowlCount: split.count } : {}),
    ...(split.by === 'layers' ? { layers: split.layers } : {}),
    ...(split.by === 'casts' ? { castsPerBag: split.castsPerBag } : {}),
    ...(split.by === 'whole_bags' ? { bagPowderG: split.bagPowderG } : {}),
    bowlId: stock.bowls.find((b) => b.id === bowl?.bowlId)?.id ?? '',
    pourRateMlMin: pourRateMlMin ?? 0,
  }
}

/** What a plan decided besides its mould: what a recipe carries over to another one. */
export function mixDraft(plan: PourPlan, stock: Stock): Omit<PlanDraft, keyof ReturnType<typeof mouldPart>> {
  const plaster = stock.plasters.find((p) => p.id === plan.plaster.plasterId)
  const empty = emptyDraft(stock.settings)
  return {
    bowlId: empty.bowlId,
    splitBy: empty.splitBy,
    toTheRim: empty.toTheRim,
    bowlCount: empty.bowlCount,
    hands: plan.hands ?? 1,
    layers: empty.layers,
    castsPerBag: empty.castsPerBag,
    bagPowderG: empty.bagPowderG,
    pourRateMlMin: empty.pourRateMlMin,
    ...batchingDraft(plan, stock),
    bagId: plan.plaster.bag?.bagId ?? '',
    additions: plan.plaster.additions ?? [],
    addingWay: plan.addingWay ?? 'sifted',
    filling: plan.filling ?? 'poured',
    script: plan.script ?? null,
    waterFrom: plan.taps ? 'two_taps' : 'one_tap',
    targetTempC: plan.taps?.targetTempC ?? empty.targetTempC,
    coldTempC: plan.taps?.coldTempC ?? empty.coldTempC,
    hotTempC: plan.taps?.hotTempC ?? empty.hotTempC,
    plasterKey: plaster?.id ?? `class:${plan.plaster.properties.classId}`,
    consistency: plan.consistency,
    ratioMethod: plan.ratioMethod,
    scoop: plan.scoop ?? FIRST_SCOOP,
    siftStage: plan.siftStage ?? 'lake_bed',
    sparePct: plan.sparePct,
    waterTempC: plan.waterTempC,
    water: plan.water ?? 'soft',
    powderTempC: plan.powderTempC,
    mouldTempC: plan.mouldTempC ?? plan.air.tempC,
    sun: plan.sun ?? 'none',
    soakMin: plan.soakS / 60,
    stirMin: plan.stirS / 60,
    stirManner: plan.stirManner,
    roomTempC: plan.air.tempC,
    roomRhPct: plan.air.rhPct,
    airSpeedMS: plan.air.speedMS,
    dryingPlaceId: stock.places.find((p) => p.id === plan.dryingPlace?.placeId)?.id ?? '',
    dryingExposure: plan.dryingExposure,
    dryTarget: plan.dryTarget,
    heed: plan.heed ?? [],
    deadline: null,
    recipe: plan.recipe ?? null,
  }
}

/** The worksheet's first part alone. */
function mouldPart(draft: PlanDraft) {
  const { piece, source, shelfId, shelfCount, setId, described, coverMm, useSpill } = draft
  return { piece, source, shelfId, shelfCount, setId, described, coverMm, useSpill }
}

/** Back from a stored plan to the worksheet, so that it can be changed: its moulds and plaster where still kept. */
export function draftOf(plan: PourPlan, stock: Stock): PlanDraft {
  return {
    ...mouldPart(emptyDraft(stock.settings)),
    ...sourceOf(plan, stock),
    useSpill: plan.spill === undefined || plan.spill.length > 0,
    piece: plan.piece,
    ...mixDraft(plan, stock),
  }
}
