import { MS_PER } from '../../core/units'
import { ChangeFeed, pruneChanges } from '../services/changes'
import { pruneReadings } from '../services/devices'
import { pruneSessions } from '../services/people'
import { databaseOf, type Workshop } from '../utils/database'
import { useLogger } from '../utils/logger'
import { listen, onWake } from './listening'

/** A window away for longer loads everything again. */
const KEPT_MS = 7 * MS_PER.day

const feeds = new Map<string, ChangeFeed>()
let pruning: NodeJS.Timeout | undefined

function prune(): void {
  const nowMs = Date.now()
  const failed = (what: string) => (error: unknown) => useLogger().warn({ err: error }, what)
  for (const id of feeds.keys()) {
    pruneChanges(databaseOf(id), KEPT_MS, nowMs).catch(failed('the change log could not be pruned'))
    pruneReadings(databaseOf(id), KEPT_MS, nowMs).catch(failed('old readings could not be pruned'))
    pruneSessions(databaseOf(id)).catch(failed('old sessions could not be pruned'))
  }
}

/** A workshop's change feed, started with its first live stream. */
export async function useChangeFeed({ id, db }: Workshop): Promise<ChangeFeed> {
  onWake((workshopId) => {
    if (workshopId !== undefined) feeds.get(workshopId)?.wake()
    else for (const feed of feeds.values()) feed.wake()
  })
  await listen()
  let feed = feeds.get(id)
  if (!feed) {
    feed = new ChangeFeed(db, useLogger())
    feeds.set(id, feed)
    prune()
  }
  pruning ??= setInterval(prune, MS_PER.h)
  await feed.start()
  return feed
}

export function stopPruning(): void {
  clearInterval(pruning)
}
