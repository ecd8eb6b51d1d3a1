import type { BatchSplit, Scoop } from '#core/mix'
import { layersOf } from '#core/mould'
import type { Addition } from '#core/plaster'
import { type AddingWay, type FillingWay, type PlanMember, type RemedyChange } from '#core/pour'
import type { PackSaid } from '~/parts/field/usePack'
import type { Find } from '~~/shared/finds'
import type { Settings } from '~~/shared/contracts'
import type { MouldCard, MouldSet } from '~~/shared/moulds'
import { bagsOf, plasterOf, type PlasterPick, type Shelf } from '~/parts/plaster/plasterChoice'
import { emptyDraft, FIRST_LAYERS, ownScoop, type PlanDraft, type Stock } from './planDraft'

/**
 * What choosing a plaster changes: it starts at its own use consistency, since the old figure meant something else,
 * with what always goes in it, out of its oldest bag, and goes in the way such a mix does.
 */
export function plasterChoice(key: string, shelf: Shelf & Pick<Stock, 'settings'>): Partial<PlanDraft> {
  const additions = shelf.plasters.find((p) => p.id === key)?.additions ?? []
  const plaster = plasterOf({ plasterKey: key, bagId: '', additions }, shelf, 0)
  if (!plaster) return {}
  const bag = bagsOf(key, shelf.bags)[0]
  return {
    plasterKey: key,
    bagId: bag?.id ?? '',
    additions,
    consistency: plaster.properties.useConsistency,
    scoop: scoopOfBag(bag?.scoop ?? null, shelf.settings),
    ...wayChoice(usualWay(plaster.properties.fillerRatio)),
  }
}

/** What choosing how the powder goes in changes: a filled mix slakes for three minutes (common practice). */
export function wayChoice(addingWay: AddingWay): Pick<PlanDraft, 'addingWay'> & Partial<PlanDraft> {
  return addingWay === 'tipped_in' ? { addingWay, soakMin: 3 } : { addingWay }
}

/** Filled mixes go in at once so that everything wets together (common practice). */
const usualWay = (fillerRatio: number): AddingWay => (fillerRatio > 0.2 ? 'tipped_in' : 'sifted')

/** The scoop that was weighed out of this bag is remembered with it; else the workshop's own cup. */
export const scoopOfBag = (known: Scoop | null, settings: Pick<Settings, 'scoopMl'>): Scoop =>
  known ?? ownScoop(settings)

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
export function mouldChoice(mould: MouldCard, shelf: Shelf & Pick<Stock, 'settings'>): Partial<PlanDraft> {
  const usual = mould.usualPlasterId ? plasterChoice(mould.usualPlasterId, shelf) : {}
  return { source: 'shelf', shelfId: mould.id, coverMm: null, ...usual }
}

/** What choosing a print changes: it is poured where it lies, at what it is there, out of what was packed. */
export function printChoice({ airTempC }: Find, packed: PackSaid, stock: Stock): Partial<PlanDraft> {
  const card = stock.plasters.find((p) => p.id === packed.plasterId)
  const there = airTempC ?? packed.airTempC
  return {
    ...(card ? plasterChoice(card.id, stock) : {}),
    ...(packed.consistency > 0 ? { consistency: packed.consistency } : {}),
    addingWay: packed.how === 'bags' ? 'kneaded' : 'sifted',
    roomTempC: there,
    mouldTempC: there,
    powderTempC: there,
    // What is carried along as water is not ice.
    waterFrom: 'one_tap',
    waterTempC: Math.max(0, there),
  }
}

/** What choosing a set changes: with it comes the usual plaster of its first mould. */
export function setChoice(set: MouldSet, stock: Stock): Partial<PlanDraft> {
  const first = stock.moulds.find((m) => m.id === set.members[0]?.mouldId)
  const usual = first?.usualPlasterId ? plasterChoice(first.usualPlasterId, stock) : {}
  return { source: 'set', setId: set.id, coverMm: null, ...usual }
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

/** How moulds that a worksheet begins with are filled, and in which layers. */
export function followMoulds(
  now: Pick<PlanDraft, 'splitBy' | 'filling'>,
  members: readonly Pick<PlanMember, 'facts' | 'volume'>[],
): Partial<PlanDraft> {
  const filled = fillingChoice(usualFilling(members), now)
  const layers = Math.max(1, ...members.map((m) => layersOf(m.volume)))
  if (layers === 1 && goesInLayers(filled.filling)) return filled
  return { ...filled, ...layersChoice(filled.splitBy ?? now.splitBy, layers) }
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
