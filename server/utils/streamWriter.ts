import type { Writable } from 'node:stream'

/** A reader that lets this much pile up is not reading: it comes back when it can, from where it was. */
export const MOST_UNREAD_BYTES = 1_000_000

/**
 * Writes to an open stream, and ends it where nobody reads.
 * @param lastWord what it is told then; it hears that if it ever reads again.
 */
export function streamWriter(
  to: Pick<Writable, 'writableEnded' | 'writableLength' | 'write' | 'end'>,
  lastWord: string,
  onDropped: () => void,
): (text: string) => void {
  return (text) => {
    if (to.writableEnded) return
    if (to.writableLength <= MOST_UNREAD_BYTES) {
      to.write(text)
      return
    }
    onDropped()
    to.end(lastWord)
  }
}
