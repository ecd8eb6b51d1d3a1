import type { TouchCue } from '#core/forecast'

/** How a cue is looked for. */
export const CUE_QUESTIONS: Record<TouchCue, string> = {
  trails_stay: 'Draw a stick through it: does the trail stay?',
  gloss_gone: 'Has the wet shine gone from the top?',
  knife_cut_stays: 'Cut a nick at the edge: does it stay open?',
  thumbnail_no_dent: 'Press a thumbnail in at the edge: no dent?',
  warm: 'Lay the back of a hand on it: is it warm?',
  hottest: 'Is it as hot as it gets?',
  cool_again: 'Is it cool again, and no longer clammy?',
  rings: 'Tap it with a knuckle: does it ring?',
}
