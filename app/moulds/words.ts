import type { MouldTableFault } from '#core/formats'
import type { DemouldOutcome, Verdict } from '#core/pour'

/** What only the shelf of moulds says. */

/** How the last pour from a mould came out, after "last". */
export const DEMOULD_WORDS: Record<Verdict | DemouldOutcome | 'poured', string> = {
  poured: 'still in it',
  whole: 'came out whole',
  damaged: 'came out damaged',
  broken: 'broke',
  good: 'good',
  usable: 'usable',
  failed: 'failed',
  abandoned: 'abandoned',
}

export const TABLE_FAULT_WORDS: Record<MouldTableFault, string> = {
  missing_column: 'this column is missing',
  not_a_number: 'not a number',
  out_of_range: 'out of range',
  unknown_word: 'a word not known here',
  no_name: 'a mould needs a name',
}
