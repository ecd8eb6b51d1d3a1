import type { DryTarget } from '#core/drying'
import type { MouldKind } from '#core/mould'
import type { SiftStage } from '#core/mix'
import type { LabelError, Packing, PlasterClassId } from '#core/plaster'
import type {
  AddingWay,
  ClockId,
  DefectKind,
  EventBody,
  PlanIssueCode,
  PourPlan,
  Stage,
  StepId,
  TouchCue,
  Verdict,
  WeighedWhat,
} from '#core/pour'
import { batchOf } from '#core/pour'
import type { Provenance } from '#core/provenance'
import type { ErrorCode, FieldError } from '~~/shared/errors'
import { ADDITION_ISSUE_WORDS, BATCH_ISSUE_WORDS, CORRECTION_WORDS } from './mixWords'
import { DAMAGE_WORDS, PREPARATION_WORDS, THICKNESS_WORDS, type MixShow } from './mouldWords'
import { durationText } from './time'

/** Every sentence the caster reads that hangs on a code, in one place. One word for one thing. */

export const STAGE_WORDS: Record<Stage, string> = {
  mould: 'Mould',
  weigh: 'Weigh',
  sift: 'Sift',
  soak: 'Soak',
  stir: 'Stir',
  pour: 'Pour',
  set: 'Set',
  demould: 'Demould',
  dry: 'Dry',
}

export const PLASTER_CLASS_WORDS: Record<PlasterClassId, string> = {
  pop: 'Plaster of Paris',
  pottery: 'Pottery plaster',
  gc: 'Gypsum cement (hydrocal type)',
  lowexp: 'Low-expansion gypsum cement',
  hsgc: 'High-strength gypsum cement (hydrostone type)',
  dental2: 'Dental plaster',
  dental3: 'Dental stone',
  dental4: 'High-strength dental stone',
  investment: 'Plaster-silica investment 1 : 1 : 1',
}

export const MOULD_KIND_WORDS: Record<MouldKind, string> = {
  silicone: 'Silicone rubber',
  rigid_plastic: 'Rigid plastic',
  plaster_piece: 'Plaster piece mould',
  box: 'Wooden or board box',
  latex: 'Latex skin',
  waste_clay: 'Clay or waste mould',
  alginate: 'Alginate (skin-safe gel)',
  impression_tray: 'Impression tray',
  shell: 'Investment shell',
  ground: 'Print in the ground',
}

export const DRY_TARGET_WORDS: Record<DryTarget, string> = {
  handle: 'be handled',
  paint: 'take water-based paint',
  sand: 'be sanded dry',
  seal: 'be sealed, waxed or oiled',
  pottery_mould: 'work as a pottery mould',
  full_strength: 'be at full strength',
}

export const PACKING_WORDS: Record<Packing, string> = {
  sifted: 'Sifted in',
  scooped: 'Dug out',
  tapped: 'Tapped down',
}

/** What one sifts until, how it looks, and its picture in a bowl of 60 by 34. */
export const SIFT_STAGE_WORDS: Record<SiftStage, { name: string; how: string; picture: string }> = {
  islands: {
    name: 'Islands',
    how: 'Sift until dry islands stand here and there and take their time to sink.',
    picture: 'M6 20 Q10 18 14 13 Q18 17 24 20 T34 20 Q40 12 44 19 L54 20 L52 31 H8 Z',
  },
  lake_bed: {
    name: 'Dry lake bed',
    how: 'Sift until the whole surface lies level with the water and stays dull and cracked.',
    picture: 'M5 14 L15 15 L22 13.6 L32 15 L41 13.6 L55 14 L52 31 H8 Z',
  },
  mountain: {
    name: 'Mountain',
    how: 'Sift until a dry heap stands above the water in the middle and wets no further.',
    picture: 'M5 14 Q18 13 30 4 Q42 13 55 14 L52 31 H8 Z',
  },
}

/** Says what could be read of a label and what is missing. */
export function labelErrorWords(error: LabelError, example: string): string {
  const read = error.understood ? `I read “${error.understood}”` : 'I read nothing in it'
  switch (error.code) {
    case 'empty':
      return ''
    case 'half_a_ratio':
      return `${read}: how much of the other goes with it? For example ${example}.`
    case 'no_such_ratio':
      return `${read}, which would be ${error.consistency.toFixed(0)} of water to 100: no plaster is mixed like that.`
    case 'not_understood':
      return `${read}${error.rest ? `, but not “${error.rest}”` : ''}. Write it like 100 : 30, 2 : 1, 70 parts or ${example}.`
  }
}

