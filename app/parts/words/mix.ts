import { figure } from '~/parts/show/figures'
import type { Purpose } from '#core/mould'
import type { AdditionId, AdditionIssueCode } from '#core/plaster'
import type { AddingWay, CorrectionKind, PlanIssueCode } from '#core/pour'
import type { BatchIssueCode, SiftStage } from '#core/mix'
import type { BagKeeping, SetTest } from '#core/stock'
import { counted } from '~/parts/show/counted'
import { durationText } from '~/parts/show/time'
import { THICKNESS_WORDS, type MixShow } from './mould'

/** Sentences of mixing that hang on a code: what goes in, how it is cut into bowls, what suits, what went wrong. */

export const ADDITION_WORDS: Record<AdditionId, { name: string; how: string }> = {
  silica: { name: 'Silica flour', how: 'for the kiln; 100 % makes 1 : 1 : 1' },
  sand: { name: 'Sand', how: 'for bulk and less heat' },
  fibre: { name: 'Chopped fibre', how: 'for thin shells' },
  pigment: { name: 'Dry pigment', how: 'up to about 5 %, mixed into the dry powder' },
  acrylic: { name: 'Acrylic dispersion', how: 'half of it counts as water' },
  liquid_paint: { name: 'Liquid paint', how: 'thins it and splits' },
  salt: { name: 'Kitchen salt', how: 'of the water: quicker; from about 5 % on slower again' },
  potassium_sulfate: { name: 'Potassium sulphate', how: 'of the water: much quicker, swells less' },
  set_gypsum: { name: 'Set gypsum, ground', how: 'quicker' },
  borax: { name: 'Borax', how: 'slower' },
  citric_acid: { name: 'Citric acid', how: 'slower, and weaker' },
  gelatine: { name: 'Gelatine or glue', how: 'slower; the surface stays soft' },
}

export const ADDITION_ISSUE_WORDS: Record<AdditionIssueCode, (pct: number, limit: number) => string> = {
  pigment_above_limit: (pct, limit) =>
    `${figure(pct)} % of pigment: beyond about ${figure(limit)} % it weakens and dusts off (common practice).`,
  liquid_paint_splits: () =>
    'Liquid paint thins the mix, and it may split or set soft. Dry pigment in the dry powder is the usual way.',
  retarder_weakens: () => 'A retarder costs strength, and small amounts do a lot: weigh it on a finer scale.',
  surface_stays_soft: () => 'Glue and gelatine slow it and leave the surface soft.',
  salt_rusts_and_blooms: () =>
    'Salt rusts wire and hangers inside, keeps the piece damp and blooms white as it dries.',
  addition_beyond_known: (pct) =>
    `At ${figure(pct, 1)} % nobody here knows how long it takes: try a spoonful.`,
}

export const BATCH_ISSUE_WORDS: Record<
  BatchIssueCode,
  (actual: number, limit: number, show: MixShow) => string
> = {
  bowl_too_small: (bowl, wanted, show) =>
    `The bowl holds ${show.volume(bowl)}, this batch wants ${show.volume(wanted)}: water a third of it, slurry clear of the rim.`,
  no_time_to_pour: () =>
    'Once it is sifted, soaked and stirred, nothing is left of the working time, however small the bowl.',
  bag_outlasts_working_time: (bag, inTime, show) =>
    `A bag makes ${show.volume(bag)}; only ${show.volume(inTime)} can be poured before it thickens. Smaller bags, more hands, or colder water.`,
  scale_too_coarse: (gets, wanted) =>
    `Rounded to what the scale shows, a bowl comes to ${figure(gets)} of water to 100, not ${figure(wanted)}: use a finer scale, or mix more at once.`,
  too_many_batches: (n, most) =>
    `That would be ${n > most ? `more than ${most} bowls` : counted(n, 'bowl')}. Take a larger bowl, or pour faster.`,
  bowl_of_nothing: (step, each, show) =>
    `Cut like this a bowl gets about ${show.mass(each)} of plaster, and the scale shows steps of ${show.mass(step)}: nothing would be in one of them. Fewer bowls, or a finer scale.`,
  bowl_too_large: (ml, most, show) =>
    `One bowl would hold ${show.volume(ml)} of slurry, and none holds more than ${show.volume(most)}. Check what the mould holds, or cut it into bowls.`,
  slightly_more_than_bags: (wanted, inBags, show) =>
    `The job wants ${show.mass(wanted)}, slightly more than the ${show.mass(inBags)} in whole bags: less spare, or a little more water, saves opening another.`,
  scale_too_small: (capacity, tare, show) =>
    `The bowl alone (${show.mass(tare)}) is more than the scale takes (${show.mass(capacity)}).`,
}

export const ADDING_WORDS: Record<AddingWay, string> = {
  sifted: 'Sifted in, then soaked',
  tipped_in: 'All in at once',
  kneaded: 'Kneaded in a bag',
}

