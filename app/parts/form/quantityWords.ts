import { figure, plain } from '~/parts/show/figures'
import type { LabelReading } from '#core/plaster'
import type { DecimalSign, QuantityError, QuantityReading, UnitSystem } from '#core/units'

/** Sentences about what was typed: what could not be read, and what was read into it. */

export const QUANTITY_ERROR_WORDS: Record<QuantityError, string> = {
  empty: 'Something is needed here.',
  not_a_quantity: 'I cannot read that as one quantity.',
  unknown_unit: 'I do not know that unit.',
  wrong_kind_of_unit: 'That unit measures something else.',
  ambiguous: 'This can be read in two ways. Which is it?',
  too_large: 'That is too large.',
}

/** What was taken, where something had to be: a sign between thousands, a unit left out, whose cup. */
export function readingWords(
  { canonical, notes }: QuantityReading,
  show: { system: () => UnitSystem; volume: (volumeMl: number) => string },
): string {
  const sized = (ml: number) => (show.system() === 'metric' ? `${plain(ml, 1)} ml` : show.volume(ml))
  const measures = notes.flatMap((n) =>
    n.about === 'measure' ? [`${n.measure}, ${n.size}, ${sized(n.ml)}`] : [],
  )
  if (measures.length > 0) return measures.map((m) => `Read as ${m}`).join('; ')
  return notes.length > 0 ? `Read as ${canonical}` : ''
}

/** The sign that a language puts before its decimals. */
export function decimalSignOf(language: string): DecimalSign {
  const part = new Intl.NumberFormat(language).formatToParts(1.5).find((p) => p.type === 'decimal')
  return part?.value === ',' ? 'comma' : 'point'
}

/** Readings of a text with the one first that the browser's language makes likelier. */
export function sortedByGuess(
  readings: readonly QuantityReading[],
  text: string,
  language: string,
): QuantityReading[] {
  const american = /-US$/.test(language)
  const typed: DecimalSign = text.includes(',') ? 'comma' : 'point'
  const decimals = typed === decimalSignOf(language)
  const unlikely = ({ canonical, notes }: QuantityReading) =>
    notes.filter((n) =>
      n.about === 'measure'
        ? (n.size === 'US') !== american
        : n.about === 'number' && canonical.includes('.') !== decimals,
    ).length
  return [...readings].sort((a, b) => unlikely(a) - unlikely(b))
}

/** What a label's ratio was read as. */
export function labelReadingWords(read: LabelReading): string {
  const whose = read.by === 'weight' && read.size ? ` (${read.size} measures)` : ''
  if (read.by === 'volume')
    return `${plain(read.powderParts)} scoops of powder to 1 of water: about ${figure(read.consistency)} of water to 100`
  return read.range
    ? `${plain(read.range.low, 1)} to ${plain(read.range.high, 1)} of water to 100 by weight${whose}`
    : `${plain(read.consistency, 1)} of water to 100 by weight${whose}`
}
