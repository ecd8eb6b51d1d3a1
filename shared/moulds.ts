import { z } from 'zod'
import {
  AIR_TRAPS,
  BUILDS,
  FLEXES,
  MAX_PROFILE_NODES,
  MOULD_MATERIALS,
  OPENINGS,
  PURPOSES,
  SUPPORTS,
  UNDERCUTS,
  WAYS,
  describeCavity,
  type CavityDescription,
  type CavityShape,
  type Figure,
  type MouldFacts,
  type MouldKind,
  type VolumeMethod,
} from '../core/mould'
import type { FaultKind } from '../core/finish'
import type { MouldDamage, MouldUse } from '../core/pour'
import type { Provenance } from '../core/provenance'
import type { Photo } from './photos'
import { findSchema, type Find } from './finds'
import { id, name, revision, text } from './text'

/** Moulds as they cross the wire and as files hold them. Lengths mm, volumes ml, areas mm², masses g. */

const length = z.number().min(0).max(10_000)

const shapeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('box'), lengthMm: length, widthMm: length, depthMm: length }),
  z.object({
    kind: z.literal('slab'),
    lengthMm: length,
    widthMm: length,
    thicknessMm: length,
    cornerRadiusMm: length,
  }),
  z.object({ kind: z.literal('cylinder'), diameterMm: length, depthMm: length }),
  z.object({
    kind: z.literal('frustum'),
    topDiameterMm: length,
    bottomDiameterMm: length,
    depthMm: length,
  }),
  z.object({ kind: z.literal('bowl'), rimDiameterMm: length, depthMm: length }),
  z.object({
    kind: z.literal('footed_bowl'),
    rimDiameterMm: length,
    footDiameterMm: length,
    depthMm: length,
  }),
  z.object({ kind: z.literal('ring'), outerDiameterMm: length, innerDiameterMm: length, depthMm: length }),
  z.object({ kind: z.literal('half_round'), lengthMm: length, diameterMm: length, depthMm: length }),
  z.object({ kind: z.literal('prism'), sides: z.int().min(3).max(24), sideMm: length, depthMm: length }),
]) satisfies z.ZodType<CavityShape>

const profileSchema = z
  .array(
    z.object({
      radiusMm: z.number().min(0).max(5000),
      heightMm: z.number().min(-5000).max(5000),
      smooth: z.boolean(),
    }),
  )
  .max(MAX_PROFILE_NODES)

function schemaOf(figure: Figure): z.ZodType {
  switch (figure.is) {
    case 'number':
      return z.number().min(figure.min).max(figure.max)
    case 'number_or_none':
      return z.number().min(figure.min).max(figure.max).nullable()
    case 'one_of':
      return z.enum(figure.of)
    case 'yes_no':
      return z.boolean()
    case 'profile':
      return profileSchema
    case 'shape':
      return shapeSchema
  }
}
const waySchemas = WAYS.map(({ by, figures }) =>
  z.object({
    by: z.literal(by),
    ...Object.fromEntries(Object.entries(figures).map(([key, figure]) => [key, schemaOf(figure)])),
  }),
)
// Which figures a way has is known to the types from the same table, past what inference can follow.
const volumeMethodSchema = z.discriminatedUnion(
  'by',
  waySchemas as unknown as [(typeof waySchemas)[number]],
) as unknown as z.ZodType<VolumeMethod, VolumeMethod>

/** How a volume was found, as a shape: whether it can be cast was asked when it was described. */
export const storedCavitySchema = z.object({
  parts: z
    .array(
      z.object({
        role: z.enum(['add', 'subtract']),
        count: z.int().min(1).max(100),
        method: volumeMethodSchema,
      }),
    )
    .min(1)
    .max(12),
  cavities: z.int().min(1).max(200),
  check: volumeMethodSchema.nullable(),
  trust: z.enum(['parts', 'check', 'both']),
}) satisfies z.ZodType<CavityDescription>

/** The same, judged: what cannot be cast is refused with the core's own code at its path. */
export const cavityDescriptionSchema = storedCavitySchema.superRefine((description, context) => {
  if (context.issues.length > 0) return
  for (const issue of describeCavity(description).issues) {
    if (issue.severity === 'error')
      context.addIssue({ code: 'custom', path: issue.path.split('.'), message: issue.code })
  }
})