export const BECAUSE_WORDS = {
  bowl: 'water a third of each at most',
  working_time: 'each poured before it thickens',
  layers: 'one on the other: the next is mixed when the last thickens',
  bags: 'weighed beforehand',
} as const

export const CORRECTION_WORDS: Record<CorrectionKind, string> = {
  water_out: 'Water taken out',
  water_in: 'Water added',
  powder_in: 'Plaster added',
  powder_out: 'Plaster taken out',
}

export const KEEPING_WORDS: Record<BagKeeping, string> = {
  sealed: 'Closed, in a dry bin',
  dry_open: 'Open, in a dry room',
  damp: 'Damp, or it has been',
}

export const SET_TEST_WORDS: Record<SetTest, string> = {
  initial: 'Initial set (gloss gone)',
  vicat: 'Vicat needle',
  final: 'Final set (Gillmore, no dent)',
}

/** Signs that stirring is over, by what the piece is for (common practice, no source). */
export const STIR_SIGNS: Record<Purpose, string> = {
  figure: 'Ready at thin cream: it coats the glove, and a trail closes at once.',
  tile: 'Ready at cream: a trail closes at once.',
  print: 'Ready at pancake batter: it runs, but not like water.',
  dental: 'Ready when it is smooth, shines and creeps when vibrated.',
  slab: 'Ready when it coats the glove like cream and the lumps are gone.',
  slip_mould: 'Ready when it coats the glove like a thin second glove.',
  shell:
    'Ready at thin yoghurt; for building up by hand, wait for webs between the fingers, then a peak that stays.',
  mother_mould: 'For brushing on, wait for a peak that stays; to pour, at cream.',
  prop: 'Ready at thin cream.',
  chalk: 'Ready at thin cream, its colour even.',
}

/** A setting time against its card's; a twentieth is no difference to speak of. */
export function paceWords(ratio: number): string {
  const pct = Math.round(100 * (ratio - 1))
  if (Math.abs(pct) < 5) return 'as expected'
  return pct > 0 ? `${pct} % slower` : `${-pct} % faster`
}

const ISSUE_WORDS: Record<PlanIssueCode, (actual: number, limit: number, show: MixShow) => string> = {
  consistency_below_chemical_minimum: (c, min) =>
    `${figure(c)} parts of water cannot harden 100 of this plaster: it takes ${figure(min, 1)} just to turn into gypsum. Use more water.`,
  consistency_below_class_range: (c, low) =>
    `${figure(c)} is stiffer than this plaster is normally mixed (from ${figure(low)}). It will be hard to pour, trap air and set fast.`,
  consistency_above_class_range: (c, high) =>
    `${figure(c)} is thinner than this plaster is normally mixed (up to ${figure(high)}). It will be weak, slow and dusty.`,
  mix_too_warm: (t, limit, show) =>
    `The mix would be at ${show.temp(t)}. Above ${show.temp(limit)} these setting times are outside what has been tested.`,
  mix_too_cold: (t, limit, show) =>
    `The mix would be at ${show.temp(t)}. Below ${show.temp(limit)} these setting times are outside what has been tested: warmer water is surer.`,
  mix_freezing: (_t, limit, show) =>
    `Water and powder would come to less than ${show.temp(limit)}: water freezes before it can set. Use warmer water, or bring the powder in.`,
  mould_freezing: (_t, limit, show) =>
    `Mould or ground is below ${show.temp(limit)}: the water freezes before it can set. Thaw it, or lift the print with its ground and take it somewhere warm.`,
  air_freezing: (_t, limit, show) =>
    `The air is below ${show.temp(limit)}: the piece would freeze before it sets, and ice in it does not dry. Cast somewhere warmer, or shelter and warm it until it has set.`,
  water_too_hot: (t, limit, show) =>
    `Water at ${show.temp(t)} is too hot for plaster: never over ${show.temp(limit)}. It sets in the hands, and no forecast holds there.`,
  working_time_shorter_than_steps: (left, wanted) =>
    left < 30
      ? `Hardly any time would be left to pour once it is sifted, soaked and stirred; this bowl wants ${durationText(wanted)}.`
      : `Only ${durationText(left)} may be left to pour once it is sifted, soaked and stirred; this bowl wants ${durationText(wanted)}.`,
  air_too_damp: () => 'In air this damp it will never dry. Enter the drier air it will really stand in.',
  air_too_hot: (t, limit, show) =>
    `Air at ${show.temp(t)} is close to what turns finished gypsum chalky from the outside in. Never over ${show.temp(limit)}.`,
  air_beyond_drying: (t, limit, show) =>
    `Air at ${show.temp(t)} drives out the water that makes it gypsum: it goes chalky. Dry it under ${show.temp(limit)}; a kiln has a schedule of its own.`,
  stirring_into_the_set: (s, limit) =>
    `${durationText(s)} of stirring would run into the set: crystals broken then never grow together again. Stop by ${Math.floor(limit / 60)} min at the latest.`,
  tap_cannot_reach: (wanted, gets, show) =>
    `Your taps cannot bring the mix to ${show.temp(wanted)}: ${show.temp(gets)} is the nearest, and water never goes in hotter than ${show.temp(45)}.`,
  consistency_outside_tested: (c, limit) =>
    `${figure(c)} is far outside what this plaster is mixed at (${c > limit ? 'up to' : 'from'} about ${figure(limit)} has been tested). The figures below are carried on from there and may be far off.`,
  thickness_outside_tested: (mm, limit, show) =>
    `At ${show.length(mm)} these forecasts are outside what has been tested (${mm > limit ? 'up to' : 'from'} ${show.length(limit)}).`,
  script_out_of_order: () => 'These steps cannot be done in this order.',
  script_needs_step: () => 'A step is left out that cannot be done without.',
  own_step_twice: () => 'A step stands twice among the steps.',
  out_of_range: () => '',
  ...BATCH_ISSUE_WORDS,
  ...ADDITION_ISSUE_WORDS,
  ...THICKNESS_WORDS,
  piece_too_thin: (mm, _limit, show) =>
    `At ${show.length(mm)} it will break in the hand. ${show.length(12)} or more is usual.`,
}

