import type { CauseId } from '#core/finish'
import type { CavityDescription } from '#core/mould'
import { blendWater, type BatchLimits, type BatchSplit, type Scoop, type SiftStage } from '#core/mix'
import { plasterProperties, type Addition, type WaterKind } from '#core/plaster'
import {
  FIRST_SCOOP,
  batchesOf,
  planMould,
  refusalsOf,
  type AddingWay,
  type DescribedMould,
  type FillingWay,
  type PlanLearnt,
  type PlanMember,
  type PourPlan,
  type RemedyChange,
  type ScriptEdits,
  type Sun,
} from '#core/pour'
import type { Settings } from '~~/shared/contracts'
import type { PlaceCard } from '~~/shared/learning'
import type { MouldCard, MouldSet } from '~~/shared/moulds'
import type { BowlCard } from '~~/shared/stock'
import { memberOf } from '~/parts/mould/shelf'
import { firstMouldDraft, thicknessOf, type MouldDraft } from '~/parts/mould/mouldDraft'
import { PURPOSE_WORDS } from '~/parts/words/mould'
import { shareOf } from '~/parts/learn/shares'
import { spotOf } from '~/parts/learn/places'
import { bagsOf, plasterOf, type PlasterPick, type Shelf } from '~/parts/plaster/plasterChoice'

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
  bagId: string
  additions: Addition[]
  consistency: number
  ratioMethod: PourPlan['ratioMethod']
  scoop: Scoop
  siftStage: SiftStage
  sparePct: number
  addingWay: AddingWay
  filling: FillingWay
  /** What was changed in the steps; null: they follow from the rest. */
  script: ScriptEdits | null
  /** Empty: whichever bowl is large enough. */
  bowlId: string
  splitBy: BatchSplit['by']
  bowlCount: number
  /** How many sift and pour at once. */
  hands: number
  layers: { name: string; sharePct: number }[]
  castsPerBag: number
  bagPowderG: number
  /** 0: fast enough. */
  pourRateMlMin: number
  waterFrom: 'one_tap' | 'two_taps'
  targetTempC: number
  coldTempC: number
  hotTempC: number
  waterTempC: number
  water: WaterKind
  powderTempC: number
  mouldTempC: number
  sun: Sun | 'none'
  soakMin: number
  stirMin: number
  stirManner: PourPlan['stirManner']
  roomTempC: number
  roomRhPct: number
  airSpeedMS: number
  /** Empty: in the air it sets in. */
  dryingPlaceId: string
  dryingExposure: PourPlan['dryingExposure']
  dryTarget: PourPlan['dryTarget']
  /** What went wrong with an earlier one, to be kept in mind. */
  heed: CauseId[]
  /** The recipe it was begun from. */
  recipe: NonNullable<PourPlan['recipe']> | null
}

/** What the workshop has to plan with. */
export interface Stock extends Shelf {
  moulds: readonly MouldCard[]
  mouldSets: readonly MouldSet[]
  bowls: readonly BowlCard[]
  places: readonly PlaceCard[]
  settings: Settings
  /** Whoever stands at the bench, by whose hand it is sifted. */
  who?: string
}

/** Coats and pours as a shell or a jacketed head is built: the caster changes names and shares. */
const FIRST_LAYERS = [
  { name: 'Face coat', sharePct: 25 },
  { name: 'Fill', sharePct: 75 },
]

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
    bagId: '',
    additions: [],
    consistency: plasterProperties('pottery').useConsistency,
    ratioMethod: 'weighed',
    scoop: FIRST_SCOOP,
    siftStage: 'lake_bed',
    sparePct: 10,
    addingWay: 'sifted',
    filling: 'poured',
    script: null,
    bowlId: '',
    splitBy: 'need',
    bowlCount: 2,
    hands: 1,
    layers: FIRST_LAYERS,
    castsPerBag: 1,
    bagPowderG: 1000,
    pourRateMlMin: 0,
    waterFrom: 'one_tap',
    targetTempC: 20,
    coldTempC: settings.tapTempC,
    hotTempC: settings.hotTapTempC,
    waterTempC: settings.tapTempC,
    water: 'soft',
    powderTempC: settings.roomTempC,
    mouldTempC: settings.roomTempC,
    sun: 'none',
    soakMin: 2,
    stirMin: 2,
    stirManner: 'hand',
    roomTempC: settings.roomTempC,
    roomRhPct: settings.roomRhPct,
    airSpeedMS: settings.airSpeedMS,
    dryingPlaceId: '',
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    heed: [],
    recipe: null,
  }
}

