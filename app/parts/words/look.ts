import type { BowlLook } from '#core/mix'

/** What is to be seen of a bowl, in a line: the picture for whoever cannot see it. */
export function lookWords({ level, bed, dryShare, heap, lumps, gloss, trail, bleed }: BowlLook): string {
  if (lumps > 0.05) return lumps > 0.4 ? 'Lumps in it still.' : 'The last lumps are going.'
  if (bed >= 1 && dryShare === 0 && level >= 1) {
    if (gloss < 1) return bleed > 0.01 ? 'Its gloss goes; water stands on top.' : 'Its gloss goes.'
    return trail < 0.15
      ? 'A trail closes at once.'
      : trail < 0.6
        ? 'A trail closes slowly.'
        : 'A trail stays.'
  }
  if (dryShare === 0) return bed < 0.02 ? 'Clear water.' : 'Powder sinks; clear water stands over it.'
  if (heap > 0.12) return 'A dry heap stands above the water.'
  return dryShare < 0.85
    ? 'Dry islands stand here and there.'
    : 'Dry and cracked all over, level with the water.'
}
