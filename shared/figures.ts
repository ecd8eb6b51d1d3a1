import { z } from 'zod'
import type { CauseId, FaultKind } from '../core/finish'
import type { Verdict } from '../core/pour'

/** What the log comes to over so many months, this one among them. */
export const figuresQuerySchema = z.object({ months: z.coerce.number().int().min(1).max(120).default(12) })

export interface Figures {
  /** Casts of the pours that ended in a month, `yyyy-MM`, by their verdict, the oldest first. */
  months: { month: string; verdicts: Record<Verdict, number> }[]
  causes: { cause: CauseId; casts: number }[]
  faults: { kind: FaultKind; casts: number }[]
  /** Days from coming out to being finished: the middle one, and how many. */
  drying: { placeId: string; days: number; pours: number }[]
  costs: { plasterId: string; casts: number; cost: number }[]
  /** Pours whose causes are still to be worked out: asked again, there is more. */
  pending: number
}
