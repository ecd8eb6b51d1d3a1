import { batchOf, handOf, type EventType, type PourEvent } from './events'
import { STEP } from './plan/steps'

/** What is done once, or once of each bowl, and was recorded by more than one hand: apart, neither could know of the other. */
export interface Twice {
  type: EventType
  batch: number
  /** One of each hand, the earliest first: that one counts. */
  events: PourEvent[]
}

/** A weighing may be put right by anybody; what completes a step is done once. */
const ONCE: ReadonlySet<string> = new Set(
  Object.values(STEP)
    .map((step) => step.doneBy as string)
    .filter((by) => !by.startsWith('weighed') && by !== 'own_done'),
)

/** Of several casts each may be taken out by another. */
const piecesOf = ({ body }: PourEvent) => ('pieces' in body ? JSON.stringify(body.pieces ?? []) : '')

/** @param live events that count, as folded. */
export function recordedTwice(live: readonly PourEvent[]): Twice[] {
  const found = new Map<string, PourEvent[]>()
  for (const event of [...live].sort((a, b) => a.occurredAtMs - b.occurredAtMs)) {
    // Who said no name may be anybody, the other as well.
    if (!ONCE.has(event.body.type) || handOf(event) === '') continue
    const key = `${event.body.type} ${batchOf(event.body)} ${piecesOf(event)}`
    const others = found.get(key) ?? []
    if (others.some((o) => handOf(o) === handOf(event))) continue
    found.set(key, [...others, event])
  }
  return [...found.values()]
    .filter((events) => events.length > 1)
    .map((events) => ({ type: events[0]!.body.type, batch: batchOf(events[0]!.body), events }))
}