/**
 * What choosing a plaster changes: it starts at its own use consistency, since the old figure meant something else,
 * with what always goes in it, out of its oldest bag, and goes in the way such a mix does.
 */
export function plasterChoice(key: string, shelf: Shelf): Partial<PlanDraft> {
  const additions = shelf.plasters.find((p) => p.id === key)?.additions ?? []
  const plaster = plasterOf({ plasterKey: key, bagId: '', additions }, shelf, 0)
  if (!plaster) return {}
  const bag = bagsOf(key, shelf.bags)[0]
  return {
    plasterKey: key,
    bagId: bag?.id ?? '',
    additions,
    consistency: plaster.properties.useConsistency,
    scoop: scoopOfBag(bag?.scoop ?? null),
    ...wayChoice(usualWay(plaster.properties.fillerRatio)),
  }
}

/** What choosing how the powder goes in changes: a filled mix slakes for three minutes (common practice). */
export function wayChoice(addingWay: AddingWay): Pick<PlanDraft, 'addingWay'> & Partial<PlanDraft> {
  return addingWay === 'tipped_in' ? { addingWay, soakMin: 3 } : { addingWay }
}

/** Filled mixes go in at once so that everything wets together (common practice). */
const usualWay = (fillerRatio: number): AddingWay => (fillerRatio > 0.2 ? 'tipped_in' : 'sifted')

/** The scoop that was weighed out of this bag is remembered with it. */
export function scoopOfBag(known: Scoop | null): Scoop {
  return known ?? FIRST_SCOOP
}

/** What putting something else in changes: solids want water of their own, so the ratio moves with them. */
export function additionsChoice(
  draft: PlasterPick & Pick<PlanDraft, 'consistency' | 'addingWay'>,
  additions: Addition[],
  shelf: Shelf,
): Partial<PlanDraft> {
  const before = plasterOf(draft, shelf, 0)?.properties
  const after = plasterOf({ ...draft, additions }, shelf, 0)?.properties
  if (!before || !after) return { additions }
  const wasUsual = draft.addingWay === usualWay(before.fillerRatio)
  return {
    additions,
    consistency: Math.min(200, draft.consistency * (after.useConsistency / before.useConsistency)),
    ...(wasUsual ? wayChoice(usualWay(after.fillerRatio)) : {}),
  }
}

/** What choosing a mould off the shelf changes: with it comes its usual plaster. */
export function mouldChoice(mould: MouldCard, shelf: Shelf): Partial<PlanDraft> {
  const usual = mould.usualPlasterId ? plasterChoice(mould.usualPlasterId, shelf) : {}
  return { source: 'shelf', shelfId: mould.id, ...usual }
}

/** What choosing a set changes: with it comes the usual plaster of its first mould. */
export function setChoice(set: MouldSet, stock: Stock): Partial<PlanDraft> {
  const first = stock.moulds.find((m) => m.id === set.members[0]?.mouldId)
  const usual = first?.usualPlasterId ? plasterChoice(first.usualPlasterId, stock) : {}
  return { source: 'set', setId: set.id, ...usual }
}

/** A fresh worksheet: the first mould of the shelf, or one to describe where there is no shelf. */
export function firstDraft(stock: Stock): PlanDraft {
  const draft = emptyDraft(stock.settings)
  const first = stock.moulds.find((m) => !m.isSpill)
  return first ? { ...draft, ...mouldChoice(first, stock) } : draft
}

/** What a mould built in layers changes, and one that is not: the caster may cut it otherwise. */
export function layersChoice(splitBy: BatchSplit['by'], layers: number): Partial<PlanDraft> {
  if (layers > 1)
    return {
      splitBy: 'layers',
      layers: Array.from({ length: layers }, (_, i) => ({
        name: i === 0 ? 'Face coat' : `Layer ${i + 1}`,
        sharePct: Math.round(100 / layers),
      })),
    }
  return splitBy === 'layers' ? { splitBy: 'need' } : {}
}