interface StepWords {
  /** What is going on, or to be done, as a heading. */
  title: string
  /** What the big target says: what has just happened when it is struck. */
  action: string
  how: string
}

const STEP_WORDS: Record<StepId, StepWords> = {
  prepare: {
    title: 'Get the mould ready',
    action: 'The mould is ready',
    how: 'Clean, released if it needs it, sealed, level, supported where it will stay. Rags, rinse bucket and bin at hand.',
  },
  weigh_water: {
    title: 'Weigh the water',
    action: 'Water is weighed',
    how: 'Tare the bowl. Water first, always.',
  },
  weigh_admix: {
    title: 'Into the water',
    action: 'It is in the water',
    how: 'Weigh it, stir until it is dissolved or even, then go on.',
  },
  weigh_powder: {
    title: 'Weigh the plaster',
    action: 'Plaster is weighed',
    how: 'In a dry container of its own, so that a mistake can be taken back out.',
  },
  weigh_filler: {
    title: 'Weigh what goes in dry',
    action: 'It is weighed',
    how: 'In the dry container with the plaster, then mix it all dry, with the lid on.',
  },
  start_sift: {
    title: 'Ready to sift',
    action: 'I am starting now',
    how: 'Evenly over the whole surface, lumps broken, no stirring.',
  },
  sift: {
    title: 'Sift the plaster in',
    action: 'It is all in',
    how: 'Let it sink and drink. Do not stir yet.',
  },
  soak: {
    title: 'Leave it to soak',
    action: 'I am stirring now',
    how: 'Leave it still until the crust is wet through.',
  },
  stir: {
    title: 'Stir under the surface',
    action: 'Smooth: stop stirring',
    how: 'Slow, no air in. Scrape the bottom edge. Stop when it is free of lumps and creamy.',
  },
  face_coat: {
    title: 'Brush the first coat',
    action: 'The face is coated',
    how: 'Push it into the detail with a brush or fingertip; do not paint.',
  },
  part_fill: {
    title: 'Pour a little first',
    action: 'Tapped: going on',
    how: 'A little, then tap hard so that it runs into every finger.',
  },
  pour: {
    title: 'Pour',
    action: 'The mould is full',
    how: 'Low, slow, a thin stream, from the deepest point; let it push the air ahead.',
  },
  tap: {
    title: 'Tap the air out',
    action: 'Done: leave it still',
    how: 'Tap or shake gently. Level it, then hands off.',
  },
  demould: {
    title: 'Take it out',
    action: 'Out, and whole',
    how: 'Hard, cooling and dry on top. Fresh casts are soft: they chip and bruise.',
  },
  dry: {
    title: 'Let it dry',
    action: 'Record this weighing',
    how: 'On a rack, in moving air, out of the sun. Weigh it once a day.',
  },
}

/** Where the powder is not sifted, the same steps are done differently. */
const WAY_WORDS: Partial<Record<AddingWay, Partial<Record<StepId, StepWords>>>> = {
  tipped_in: {
    start_sift: {
      title: 'Ready to tip it in',
      action: 'It is all in',
      how: 'All of it at once, in one smooth go, so that everything wets together.',
    },
    soak: {
      title: 'Leave it to slake',
      action: 'I am stirring now',
      how: 'Leave it still. Three minutes is usual for filled mixes.',
    },
  },
  kneaded: {
    weigh_water: {
      title: 'Measure the water',
      action: 'Water is measured',
      how: 'In a bottle of its own: it goes into the bag last.',
    },
    weigh_powder: {
      title: 'Weigh the plaster into the bag',
      action: 'Plaster is weighed',
      how: 'A strong bag, tied shut until the water goes in.',
    },
    start_sift: {
      title: 'Ready to add the water',
      action: 'The water is in',
      how: 'Water into the bag, press the air out, twist it shut.',
    },
    stir: {
      title: 'Knead the bag',
      action: 'Smooth: stop kneading',
      how: 'Press and fold until no dry pocket is left, corners too. Keep it shut.',
    },
    pour: {
      title: 'Cut the corner and pour',
      action: 'The mould is full',
      how: 'A small corner as a spout: low, slow, from one place.',
    },
  },
}

export function stepWords(step: StepId, plan: Pick<PourPlan, 'addingWay'>): StepWords {
  return WAY_WORDS[plan.addingWay ?? 'sifted']?.[step] ?? STEP_WORDS[step]
}

