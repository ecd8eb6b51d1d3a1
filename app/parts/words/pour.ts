import type { DryTarget, Exposure } from '#core/drying'
import type { AddingWay, CleanUp, ClockId, LeakPlug, SoftWork, Stage, Verdict, WeighedWhat } from '#core/pour'
import type { TouchCue } from '#core/forecast'

/** Sentences of a pour that hang on a code: its stages, clocks and verdicts. Its events: `events.ts`. */

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

/** In some ways of adding the powder a stage is called otherwise. */
const STAGES_OF_ADDING: Partial<Record<AddingWay, Partial<Record<Stage, string>>>> = {
  tipped_in: { sift: 'Tip in', soak: 'Slake' },
  kneaded: { sift: 'Add water', stir: 'Knead' },
}
export function stageWord(stage: Stage, { addingWay = 'sifted' }: { addingWay?: AddingWay }): string {
  return STAGES_OF_ADDING[addingWay]?.[stage] ?? STAGE_WORDS[stage]
}

export const DRY_TARGET_WORDS: Record<DryTarget, string> = {
  handle: 'be handled',
  kiln: 'go into the kiln, held low first',
  paint: 'take water-based paint',
  sand: 'be sanded dry',
  seal: 'be sealed or waxed',
  pottery_mould: 'work as a pottery mould',
  full_strength: 'be at constant weight',
}

export const EXPOSURE_WORDS: Record<Exposure, string> = {
  both_faces: 'On a rack, both faces in the air',
  turned: 'On a bench, turned every day',
  one_face: 'On a bench, one face in the air',
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
  soft_finish: 'Soft enough for bumps, edges, base',
  own: 'This step is over',
  look: 'Have a look at it',
  work_end: 'Too thick to pour',
  initial_set: 'Gloss gone (initial set)',
  final_set: 'Thumbnail leaves no dent (final set)',
  demould: 'Take it out',
  next_weighing: 'Weigh it',
  dry_enough: 'Dry enough',
}

const CLOCKS_OF_ADDING: Partial<Record<AddingWay, Partial<Record<ClockId, string>>>> = {
  tipped_in: { sift: 'Have it all in' },
  kneaded: { sift: 'Have the water in', stir: 'Stop kneading' },
}
export function clockWord(id: ClockId, { addingWay = 'sifted' }: { addingWay?: AddingWay }): string {
  return CLOCKS_OF_ADDING[addingWay]?.[id] ?? CLOCK_WORDS[id]
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
  soft_finish: 'Wet the place first, or wait until it is dry and sand it.',
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