/** How bowls follow one another in ways that go on in layers; shares are estimates, the caster changes them. */
const LAYERS_OF_WAY: Partial<Record<FillingWay, PlanDraft['layers']>> = {
  hand_built: FIRST_LAYERS,
  reinforced: FIRST_LAYERS,
  slush: [
    { name: 'First coat', sharePct: 50 },
    { name: 'Second coat', sharePct: 50 },
  ],
  two_stage: [
    { name: 'Impression', sharePct: 40 },
    { name: 'Base', sharePct: 60 },
  ],
}

export const goesInLayers = (way: FillingWay) => LAYERS_OF_WAY[way] !== undefined

/** What choosing how the mould is filled changes: the steps anew, and bowls one after the other where layers are built. */
export function fillingChoice(
  filling: FillingWay,
  now: Pick<PlanDraft, 'splitBy' | 'filling'>,
): Pick<PlanDraft, 'filling' | 'script'> & Partial<PlanDraft> {
  const layers = LAYERS_OF_WAY[filling]
  const split: Partial<PlanDraft> = layers
    ? { splitBy: 'layers', layers }
    : now.splitBy === 'layers' && LAYERS_OF_WAY[now.filling]
      ? { splitBy: 'need' }
      : {}
  return { filling, script: null, ...split }
}

/** How moulds like these are usually filled (common practice): by what they are made of, and how they were measured. */
export function usualFilling(members: readonly Pick<PlanMember, 'facts' | 'volume'>[]): FillingWay {
  const has = (test: (m: Pick<PlanMember, 'facts' | 'volume'>) => boolean) => members.some(test)
  const measured = (by: string) => has((m) => m.volume.parts.some((p) => p.method.by === by))
  if (measured('shell')) return 'hand_built'
  if (measured('top_up')) return 'second_layer'
  if (has((m) => m.facts.material === 'impression_compound')) return 'two_stage'
  if (has((m) => m.facts.material === 'latex')) return 'squeezed'
  return 'poured'
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
      unnamed: name.trim() === '',
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

function splitOf(draft: PlanDraft): BatchSplit {
  switch (draft.splitBy) {
    case 'need':
      return { by: 'need' }
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
  { seenOf, who }: Stock,
  bowlId: string | undefined,
  nowMs: number,
): PlanLearnt | undefined {
  const heat = draft.bagId === '' ? undefined : shareOf(`bag:${draft.bagId}`, 'heat', seenOf, nowMs)
  const byEye = draft.ratioMethod === 'by_eye' && who
  const sprinkled = byEye ? shareOf(`person:${who}`, 'sprinkled', seenOf, nowMs) : undefined
  const slurryYield = bowlId ? shareOf(`bowl:${bowlId}`, 'slurry_yield', seenOf, nowMs) : undefined
  if (!heat && !sprinkled && !slurryYield) return undefined
  return {
    ...(heat ? { heat } : {}),
    ...(sprinkled ? { sprinkled } : {}),
    ...(slurryYield ? { slurryYield } : {}),
  }
}

/** What taking a remedy changes on the worksheet. */
export function remedyDraft(change: RemedyChange): Partial<PlanDraft> {
  switch (change.id) {
    case 'colder_water':
      return { waterFrom: 'one_tap', waterTempC: change.waterTempC }
    case 'shorter_stir':
      return { stirMin: change.stirS / 60 }
    case 'shorter_soak':
      return { soakMin: change.soakS / 60 }
    case 'smaller_bowls':
      return { splitBy: 'bowls', bowlCount: change.count }
    case 'more_hands':
      return { hands: change.hands }
    case 'thinner':
      return { consistency: change.consistency }
    case 'retarder':
      return { additions: change.additions }
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
    recipe: plan.recipe ?? null,
  }
}

/** The worksheet's first part alone. */
function mouldPart(draft: PlanDraft) {
  const { piece, source, shelfId, shelfCount, setId, described, useSpill } = draft
  return { piece, source, shelfId, shelfCount, setId, described, useSpill }
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
