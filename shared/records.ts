import type { KeptPlan, PourEvent, Stage, Verdict } from '../core/pour'

/** What the server answers with, and how to tell what could be read from what could not. No schemas: they are heavy. */

export interface Page<T> {
  items: T[]
  /** What `after` must say to get the next page; undefined on the last. */
  next?: string
}

/** A pour as the log lists it. Of one still open, stage and rings are from when something last happened to it. */
export interface CastLine {
  id: string
  createdAtMs: number
  piece: string
  mould: string
  plaster: string
  consistency: number | null
  open: boolean
  stage: Stage
  rings: number[]
  verdict: Verdict | null
  /** Pieces by their verdict, once each has one. */
  ended: Partial<Record<Verdict, number>>
  /** Casts that came out of their moulds. */
  casts: number
  reason: string
  unreadable: boolean
}

/** A page of the log. */
export interface CastPage extends Page<CastLine> {
  /** How many there are in all; `MOST_COUNTED` stands for that many or more. */
  total: number
}
export const MOST_COUNTED = 1000

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

/** So many that ended are kept on a device that goes away for a day. */
export const LAST_CASTS = 50

/** A pour that is there and cannot be read: as it lies in the database, so that nothing of it is lost. */
export interface UnreadablePour {
  id: string
  unreadable: string[]
  createdAtMs: number
  raw: { plan: unknown; revision: number; events: unknown[] }
}
export type PourAnswer = PourRecord | UnreadablePour

export const isUnreadable = (pour: PourAnswer): pour is UnreadablePour => 'unreadable' in pour
