import { z } from 'zod'
import {
  FACTORS,
  SUBJECT_KINDS,
  type FactorId,
  type LearnChoice,
  type Seen,
  type Subject,
} from '../core/learn'
import { dryingAirSchema } from './pourEvents'
import { id, instantMs, name, revision } from './text'

/** Places to dry in and what was learnt, as they cross the wire. */

export const PLACE_KINDS = ['still', 'fan', 'breeze', 'cabinet', 'outdoors'] as const
export type PlaceKind = (typeof PLACE_KINDS)[number]

export const placeInputSchema = z.object({
  name,
  kind: z.enum(PLACE_KINDS),
  air: dryingAirSchema,
  /** Where the nights are otherwise. */
  nightAir: dryingAirSchema.nullable(),
})
export type PlaceInput = z.infer<typeof placeInputSchema>
export const placePutSchema = z.object({ revision: revision.nullable(), place: placeInputSchema })
export interface PlaceCard extends PlaceInput {
  id: string
  revision: number
}

const KINDS: readonly string[] = SUBJECT_KINDS
export const subjectSchema = z
  .string()
  .max(100)
  .refine(
    (s): s is Subject => KINDS.includes(s.split(':')[0]!) && s.length > s.indexOf(':') + 1,
    'is no subject',
  )
export const learningQuerySchema = z.object({ subject: subjectSchema })

export const learnChoiceSchema = z.object({
  off: z.boolean(),
  sinceMs: instantMs,
  leftOut: z.array(id).max(500),
}) satisfies z.ZodType<LearnChoice>
export const learnChoicePutSchema = z.object({
  subject: subjectSchema,
  factor: z.enum(FACTORS),
  choice: learnChoiceSchema,
})

/** What one pour showed, with the piece it is known by. */
export interface SeenHere extends Seen {
  piece: string
}

/** All that is known of a subject; of many pours the latest. */
export interface Learning {
  subject: Subject
  seen: Partial<Record<FactorId, SeenHere[]>>
  choices: Partial<Record<FactorId, LearnChoice>>
  /** Pours that are still to be looked through: asked again, there is more. */
  pending: number
}