export const mouldFactsSchema = z.object({
  material: z.enum(MOULD_MATERIALS),
  flex: z.enum(FLEXES),
  build: z.enum(BUILDS),
  oneTime: z.boolean(),
  support: z.enum(SUPPORTS),
  opening: z.enum(OPENINGS),
  undercut: z.enum(UNDERCUTS),
  airTraps: z.array(z.enum(AIR_TRAPS)).max(AIR_TRAPS.length),
}) satisfies z.ZodType<MouldFacts>

/** A mould as a caster describes it. */
const mouldShape = {
  name,
  purpose: z.enum(PURPOSES),
  facts: mouldFactsSchema,
  volume: cavityDescriptionSchema,
  thicknessMm: z.number().min(1).max(500),
  /** Kept ready for what is left over in the bowl. */
  isSpill: z.boolean(),
  /** Casts made before its history was kept here. */
  castsBefore: z.int().min(0).max(100_000),
  /** How many casts the caster expects of it; null: what its material usually gives. */
  lifeCasts: z.int().min(1).max(100_000).nullable(),
  note: text(2000),
}
/** Of a print: where it was found and what was measured of it; null for anything else. */
const find = findSchema.nullable()
/** Who does not know of finds leaves them as they are. */
export const mouldInputSchema = z.object({
  ...mouldShape,
  usualPlasterId: id.nullable(),
  find: find.optional(),
})
/** In files; those from before have none. */
export const filedFind = { find: find.default(null) }
export type MouldInput = z.infer<typeof mouldInputSchema>
/** `revision` is what the caller saw; null puts a new one on the shelf. */
export const mouldPutSchema = z.object({ revision: revision.nullable(), mould: mouldInputSchema })

/** A mould on the shelf, with what follows from its description and what happened to it. */
export interface MouldCard extends MouldInput {
  id: string
  find: Find | null
  /** Counts changes; a change must name the one it started from. */
  revision: number
  kind: MouldKind
  cavityMl: number
  plusMinusMl: number
  volumeProvenance: Provenance
  thinnestMm: number | null
  photos: Photo[]
  history: {
    /** Casts recorded here; those from before come on top. */
    casts: number
    last: {
      pourId: string
      piece: string
      atMs: number
      outcomes: MouldUse['outcomes']
      faults: FaultKind[]
    } | null
    damages: { kind: MouldDamage; atMs: number }[]
  }
}

export const mouldSetSchema = z.object({
  name,
  members: z
    .array(z.object({ mouldId: id, count: z.int().min(1).max(100) }))
    .min(1)
    .max(24)
    .refine((m) => new Set(m.map((x) => x.mouldId)).size === m.length, 'names a mould twice'),
})
export type MouldSetInput = z.infer<typeof mouldSetSchema>
/** `revision` is what the caller saw; null puts a new one in. */
export const mouldSetPutSchema = z.object({ revision: revision.nullable(), set: mouldSetSchema })
export interface MouldSet extends MouldSetInput {
  id: string
  revision: number
}

/** The file that a shelf is kept in. Its JSON Schema: docs/schemas/moulds.v1.schema.json. */
export const mouldBundleSchema = z.object({
  format: z.literal('nine-ripples.moulds'),
  version: z.literal(1),
  moulds: z
    .array(
      z.object({
        id,
        ...mouldShape,
        ...filedFind,
        usualPlaster: z.object({ id, name }).nullable(),
        photos: z.array(z.object({ id, caption: text(200), jpegBase64: z.base64().max(6_000_000) })).max(24),
      }),
    )
    .max(2000),
  sets: z.array(mouldSetSchema.extend({ id })).max(500),
})
export type MouldBundle = z.infer<typeof mouldBundleSchema>

export interface ImportOutcome {
  added: number
  /** On the shelf already, word for word. */
  same: number
  /** On the shelf already with other content: left as they are. */
  kept: string[]
  /** Put on the shelf without their usual plaster: its card is not here. */
  plasterMissing: { mould: string; plaster: string }[]
  setsAdded: number
}
