import type { MouldTableFault } from '#core/formats'
import type { CauseId } from '#core/finish'
import type { PieceOutcome } from '#core/pour'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { FAULT_WORDS } from '~/parts/words/faults'
import { OUTCOME_WORDS, byKind } from '~/parts/words/pieces'
import type { MouldCard } from '~~/shared/moulds'

/** What only the shelf of moulds says. */

type Last = NonNullable<MouldCard['history']['last']>
const WELL: ReadonlySet<PieceOutcome> = new Set(['whole', 'good'])

/** How the last pour from a mould came out, after "last": what was wrong and why comes first, and goes before "whole". */
export function lastText(
  { outcomes, faults }: Pick<Last, 'outcomes' | 'faults'>,
  causes: readonly CauseId[],
): string {
  const wrong = [...faults.map((f) => FAULT_WORDS[f]), ...causes.map((c) => CAUSE_WORDS[c].name)]
  const came = byKind(outcomes, OUTCOME_WORDS)
  const isWell = Object.keys(outcomes).every((o) => WELL.has(o as PieceOutcome))
  return [...wrong.map((w) => w.toLowerCase()), ...(wrong.length > 0 && isWell ? [] : [came])].join(', ')
}

export const TABLE_FAULT_WORDS: Record<MouldTableFault, string> = {
  missing_column: 'this column is missing',
  not_a_number: 'not a number',
  out_of_range: 'out of range',
  unknown_word: 'a word not known here',
  no_name: 'a mould needs a name',
}
