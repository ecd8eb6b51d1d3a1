import { z } from 'zod'
import { LEAST_SCOOP_ML, MOST_SCOOP_ML, MOST_STOCKED_G } from '../core/bounds'
import { type PourTag, TAG_KINDS, VERDICTS } from '../core/pour'
import { id, instantMs, name, revision, text } from './text'
import { benchPlanSchema } from './plans'

/** What else crosses the wire. Both sides parse with these; past them the data is trusted. */

/** `createdAtMs`: when it was planned, where that was on a device out of reach. */
export const newPourSchema = z.object({ id, plan: benchPlanSchema, createdAtMs: instantMs.optional() })
export const planChangeSchema = z.object({ revision, plan: benchPlanSchema })

export const settingsSchema = z.object({
  workshopName: name,
  system: z.enum(['metric', 'us', 'imperial']),
  scaleDivisionG: z.number().min(0.01).max(1000),
  roomTempC: z.number().min(-10).max(50),
  roomRhPct: z.number().min(1).max(96),
  airSpeedMS: z.number().min(0.02).max(10),
  tapTempC: z.number().min(1).max(45),
  hotTapTempC: z.number().min(1).max(95),
  /** Most the scale takes, g; null: enough for anything here. */
  scaleCapacityG: z.number().min(10).max(MOST_STOCKED_G).nullable(),
  /** What prices are in. */
  currency: text(6).min(1),
  /** The sign before decimals; null: ask where it matters. */
  decimalSign: z.enum(['point', 'comma']).nullable(),
  /** Whose cups and pints, in a metric workshop; null: ask. */
  kitchen: z.enum(['us', 'imperial']).nullable(),
  /** What the cup or scoop holds that is measured with, ml; null: nobody has said. Settings from before it lack it. */
  scoopMl: z.number().min(LEAST_SCOOP_ML).max(MOST_SCOOP_ML).nullable().default(null),
})
export type Settings = z.infer<typeof settingsSchema>
export const settingsPutSchema = z.object({ revision, settings: settingsSchema })
/** Settings with the number that a change of them must name. */
export type SettingsRecord = Settings & { revision: number }

const limit = z.coerce.number().int().min(1).max(100).default(50)

/** Cards come a page at a time: `after` is the last page's `next`. */
export const pageQuerySchema = z.object({ after: text(300).default(''), limit })
export type PageQuery = z.output<typeof pageQuerySchema>

const TAGS: readonly string[] = TAG_KINDS
const asTags = (list: string) => list.split(',').filter((t) => t !== '')
const tagSchema = z
  .string()
  .refine(
    (t): t is PourTag => TAGS.includes(t.split(':')[0]!) && /^[a-z]+:[\w-]+$/.test(t),
    'is no such thing',
  )

/** The log, newest first; `after` as above. */
export const listQuerySchema = z.object({
  state: z.enum(['open', 'closed', 'all']).default('all'),
  verdict: z.enum(VERDICTS).optional(),
  q: text(100).default(''),
  /** Of these moulds, bags, places, plasters, recipes, with these faults or causes: `kind:id`, several with commas. */
  tags: text(600).default('').transform(asTags).pipe(z.array(tagSchema).max(8)),
  after: text(300).default(''),
  limit,
})
export type ListQuery = z.input<typeof listQuerySchema>

/** Which mould and which plaster: when were they last mixed, and how? */
export const jobQuerySchema = z.object({ mouldId: id, plasterId: id })
