import { ChangeFeed } from '../services/changes'
import { useConfig } from '../config'
import { useDatabase } from './database'
import { useLogger } from './logger'

let feed: Promise<ChangeFeed> | undefined

/** The process's one change feed, started with the first live stream. */
export function useChangeFeed(): Promise<ChangeFeed> {
  feed ??= (async () => {
    const started = new ChangeFeed(useDatabase(), useConfig().databaseUrl, useLogger())
    await started.start()
    return started
  })()
  return feed
}

export async function stopChangeFeed(): Promise<void> {
  await (await feed)?.stop()
}

const openStreams = new Set<() => void>()

/** Remembers how to end a stream, for the shutdown; returns the way to forget it again. */
export function trackStream(close: () => void): () => void {
  openStreams.add(close)
  return () => openStreams.delete(close)
}

/** An open stream would hold the server up for half a minute when it is asked to stop. */
export function closeStreams(): void {
  for (const close of openStreams) close()
}
