import type { CauseId, Evidence, RecordedSign } from '#core/finish'
import { counted } from '~/parts/show/counted'
import { figure, percent } from '~/parts/show/figures'
import { durationText } from '~/parts/show/time'
import { RECALLED_WORDS } from './asks'

/** Why a piece came out as it did, and what to do about it next time. */
export interface CauseWords {
  /** What happened. */
  name: string
  /** What to do next time. */
  next: string
}

export const CAUSE_WORDS: Record<CauseId, CauseWords> = {
  too_thin: { name: 'Too much water', next: 'Weigh water and plaster to the plaster’s own ratio.' },
  too_thick: { name: 'Too little water', next: 'Weigh water and plaster to the plaster’s own ratio.' },
  soak_short: {
    name: 'Soaked too short',
    next: 'Leave it two minutes or more, until the crust is wet through.',
  },
  sifted_fast: {
    name: 'Powder in too fast',
    next: 'Sift evenly over the whole surface, a handful at a time.',
  },
  stirred_little: {
    name: 'Not stirred through',
    next: 'Two minutes under the surface, the bottom edge scraped, lumps pressed out.',
  },
  stirred_long: { name: 'Stirred too long', next: 'Stop once it is creamy; past thickening it only breaks.' },
  stirred_hard: {
    name: 'Stirred too hard: air beaten in',
    next: 'By hand or spatula, slowly, under the surface.',
  },
  past_working: {
    name: 'Poured when it had begun to thicken',
    next: 'Colder water, a shorter stir or smaller bowls: full before the clock rings.',
  },
  poured_high: {
    name: 'Poured high or fast',
    next: 'Low, slow, a thin stream in one place, at the deepest point.',
  },
  no_tap: {
    name: 'Not tapped',
    next: 'Tap or shake half way and again when full, until no more bubbles rise.',
  },
  air_in_form: {
    name: 'Air caught in the form',
    next: 'A first coat brushed into every detail, or a part fill, swirled and tapped, before the rest.',
  },
  layers_late: {
    name: 'The next layer came too late',
    next: 'Mix the next bowl while the last one thickens; once it has set, score it and rub in a bonding coat.',
  },
  leaked: { name: 'It leaked', next: 'Clay along every seam, and some slurry to spare.' },
  mixed_short: {
    name: 'Too little was mixed',
    next: 'More to spare, and small moulds ready for what is over.',
  },
  water_film: {
    name: 'Water was left in the mould or stood on top',
    next: 'Drain and dry the mould; wipe off what water stands on the piece.',
  },
  dirty_bowl: {
    name: 'Set plaster in the bowl or on the tools',
    next: 'A clean bowl and clean tools for every batch.',
  },
  old_bag: { name: 'The powder is old or damp', next: 'Try a spoonful first, or open another bag.' },
  salts: {
    name: 'Salts in the water or the ground',
    next: 'Clean soft water; a barrier between salty ground and plaster.',
  },
  cold: { name: 'Too cold to set well', next: 'Lukewarm water, a mould that is not cold, and more time.' },
  ground_cold: {
    name: 'The ground was too cold or too wet',
    next: 'Lukewarm water, a thicker mix, and far more time; blot what water stands in it.',
  },
  colour_split: {
    name: 'The colour thinned it or came apart',
    next: 'Dry pigment, a few percent, mixed through the powder; liquid colour counts as water.',
  },
  additions_weaken: {
    name: 'What was added weakened it',
    next: 'Less of it, or none; colder water gains time without weakening.',
  },
  moved: { name: 'Moved while it set', next: 'Level it where it stays, and hands off until it is warm.' },
  release_missing: {
    name: 'The release did not do its work',
    next: 'Seal and soap, or a thin even film, everywhere, just before.',
  },
  release_smeared: {
    name: 'Release in smears',
    next: 'As thin as it goes, rubbed out until nothing shines.',
  },
  release_thick: {
    name: 'Release too thick: it filled the detail',
    next: 'Brush it on, wipe it off: what pools in the detail is cast with it.',
  },
  undercut_forced: {
    name: 'Held by an undercut in a hard mould',
    next: 'A mould in parts, or one that flexes; a waste mould for one cast.',
  },
  thin_section: {
    name: 'Too thin to hold',
    next: 'Reinforce the thin place, or thicken it; wait until it is hard.',
  },
  uneven_wall: {
    name: 'A wall of thick and thin',
    next: 'Even it out: thick and thin set, grow and dry at different times.',
  },
  early_out: {
    name: 'Taken out too early',
    next: 'Wait for the clock: hard, warm and cooling, and then some.',
  },
  mould_flaws: {
    name: 'A flaw of the mould or impression',
    next: 'Look it over; fill its bubbles and tears, or make another.',
  },
  mould_colours: {
    name: 'The mould gives off colour',
    next: 'Seal wood and metal; wash clay off while it is wet.',
  },
  gel_shrank: {
    name: 'The gel shrank before it was filled',
    next: 'Fill a gel within the hour, kept damp and covered till then.',
  },
  gel_softens: {
    name: 'Too long in the gel',
    next: 'Out of the gel as soon as it is hard: it keeps the face wet.',
  },
  dried_hot: {
    name: 'Dried too hot',
    next: 'Never above 45 °C at the surface: moving air does more than heat.',
  },
  dried_uneven: { name: 'Dried from one side', next: 'On a rack, air at every face, turned once a day.' },
  knocked: {
    name: 'Knocked or lifted by its edge',
    next: 'Both hands, detail side up; fresh plaster bruises.',
  },
}

