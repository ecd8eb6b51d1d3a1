import { Wheat } from '@lucide/vue'
import type { Grain } from '#core/mould'
import { standIn } from './drawing'
import { choice, length, volume } from './fields'
import type { ShownWay } from './way'

const GRAIN_WORDS: Record<Grain, string> = {
  sand: 'Dry sand',
  beads: 'Beads',
  rice: 'Rice',
  gravel: 'Gravel',
}

export const dryFill: ShownWay<'dry_fill'> = {
  name: 'Grains',
  how: 'For what must not get wet: fill it with grains, level, pour them into a jug.',
  icon: Wheat,
  first: { by: 'dry_fill', grain: 'rice', pouredMl: 1000, narrowestMm: 40 },
  fields: () => [
    choice('grain', 'Filled with', GRAIN_WORDS),
    volume('pouredMl', 'Poured out, in the jug'),
    length('narrowestMm', 'Narrowest inside'),
  ],
  section: (_, volumeMl) => standIn(volumeMl, 'grains'),
  knowsForm: false,
  hint: () => ({}),
}