/** The plan's figures by their paths, as the worksheet calls them. */
const FIELD_WORDS: Record<string, string> = {
  'mould.cavityMl': 'What the mould holds',
  'mould.plusMinusMl': 'How far the volume may be off',
  'mould.thicknessMm': 'The thickness',
  'mould.count': 'The number of moulds',
  spill: 'A spill mould',
  'plaster.additions': 'An addition',
  consistency: 'The consistency',
  'scoop.measureMl': 'The scoop',
  'scoop.weighedKgM3': 'The weighed scoop',
  'batching.count': 'The number of bowls',
  'batching.castsPerBag': 'Casts for each bag',
  'batching.bagPowderG': 'A whole bag',
  'batching.sharePct': 'A layer’s share',
  'batching.bowl': 'The bowl',
  'batching.tareG': 'The bowl’s weight',
  'batching.pourRateMlMin': 'What you pour a minute',
  'batching.scaleCapacityG': 'What the scale takes',
  hands: 'The number of hands',
  'taps.coldTempC': 'The cold tap',
  'taps.hotTempC': 'The hot tap',
  'taps.targetTempC': 'What the mix is to be',
  sparePct: 'The spare',
  airFraction: 'The air',
  waterTempC: 'The water',
  powderTempC: 'The powder',
  mouldTempC: 'Mould or ground',
  soakS: 'The soak',
  script: 'A step of your own',
  stirS: 'The stirring',
  'air.rhPct': 'The humidity',
  'air.speedMS': 'The air speed',
  scaleDivisionG: 'The scale’s step',
}

/** A figure of an issue in the workshop's own units. */
function inUnits(value: number, unit: string, show: MixShow): string {
  switch (unit) {
    case '°C':
      return show.temp(value)
    case 'ml':
      return show.volume(value)
    case 'mm':
      return show.length(value)
    case 'g':
      return show.mass(value)
    case 's':
      return durationText(value)
    case 'kg/m³':
      return show.density(value)
    default:
      return `${Number(value.toPrecision(3))}${unit === '%' || unit === 'm/s' ? ` ${unit}` : ''}`
  }
}

export function issueWords(
  issue: { code: string; path: string; actual: number; limit: number; unit: string },
  show: MixShow,
): string {
  const { code, path, actual, limit, unit } = issue
  if (code === 'weighed_off_plan') {
    return `What you weighed gives ${figure(actual)} parts of water to 100; the plan says ${figure(limit)}. Correct it now, before water meets powder, or go on: the times below follow what you weighed.`
  }
  if (code === 'out_of_range') {
    const than = actual < limit ? 'at least' : 'at most'
    return `${FIELD_WORDS[path] ?? 'A figure'}: ${than} ${inUnits(limit, unit, show)}, not ${inUnits(actual, unit, show)}.`
  }
  return ISSUE_WORDS[code as PlanIssueCode](actual, limit, show)
}

/** What one sifts until, and how it looks. */
export const SIFT_STAGE_WORDS: Record<SiftStage, { name: string; how: string }> = {
  islands: {
    name: 'Islands',
    how: 'Sift until dry islands stand here and there and take their time to sink.',
  },
  lake_bed: {
    name: 'Dry lake bed',
    how: 'Sift until the whole surface lies level with the water and stays dull and cracked.',
  },
  mountain: {
    name: 'Mountain',
    how: 'Sift until a dry heap stands above the water in the middle and wets no further.',
  },
}
