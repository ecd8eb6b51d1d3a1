import type { DryTarget } from '#core/drying'
import {
  batchOf,
  type AddingWay,
  type ClockId,
  type DefectKind,
  type EventBody,
  type PourPlan,
  type Stage,
  type StepId,
  type TouchCue,
  type Verdict,
  type WeighedWhat,
} from '#core/pour'
import { CORRECTION_WORDS } from './mix'
import { DAMAGE_WORDS, PREPARATION_WORDS, type MixShow } from './mould'

/** Sentences of a pour that hang on a code: its stages, steps, clocks, events and verdicts. */

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

export const DRY_TARGET_WORDS: Record<DryTarget, string> = {
  handle: 'be handled',
  paint: 'take water-based paint',
  sand: 'be sanded dry',
  seal: 'be sealed, waxed or oiled',
  pottery_mould: 'work as a pottery mould',
  full_strength: 'be at full strength',
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
