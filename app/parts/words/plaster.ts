import { figure } from '~/parts/show/figures'
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

/** What each is for, in the words of those who use it (common practice, no source). */
export const PLASTER_USE_WORDS: Record<PlasterClassId, string> = {
  pop: 'prints, first casts, school work',
  pottery: 'moulds that drink: slip, hump and slump; drying slabs',
  gc: 'hard pieces that are handled: tiles, ornament, props',
  lowexp: 'patterns and models that must keep their size',
  hsgc: 'the hardest, finest pieces; little water',
  dental2: 'study models, off an impression',
  dental3: 'working models, off an impression',
  dental4: 'dies: densest, least swelling',
  investment: 'shells for the kiln',
}

export const PACKING_WORDS: Record<Packing, string> = {
  sifted: 'Sifted in',
  scooped: 'Dug out',
  tapped: 'Tapped down',
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
