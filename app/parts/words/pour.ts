import type { DryTarget } from '#core/drying'
import {
  batchOf,
  type CleanUp,
  type ClockId,
  type DefectKind,
  type EventBody,
  type LeakPlug,
  type SoftWork,
  type Stage,
  type Verdict,
  type WeighedWhat,
} from '#core/pour'
import type { TouchCue } from '#core/forecast'
import { CORRECTION_WORDS } from './mix'
import { DAMAGE_WORDS, PREPARATION_WORDS, TACTIC_WORDS, type MixShow } from './mould'

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

/** What the clock counts down to: "… in 4:10". */
export const CLOCK_WORDS: Record<ClockId, string> = {
  sift: 'Finish sifting',
  soak: 'Start stirring',
  stir: 'Stop stirring',
  tap: 'Stop tapping',
  layer_ready: 'Ready for the next layer',
  peak: 'A peak stands',
  build_end: 'Too stiff to work',
  soft_window: 'Marks, hangers, trimming',
  own: 'This step is over',
  look: 'Have a look at it',
  work_end: 'Too thick to pour',
  initial_set: 'Gloss gone (initial set)',
  final_set: 'Thumbnail leaves no dent (final set)',
  demould: 'Take it out',
  next_weighing: 'Weigh it',
  dry_enough: 'Dry enough',
}

/** Late, and what can still be done: once, plainly. */
export const LATE_WORDS: Record<ClockId, string> = {
  sift: 'Get the rest in, even if in handfuls; what is in already drinks meanwhile.',
  soak: 'Nothing is lost: what soaked longer wants less stirring. Stir now.',
  stir: 'Stop: every further minute takes time from the pour.',
  tap: 'Enough: more does no good, and past thickening it does harm.',
  layer_ready: 'Score it, wet it, and rub in a thin bonding coat before the next layer.',
  peak: 'Use it now, thickest places first; never thin it with water.',
  build_end: 'Put the rest aside to set, roughen what is on, and mix a fresh, clean bowl.',
  soft_window: 'It is hardening: scrape or rasp instead of cutting, drill for a hanger once it is dry.',
  own: 'Go on when it is done.',
  look: 'Still worth a look: say what you find.',
  work_end: 'Pour at once if it still flows by itself; if it stands in lumps let it go and mix afresh.',
  initial_set: 'Hands off: what is moved now stays weak.',
  final_set: 'It is set; leave it until it has cooled.',
  demould: 'Waiting longer costs nothing here but time.',
  next_weighing: 'Weigh it when you next pass; later is still worth something.',
  dry_enough: 'Weigh it once more to be sure.',
}

export const SOFT_WORK_WORDS: Record<SoftWork, string> = {
  marked: 'Date, place, initials scratched in',
  hanger_set: 'Hanger set in',
  excess_cut: 'Excess over the edge cut off',
  flush_scraped: 'Back scraped flush, not hollow',
}

export const CLEAN_UP_WORDS: Record<CleanUp, string> = {
  bowl_left: 'What is left sets in the bowl; broken out into the bin, never a drain',
  tools_cleaned: 'Tools wiped before it sets on them',
  hands_rinsed: 'Hands wiped, rinsed in the bucket, creamed',
  floor_wiped: 'Bench and floor wiped damp, never swept dry',
  buckets_marked: 'Buckets marked, each for one material',
}

export const LEAK_WORDS: Record<LeakPlug, string> = {
  clay: 'Clay',
  mud: 'Mud',
  tape: 'Tape',
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
    case 'extraction_checked':
      return 'Extraction seen and heard'
    case 'layer_keyed':
      return 'Layer below scored'
    case 'face_coated':
      return 'First coat brushed on'
    case 'bond_coated':
      return 'Bonding coat tapped in'
    case 'squeezed':
      return 'Squeezed over every face'
    case 'part_filled':
      return 'Part filled and tapped'
    case 'thickened':
      return `A peak stood${bowl(body)}`
    case 'reinforced':
      return `Reinforcement laid in${bowl(body)}`
    case 'built':
      return `Layer built up${bowl(body)}`
    case 'turned':
      return `Turned until it stayed${bowl(body)}`
    case 'roughened':
      return `Roughened for the next${bowl(body)}`
    case 'vibrated':
      return 'Vibrated; the air is out'
    case 'levelled':
      return 'Levelled; left still'
    case 'own_done':
      return `A step of one’s own${bowl(body)}`
    case 'air_freed':
      return `Against air: ${TACTIC_WORDS[body.how]}`
    case 'leaked':
      return `It leaked about ${volume(body.lostMl)}; stopped with ${LEAK_WORDS[body.plug].toLowerCase()}`
    case 'leftover_poured':
      return `About ${volume(body.fillMl)} left over went into a small mould`
    case 'worked_soft':
      return SOFT_WORK_WORDS[body.work]
    case 'cleaned_up':
      return CLEAN_UP_WORDS[body.what]
    case 'poured':
      return 'Mould full'
    case 'tapped':
      return 'Tapped; left still'
    case 'touch':
      return `${TOUCH_WORDS[body.cue]}${!body.seen ? ': not yet' : body.already ? ': already' : ''}`
    case 'temperature':
      return `${temp(body.tempC)} (${body.place})`
    case 'demoulded':
      return `Out of the mould, ${body.outcome}${body.gripped ? '; it gripped' : ''}`
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