/** Said instead of the step while the piece only has to be left alone. */
export const SETTING_WORDS = {
  title: 'Leave it alone',
  how: 'It thickens, loses its shine, warms, then cools. Do not move it.',
}

/** What the clock counts down to: "… in 4:10". */
export const CLOCK_WORDS: Record<ClockId, string> = {
  sift: 'Finish sifting',
  soak: 'Start stirring',
  stir: 'Stop stirring',
  tap: 'Stop tapping',
  layer_ready: 'The last layer thickens',
  work_end: 'Too thick to pour',
  initial_set: 'Gloss gone (initial set)',
  final_set: 'Thumbnail leaves no dent (final set)',
  demould: 'Take it out',
  next_weighing: 'Weigh it',
  dry_enough: 'Dry enough',
}

export const TOUCH_WORDS: Record<TouchCue, string> = {
  trails_stay: 'Trails stay',
  gloss_gone: 'Gloss gone',
  knife_cut_stays: 'Knife cut stays open',
  thumbnail_no_dent: 'Thumbnail: no dent',
  warm: 'Feels warm',
  hottest: 'At its hottest',
  cool_again: 'Cool again',
  rings: 'Rings when tapped',
}

export const DEFECT_WORDS: Record<DefectKind, string> = {
  air_holes: 'Air holes',
  soft: 'Soft or chalky',
  crack: 'Cracked',
  streaks: 'Streaks',
  short_fill: 'Ran short, not full',
  broke: 'Broke',
  stuck: 'Stuck in the mould',
}

export const VERDICT_WORDS: Record<Verdict, string> = {
  good: 'Good',
  usable: 'Usable',
  failed: 'Failed',
  abandoned: 'Abandoned',
}

export function provenanceWords(p: Provenance): string {
  switch (p.kind) {
    case 'measured':
      return 'measured here'
    case 'label':
      return 'from the bag’s label'
    case 'calibrated':
      return `calibrated from ${p.pours} of your pours`
    case 'spoon_tests':
      return p.tests === 1 ? 'from a spoon test of this bag' : `from ${p.tests} spoon tests of this bag`
    case 'class_default':
      return `class default (${p.source})`
    case 'common_practice':
      return 'common practice'
    case 'model':
      return `computed (${p.source})`
  }
}

const ISSUE_WORDS: Record<PlanIssueCode, (actual: number, limit: number, show: MixShow) => string> = {
  consistency_below_chemical_minimum: (c, min) =>
    `${c.toFixed(0)} parts of water cannot harden 100 of this plaster: it takes ${min.toFixed(1)} just to turn into gypsum. Use more water.`,
  consistency_below_class_range: (c, low) =>
    `${c.toFixed(0)} is stiffer than this plaster is normally mixed (from ${low}). It will be hard to pour, trap air and set fast.`,
  consistency_above_class_range: (c, high) =>
    `${c.toFixed(0)} is thinner than this plaster is normally mixed (up to ${high}). It will be weak, slow and dusty.`,
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
    `${c.toFixed(0)} is far outside what this plaster is mixed at (${c > limit ? 'up to' : 'from'} about ${limit.toFixed(0)} has been tested). The figures below are carried on from there and may be far off.`,
  thickness_outside_tested: (mm, limit, show) =>
    `At ${show.length(mm)} these forecasts are outside what has been tested (${mm > limit ? 'up to' : 'from'} ${show.length(limit)}).`,
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
    return `What you weighed gives ${actual.toFixed(0)} parts of water to 100; the plan says ${limit.toFixed(0)}. Correct it now, before water meets powder, or go on: the times below follow what you weighed.`
  }
  if (code === 'out_of_range') {
    const than = actual < limit ? 'at least' : 'at most'
    return `${FIELD_WORDS[path] ?? 'A figure'}: ${than} ${inUnits(limit, unit, show)}, not ${inUnits(actual, unit, show)}.`
  }
  return ISSUE_WORDS[code as PlanIssueCode](actual, limit, show)
}

