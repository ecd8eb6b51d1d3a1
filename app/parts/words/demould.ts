import type { Act, Condition, ThermometerTold } from '#core/pour'
import type { FragilePlace, GreenMark, LatestReason, OutStep, OutTool } from '#core/demould'
import type { CueAnswer, ProbeFault, TouchCue } from '#core/forecast'
import type { BurnHazard } from '#core/heat'

/** Sentences of setting and taking out. What is done and why is common practice, no source. */

export const OUT_STEP_WORDS: Record<OutStep, string> = {
  hold_warm:
    'If it is warm still, hold it in a cloth and ease the undercuts. They let go best once it is cool.',
  still_warm_is_best: 'Best while it is cooling and still a little warm: it has grown away from the wall.',
  cut_flange_free: 'Cut the set edge free of the tray, and any excess over it.',
  brush_ground_off: 'Brush loose ground off the back.',
  press_and_lift_ring: 'Push on the cast and lift the ring off.',
  dig_round: 'Dig round it, a hand’s breadth away, and under it.',
  lift_both_edges: 'Lift with both hands, by its edges, with its ground.',
  undo_box: 'Slit the corners of the box and fold its sides away.',
  open_jacket: 'Take the jacket off, half by half; the rubber stays on the piece.',
  talc_the_skin: 'Dust the outside with talc: wet latex sticks to itself.',
  untape: 'Take the tape off; look how the keys sit before you part them.',
  free_flange: 'Free the flange all round.',
  undo_straps: 'Undo straps and clay; mark which part came from where.',
  open_cut: 'Open the cut a little at a time, from the end with the hole.',
  turn_over: 'Turn it over onto something soft.',
  let_air_in: 'It holds by suction: press the rim away in one place and let air in, or a drop of water.',
  tap_and_flex:
    'Tap all round with the flat of the hand or a mallet; flex the wall. Never lever on the cast.',
  wedge_parts: 'Ease the parts apart with wooden wedges, a little on each side, straight along the draft.',
  peel_from_base: 'Peel back from the base, slowly, over the thickest place first.',
  turn_inside_out: 'Turn the skin inside out over the piece, slowly, thin places last.',
  peel_clay_from_rim: 'Peel the clay from the rim inwards; a wooden stick for what stays in the corners.',
  clay_out_of_shell: 'Dig the clay out from the middle, never against the wall; rinse what is left.',
  warm_compound: 'Hold the tray in warm water for seconds: compound softens, plaster must not.',
  lever_straight: 'Lever straight up, along the teeth, a little on each side.',
  break_gel_away: 'Slit and break the gel away in pieces from the thick end.',
  pick_between_fingers: 'Pick out what is between the fingers with a wooden stick, never metal.',
  chip_waste_away:
    'Chip the waste mould away with a blunt chisel, from the coloured first coat on with care.',
  support_fingers: 'Hold thin parts from behind as the mould comes off them.',
  set_down_detail_up: 'Set it down with its detail up, soil and all.',
}

export const OUT_TOOL_WORDS: Record<OutTool, string> = {
  knife: 'knife',
  wooden_stick: 'wooden stick',
  mallet: 'rubber mallet',
  wedges: 'wooden wedges',
  spade: 'spade',
  board: 'board or foam',
  talc: 'talc',
  warm_water: 'warm water',
  blunt_chisel: 'blunt chisel',
  padding: 'something soft beneath',
}

export const FRAGILE_WORDS: Record<FragilePlace, string> = {
  fingers: 'fingers and other thin ends',
  hooks: 'hooks',
  undercut_lips: 'the lips of undercuts',
  thin_edges: 'thin edges',
  lettering: 'raised letters',
}

export const LATEST_WORDS: Record<LatestReason, string> = {
  gel_dries: 'before the impression dries and grips',
  gel_shrinks: 'the same day, before the gel shrinks',
  clay_dries: 'before the clay dries',
  clay_in_shell_dries: 'before the clay dries and shrinks',
}

/** The same as something that was seen, inside a sentence. */
export const CUE_SEEN: Record<TouchCue, string> = {
  trails_stay: 'trails that stay',
  gloss_gone: 'gloss gone',
  knife_cut_stays: 'a cut that stays open',
  thumbnail_no_dent: 'no dent from the thumbnail',
  warm: 'warm',
  hottest: 'hottest',
  cool_again: 'cool again',
  rings: 'ringing when tapped',
}

