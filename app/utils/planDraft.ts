import type { CavityDescription } from '#core/mould'
import type { Scoop, SiftStage } from '#core/mix'
import { plasterProperties, type PlasterClassId, type PlasterProperties } from '#core/plaster'
import { planMould, type DescribedMould, type PourPlan } from '#core/pour'
import type { PlasterCard, Settings } from '~~/shared/contracts'
import type { MouldCard, MouldSet } from '~~/shared/moulds'
import { firstMouldDraft, thicknessOf, type MouldDraft } from './mouldDraft'
import { PURPOSE_WORDS } from './mouldWords'
import { PLASTER_CLASS_WORDS } from './words'

/** Where the plan's mould comes from: one off the shelf, a set of them, or one described for this pour. */
export type MouldSource = 'shelf' | 'set' | 'describe'

/** The worksheet as the caster leaves it: every field, also those the chosen way of giving a mould does not use. */
export interface PlanDraft {
  piece: string
  source: MouldSource
  shelfId: string
  shelfCount: number
  setId: string
  described: MouldDraft
  /** What is left over goes to the shelf's spill moulds. */
  useSpill: boolean
  /** `class:<id>` or a plaster card's id. */
  plasterKey: string
  consistency: number
  ratioMethod: PourPlan['ratioMethod']
  scoop: Scoop
  siftStage: SiftStage
  sparePct: number
  waterTempC: number
  powderTempC: number
  soakMin: number
  stirMin: number
  stirManner: PourPlan['stirManner']
  roomTempC: number
  roomRhPct: number
  airSpeedMS: number
  dryingExposure: PourPlan['dryingExposure']
  dryTarget: PourPlan['dryTarget']
}

/** What the workshop has to plan with. */
export interface Stock {
  moulds: readonly MouldCard[]
  mouldSets: readonly MouldSet[]
  plasters: readonly PlasterCard[]
  settings: Settings
}

/** A cup, dug into the bag. */
const FIRST_SCOOP: Scoop = { measureMl: 250, packing: 'scooped', weighedKgM3: null }

export function emptyDraft(settings: Settings): PlanDraft {
  return {
    piece: '',
    source: 'describe',
    shelfId: '',
    shelfCount: 1,
    setId: '',
    described: firstMouldDraft(),
    useSpill: true,
    plasterKey: 'class:pottery',
    consistency: plasterProperties('pottery').useConsistency,
    ratioMethod: 'weighed',
    scoop: FIRST_SCOOP,
    siftStage: 'lake_bed',
    sparePct: 10,
    waterTempC: settings.tapTempC,
    powderTempC: settings.roomTempC,
    soakMin: 2,
    stirMin: 2,
    stirManner: 'hand',
    roomTempC: settings.roomTempC,
    roomRhPct: settings.roomRhPct,
    airSpeedMS: settings.airSpeedMS,
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
  }
}

export function plasterOf(key: string, cards: readonly PlasterCard[]): PourPlan['plaster'] | undefined {
  if (key.startsWith('class:')) {
    const classId = key.slice(6) as PlasterClassId
    return { name: PLASTER_CLASS_WORDS[classId], properties: plasterProperties(classId) }
  }
  const card = cards.find((c) => c.id === key)
  if (!card) return undefined
  const label: Partial<Pick<PlasterProperties, 'useConsistency' | 'expansionPct'>> = {}
  if (card.labelConsistency !== null) label.useConsistency = card.labelConsistency
  if (card.labelExpansionPct !== null) label.expansionPct = card.labelExpansionPct
  return { name: card.name, properties: plasterProperties(card.classId, label) }
}

/** What choosing a plaster changes: it starts at its own use consistency, since the old figure meant something else. */
export function plasterChoice(key: string, cards: readonly PlasterCard[]): Partial<PlanDraft> {
  const plaster = plasterOf(key, cards)
  return plaster ? { plasterKey: key, consistency: plaster.properties.useConsistency } : {}
}

/** What choosing a mould off the shelf changes: with it comes its usual plaster. */
export function mouldChoice(mould: MouldCard, plasters: readonly PlasterCard[]): Partial<PlanDraft> {
  const usual = mould.usualPlasterId ? plasterChoice(mould.usualPlasterId, plasters) : {}
  return { source: 'shelf', shelfId: mould.id, ...usual }
}

/** What choosing a set changes: with it comes the usual plaster of its first mould. */
export function setChoice(set: MouldSet, stock: Stock): Partial<PlanDraft> {
  const first = stock.moulds.find((m) => m.id === set.members[0]?.mouldId)
  const usual = first?.usualPlasterId ? plasterChoice(first.usualPlasterId, stock.plasters) : {}
  return { source: 'set', setId: set.id, ...usual }
}

