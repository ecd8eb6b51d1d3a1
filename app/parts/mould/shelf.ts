import { wearOf, type MouldMaterial, type Wear } from '#core/mould'
import type { DescribedMould } from '#core/pour'
import type { MouldCard } from '~~/shared/moulds'

export type ShelfOrder = 'name' | 'volume' | 'casts' | 'last'

export interface ShelfQuery {
  text: string
  material: MouldMaterial | 'all'
  show: 'all' | 'spill' | 'worn'
  order: ShelfOrder
}

/** How worn a mould is; undefined for one that gives a single cast anyway. */
export function wearOfCard(card: MouldCard): Wear | undefined {
  if (card.facts.oneTime) return undefined
  return wearOf(
    card.facts.material,
    card.castsBefore + card.history.casts,
    card.history.damages.length,
    card.lifeCasts,
  )
}

/** A card as a plan describes it. */
export function memberOf(card: MouldCard, count: number): DescribedMould {
  const { id: mouldId, name, purpose, facts, volume, thicknessMm } = card
  return { mouldId, name, count, purpose, facts, volume, thicknessMm }
}

export function castsOf(card: MouldCard): number {
  return card.castsBefore + card.history.casts
}

const ORDERS: Record<ShelfOrder, (a: MouldCard, b: MouldCard) => number> = {
  name: (a, b) => a.name.localeCompare(b.name),
  volume: (a, b) => b.cavityMl - a.cavityMl,
  casts: (a, b) => castsOf(b) - castsOf(a),
  last: (a, b) => (b.history.last?.atMs ?? 0) - (a.history.last?.atMs ?? 0),
}

/** The moulds that fit, in the order asked for. The text is looked for in name and note. */
export function shelfOf(cards: readonly MouldCard[], query: ShelfQuery): MouldCard[] {
  const text = query.text.trim().toLowerCase()
  return cards
    .filter((c) => text === '' || `${c.name}\n${c.note}`.toLowerCase().includes(text))
    .filter((c) => query.material === 'all' || c.facts.material === query.material)
    .filter((c) => query.show !== 'spill' || c.isSpill)
    .filter((c) => query.show !== 'worn' || (wearOfCard(c)?.advice ?? 'fresh') !== 'fresh')
    .sort((a, b) => ORDERS[query.order](a, b) || a.name.localeCompare(b.name))
}
