import type { WaterKind } from '#core/plaster'
import type { SchoolId, SuitsCode, Sun } from '#core/pour'
import type { Range } from '#core/provenance'

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
  too_hard_to_mark: 'Too hard to leave a line: mixed thinner it marks.',
  binder_will_not_mark: 'Fibre or dispersion holds it together: it will not mark.',
  silica_in_the_hand:
    'Chalk wears to dust in the hand, and dust with silica harms the lungs: none of it in chalk.',
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
