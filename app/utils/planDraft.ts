import { cavityVolumeMl, equivalentThicknessMm, type CavityShape, type MouldKind } from '#core/mould'
import { plasterProperties, type PlasterClassId, type PlasterProperties } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import type { MouldCard, PlasterCard, Settings } from '~~/shared/contracts'
import { PLASTER_CLASS_WORDS } from './words'

export type CavitySource = 'shelf' | 'volume' | CavityShape['kind']

/** The worksheet as the caster leaves it: every field, also those the chosen way of giving a volume does not use. */
export interface PlanDraft {
  piece: string
  source: CavitySource
  shelfId: string
  kind: MouldKind
  volumeMl: number
  lengthMm: number
  widthMm: number
  diameterMm: number
  depthMm: number
  thicknessMm: number
  /** `class:<id>` or a plaster card's id. */
  plasterKey: string
  consistency: number
  ratioMethod: PourPlan['ratioMethod']
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

export function emptyDraft(settings: Settings): PlanDraft {
  return {
    piece: '',
    source: 'volume',
    shelfId: '',
    kind: 'silicone',
    volumeMl: 1000,
    lengthMm: 200,
    widthMm: 150,
    diameterMm: 150,
    depthMm: 40,
    thicknessMm: 30,
    plasterKey: 'class:pottery',
    consistency: plasterProperties('pottery').useConsistency,
    ratioMethod: 'weighed',
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

/** A fresh worksheet: the first mould of the shelf, or a plain volume where there is no shelf. */
export function firstDraft(
  settings: Settings,
  moulds: readonly MouldCard[],
  plasters: readonly PlasterCard[],
): PlanDraft {
  const draft = emptyDraft(settings)
  return moulds[0] ? { ...draft, ...mouldChoice(moulds[0], plasters) } : draft
}

const SHAPE_NAMES = { box: 'Box', cylinder: 'Cylinder', bowl: 'Bowl' } as const

export function shapeOf(draft: PlanDraft): CavityShape | undefined {
  switch (draft.source) {
    case 'box':
      return { kind: 'box', lengthMm: draft.lengthMm, widthMm: draft.widthMm, depthMm: draft.depthMm }
    case 'cylinder':
      return { kind: 'cylinder', diameterMm: draft.diameterMm, depthMm: draft.depthMm }
    case 'bowl':
      return { kind: 'bowl', rimDiameterMm: draft.diameterMm, depthMm: draft.depthMm }
    default:
      return undefined
  }
}

function mouldOf(draft: PlanDraft, moulds: readonly MouldCard[]): PourPlan['mould'] | undefined {
  if (draft.source === 'shelf') {
    const card = moulds.find((m) => m.id === draft.shelfId)
    if (!card) return undefined
    const { name, kind, cavityMl, volumeProvenance, thicknessMm } = card
    return { name, kind, cavityMl, volumeProvenance, thicknessMm }
  }
  const shape = shapeOf(draft)
  if (!shape) {
    return {
      name: 'A mould of known volume',
      kind: draft.kind,
      cavityMl: draft.volumeMl,
      volumeProvenance: { kind: 'measured' },
      thicknessMm: draft.thicknessMm,
    }
  }
  return {
    name: SHAPE_NAMES[shape.kind],
    kind: draft.kind,
    cavityMl: cavityVolumeMl(shape),
    volumeProvenance: { kind: 'model', source: 'from its inside measurements' },
    thicknessMm: Math.max(1, equivalentThicknessMm(shape)),
  }
}

/** The plan that the worksheet means. Undefined when its mould or plaster is no longer there. */
export function planOf(
  draft: PlanDraft,
  moulds: readonly MouldCard[],
  plasters: readonly PlasterCard[],
  settings: Settings,
): PourPlan | undefined {
  const mould = mouldOf(draft, moulds)
  const plaster = plasterOf(draft.plasterKey, plasters)
  if (!mould || !plaster) return undefined
  return {
    schemaVersion: 1,
    piece: draft.piece.trim() || mould.name,
    mould,
    plaster,
    consistency: draft.consistency,
    ratioMethod: draft.ratioMethod,
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
    scaleDivisionG: settings.scaleDivisionG,
  }
}

/** Back from a stored plan to the worksheet, so that it can be changed: the mould and plaster by name where still kept. */
export function draftOf(
  plan: PourPlan,
  moulds: readonly MouldCard[],
  plasters: readonly PlasterCard[],
  settings: Settings,
): PlanDraft {
  const mould = moulds.find((m) => m.name === plan.mould.name && m.cavityMl === plan.mould.cavityMl)
  const plaster = plasters.find((p) => p.name === plan.plaster.name)
  return {
    ...emptyDraft(settings),
    piece: plan.piece,
    source: mould ? 'shelf' : 'volume',
    shelfId: mould?.id ?? '',
    kind: plan.mould.kind,
    volumeMl: plan.mould.cavityMl,
    thicknessMm: plan.mould.thicknessMm,
    plasterKey: plaster?.id ?? `class:${plan.plaster.properties.classId}`,
    consistency: plan.consistency,
    ratioMethod: plan.ratioMethod,
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
