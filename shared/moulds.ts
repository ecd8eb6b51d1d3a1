import { z } from 'zod'
import {
  AIR_TRAPS,
  BUILDS,
  FLEXES,
  GRAINS,
  GROUND_FIRMNESS,
  LAYERS_BELOW,
  MAX_PROFILE_NODES,
  MOULD_MATERIALS,
  OPENINGS,
  PURPOSES,
  SUPPORTS,
  TYPICAL_PARTS,
  UNDERCUTS,
  describeCavity,
  type CavityDescription,
  type CavityShape,
  type GroundFirmness,
  type Grain,
  type MouldFacts,
  type MouldKind,
  type TypicalPart,
  type VolumeMethod,
} from '../core/mould'
import { MOST_VOLUME_ML, MOST_WEIGHED_G } from '../core/bounds'
import { PLASTER_CLASS_IDS } from '../core/plaster'
import type { FaultKind } from '../core/finish'
import type { MouldDamage, MouldUse } from '../core/pour'
import type { Provenance } from '../core/provenance'
import type { Photo } from './photos'
import { id, name, revision, text } from './text'

/** Moulds as they cross the wire and as files hold them. Lengths mm, volumes ml, areas mm², masses g. */

const length = z.number().min(0).max(10_000)
const volume = z.number().min(0).max(MOST_VOLUME_ML)
const keysOf = <K extends string>(of: Record<K, unknown>) => Object.keys(of) as [K, ...K[]]

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

const volumeMethodSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('known'), volumeMl: volume, plusMinusPct: z.number().min(0).max(50) }),
  z.object({
    by: z.literal('water_fill'),
    reading: z.enum(['weighed', 'measured']),
    massG: z.number().min(0).max(MOST_WEIGHED_G),
    volumeMl: volume,
    waterTempC: z.number().min(0).max(60),
  }),
  z.object({
    by: z.literal('dry_fill'),
    grain: z.enum(keysOf<Grain>(GRAINS)),
    pouredMl: volume,
    narrowestMm: length,
  }),
  z.object({ by: z.literal('shape'), shape: shapeSchema }),
  z.object({
    by: z.literal('profile'),
    outer: profileSchema,
    inner: profileSchema,
    fillHeightMm: length.nullable(),
  }),
  z.object({
    by: z.literal('ground'),
    dam: z.enum(['ring', 'frame']),
    diameterMm: length,
    lengthMm: length,
    widthMm: length,
    printDepthMm: length,
    printSharePct: z.number().min(0).max(100),
    coverMm: length,
    ground: z.enum(keysOf<GroundFirmness>(GROUND_FIRMNESS)),
  }),
  z.object({
    by: z.literal('displacement'),
    container: z.enum(['round', 'square']),
    diameterMm: length,
    lengthMm: length,
    widthMm: length,
    fillDepthMm: length,
    object: z.enum(['displaced', 'typical']),
    displacedMl: volume,
    typical: z.enum(keysOf<TypicalPart>(TYPICAL_PARTS)),
    objectWidthMm: length,
    objectDepthMm: length,
    gelRatio: z.enum(['by_volume', 'by_label']),
    gelPowderGPer100Ml: z.number().min(1).max(200),
    gelWorkMin: z.number().min(0.5).max(30),
  }),
  z.object({
    by: z.literal('shell'),
    object: z.enum(['block', 'round', 'ball', 'area']),
    lengthMm: length,
    widthMm: length,
    diameterMm: length,
    heightMm: length,
    areaMm2: z.number().min(0).max(1e8),
    thicknessMm: length,
    onBoard: z.boolean(),
    layerMm: z.number().min(1).max(500),
    batchMl: z.number().min(50).max(100_000),
  }),
  z.object({
    by: z.literal('top_up'),
    outline: z.enum(['rectangle', 'round', 'area']),
    lengthMm: length,
    widthMm: length,
    diameterMm: length,
    areaMm2: z.number().min(0).max(1e8),
    depthMm: length,
    below: z.enum(LAYERS_BELOW),
  }),
  z.object({
    by: z.literal('weighed_cast'),
    massG: z.number().min(0).max(MOST_WEIGHED_G),
    state: z.enum(['dry', 'wet']),
    classId: z.enum(PLASTER_CLASS_IDS),
    consistency: z.number().min(19).max(200),
  }),
]) satisfies z.ZodType<VolumeMethod>

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
export const mouldInputSchema = z.object({ ...mouldShape, usualPlasterId: id.nullable() })
export type MouldInput = z.infer<typeof mouldInputSchema>
/** `revision` is what the caller saw; null puts a new one on the shelf. */
export const mouldPutSchema = z.object({ revision: revision.nullable(), mould: mouldInputSchema })

/** A mould on the shelf, with what follows from its description and what happened to it. */
export interface MouldCard extends MouldInput {
  id: string
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
