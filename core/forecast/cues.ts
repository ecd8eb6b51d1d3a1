import type { HeatMarks } from '../heat'
import type { PaceTimes } from './problem'

/** What a caster sees or feels of a setting piece, in the order it happens. */
export const TOUCH_CUES = [
  'trails_stay',
  'gloss_gone',
  'knife_cut_stays',
  'thumbnail_no_dent',
  'warm',
  'hottest',
  'cool_again',
  'rings',
] as const
export type TouchCue = (typeof TOUCH_CUES)[number]

interface CueNature {
  /** When it happens, s since mid-sprinkle; undefined where it does not. */
  atS: (times: PaceTimes) => number | undefined
  /** σ of ln t: how well a hand or an eye tells the moment (estimates). */
  sigmaLn: number
  /** Felt as warmth: asked of pieces that get warm, and of no others. */
  heat: boolean
}

export const CUES: Readonly<Record<TouchCue, CueNature>> = {
  trails_stay: { atS: (t) => t.events.work_end, sigmaLn: 0.25, heat: false },
  gloss_gone: { atS: (t) => t.events.initial_set, sigmaLn: 0.18, heat: false },
  knife_cut_stays: { atS: (t) => t.events.initial_set, sigmaLn: 0.18, heat: false },
  thumbnail_no_dent: { atS: (t) => t.events.final_set, sigmaLn: 0.18, heat: false },
  warm: { atS: (t) => t.marks.warmS, sigmaLn: 0.2, heat: true },
  hottest: {
    atS: (t) => (isFeltWarm(t.marks) ? t.marks.surfacePeakS : undefined),
    sigmaLn: 0.14,
    heat: true,
  },
  cool_again: { atS: (t) => t.marks.coolS, sigmaLn: 0.2, heat: true },
  rings: { atS: (t) => t.ringsS, sigmaLn: 0.25, heat: false },
}

export function isFeltWarm(marks: HeatMarks): boolean {
  return marks.warmS !== undefined
}

/** How a cue was found: happening just then, not there yet, or already so at the first look. */
export const CUE_ANSWERS = ['not_yet', 'now', 'already'] as const
export type CueAnswer = (typeof CUE_ANSWERS)[number]

export interface CueSeen {
  /** Of which record it is, so that what moved the forecast can be named. */
  id: string
  cue: TouchCue
  answer: CueAnswer
  /** s since mid-sprinkle, > 0. */
  atS: number
  /** Whose hand or eye it was: what it misjudges, it misjudges alike in all its looks. */
  by: string
}