export interface SignShow {
  mass: (massG: number) => string
  temp: (tempC: number) => string
  volume: (volumeMl: number) => string
  size: (lengthMm: number) => string
}

/** Where one figure speaks for a cause and another of it against, the sign's words take either. */
export function signWords(
  { sign, value, actual, limit, lnRatio, recalled }: Evidence,
  show: SignShow,
): string {
  if (recalled) return RECALLED_WORDS[recalled].said
  const has = lnRatio > 0
  switch (sign as RecordedSign) {
    case 'ratio_over':
    case 'ratio_under':
      return `Mixed at ${figure(actual!)} of water to 100; it is made for ${figure(limit!)}`
    case 'ratio_unsure_thin':
    case 'ratio_unsure_thick':
      return `Measured by volume or by eye: ± ${percent(value)}`
    case 'soaked':
      return actual === 0 ? 'Not soaked' : `Soaked ${durationText(actual!)}`
    case 'sift_pace':
      return `Powder in at ${durationText(actual!)} a kilogram`
    case 'stirred_effort_low':
    case 'stirred_effort_high':
      return `Stirred as much as ${durationText(actual!)} by hand`
    case 'stirred_until':
      return `Stirred until ${durationText(actual!)}; working time ${durationText(limit!)}`
    case 'stirred_manner':
      return value > 1.2
        ? 'Stirred with a whisk or a drill'
        : value < 0.8
          ? 'Stirred gently'
          : 'Stirred by hand'
    case 'full_at':
      return `Full after ${durationText(actual!)}; working time ${durationText(limit!)}`
    case 'ready_at':
      return `Never full: stirred until ${durationText(actual!)}; working time ${durationText(limit!)}`
    case 'tapped':
      return actual === 0 ? 'Tapping was left out' : `Tapped for ${durationText(actual!)}`
    case 'traps_left':
      return limit === 0
        ? 'Nothing in this form holds air'
        : has
          ? `Of ${counted(limit!, 'way')} to get the air out of this form, ${figure(actual!)} not on record`
          : 'What this form asks for against air was done'
    case 'next_bowl_at':
      return `Next bowl in after ${durationText(actual!)}; the one below lost its gloss at ${durationText(limit!)}`
    case 'leaked_share':
      return has ? `It lost ${show.volume(actual!)} of ${show.volume(limit!)}` : 'No leak on record'
    case 'slurry_share':
      return `Mixed ${show.volume(actual!)} for a mould of ${show.volume(limit!)}`
    case 'ran_short':
      return has ? 'It ran short' : 'It did not run short'
    case 'not_drained':
      return has ? 'Draining and drying not ticked' : 'Mould drained and dried'
    case 'set_fast':
    case 'set_slow':
      return value === 1 ? 'Set as forecast' : `Set in ${percent(value)} of the time that bag and mix say`
    case 'bag_open':
      return `The bag had been open for ${counted(Math.round(actual!), 'day')}`
    case 'bag_damp':
      return has ? 'The bag stands damp' : 'The bag is kept dry'
    case 'salty_water':
      return has ? 'Salt in the water' : 'No salt in the water'
    case 'salty_ground':
      return 'Cast in the ground'
    case 'mix_temp':
      return `The mix at ${show.temp(actual!)}`
    case 'mould_temp':
      return `The mould at ${show.temp(actual!)}`
    case 'release_undone':
      return has ? 'Sealing or release not ticked' : 'Sealed and released'
    case 'gripped':
      return has ? 'It gripped when it came out' : 'It let go'
    case 'film_used':
      return has ? 'This mould takes a film of release' : 'This mould takes no release'
    case 'film_taken':
      return has ? 'This mould takes a film of release' : 'This mould takes no release'
    case 'undercut_rigid':
      return has ? 'A hard mould in one piece, with an undercut' : 'The mould lets go by its form'
    case 'thinnest':
      return `Thinnest place ${show.size(actual!)}; such a piece wants ${show.size(limit!)}`
    case 'wall_spread':
      return `From ${show.size(limit!)} to ${show.size(actual!)} thick`
    case 'out_at':
      return `Out after ${durationText(actual!)}; the advice was ${durationText(limit!)}`
    case 'mould_damaged':
      return has ? 'Damage to the mould was noted' : 'No damage to the mould noted'
    case 'mould_not_looked_at':
      return has ? 'Washing and looking it over not ticked' : 'Mould washed and looked over'
    case 'ground_temp':
      return `The ground at ${show.temp(actual!)}`
    case 'liquid_colour':
      return has ? `Liquid colour, ${percent(actual! / 100)} of the powder` : 'No liquid colour in the plan'
    case 'pigment_over':
      return actual === 0
        ? 'No pigment in the plan'
        : `Pigment ${percent(actual! / 100)} of the powder; it takes ${percent(limit! / 100)}`
    case 'weakening_added':
      return has ? 'Something in the mix is known to weaken it' : 'Nothing in the plan that weakens it'
    case 'gel_not_fresh':
      return has ? 'Filling it the same day not ticked' : 'The gel was filled the same day'
    case 'mould_unsealed':
      return has ? 'Sealing the mould not ticked' : 'The mould was sealed'
    case 'hours_in_gel':
      return `In the gel for ${durationText(actual! * 3600)}`
    case 'drying_temp':
      return `Dried at ${show.temp(actual!)}`
    case 'one_face_dry':
      return has ? 'Dried lying on one side' : 'Air at both faces'
  }
}
