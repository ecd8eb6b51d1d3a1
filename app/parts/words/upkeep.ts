import type { Upkeep } from '#core/finish'

/** What is done with a piece in use, and what it wants. */
export const UPKEEP_WORDS: Record<Upkeep, { did: string; wants: string; how: string }> = {
  used: { did: 'Used', wants: 'Use it', how: '' },
  dried: {
    did: 'Dried out',
    wants: 'Dry it out',
    how: 'On its edge, air at both faces, until it is no longer cold; it draws no more water while it is wet.',
  },
  wetted: {
    did: 'Wetted again',
    wants: 'Wet it again',
    how: 'A cup of water into the plaster, the lid on; the clay stays as it is.',
  },
  bleached: {
    did: 'Kept from mildew',
    wants: 'Look for mildew',
    how: 'A few drops of bleach in a cup of water on the plaster, never on the clay, never with another cleaner; gloves on, window open.',
  },
}
