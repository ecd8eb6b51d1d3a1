import { LEAST_VOLUME_ML } from '../bounds'
import { weighOutForVolume, type MixInput } from '../mix'
import { coverFor, pouredOver, printVolume, ringFor, type PrintForm, type Ring } from './amount'

/** Prints of one size that one goes out for. */
export interface PrintsOut {
  lengthMm: number
  widthMm: number
  depthMm: number
  form: PrintForm
  count: number
}

/** How it is mixed where the prints lie: each in its bag, or for all who stand there in a jug. */
export const FIELD_MIXES = ['bags', 'jug'] as const
export type FieldMix = (typeof FIELD_MIXES)[number]

export interface PackInput {
  prints: readonly PrintsOut[]
  mix: MixInput
  sparePct: number
  scaleDivisionG: number
  isSoft: boolean
  how: FieldMix
  /** Of the bottle that is along, ml; null: nobody has said. */
  capMl: number | null
  /** Air where it is poured, °C. */
  airTempC: number
}

/** One bag, weighed at home; several of the same go by a number. */
export interface PackedBag {
  powderG: number
  waterMl: number
  /** The same water in caps of the bottle; null where nobody has said how much one holds. */
  caps: number | null
  /** Casts that it makes, and of which prints (their place in the list). */
  casts: number
  print: number
  count: number
  /** Of so many bags that one cast takes; 1: one is enough. */
  bagsACast: number
}

export const PACK_ITEMS = [
  'bags',
  'water',
  'ring_strips',
  'clips',
  'jug',
  'spoon',
  'scale_rule',
  'soft_brush',
  'marker',
  'rag',
  'rubbish_bag',
  'gloves',
  'mask',
  'warm_flask',
  'cold_water',
  'shade',
] as const
export type PackItem = (typeof PACK_ITEMS)[number]

export interface Pack {
  /** For each kind of print: its ring, its cover, and the mix that one of it takes. */
  each: { ring: Ring; coverMm: number; mixMl: number; plusMinusMl: number }[]
  bags: PackedBag[]
  powderG: number
  waterMl: number
  items: { item: PackItem; count: number }[]
}

/** What a bag takes and can still be kneaded through, g of powder [P]. */
const MOST_KNEADED_G = 900
/** Casts from one kneaded bag, at the most (common practice, no source). */
export const MOST_CASTS_A_BAG = 2
/** Below this water comes warm, above it cold, °C (common practice, no source). */
const COLD_C = 8
const HOT_C = 28
/** Water for rinsing hands and brush, besides what is mixed, ml [P]. */
const RINSE_ML = 1000

/**
 * What to take along for so many prints: bags weighed out, rings, and the rest of it.
 * @returns undefined where a print is too small to be cast. Lengths mm, > 0.
 */
export function packFor(input: PackInput): Pack | undefined {
  const each = input.prints.map((print) => {
    const coverMm = coverFor(print.lengthMm, input.isSoft)
    const ring = ringFor(print, coverMm)
    const areaMm2 = (Math.PI / 4) * print.lengthMm * print.widthMm
    const own = printVolume({ areaMm2, plusMinusMm2: 0.2 * areaMm2 }, [print.depthMm], print.form)
    const taken = pouredOver(own, (ring.areaMm2 * coverMm) / 1000, input.isSoft ? 'soft' : 'firm')
    return { ring, coverMm, mixMl: taken.volumeMl, plusMinusMl: taken.plusMinusMl }
  })
  if (each.length === 0 || each.some((e) => e.mixMl < LEAST_VOLUME_ML)) return undefined
  const bags = each.flatMap((e, i) => bagsFor(e.mixMl, input, i))
  const powderG = bags.reduce((sum, b) => sum + b.count * b.powderG, 0)
  const waterMl = bags.reduce((sum, b) => sum + b.count * b.waterMl, 0)
  return { each, bags, powderG, waterMl, items: itemsOf(input, bags, waterMl) }
}

function bagOf(mixMl: number, { mix, sparePct, scaleDivisionG, capMl }: PackInput) {
  const { powderG, waterG } = weighOutForVolume(mix, mixMl, sparePct, scaleDivisionG)
  return { powderG, waterMl: waterG, caps: capMl === null ? null : waterG / capMl }
}

function bagsFor(mixMl: number, input: PackInput, print: number): PackedBag[] {
  const { count } = input.prints[print]!
  const one = bagOf(mixMl, input)
  // A jug is one mix for all; it is carried in bags all the same, each as much as can be handled.
  if (input.how === 'bags' && one.powderG > MOST_KNEADED_G) {
    const bagsACast = Math.ceil(one.powderG / MOST_KNEADED_G)
    return [{ ...bagOf(mixMl / bagsACast, input), casts: 1, print, count: count * bagsACast, bagsACast }]
  }
  if (input.how === 'jug') return [{ ...one, casts: 1, print, count, bagsACast: 1 }]
  const two = bagOf(MOST_CASTS_A_BAG * mixMl, input)
  if (count < MOST_CASTS_A_BAG || two.powderG > MOST_KNEADED_G)
    return [{ ...one, casts: 1, print, count, bagsACast: 1 }]
  const pairs = Math.floor(count / MOST_CASTS_A_BAG)
  return [
    { ...two, casts: MOST_CASTS_A_BAG, print, count: pairs, bagsACast: 1 },
    ...(count % MOST_CASTS_A_BAG > 0 ? [{ ...one, casts: 1, print, count: 1, bagsACast: 1 }] : []),
  ]
}

function itemsOf(
  { prints, how, airTempC }: PackInput,
  bags: readonly PackedBag[],
  waterMl: number,
): Pack['items'] {
  const casts = prints.reduce((sum, p) => sum + p.count, 0)
  const counts: Record<PackItem, number> = {
    bags: bags.reduce((sum, b) => sum + b.count, 0),
    /** Litres, in halves. */
    water: Math.ceil((waterMl + RINSE_ML) / 500) / 2,
    ring_strips: casts,
    clips: 2 * casts,
    jug: how === 'jug' ? 1 : 0,
    spoon: 1,
    scale_rule: 1,
    soft_brush: 1,
    marker: 1,
    rag: 1,
    rubbish_bag: 1,
    gloves: 1,
    mask: 1,
    warm_flask: airTempC < COLD_C ? 1 : 0,
    cold_water: airTempC > HOT_C ? 1 : 0,
    shade: airTempC > HOT_C ? 1 : 0,
  }
  return PACK_ITEMS.filter((item) => counts[item] > 0).map((item) => ({ item, count: counts[item] }))
}
