import { z } from 'zod'
import {
  FIELD_GROUNDS,
  FINENESS_M,
  MARK_KINDS,
  MARK_POINTS,
  MOST_TRACED,
  type Mark,
  type Pixel,
  type Position,
  type Scale,
  type Shot,
} from '../core/field'
import { id, instantMs, text } from './text'

/** Prints as they were found and measured, as they cross the wire. Lengths mm, places in photographs px of what is kept of them. */

const MOST_PX = 20_000
const pixel = z.object({
  x: z
    .number()
    .min(-MOST_PX)
    .max(2 * MOST_PX),
  y: z
    .number()
    .min(-MOST_PX)
    .max(2 * MOST_PX),
}) satisfies z.ZodType<Pixel>
const lengthMm = z.number().gt(0).max(20_000)
const belowMm = z.number().min(-500).max(500)

const scaleSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('rule'), marks: z.tuple([pixel, pixel]), lengthMm }),
  z.object({
    by: z.literal('rectangle'),
    corners: z.array(pixel).length(4),
    sidesMm: z.tuple([lengthMm, lengthMm]),
  }),
  z.object({
    by: z.literal('places'),
    places: z
      .array(
        z.object({
          at: pixel,
          xMm: z.number().min(-20_000).max(20_000),
          yMm: z.number().min(-20_000).max(20_000),
        }),
      )
      .min(4)
      .max(40),
  }),
]) satisfies z.ZodType<Scale>

const markSchema = z
  .object({
    kind: z.enum(MARK_KINDS),
    name: text(60),
    points: z.array(pixel).min(2).max(3),
    belowMm,
  })
  .refine((m) => m.points.length === MARK_POINTS[m.kind], {
    path: ['points'],
    message: 'are not as many as it takes',
  }) satisfies z.ZodType<Mark>
export type NamedMark = z.infer<typeof markSchema>

const shotSchema = z.object({
  photoId: id,
  widthPx: z.int().min(1).max(MOST_PX),
  heightPx: z.int().min(1).max(MOST_PX),
  /** Null: it shows the print, and nothing is measured on it. */
  scale: scaleSchema.nullable(),
  tiltDeg: z.number().min(0).max(180).nullable(),
  cameraHeightMm: z.number().min(50).max(20_000).nullable(),
  marks: z.array(markSchema).max(40),
  outline: z.object({ points: z.array(pixel).min(3).max(MOST_TRACED), belowMm }).nullable(),
}) satisfies z.ZodType<Omit<Shot, 'scale'>>
/** A photograph of a print, and what was marked on it. */
export type FindShot = z.infer<typeof shotSchema>

/** Where a print was found, and what was measured there before it was filled. */
export const findSchema = z.object({
  foundAtMs: instantMs,
  place: text(200),
  /** As finely as it may be kept; null: not at all. */
  position: z
    .object({
      latDeg: z.number().min(-90).max(90),
      lonDeg: z.number().min(-180).max(180),
      withinM: z.literal(FINENESS_M),
    })
    .nullable() satisfies z.ZodType<Position | null>,
  ground: z.enum(FIELD_GROUNDS),
  weather: text(200),
  light: text(200),
  /** Air where it lies, °C; missing or null: nobody has said. */
  airTempC: z.number().min(-40).max(60).nullish(),
  depthsMm: z.array(z.number().gt(0).max(1000)).max(12),
  shots: z.array(shotSchema).max(12),
  /** The casts of it, as they were measured when they were clean. */
  casts: z
    .array(z.object({ pourId: id, lengthMm: lengthMm.nullable(), widthMm: lengthMm.nullable() }))
    .max(20),
})
export type Find = z.infer<typeof findSchema>
