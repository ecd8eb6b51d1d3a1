import { z } from 'zod'
import type { ChangeMessage, HelloMessage } from '../../shared/changes'
import { RIGHTS_OF } from '../../shared/roles'
import { MOST_CHANGES, changesAfter, latestSeq, messagesOf, oldestSeq } from '../services/changes'
import { DomainError } from '../services/domainError'
import { addressOf, useAsker } from '../utils/asker'
import { useWorkshop } from '../utils/database'
import { defineRoute, readQuery } from '../utils/http'
import { useChangeFeed } from '../live/feeds'
import { hasRoomFor, sseOf, sseOfChange, trackStream } from '../live/streams'
import { useLogger } from '../utils/logger'
import { streamWriter } from '../utils/streamWriter'

const querySchema = z.object({
  since: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).optional(),
})

/**
 * The live stream. Says hello with the number it starts from, then one message a change. A client that comes back sends
 * `since` and first gets what it missed; where that is no longer in the log, or too much, it is told to start over.
 */
export default defineRoute(async (event) => {
  const { since } = readQuery(event, querySchema)
  const { req, res } = event.node
  const address = addressOf(event)
  const asker = useAsker(event)
  const workshop = await useWorkshop(event)
  if (!hasRoomFor(address, workshop.id)) throw new DomainError('too_many_streams')
  const feed = await useChangeFeed(workshop)
  // Gone while it was being set up: its end would not be heard any more.
  if (res.closed || req.socket.destroyed) return

  const hearsOfPeople = asker.at === 'machine' || RIGHTS_OF[asker.role].includes('keep')
  let sent = 0
  let live = false
  const waiting: ChangeMessage[] = []
  const write = streamWriter(res, sseOf('dropped', {}), () =>
    useLogger().warn({ address }, 'a window does not read its stream; it is told to come back'),
  )
  const isAboutAsker = ({ topic, id }: ChangeMessage) =>
    topic === 'person' && asker.at === 'network' && id === asker.personId
  /** @param isNews it happened after this asker was let through. */
  const push = (messages: readonly ChangeMessage[], isNews: boolean) => {
    for (const message of messages) {
      if (message.seq <= sent) continue
      sent = message.seq
      // They come in anew, with other rights perhaps, or not at all.
      if (isNews && isAboutAsker(message)) return res.end()
      if (message.topic !== 'person' || hearsOfPeople) write(sseOfChange(message))
    }
  }
  const unsubscribe = feed.subscribe((messages) => (live ? push(messages, true) : waiting.push(...messages)))
  const untrack = trackStream({
    address,
    workshopId: workshop.id,
    // Not before it has said hello: what comes earlier it asks for itself, or can do without.
    write: (text) => {
      if (live) write(text)
    },
    close: () => res.end(),
  })
  const closed = new Promise<void>((resolve) => res.once('close', resolve)).then(() => {
    unsubscribe()
    untrack()
  })
  try {
    const newest = await latestSeq(workshop.db)
    const missed = since === undefined || since > newest ? [] : await changesAfter(workshop.db, since)
    const forgotten =
      since !== undefined && since < newest && ((await oldestSeq(workshop.db)) ?? 0) > since + 1
    const reset = since !== undefined && (since > newest || missed.length >= MOST_CHANGES || forgotten)
    sent = reset || since === undefined ? newest : since
    const hello: HelloMessage = { seq: sent, serverTimeMs: Date.now(), reset }
    const known = reset ? [] : await messagesOf(workshop.db, missed)
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    })
    write(sseOf('hello', hello))
    push(known, false)
    live = true
    push(waiting, true)
  } catch (error) {
    unsubscribe()
    untrack()
    throw error
  }
  await closed
})
