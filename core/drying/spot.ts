import type { Air } from './air'
import type { DryingPace } from './course'

/** A place to dry in, as it was known when a piece went there. */
export interface DryingSpot {
  /** Its card; null where it has none. */
  placeId: string | null
  name: string
  air: Air
  /** Where the nights are otherwise. */
  nightAir?: Air
  /** What it was known to do against the model, and from how many pours. */
  pace?: DryingPace & { pours: number }
}
