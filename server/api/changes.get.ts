import { z } from 'zod'
import type { ChangeMessage, HelloMessage } from '../../shared/contracts'
import { changesAfter, latestSeq } from '../services/changes'
import { useDatabase } from '../utils/database'
import { defineRoute, readQuery } from '../utils/http'
import { trackStream, useChangeFeed } from '../utils/live'

const querySchema = z.object({ since: z.coerce.number().int().min(0).optional() })

/** More than this behind, and loading everything again is the quicker way. */
const MAX_CATCH_UP = 500

/**
 * The live stream. Says hello with the newest change number, then one message a change. A client that comes back
 * sends `since` (or the browser its Last-Event-ID) and first gets what it missed.
 */
export default defineRoute(async (event) => {
  const lastEventId = Number(getRequestHeader(event, 'last-event-id') ?? Number.NaN)
  const since = Number.isSafeInteger(lastEventId) ? lastEventId : readQuery(event, querySchema).since
  const db = useDatabase()
  const feed = await useChangeFeed()
  const stream = createEventStream(event)

  let sent = 0
  const waiting: ChangeMessage[] = []
  let live = false
  const push = (messages: ChangeMessage[]) => {
    for (const message of messages) {
      if (message.seq <= sent) continue
      sent = message.seq
      void stream.push({ id: String(message.seq), event: 'change', data: JSON.stringify(message) })
    }
  }
  const unsubscribe = feed.subscribe((messages) => (live ? push(messages) : waiting.push(...messages)))
  const untrack = trackStream(() => void stream.close())
  stream.onClosed(() => {
    unsubscribe()
    untrack()
  })

  const newest = await latestSeq(db)
  const missed = since === undefined || since > newest ? [] : await changesAfter(db, since)
  const reset = since !== undefined && (since > newest || missed.length >= MAX_CATCH_UP)
  sent = reset || since === undefined ? newest : since
  const hello: HelloMessage = { seq: sent, serverTimeMs: Date.now(), reset }
  // Nothing goes out, headers included, before the first push.
  void stream.push({ event: 'hello', data: JSON.stringify(hello) })
  if (!reset) push(missed)
  live = true
  push(waiting)
  return stream.send()
})
