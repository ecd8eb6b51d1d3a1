import { z } from 'zod'
import { MOST_SCOOPS, MOST_TOLD_APART, MOST_VOLUME_ML, MOST_WEIGHED_G } from '../core/bounds'
import { EXPOSURES } from '../core/drying'
import { CAUSES, FAULT_KINDS, FAULT_PLACES, FINISH_TASKS, RECALLED, UPKEEPS } from '../core/finish'
import { AIR_TACTICS, PREPARATIONS } from '../core/mould'
import { MAX_BATCHES } from '../core/mix'
import {
  CLEAN_UPS,
  CORRECTIONS,
  DEMOULD_OUTCOMES,
  type EventBody,
  HOTTEST_DRYING_AIR_C,
  LEAK_PLUGS,
  MOULD_DAMAGES,
  type PourEvent,
  SOFT_WORKS,
  THERMOMETER_TOLD,
  VERDICTS,
  WEIGHED,
} from '../core/pour'
import { TOUCH_CUES } from '../core/forecast'
import { deviceIdSchema } from './deviceLine'
import { readingRefSchema, tempChannelSchema } from './devices'
import { id, instantMs, revision, text } from './text'
import { dryingSpotSchema, planPlasterSchema, positive, temp } from './plans'

/** What happens to a pour, as it crosses the wire: one shape an event (`EVENT` in `core/pour/events.ts`). */

/** A clock that is further off than this tells nothing: ten years. */
const MAX_SHIFT_MS = 315_360_000_000

/** Planned bowls, and a few more for what ran short. */
const inBatch = {
  batch: z
    .int()
    .min(0)
    .max(2 * MAX_BATCHES)
    .optional(),
}

/** Where a piece is carried: unlike a plan's, nobody judges it after this. */
export const dryingAirSchema = z.object({
  tempC: z.number().min(0).max(HOTTEST_DRYING_AIR_C),
  rhPct: z.number().min(1).max(96),
  speedMS: z.number().min(0.02).max(10),
})
const placeSpotSchema = dryingSpotSchema.extend({
  air: dryingAirSchema,
  nightAir: dryingAirSchema.optional(),
})

/** Which pieces it is of, by number; a list that names none would say nothing. */
const ofPieces = {
  pieces: z.array(z.int().min(1).max(MOST_TOLD_APART)).min(1).max(MOST_TOLD_APART).optional(),
}

/** What was taken from a device. */
const fromReading = { reading: readingRefSchema.optional() }

const heedSubjectSchema = z.templateLiteral([z.enum(['mould', 'recipe', 'bag']), ':', z.uuid()])

