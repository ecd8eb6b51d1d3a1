import { BEAT_MS, type BeatMessage, type ChangeMessage } from '../../shared/changes'
import type { LiveMessage } from '../../shared/devices'

/** An open stream's way out. */
export interface Stream {
  address: string
  workshopId: string
  write: (text: string) => void
  close: () => void
}

const streams = new Set<Stream>()
let beating: NodeJS.Timeout | undefined

export const MOST_STREAMS = 1000
/** One address or one workshop leaves room for the others. */
const MOST_STREAMS_OF_ONE = 500

export function hasRoomFor(address: string, workshopId: string): boolean {
  const open = [...streams]
  return (
    open.length < MOST_STREAMS &&
    open.filter((s) => s.address === address).length < MOST_STREAMS_OF_ONE &&
    open.filter((s) => s.workshopId === workshopId).length < MOST_STREAMS_OF_ONE
  )
}

/** What devices of a workshop say, to all of its windows that hang on this process. */
export function tellStreams(workshopId: string, said: readonly LiveMessage[]): void {
  const text = sseOf('live', said)
  for (const stream of streams) if (stream.workshopId === workshopId) stream.write(text)
}

/** Keeps a stream's heart beating and remembers how to end it; returns the way to forget it again. */
export function trackStream(stream: Stream): () => void {
  streams.add(stream)
  beating ??= setInterval(() => {
    const beat: BeatMessage = { serverTimeMs: Date.now() }
    const text = sseOf('beat', beat)
    for (const open of streams) open.write(text)
  }, BEAT_MS)
  return () => streams.delete(stream)
}

/** An open stream would hold the server up for half a minute when it is asked to stop. */
export function closeStreams(): void {
  clearInterval(beating)
  for (const stream of streams) stream.close()
}

/** One message of a stream of server-sent events. */
export function sseOf(event: string, data: object, id?: number): string {
  return `${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`
}

const written = new WeakMap<ChangeMessage, string>()

/** Written once, however many windows hear it. */
export function sseOfChange(message: ChangeMessage): string {
  let text = written.get(message)
  if (text === undefined) {
    text = sseOf('change', message, message.seq)
    written.set(message, text)
  }
  return text
}
