import { countedBy, type PieceFacts, type PieceOutcome } from '#core/pour'
import { VERDICT_WORDS } from './pour'

/** Numbers in a row as one says them: 1 to 3 and 5. */
function inRows(numbers: readonly number[]): string {
  const rows: [number, number][] = []
  for (const n of [...numbers].sort((a, b) => a - b)) {
    const row = rows.at(-1)
    if (row && row[1] === n - 1) row[1] = n
    else rows.push([n, n])
  }
  const said = rows.flatMap(([from, to]) =>
    to - from > 1 ? [`${from} to ${to}`] : from === to ? [`${from}`] : [`${from}`, `${to}`],
  )
  return said.length < 2 ? said.join('') : `${said.slice(0, -1).join(', ')} and ${said.at(-1)}`
}

/** Which pieces, by their numbers: piece 2, pieces 1 to 3 and 5. */
export function pieceNumbers(numbers: readonly number[]): string {
  return `${numbers.length === 1 ? 'piece' : 'pieces'} ${inRows(numbers)}`
}

/** The same where it is not all of them; nothing where it is. */
export function whichPieces(numbers: readonly number[], total: number): string {
  return numbers.length === total ? '' : pieceNumbers(numbers)
}

/** Pieces by kind: one word where all are the same, else each with its number. `4 good, 2 failed` */
export function byKind<Kind extends string>(
  counts: Partial<Record<Kind, number>>,
  words: Record<Kind, string>,
): string {
  // In the order of the words: a store of counts keeps none.
  const found = (Object.keys(words) as Kind[]).flatMap((kind) => {
    const n = counts[kind]
    return n ? [[kind, n] as const] : []
  })
  return found.length === 1
    ? words[found[0]![0]]
    : found.map(([kind, n]) => `${n} ${words[kind].toLowerCase()}`).join(', ')
}

/** How the casts of a pour ended: Good, or 4 good, 2 failed. */
export function verdictText(pieces: readonly PieceFacts[]): string {
  return byKind(
    countedBy(pieces, (p) => p.verdict?.verdict),
    VERDICT_WORDS,
  )
}

/** What was last heard of a piece, after "last". */
export const OUTCOME_WORDS: Record<PieceOutcome, string> = {
  poured: 'still in it',
  whole: 'whole',
  damaged: 'damaged',
  broken: 'broken',
  good: 'good',
  usable: 'usable',
  failed: 'failed',
  abandoned: 'abandoned',
}
