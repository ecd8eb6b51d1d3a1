import type { KeptPlan, PourEvent } from '../core/pour'

/** What the server answers with, and how to tell what could be read from what could not. No schemas: they are heavy. */

export interface Page<T> {
  items: T[]
  total: number
}

/** A card or recipe that is there and cannot be read: as it lies in the database, so that nothing of it is lost. */
export interface UnreadableCard {
  id: string
  name: string
  unreadable: string[]
  raw: unknown
}
export const isUnreadableCard = (card: object): card is UnreadableCard => 'unreadable' in card

/** A pour as the server holds it: the plan, and everything that happened. */
export interface PourRecord {
  id: string
  plan: KeptPlan
  /** Counts changes of the plan; a change must name the one it started from. */
  revision: number
  /** Plans that events name and that stand no more. */
  earlierPlans: { revision: number; plan: KeptPlan }[]
  createdAtMs: number
  events: PourEvent[]
}

/** A pour that is there and cannot be read: as it lies in the database, so that nothing of it is lost. */
export interface UnreadablePour {
  id: string
  unreadable: string[]
  createdAtMs: number
  raw: { plan: unknown; revision: number; events: unknown[] }
}
export type PourAnswer = PourRecord | UnreadablePour

export const isUnreadable = (pour: PourAnswer): pour is UnreadablePour => 'unreadable' in pour