export const eventBodySchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('prepared'), item: z.enum(PREPARATIONS) }),
  z.object({ type: z.literal('mould_ready') }),
  z.object({
    type: z.literal('weighed'),
    what: z.enum(WEIGHED),
    massG: positive(MOST_WEIGHED_G),
    scoops: z.object({ count: positive(MOST_SCOOPS), measureMl: positive(MOST_VOLUME_ML) }).optional(),
    ...inBatch,
    ...fromReading,
  }),
  z.object({ type: z.literal('scale_failed') }),
  z.object({ type: z.literal('scale_doubted') }),
  z.object({ type: z.literal('plaster_was'), plaster: planPlasterSchema }),
  z.object({
    type: z.literal('thermometer_told'),
    device: deviceIdSchema,
    channel: tempChannelSchema,
    is: z.enum(THERMOMETER_TOLD),
  }),
  z.object({ type: z.literal('powder_follows'), follows: z.boolean(), ...inBatch }),
  z.object({
    type: z.literal('corrected'),
    how: z.enum(CORRECTIONS),
    massG: positive(MOST_WEIGHED_G),
    ...inBatch,
  }),
  z.object({
    type: z.literal('slurry_checked'),
    massG: positive(MOST_WEIGHED_G),
    volumeMl: positive(MOST_VOLUME_ML),
    ...inBatch,
  }),
  z.object({ type: z.literal('sift_started'), ...inBatch }),
  z.object({ type: z.literal('sifted'), ...inBatch }),
  z.object({ type: z.literal('soaked'), ...inBatch }),
  z.object({
    type: z.literal('stirred'),
    manner: z.enum(['gentle', 'hand', 'whisk', 'drill']),
    ...inBatch,
  }),
  z.object({ type: z.literal('extraction_checked') }),
  z.object({ type: z.literal('layer_keyed') }),
  z.object({ type: z.literal('face_coated'), ...inBatch }),
  z.object({ type: z.literal('bond_coated'), ...inBatch }),
  z.object({ type: z.literal('squeezed'), ...inBatch }),
  z.object({ type: z.literal('part_filled'), ...inBatch }),
  z.object({ type: z.literal('thickened'), ...inBatch }),
  z.object({ type: z.literal('reinforced'), ...inBatch }),
  z.object({ type: z.literal('built'), ...inBatch }),
  z.object({ type: z.literal('turned'), ...inBatch }),
  z.object({ type: z.literal('roughened'), ...inBatch }),
  z.object({ type: z.literal('vibrated') }),
  z.object({ type: z.literal('levelled'), ...inBatch }),
  z.object({ type: z.literal('own_done'), own: id, ...inBatch }),
  z.object({ type: z.literal('air_freed'), how: z.enum(AIR_TACTICS) }),
  z.object({
    type: z.literal('leaked'),
    plug: z.enum(LEAK_PLUGS),
    lostMl: z.number().min(0).max(MOST_VOLUME_ML),
    ...inBatch,
  }),
  z.object({
    type: z.literal('leftover_poured'),
    mouldId: id,
    fillMl: z.number().gt(0).max(MOST_VOLUME_ML),
  }),
  z.object({ type: z.literal('left_over'), volumeMl: z.number().min(0).max(MOST_VOLUME_ML) }),
  z.object({ type: z.literal('worked_soft'), work: z.enum(SOFT_WORKS) }),
  z.object({ type: z.literal('cleaned_up'), what: z.enum(CLEAN_UPS) }),
  z.object({ type: z.literal('poured'), ...inBatch }),
  z.object({ type: z.literal('ran_short'), missingMl: z.number().min(1).max(MOST_VOLUME_ML), ...inBatch }),
  z.object({ type: z.literal('tapped'), ...inBatch }),
  z.object({
    type: z.literal('touch'),
    cue: z.enum(TOUCH_CUES),
    seen: z.boolean(),
    already: z.boolean().optional(),
  }),
  z.object({
    type: z.literal('temperature'),
    place: z.enum(['slurry', 'surface', 'room']),
    tempC: temp,
    ...inBatch,
    ...fromReading,
  }),
  z.object({
    type: z.literal('demoulded'),
    outcome: z.enum(DEMOULD_OUTCOMES),
    gripped: z.boolean().optional(),
    ...ofPieces,
  }),
  z.object({
    type: z.literal('mould_damage'),
    mouldId: id.nullable(),
    kind: z.enum(MOULD_DAMAGES),
  }),
  z.object({ type: z.literal('weighing'), massG: positive(MOST_WEIGHED_G), ...ofPieces, ...fromReading }),
  z.object({ type: z.literal('dries_at'), spot: placeSpotSchema, lies: z.enum(EXPOSURES) }),
  z.object({ type: z.literal('felt_dry'), clammy: z.boolean() }),
  z.object({ type: z.literal('finish_done'), task: z.enum(FINISH_TASKS) }),
  z.object({ type: z.literal('kept_up'), what: z.enum(UPKEEPS) }),
  z.object({
    type: z.literal('defect'),
    kind: z.enum(FAULT_KINDS),
    place: z.enum(FAULT_PLACES).optional(),
    sizeMm: positive(5000).optional(),
    spot: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }).optional(),
    photoId: id.optional(),
    ...ofPieces,
  }),
  z.object({ type: z.literal('recalled'), said: z.enum(RECALLED) }),
  z.object({ type: z.literal('cause_kept'), cause: z.enum(CAUSES) }),
  z.object({ type: z.literal('cause_mended'), cause: z.enum(CAUSES), subject: heedSubjectSchema }),
  z.object({ type: z.literal('photographed'), photoId: id, caption: text(200), ...ofPieces }),
  z.object({
    type: z.literal('finished'),
    verdict: z.enum(VERDICTS),
    reason: text(500),
    ...ofPieces,
  }),
  z.object({ type: z.literal('note'), text: text(2000).min(1) }),
  z.object({ type: z.literal('plan_holds'), revision }),
  z.object({ type: z.literal('void'), targetId: id }),
]) satisfies z.ZodType<EventBody>
// An event that the wire forgets would be refused: this does not compile then.
null as unknown as EventBody['type'] satisfies z.infer<typeof eventBodySchema>['type']

/** An event as a client makes it. */
export const newEventSchema = z.object({
  id,
  occurredAtMs: instantMs,
  who: text(60),
  planRevision: revision.optional(),
  body: eventBodySchema,
}) satisfies z.ZodType<Omit<PourEvent, 'receivedAtMs'>>
export type NewEvent = z.infer<typeof newEventSchema>

/** As it is sent: with what the clock it was timed by was off, as the device has learnt since. */
export const postedEventSchema = newEventSchema.extend({
  shiftMs: z.int().min(-MAX_SHIFT_MS).max(MAX_SHIFT_MS).optional(),
})
export type PostedEvent = z.infer<typeof postedEventSchema>
