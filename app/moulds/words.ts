import type { MouldTableFault } from '#core/formats'
import { FAULT_WORDS } from '~/parts/words/faults'
import { OUTCOME_WORDS, byKind } from '~/parts/words/pieces'
import type { MouldCard } from '~~/shared/moulds'

/** What only the shelf of moulds says. */

/** How the last pour from a mould came out, after "last": what was wrong with it comes first. */
export function lastText({
  outcomes,
  faults,
}: Pick<NonNullable<MouldCard['history']['last']>, 'outcomes' | 'faults'>): string {
  const wrong = faults.map((f) => FAULT_WORDS[f].toLowerCase())
  return [...wrong, byKind(outcomes, OUTCOME_WORDS)].join(', ')
}

export const TABLE_FAULT_WORDS: Record<MouldTableFault, string> = {
  missing_column: 'this column is missing',
  not_a_number: 'not a number',
  out_of_range: 'out of range',
  unknown_word: 'a word not known here',
  no_name: 'a mould needs a name',
}
