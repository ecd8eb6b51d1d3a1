import { MOST_TOLD_APART } from '../bounds'
import type { DemouldOutcome, PourEvent, Verdict } from './events'
import { bowlFills } from './plan/mix/bowlFill'
import type { KeptPlan } from './plan/kept'
import { castsOf } from './plan/plan'

/** One cast of a pour: six moulds filled from one bowl are six pieces. */
export interface PieceFacts {
  /** From 1, in the order of filling. */
  number: number
  /** Casts that it stands for: more than one only where a pour makes too many to tell them apart. */
  casts: number
  /** Its mould by name, and its card; null where it has none, undefined where the casts are not told apart. */
  name: string
  mouldId: string | null | undefined
  /** Which of the plan's members that is. */
  member: number | undefined
  cavityMl: number
  /** Bowls that went into it; empty where every bowl goes into every mould. */
  bowls: number[]
  /** How it came out of its mould, as last said, and when, as first said. */
  out: { outcome: DemouldOutcome; gripped: boolean | undefined; atMs: number } | undefined
  verdict: PieceVerdict | undefined
}

export interface PieceVerdict {
  verdict: Verdict
  reason: string
  atMs: number
}

function unsaid(plan: KeptPlan): PieceFacts[] {
  const nothing = { out: undefined, verdict: undefined }
  const { name, cavityMl, members = [] } = plan.mould
  const casts = castsOf(plan)
  if (members.length === 0 || casts > MOST_TOLD_APART) {
    const mouldId = members.length === 0 ? null : undefined
    return [{ number: 1, casts, name, mouldId, cavityMl, member: undefined, bowls: [], ...nothing }]
  }
  const fills = bowlFills(plan, plan.kept.batches)
  return members
    .flatMap((m, member) =>
      Array.from({ length: m.count * m.volume.cavities }, (_, i, all = m.count * m.volume.cavities) => ({
        name: m.name,
        mouldId: m.mouldId,
        member,
        // Of one piece its mould's volume as it stands; a set's is shared out.
        cavityMl: all === 1 ? m.cavityMl : m.cavityMl / all,
      })),
    )
    .map((piece, i) => ({
      number: i + 1,
      casts: 1,
      ...piece,
      bowls: (fills ?? []).flatMap((fill, bowl) => (fill.pieces.includes(i + 1) ? [bowl] : [])),
      ...nothing,
    }))
}

/** The pieces that an event names; where it names none, those still in play, or all once none is. */
function meant(
  pieces: readonly PieceFacts[],
  named: readonly number[] | undefined,
  inPlay: (piece: PieceFacts) => boolean,
): PieceFacts[] {
  if (named) return pieces.filter((p) => named.includes(p.number))
  const left = pieces.filter(inPlay)
  return left.length > 0 ? left : [...pieces]
}

/** Whether a piece is still there to be weighed, judged or looked after. */
export const isInPlay = ({ out, verdict }: PieceFacts): boolean =>
  verdict === undefined && out?.outcome !== 'broken'

/** What became of each piece of a pour, and which of them each weighing was of, by its event. */
export function foldPieces(
  plan: KeptPlan,
  live: readonly PourEvent[],
): { pieces: PieceFacts[]; weighed: ReadonlyMap<string, number[]> } {
  const pieces = unsaid(plan)
  const weighed = new Map<string, number[]>()
  for (const { id, body, occurredAtMs: atMs } of live) {
    if (body.type === 'demoulded')
      for (const piece of meant(pieces, body.pieces, (p) => p.out === undefined))
        piece.out = {
          outcome: body.outcome,
          gripped: body.gripped,
          atMs: piece.out?.atMs ?? atMs,
        }
    if (body.type === 'finished')
      for (const piece of meant(pieces, body.pieces, isInPlay))
        piece.verdict = { verdict: body.verdict, reason: body.reason, atMs }
    if (body.type === 'weighing')
      weighed.set(
        id,
        meant(pieces, body.pieces, isInPlay).map((p) => p.number),
      )
  }
  // A piece that broke needs no verdict of its own once the others have theirs.
  if (pieces.some((p) => p.verdict) && pieces.every((p) => p.verdict || p.out?.outcome === 'broken'))
    for (const piece of pieces) piece.verdict ??= { verdict: 'failed', reason: '', atMs: piece.out!.atMs }
  return { pieces, weighed }
}

/** When the last of the pieces came out, ms; undefined while one is still in its mould. */
export function allOutMs(pieces: readonly PieceFacts[]): number | undefined {
  return pieces.every((p) => p.out) ? Math.max(...pieces.map((p) => p.out!.atMs)) : undefined
}

/** Casts that came out of their moulds. */
export const castsOut = (pieces: readonly PieceFacts[]): number =>
  pieces.reduce((sum, p) => sum + (p.out ? p.casts : 0), 0)

/** Pieces of each kind, counted. */
export function countedBy<Kind extends string>(
  pieces: readonly PieceFacts[],
  kindOf: (piece: PieceFacts) => Kind | undefined,
): Partial<Record<Kind, number>> {
  const counts: Partial<Record<Kind, number>> = {}
  for (const piece of pieces) {
    const kind = kindOf(piece)
    if (kind !== undefined) counts[kind] = (counts[kind] ?? 0) + piece.casts
  }
  return counts
}

/** From the best to the worst: of as many pieces each, the worse is said. */
const WORSE: Record<Verdict, number> = { good: 0, usable: 1, failed: 2, abandoned: 3 }

/** What the pour as a whole came to, once every piece has its verdict: what most of them are. */
export function verdictOf(pieces: readonly PieceFacts[]): PieceVerdict | undefined {
  const said = pieces.flatMap((p) => (p.verdict ? [p.verdict] : []))
  if (said.length < pieces.length) return undefined
  const counts = countedBy(pieces, (p) => p.verdict!.verdict)
  const [verdict] = (Object.entries(counts) as [Verdict, number][]).reduce((a, b) =>
    b[1] > a[1] || (b[1] === a[1] && WORSE[b[0]] > WORSE[a[0]]) ? b : a,
  )
  return {
    verdict,
    reason: [...new Set(said.map((v) => v.reason).filter(Boolean))].join('; '),
    atMs: Math.max(...said.map((v) => v.atMs)),
  }
}
