import type { ChangeMessage, HelloMessage } from '../../shared/changes'
import type { LiveMessage } from '../../shared/devices'

export interface LiveStream {
  hello: HelloMessage
  /** Resolves with the first change that fits, also one that came before the question. */
  next: (fits: (change: ChangeMessage) => boolean) => Promise<ChangeMessage>
  received: ChangeMessage[]
  /** What devices said, and the next of it that fits, also one that came before the question. */
  live: LiveMessage[]
  nextLive: (fits: (said: LiveMessage) => boolean) => Promise<LiveMessage>
  ended: Promise<void>
  close: () => void
}

/** Reads a server's live stream. */
export async function openLiveStream(
  address: string,
  since?: number,
  onChange: (change: ChangeMessage) => void = () => {},
  onLive: (said: readonly LiveMessage[]) => void = () => {},
  headers: Record<string, string> = {},
): Promise<LiveStream> {
  const abort = new AbortController()
  const answer = await fetch(`${address}/api/changes${since === undefined ? '' : `?since=${since}`}`, {
    headers,
    signal: abort.signal,
  })
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
  const received: ChangeMessage[] = []
  const live: LiveMessage[] = []
  const waiting = new Set<() => void>()
  let gotHello!: (hello: HelloMessage) => void
  const hello = new Promise<HelloMessage>((resolve) => (gotHello = resolve))
  let buffer = ''
  const ended = (async () => {
    for (;;) {
      const { value, done } = await reader.read().catch(() => ({ value: undefined, done: true }))
      if (done || value === undefined) return
      buffer += value
      const parts = buffer.split('\n\n')
      buffer = parts.pop()!
      for (const part of parts) {
        const event = /^event: (.*)$/m.exec(part)?.[1]
        const data: unknown = JSON.parse(/^data: (.*)$/m.exec(part)![1]!)
        if (event === 'hello') gotHello(data as HelloMessage)
        else if (event === 'live') {
          live.push(...(data as LiveMessage[]))
          onLive(data as LiveMessage[])
        } else if (event === 'change') {
          received.push(data as ChangeMessage)
          onChange(data as ChangeMessage)
        }
      }
      for (const look of waiting) look()
    }
  })()
  const first = <T>(among: readonly T[], fits: (one: T) => boolean): Promise<T> =>
    new Promise((resolve) => {
      const look = () => {
        const found = among.find(fits)
        if (found === undefined) return
        waiting.delete(look)
        resolve(found)
      }
      waiting.add(look)
      look()
    })
  return {
    hello: await hello,
    received,
    ended,
    live,
    next: (fits) => first(received, fits),
    nextLive: (fits) => first(live, fits),
    close: () => abort.abort(),
  }
}
