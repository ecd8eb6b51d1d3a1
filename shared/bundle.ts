import type { ErrorCode } from './errors'
import { z } from 'zod'
import { deviceIdSchema } from './deviceLine'
import { deviceChannelSchema } from './devices'
import { eventBodySchema } from './pourEvents'
import { settingsSchema } from './contracts'
import { storedPlanSchema } from './plans'
import { learnChoicePutSchema, placeInputSchema } from './learning'
import { filedFind, mouldInputSchema, mouldSetSchema } from './moulds'
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
 * `pours/<id>.json` with as many more as it takes in `pours/<id>.2.json` and so on, photographs in `photos/<id>.jpg`,
 * `left-out.json` last, and tables in `tables/` for whoever reads no JSON. Masses g, volumes ml, lengths mm, temperatures
 * °C, times s or ms since 1970. Published schemas: docs/schemas.
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

/** What could not be taken along whole, and why. */
export const leftOutSchema = z.object({
  format: z.literal('nine-ripples.left_out'),
  version: z.literal(1),
  items: z.array(z.object({ file: z.string(), why: z.string() })),
})
export type LeftOut = z.infer<typeof leftOutSchema>['items'][number]

/** Cards of each kind, in the order they are read in again: each may name those before it. */
export const CARD_SCHEMAS = {
  plasters: plasterInputSchema.extend({ id }),
  bags: bagInputSchema.safeExtend({ id, spoonTests: z.array(spoonTestSchema).max(200) }),
  bowls: bowlInputSchema.extend({ id }),
  places: placeInputSchema.extend({ id }),
  moulds: mouldInputSchema.safeExtend({ id, ...filedFind, photos: z.array(photo).max(24) }),
  mould_sets: mouldSetSchema.extend({ id }),
  recipes: recipeInputSchema.extend({ id }),
  settling: settlingEntrySchema,
  learning: learnChoicePutSchema,
} as const
export type CardKind = keyof typeof CARD_SCHEMAS
export const CARD_KINDS = Object.keys(CARD_SCHEMAS) as [CardKind, ...CardKind[]]

export const settingsFileSchema = settingsSchema

/** What one file of a pour holds at the most; the rest is in the next. */
export const MOST_IN_PIECE = { events: 20_000, readings: 20_000 } as const

const fileEvent = z.object({
  id,
  occurredAtMs: instantMs,
  receivedAtMs: instantMs,
  /** When the device's own clock had it, where that was set right. */
  claimedAtMs: instantMs.optional(),
  who: text(60),
  planRevision: revision.optional(),
  body: eventBodySchema,
})
const fileReading = z.object({
  device: deviceIdSchema,
  channel: deviceChannelSchema,
  batch: z.int().min(0).max(1000),
  atMs: instantMs,
  value: z.number(),
  stable: z.boolean(),
})

/** What of a pour the files before it could not hold. */
export const pourMoreSchema = z.object({
  format: z.literal('nine-ripples.pour_more'),
  version: z.literal(1),
  id,
  events: z.array(fileEvent).max(MOST_IN_PIECE.events),
  readings: z.array(fileReading).max(MOST_IN_PIECE.readings),
})
export type PourMore = z.infer<typeof pourMoreSchema>

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
  events: z.array(fileEvent).max(MOST_IN_PIECE.events),
  // Files from before pours had more than one hold all of them.
  readings: z.array(fileReading).max(500_000),
  photos: z.array(photo).max(100),
})
export type PourFile = z.infer<typeof pourFileSchema>

/** What may be exported. */
export const exportRequestSchema = z.union([
  z.strictObject({ of: z.literal('workshop') }),
  z.strictObject({ of: z.literal('pour'), id }),
  /** `withPlace`: where its print lies goes along; else nothing of it does. */
  z.strictObject({ of: z.literal('mould'), id, withPlace: z.boolean().optional() }),
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
  /** What could not be read, and why: the first of it, and how many more there are. */
  unreadable: LeftOut[]
  moreUnreadable: number
}

/** Work on a bundle that takes its time: followed by asking, ended by deleting it. */
export interface BundleJob {
  id: string
  kind: 'export' | 'import'
  /** `ready`: a file to fetch, or a report to decide on. */
  state: 'running' | 'ready' | 'done' | 'failed'
  /** So many others are worked on before it. */
  ahead: number
  /** Files gone through, of so many. */
  done: number
  total: number
  report?: BundleReport
  /** Of an export: what is not in it, or could not be read in again. */
  leftOut?: LeftOut[]
  failure?: ErrorCode
  name?: string
}