/** A fresh worksheet: the first mould of the shelf, or one to describe where there is no shelf. */
export function firstDraft(stock: Stock): PlanDraft {
  const draft = emptyDraft(stock.settings)
  const first = stock.moulds.find((m) => !m.isSpill)
  return first ? { ...draft, ...mouldChoice(first, stock.plasters) } : draft
}

const memberOf = (card: MouldCard, count: number): DescribedMould => {
  const { id: mouldId, name, purpose, facts, volume, thicknessMm } = card
  return { mouldId, name, count, purpose, facts, volume, thicknessMm }
}

/** Name of a mould that was described for one pour and has none. */
const UNNAMED_MOULD = 'Mould described for this pour'

/** The moulds that the worksheet means to fill. Empty when they are no longer there. */
function mouldsOf(draft: PlanDraft, stock: Stock): DescribedMould[] {
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
      count: 1,
      purpose,
      facts,
      volume,
      thicknessMm: thicknessOf(draft.described),
    },
  ]
}

/** Small moulds kept ready for leftovers that this plan does not fill anyway. */
export function spillOf(draft: PlanDraft, stock: Stock): NonNullable<PourPlan['spill']> {
  if (!draft.useSpill) return []
  const used = new Set(mouldsOf(draft, stock).map((m) => m.mouldId))
  return stock.moulds
    .filter((m) => m.isSpill && !used.has(m.id))
    .slice(0, 24)
    .map(({ id: mouldId, name, cavityMl }) => ({ mouldId, name, cavityMl }))
}

/** The plan that the worksheet means. Undefined when its moulds or plaster are not there or cannot be cast. */
export function planOf(draft: PlanDraft, stock: Stock): PourPlan | undefined {
  const mould = planMould(mouldsOf(draft, stock))
  const plaster = plasterOf(draft.plasterKey, stock.plasters)
  if (!mould || !plaster) return undefined
  const described = draft.source === 'describe' && draft.described.name.trim() === ''
  return {
    schemaVersion: 1,
    piece: draft.piece.trim() || (described ? PURPOSE_WORDS[draft.described.purpose] : mould.name),
    mould,
    spill: spillOf(draft, stock),
    plaster,
    consistency: draft.consistency,
    ratioMethod: draft.ratioMethod,
    ...(draft.ratioMethod === 'by_volume' ? { scoop: draft.scoop } : {}),
    ...(draft.ratioMethod === 'by_eye' ? { siftStage: draft.siftStage } : {}),
    sparePct: draft.sparePct,
    airFraction: 0.01,
    waterTempC: draft.waterTempC,
    powderTempC: draft.powderTempC,
    soakS: draft.soakMin * 60,
    stirS: draft.stirMin * 60,
    stirManner: draft.stirManner,
    air: { tempC: draft.roomTempC, rhPct: draft.roomRhPct, speedMS: draft.airSpeedMS },
    dryingExposure: draft.dryingExposure,
    dryTarget: draft.dryTarget,
    scaleDivisionG: stock.settings.scaleDivisionG,
  }
}

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
  const card = stock.moulds.find((m) => m.id === first.mouldId && isSameVolume(m.volume, first.volume))
  if (card) return { source: 'shelf', shelfId: card.id, shelfCount: first.count }
  const described: MouldDraft = {
    ...firstMouldDraft(),
    name: first.name === UNNAMED_MOULD ? '' : first.name,
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

/** Back from a stored plan to the worksheet, so that it can be changed: its moulds and plaster where still kept. */
export function draftOf(plan: PourPlan, stock: Stock): PlanDraft {
  const plaster = stock.plasters.find((p) => p.name === plan.plaster.name)
  return {
    ...emptyDraft(stock.settings),
    ...sourceOf(plan, stock),
    useSpill: plan.spill === undefined || plan.spill.length > 0,
    piece: plan.piece,
    plasterKey: plaster?.id ?? `class:${plan.plaster.properties.classId}`,
    consistency: plan.consistency,
    ratioMethod: plan.ratioMethod,
    scoop: plan.scoop ?? FIRST_SCOOP,
    siftStage: plan.siftStage ?? 'lake_bed',
    sparePct: plan.sparePct,
    waterTempC: plan.waterTempC,
    powderTempC: plan.powderTempC,
    soakMin: plan.soakS / 60,
    stirMin: plan.stirS / 60,
    stirManner: plan.stirManner,
    roomTempC: plan.air.tempC,
    roomRhPct: plan.air.rhPct,
    airSpeedMS: plan.air.speedMS,
    dryingExposure: plan.dryingExposure,
    dryTarget: plan.dryTarget,
  }
}
