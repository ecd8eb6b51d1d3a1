import type { BundleKind } from '~~/shared/bundle'

export const BUNDLE_KIND_WORDS: Record<BundleKind, string> = {
  settings: 'Settings',
  plasters: 'Plasters',
  bags: 'Bags',
  bowls: 'Bowls',
  places: 'Places to dry in',
  moulds: 'Moulds',
  mould_sets: 'Sets of moulds',
  recipes: 'Recipes',
  settling: 'Settling bucket',
  learning: 'What is learnt, or not',
  pours: 'Pours',
  photos: 'Photographs',
}
