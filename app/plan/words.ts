import type { WaterKind } from '#core/plaster'
import type { SchoolId, SuitsCode, Sun } from '#core/pour'
import type { Range } from '#core/provenance'
import type { SiftStage } from '#core/mix'

/** What only the worksheet says. */

export const SCHOOL_WORDS: Record<SchoolId, string> = {
  third: 'A third of the mould in water',
  half: 'Half of the mould in water',
  two_thirds: 'Two thirds in water',
  two_to_one: '2 : 1 by scoop',
  three_to_one: '3 : 1 by scoop',
  maker: 'The maker’s ratio',
  last_time: 'Yours last time',
  plan: 'This plan',
}

export const SUITS_WORDS: Record<SuitsCode, string> = {
  suits: 'This mix suits it.',
  drinks_too_little: 'Too dense to draw the water out of clay.',
  wears_quickly: 'It drinks well, but so soft it wears quickly.',
  pores_sealed: 'The dispersion seals its pores: clay will stick.',
  too_weak: 'Soft for this: edges will go in handling and cleaning.',
  grows_too_much: 'It grows as it sets, more than this wants.',
  not_for_the_mouth: 'Not a dental plaster or stone: neither its hardness nor its growth is made for this.',
  below_dental_strength:
    'An hour after setting it is weaker than ISO 6873 (1998 and 2013, from memory) asks of its type.',
  impression_plaster_only:
    'By ISO 6873 (1998 and 2013, from memory) it is an impression plaster, type 1: too weak for a model.',
  expanding_stone:
    'It expands as a type 5 stone of ISO 6873 (1998 and 2013, from memory) does: right for some alloys, too much for a model.',
  needs_silica: 'Without silica it cracks in the kiln.',
  silica_not_needed: 'Silica takes up room without drinking, and its dust stays in the workshop.',
  too_strong_to_break: 'Too strong to break safely.',
  binder_will_not_break: 'Fibre or dispersion holds it together: it will not break.',
}

export const WATER_WORDS: Record<WaterKind, string> = {
  soft: 'Soft, or as usual',
  hard: 'Hard',
  sea: 'Sea water',
}

export const SUN_WORDS: Record<Sun | 'none', string> = {
  none: 'Shade',
  hazy: 'Hazy sun',
  full: 'Full sun',
}

/** The same in a few words, where several stand side by side. */
/** Pictures of how a slurry runs while it is tapped, from thin to thick, each up to a viscosity in Pa·s. */
const FLOW_PICTURES: readonly [upToPaS: number, picture: string][] = [
  [0.15, 'milk'],
  [0.5, 'cream'],
  [1.5, 'batter'],
  [Infinity, 'thick yoghurt'],
]
const picture = (paS: number) => FLOW_PICTURES.find(([upTo]) => paS < upTo)![1]

export const flowPicture = ({ mid }: Range) => `like ${picture(mid)}`

/** How it runs: an estimate good to a third or three times, so a picture, and what it may be instead. */
export function flowWords({ low, mid, high }: Range): string {
  const others = [picture(low), picture(high)].filter((p) => p !== picture(mid))
  return `like ${picture(mid)}${others.length > 0 ? ` (perhaps ${[...new Set(others)].join(' or ')})` : ''}`
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