export const ERROR_WORDS: Record<ErrorCode, string> = {
  invalid_input: 'Something in it is out of range.',
  invalid_json: 'The message could not be read.',
  wrong_content_type: 'The message could not be read.',
  payload_too_large: 'That is too much at once.',
  not_found: 'That is not here (any more).',
  method_not_allowed: 'That cannot be done here.',
  foreign_origin: 'Refused: the request came from another site.',
  too_many_streams: 'Too many windows are open on this workshop. Close some, then reload this one.',
  event_id_conflict: 'This was already recorded differently.',
  pour_id_conflict: 'This pour exists already, with another plan.',
  not_a_picture: 'This file is not a picture that can be read here. JPEG, PNG, WebP, GIF, TIFF and AVIF can.',
  photo_too_large: 'This photo is larger than 25 MB. Send a smaller one.',
  too_many_photos: 'A mould keeps 24 photos at most. Remove one first.',
  card_id_conflict: 'This exists already, described differently.',
  stale_card:
    'Somebody else changed this meanwhile. What you typed is still here: keep it once more to put it in place of theirs.',
  in_use: 'There are bags of it: throw those away first.',
  stale_plan:
    'Somebody else changed this plan meanwhile. What you typed is still here: keep it once more to put it in place of theirs.',
  plan_locked: 'This pour has been weighed out: its plan stands now.',
  record_unreadable: 'This record cannot be read. It is kept as it is; see it under Casts.',
  unknown_event: 'There is nothing to take back.',
  cannot_void_void: 'An undo cannot be undone; do the step again.',
  time_in_future: 'This device’s clock runs ahead of the workshop’s. Set it right, then try again.',
  unavailable: 'The workshop’s database does not answer just now. Nothing is lost; trying again.',
  internal: 'Something went wrong on our side. It has been written to the log.',
}

export const WEIGHED_WORDS: Record<WeighedWhat, string> = {
  water: 'water',
  admix: 'what goes into the water',
  powder: 'plaster',
  filler: 'what goes in dry',
}

/** Which bowl, where there is more than the first. */
function bowl(body: EventBody): string {
  const batch = batchOf(body)
  return batch > 0 ? `, bowl ${batch + 1}` : ''
}

/** What went wrong with a request, and at which fields. */
export function failureWords({ code, fields }: { code: ErrorCode; fields: readonly FieldError[] }): string {
  return `${ERROR_WORDS[code]} ${fields.map((f) => `${f.path}: ${f.message}`).join('; ')}`.trim()
}

/** One event as a line of the record; quantities are formatted by the caller. */
export function eventWords(body: EventBody, show: MixShow): string {
  const { mass, temp, volume } = show
  switch (body.type) {
    case 'prepared':
      return PREPARATION_WORDS[body.item]
    case 'mould_ready':
      return 'Mould ready'
    case 'weighed':
      return `Weighed ${mass(body.massG)} of ${WEIGHED_WORDS[body.what]}${bowl(body)}`
    case 'scale_failed':
      return 'The scale failed: measured by volume from here'
    case 'corrected':
      return `${CORRECTION_WORDS[body.how]}: ${mass(body.massG)}${bowl(body)}`
    case 'slurry_checked':
      return `Slurry checked: ${mass(body.massG)} in ${volume(body.volumeMl)}${bowl(body)}`
    case 'ran_short':
      return `Ran short by about ${volume(body.missingMl)}: another bowl`
    case 'sift_started':
      return `Powder meets water${bowl(body)}`
    case 'sifted':
      return `Powder all in${bowl(body)}`
    case 'soaked':
      return 'Soaked; began to stir'
    case 'stirred':
      return `Stirred (${{ gentle: 'gently by hand', hand: 'by hand', whisk: 'whisk', drill: 'drill' }[body.manner]})`
    case 'face_coated':
      return 'First coat brushed on'
    case 'part_filled':
      return 'Part filled and tapped'
    case 'poured':
      return 'Mould full'
    case 'tapped':
      return 'Tapped; left still'
    case 'touch':
      return `${TOUCH_WORDS[body.cue]}${body.seen ? '' : ': not yet'}`
    case 'temperature':
      return `${temp(body.tempC)} (${body.place})`
    case 'demoulded':
      return `Out of the mould, ${body.outcome}`
    case 'mould_damage':
      return `On the mould: ${DAMAGE_WORDS[body.kind].toLowerCase()}`
    case 'weighing':
      return `Weighed ${mass(body.massG)}`
    case 'defect':
      return DEFECT_WORDS[body.kind]
    case 'finished':
      return `${VERDICT_WORDS[body.verdict]}${body.reason ? `: ${body.reason}` : ''}`
    case 'note':
      return body.text
    case 'plan_holds':
      return 'What was weighed for the earlier plan holds for this one'
    case 'void':
      return 'Taken back'
  }
}