export const ANSWER_WORDS: Record<CueAnswer, string> = {
  now: 'Just now',
  already: 'Already so',
  not_yet: 'Not yet',
}

/** What a setting piece bears. */
export const GREEN_WORDS: Record<GreenMark, { bears: string; short: string }> = {
  turned_over: { bears: 'Turned over in its mould', short: 'turn it over' },
  lifted: { bears: 'Lifted by its body', short: 'lift it' },
  by_edge: { bears: 'Held by an edge, peeled from undercuts', short: 'by an edge' },
  drilled: { bears: 'Drilled, hung, trimmed hard', short: 'drill or hang it' },
}

const PROBE_FAULT_SAYS: Record<ProbeFault, string> = {
  dead: 'says nothing: the forecast goes on without it.',
  fahrenheit: 'seems to speak °F where °C is read. It is not counted.',
  too_hot: 'reads hotter than this mix can get. It is not counted.',
  too_cold: 'reads colder than all that is about it. It is not counted.',
  in_air: 'reads the room, not the piece. Push it in, or say so: it is not counted.',
  stuck: 'has stood still while the piece should have moved. It is not counted.',
  jumps: 'jumps about: look at its plug. It is not counted.',
  elsewhere: 'reads what this piece can be at no pace. It is not counted.',
}

/** What is wrong with a thermometer, by its name. */
export const probeFaultWords = (fault: ProbeFault, name: string) => `${name} ${PROBE_FAULT_SAYS[fault]}`

/** What it may really be, the likeliest first: each is one press. */
export const PROBE_CURES: Record<ProbeFault, readonly ThermometerTold[]> = {
  dead: ['off'],
  fahrenheit: ['fahrenheit', 'right'],
  too_hot: ['fahrenheit', 'elsewhere', 'off', 'right'],
  too_cold: ['in_air', 'elsewhere', 'off', 'right'],
  in_air: ['in_air', 'off', 'right'],
  stuck: ['in_air', 'off', 'elsewhere', 'right'],
  jumps: ['off'],
  elsewhere: ['elsewhere', 'in_air', 'off', 'right'],
}

export const BURN_WORDS: Record<Exclude<BurnHazard, 'none'>, string> = {
  do_not_hold: 'Do not hold it',
  burns_in_minutes: 'It burns in minutes',
  burns_at_once: 'It burns in half a minute or less',
}

/** What place and size ask for; common practice, no source. */
export const CONDITION_WORDS: Record<Condition, string> = {
  cold_ground:
    'On cold ground it takes long, overnight at best. Clear the dam so that air gets at it, or lift it with its ground and take it to the warm. Never pull at it early.',
  cold_room: 'In the cold it takes long: warm water, a warm place, or simply wait.',
  hot_place: 'In the heat it hurries: shade, cool water, smaller bowls.',
  strong_heat:
    'It gets very hot inside, which slows its own set and strains it as it cools: leave it in until it has cooled, and pour less at a time next time. Past 65 °C inside, the forecast goes beyond what is known.',
  heavy:
    'A heavy piece stays hot for long and breaks under its own weight: two pairs of hands, and lift it level.',
  never_warm: 'Too thin or too cold to feel warm. Do not wait for warmth: try a thumbnail.',
  untried: 'So cold or so hot a mix the forecast was never tried on: go by what you see, not by the clock.',
}

export const ACT_WORDS: Record<Act['id'], string> = {
  to_the_warm: 'Taken to a warm room (20 °C) now',
  warmer_water: 'With warmer water',
  cooler_water: 'With cooler water',
}

/** What is seen while it sets, and whether it matters; common practice, no source. */
export const SIGN_WORDS: readonly { sign: string; means: string }[] = [
  {
    sign: 'A film of water on top',
    means:
      'More water than it binds, or powder that settled. Wipe it off; it matters only where it stays milky and soft.',
  },
  {
    sign: 'The face is still soft',
    means:
      'The open face sets last where it is cold or dries in a draught. Cover it, wait; it matters if the rest rings and it still dents.',
  },
  {
    sign: 'It was never warm',
    means:
      'A thin or cold piece never feels warm. A thick one should: old powder, or far too much water. Try a thumbnail before you trust it.',
  },
]
