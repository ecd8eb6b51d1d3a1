import type { UnreadablePour } from '~~/shared/records'

/** The name of the piece of a record that cannot be read, where it still has one. */
export function rawPiece({ raw }: UnreadablePour): string {
  const piece = (raw.plan as { piece?: unknown } | null)?.piece
  return typeof piece === 'string' && piece.trim() !== '' ? piece : 'A pour without a name'
}

/** The whole of it as a file, so that nothing of it is lost. */
export function rawFile({ id, createdAtMs, raw }: UnreadablePour): { name: string; text: string } {
  return {
    name: `nine-ripples-pour-${id}.json`,
    text: JSON.stringify({ id, createdAtMs, ...raw }, null, 2),
  }
}
