import type { Fault } from '../../finish'
import type { PourFacts } from '../facts'

/** A fault as it was recorded, by the event that did. */
export interface NotedFault extends Fault {
  eventId: string
  atMs: number
}

/** What was noted as wrong with the piece. */
export function faultsOf({ live }: Pick<PourFacts, 'live'>): NotedFault[] {
  return live.flatMap(({ id, body, occurredAtMs }) => {
    if (body.type !== 'defect') return []
    const { kind, place, sizeMm, spot, photoId } = body
    return [{ eventId: id, atMs: occurredAtMs, kind, place, sizeMm, spot, photoId }]
  })
}
