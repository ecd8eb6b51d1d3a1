import type { Fault, FaultKind } from '../../finish'
import type { PourFacts } from '../facts'

/** A fault as it was recorded, by the event that did. */
export interface NotedFault extends Fault {
  /** Pieces that have it, by their numbers. */
  pieces: number[]
  eventId: string
  atMs: number
}

/** What was noted as wrong with the piece. */
export function faultsOf({ live, pieces }: Pick<PourFacts, 'live' | 'pieces'>): NotedFault[] {
  const all = pieces.map((p) => p.number)
  return live.flatMap(({ id, body, occurredAtMs }) => {
    if (body.type !== 'defect') return []
    const { kind, place, sizeMm, spot, photoId, pieces: named = all } = body
    const of = all.filter((n) => named.includes(n))
    return [{ eventId: id, atMs: occurredAtMs, kind, place, sizeMm, spot, photoId, pieces: of }]
  })
}

/** How many pieces have one of these faults. */
export function piecesWith(facts: Pick<PourFacts, 'live' | 'pieces'>, kinds: readonly FaultKind[]): number {
  const of = new Set(
    faultsOf(facts)
      .filter((f) => kinds.includes(f.kind))
      .flatMap((f) => f.pieces),
  )
  return facts.pieces.reduce((sum, p) => sum + (of.has(p.number) ? p.casts : 0), 0)
}
