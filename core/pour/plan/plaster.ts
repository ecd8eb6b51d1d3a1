import type { Addition, PlasterProperties } from '../../plaster'
import type { Provenance } from '../../provenance'
import type { BagKeeping } from '../../stock'

/** The bag the plaster comes out of, as it was when the plan was made. */
export interface PlanBag {
  bagId: string
  name: string
  boughtG: number
  /** In the workshop's own currency; null where nobody noted it. */
  price: number | null
  /** How it was kept, and for how long it had been open, days. */
  keeping?: BagKeeping
  openDays?: number
  /** What it was known to take against its card, worked into the plaster's setting time; 1 where nothing was known. */
  setFactor?: number
}

/** Where the plaster's values came from, for those a caster asks about. */
export interface PlasterOrigins {
  consistency: Provenance
  setTime: Provenance
  expansion: Provenance
  strength: Provenance
}

/** What a pour is made of. */
export interface PlanPlaster {
  name: string
  /** Its card; plans from before it was kept, and those made from a class alone, have none. */
  plasterId?: string
  /** As the mix feels it: the card's values with bag and additions worked in. */
  properties: PlasterProperties
  /** What goes in besides plaster and water. */
  additions?: Addition[]
  bag?: PlanBag
  origins?: PlasterOrigins
}
