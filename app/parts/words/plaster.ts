import { figure } from '~/parts/show/figures'
import type { SiftStage } from '#core/mix'
import type { LabelError, Packing, PlasterClassId } from '#core/plaster'
import type { Provenance } from '#core/provenance'

export const PLASTER_CLASS_WORDS: Record<PlasterClassId, string> = {
  pop: 'Plaster of Paris',
  pottery: 'Pottery plaster',
  gc: 'Gypsum cement (hydrocal type)',
  lowexp: 'Low-expansion gypsum cement',
  hsgc: 'High-strength gypsum cement (hydrostone type)',
  dental2: 'Dental plaster',
  dental3: 'Dental stone',
  dental4: 'High-strength dental stone',
  investment: 'Plaster-silica investment 1 : 1 : 1',
}

export const PACKING_WORDS: Record<Packing, string> = {
  sifted: 'Sifted in',
  scooped: 'Dug out',
  tapped: 'Tapped down',
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

/** Says what could be read of a label and what is missing. */
export function labelErrorWords(error: LabelError, example: string): string {
  const read = error.understood ? `I read “${error.understood}”` : 'I read nothing in it'
  switch (error.code) {
    case 'empty':
      return ''
    case 'half_a_ratio':
      return `${read}: how much of the other goes with it? For example ${example}.`
    case 'no_such_ratio':
      return `${read}, which would be ${figure(error.consistency)} of water to 100: no plaster is mixed like that.`
    case 'not_understood':
      return `${read}${error.rest ? `, but not “${error.rest}”` : ''}. Write it like 100 : 30, 2 : 1, 70 parts or ${example}.`
  }
}

export function provenanceWords(p: Provenance): string {
  switch (p.kind) {
    case 'measured':
      return 'measured here'
    case 'label':
      return 'from the bag’s label'
    case 'calibrated':
      return `calibrated from ${p.pours} of your pours`
    case 'spoon_tests':
      return p.tests === 1 ? 'from a spoon test of this bag' : `from ${p.tests} spoon tests of this bag`
    case 'class_default':
      return `class default (${p.source})`
    case 'common_practice':
      return 'common practice'
    case 'model':
      return `computed (${p.source})`
  }
}
