import type { FrameFault, MarkKind, MeasureIssueCode, PackItem, ShotNote } from '#core/field'
import type { Ready } from '~/stores/away'

export { GROUND_ADVICE, SOIL_WORDS as GROUND_NAMES } from '~/parts/words/field'

export const MARK_NAMES: Record<MarkKind, string> = {
  length: 'Length',
  width: 'Width',
  stride: 'Stride',
  straddle: 'Straddle',
  angle: 'Angle',
}
export const MARK_HOW: Record<MarkKind, string> = {
  length: 'Both ends.',
  width: 'Both edges.',
  stride: 'The same place of two prints, one after the other.',
  straddle: 'Two prints of one side, then one of the other.',
  angle: 'One arm, the vertex, the other arm.',
}

export const SHOT_NOTE_WORDS: Record<ShotNote, string> = {
  tilted:
    'Not straight down: by a rule alone what lies along the tilt is too short. Four corners put it right.',
  tilt_unknown: 'Nobody knows how straight down this was: the range allows for a hand’s tilt.',
  near_edge: 'Something lies near the edge of the frame, where a lens bends it.',
  floor_lower:
    'It lies lower than the scale, and nobody said how high the camera was: it is larger than this.',
  floor_corrected: 'Put right for lying lower than the scale.',
  scale_unlikely:
    'By this scale the camera was where nobody holds one. Millimetres, or inches? Which marks of the rule?',
  marks_disagree: 'The marks do not agree with each other: look at them again.',
}

export const MEASURE_ISSUE_WORDS: Record<MeasureIssueCode, string> = {
  marks_too_near: 'The two marks are too near each other: take them as far apart as the rule allows.',
  corners_in_line: 'Three of these corners lie in a line. Put them on the four corners.',
  corners_folded: 'One corner lies inside the others: no rectangle looks like that.',
  too_few_places: 'It takes four corners.',
  no_length: 'Say how long it is.',
  too_few_points: 'There are points still to set.',
  beyond_horizon: 'This lies so flat to the camera that nothing can be said of it.',
  points_too_near: 'Two points lie on each other.',
  outline_crosses: 'The outline crosses itself: move the point that does it.',
}

export const FRAME_FAULT_WORDS: Record<FrameFault, string> = {
  blown_out: 'Burnt out: shade it, or turn from the sun',
  glare: 'Glare on it: step round until it is gone',
  too_dark: 'Too dark',
  blurred: 'Blurred: hold still, tap to focus',
  flat_light: 'Flat light: low sun from the side shows more',
  tilted: 'Not straight down',
}

export const PACK_WORDS: Record<PackItem, (count: number) => string> = {
  bags: (n) => `${n} ${n === 1 ? 'bag' : 'bags'} of plaster, weighed and labelled`,
  water: (n) => `Water, ${n} l with what rinses hands`,
  ring_strips: (n) => `${n} ${n === 1 ? 'strip' : 'strips'} of card for rings`,
  clips: (n) => `${n} clips`,
  jug: () => 'A jug to mix in, for all',
  spoon: () => 'A spoon or a stick to pour over',
  scale_rule: () => 'A scale rule, and a bank card or a sheet of paper for its corners',
  soft_brush: () => 'A soft brush',
  marker: () => 'A marker, and labels',
  rag: () => 'A rag',
  rubbish_bag: () => 'A rubbish bag: nothing of it stays out there, no plaster goes into water',
  gloves: () => 'Gloves',
  mask: () => 'A dust mask for opening bags',
  warm_flask: () => 'A flask of warm water: cold slurry hardly sets',
  cold_water: () => 'Cold water in a flask: in this heat it sets in the bag',
  shade: () => 'Something for shade',
}

export const READY_WORDS: Record<Ready['what'], string> = {
  cards: 'Moulds, plasters, bags, recipes',
  open: 'Pours on the go',
  casts: 'Last casts',
  pictures: 'Pictures',
}
