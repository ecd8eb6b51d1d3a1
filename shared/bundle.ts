import type { ErrorCode } from './errors'
import { z } from 'zod'
import { deviceIdSchema } from './deviceLine'
import { deviceChannelSchema } from './devices'
import { eventBodySchema, settingsSchema, storedPlanSchema } from './contracts'
import { learnChoicePutSchema, placeInputSchema } from './learning'
import { mouldInputSchema, mouldSetSchema } from './moulds'
import {
  bagInputSchema,
  bowlInputSchema,
  plasterInputSchema,
  recipeInputSchema,
  settlingEntrySchema,
  spoonTestSchema,
} from './stock'
import { id, instantMs, name, revision, text } from './text'

/**
 * A workshop as files in one zip: `manifest.json`, a file of cards for each kind in `cards/`, a file for each pour in
 * `pours/`, photographs in `photos/<id>.jpg`, and tables in `tables/` for whoever reads no JSON. Masses g, volumes ml,
 * lengths mm, temperatures °C, times s or ms since 1970. Published schemas: docs/schemas.
 */

export const manifestSchema = z.object({
  format: z.literal('nine-ripples.workshop'),
  version: z.literal(1),
  /** What is in it: everything, or one pour or mould and what belongs to it. */
  of: z.enum(['workshop', 'pour', 'mould']),
  /** Words for whoever opens it. */
  name,
  pours: z.int().min(0),
  photos: z.int().min(0),
})
export type Manifest = z.infer<typeof manifestSchema>

const photo = z.object({ id, caption: text(200) })

/** Cards of each kind, in the order they are read in again: each may name those before it. */
export const CARD_SCHEMAS = {
  plasters: plasterInputSchema.extend({ id }),
  bags: bagInputSchema.safeExtend({ id, spoonTests: z.array(spoonTestSchema).max(200) }),
  bowls: bowlInputSchema.extend({ id }),
  places: placeInputSchema.extend({ id }),
  moulds: mouldInputSchema.safeExtend({ id, photos: z.array(photo).max(24) }),
  mould_sets: mouldSetSchema.extend({ id }),
  recipes: recipeInputSchema.extend({ id }),
  settling: settlingEntrySchema,
  learning: learnChoicePutSchema,
} as const
export type CardKind = keyof typeof CARD_SCHEMAS
export const CARD_KINDS = Object.keys(CARD_SCHEMAS) as [CardKind, ...CardKind[]]

export const settingsFileSchema = settingsSchema

/**
 * One pour: its plan as it was taken to the bench, earlier plans, and everything that happened. As the database has it: a
 * plan was judged when it was made, and is not judged again by the limits of today.
 */
export const pourFileSchema = z.object({
  format: z.literal('nine-ripples.pour'),
  version: z.literal(1),
  id,
  createdAtMs: instantMs,
  revision,
  plan: storedPlanSchema,
  earlierPlans: z.array(z.object({ revision, plan: storedPlanSchema })).max(1000),
  events: z
    .array(
      z.object({
        id,
        occurredAtMs: instantMs,
        receivedAtMs: instantMs,
        /** When the device's own clock had it, where that was set right. */
        claimedAtMs: instantMs.optional(),
        who: text(60),
        planRevision: revision.optional(),
        body: eventBodySchema,
      }),
    )
    .max(20_000),
  readings: z
    .array(
      z.object({
        device: deviceIdSchema,
        channel: deviceChannelSchema,
        batch: z.int().min(0).max(1000),
        atMs: instantMs,
        value: z.number(),
        stable: z.boolean(),
      }),
    )
    .max(500_000),
  photos: z.array(photo).max(100),
})
export type PourFile = z.infer<typeof pourFileSchema>

/** What may be exported. */
export const exportRequestSchema = z.union([
  z.strictObject({ of: z.literal('workshop') }),
  z.strictObject({ of: z.literal('pour'), id }),
  z.strictObject({ of: z.literal('mould'), id }),
])
export type ExportRequest = z.infer<typeof exportRequestSchema>

/** What is there already and says otherwise: it stays, or the file's takes its place. */
export const applyRequestSchema = z.object({ clashes: z.enum(['keep', 'take']) })

export type BundleKind = CardKind | 'settings' | 'pours' | 'photos'

/** What reading a file in would do, or did, of one kind. */
export interface BundleCount {
  add: number
  same: number
  /** Pours that are there and have more to tell in the file. */
  grow: number
  clash: number
}
export interface BundleReport {
  manifest: Manifest
  counts: Partial<Record<BundleKind, BundleCount>>
  /** Names of what says otherwise here, at most so many. */
  clashes: { kind: BundleKind; name: string }[]
  /** Files that could not be read, and why. */
  unreadable: { file: string; why: string }[]
}

/** Work on a bundle that takes its time: followed by asking, ended by deleting it. */
export interface BundleJob {
  id: string
  kind: 'export' | 'import'
  /** `ready`: a file to fetch, or a report to decide on. */
  state: 'running' | 'ready' | 'done' | 'failed'
  /** Files gone through, of so many. */
  done: number
  total: number
  report?: BundleReport
  failure?: ErrorCode
  name?: string
}
