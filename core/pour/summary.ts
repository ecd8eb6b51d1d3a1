import type { Subject } from '../learn'
import {
  EVENT,
  batchOf,
  liveEvents,
  type DemouldOutcome,
  type MouldDamage,
  type PourEvent,
  type Verdict,
} from './events'
import type { FaultKind, UpkeepAct } from '../finish'
import { MS_PER } from '../units'
import { foldPour, type PourFacts } from './facts'
import { faultsOf, piecesWith } from './after/faults'
import { keptCauses, type KeptCause } from './after/keptCauses'
import { subjectsOf } from './after/observations'
import type { KeptPlan } from './plan/kept'
import type { Stage } from './plan/steps'
import { upkeepOf } from './after/upkeep'
import { castsOut, countedBy, type PieceFacts } from './pieces'
import { stageReached } from './view'

/** Plaster that one bowl took out of its bag, g, at the last weighing that counts. */
export interface Draw {
  bagId: string
  batch: number
  atMs: number
  massG: number
}

/** What was last heard of a piece. */
export type PieceOutcome = Verdict | DemouldOutcome | 'poured'

/** What a pour did with one mould, and to it. */
export interface MouldUse {
  mouldId: string
  /** How many of it were filled. */
  count: number
  /** What became of the pieces that came of it, counted by outcome, and what was wrong with any. */
  outcomes: Partial<Record<PieceOutcome, number>>
  faults: FaultKind[]
  /** When the slurry went in; undefined where nothing was poured. */
  pouredAtMs: number | undefined
  damages: { kind: MouldDamage; atMs: number }[]
}

/** A pour as lists show it and sums count it. Stage and rings are those of the record: no model is asked. */
export interface PourSummary {
  piece: string
  mould: string
  plaster: string
  consistency: number
  /** The mould a set is known by, and the plaster's card; undefined where the plan names none. */
  mouldId: string | undefined
  plasterId: string | undefined
  /** At which it was really mixed; undefined until every bowl is weighed. */
  actualConsistency: number | undefined
  open: boolean
  stage: Stage
  rings: number[]
  verdict: Verdict | undefined
  /** Pieces by their verdict, and by what is wrong with them: each counts once for each. */
  ended: Partial<Record<Verdict, number>>
  faulty: Partial<Record<FaultKind, number>>
  reason: string
  draws: Draw[]
  uses: MouldUse[]
  /** Causes that somebody accepted, with what they stay with. */
  heeds: KeptCause[]
  /** Of whom it may teach something: its bag, its place, a scoop, a pair of hands, a bowl. */
  teaches: Subject[]
  /** What a search may ask for. */
  tags: PourTag[]
  /** Pieces that came out of a mould. */
  casts: number
  /** Of its plaster, in the workshop's own currency; undefined where the bag has no price. */
  cost: number | undefined
  /** From coming out to being called finished, days. */
  dryDays: number | undefined
  /** Where it dried first; undefined where the place has no card. */
  placeId: string | undefined
  endedAtMs: number | undefined
  /** What it wants next, once it is in use; undefined where it wants nothing. */
  upkeep: { act: UpkeepAct; fromMs: number } | undefined
}

/** What can be asked for in the log besides words. */
export const TAG_KINDS = ['mould', 'bag', 'place', 'plaster', 'recipe', 'fault', 'cause'] as const
export type TagKind = (typeof TAG_KINDS)[number]
export type PourTag = `${TagKind}:${string}`

/**
 * What was taken out of the plan's bag: of each bowl the last weighing of plaster, and what was put in or taken out after
 * it. For whichever revision it was weighed, it left the bag.
 */
function drawsOf(plan: KeptPlan, live: readonly PourEvent[]): Draw[] {
  const { bag } = plan.plaster
  // What another pour left over was counted with that one.
  if (!bag || plan.leftoverOf) return []
  const draws = new Map<number, Draw>()
  for (const { body, occurredAtMs } of live) {
    const batch = batchOf(body)
    if (body.type === 'weighed' && body.what === 'powder')
      draws.set(batch, { bagId: bag.bagId, batch, atMs: occurredAtMs, massG: body.massG })
    const known = draws.get(batch)
    if (!known || body.type !== 'corrected') continue
    if (body.how === 'powder_in') known.massG += body.massG
    if (body.how === 'powder_out') known.massG -= body.massG
  }
  return [...draws.values()]
}

const outcomeOf = ({ verdict, out }: PieceFacts): PieceOutcome => verdict?.verdict ?? out?.outcome ?? 'poured'

function usesOf(plan: KeptPlan, live: readonly PourEvent[], facts: PourFacts): MouldUse[] {
  const poured = live.find((e) => EVENT[e.body.type].inMould)
  const faults = faultsOf(facts)
  const uses = new Map<string, MouldUse>()
  const useOf = (mouldId: string) => {
    const known = uses.get(mouldId)
    if (known) return known
    // Of casts that are not told apart, any may be of it.
    const pieces = facts.pieces.filter((p) => p.mouldId === mouldId || p.mouldId === undefined)
    const has = (of: readonly number[]) => pieces.some((p) => of.includes(p.number))
    const made: MouldUse = {
      mouldId,
      count: 0,
      pouredAtMs: poured?.occurredAtMs,
      outcomes: countedBy(pieces, outcomeOf),
      faults: [...new Set(faults.filter((f) => has(f.pieces)).map((f) => f.kind))],
      damages: [],
    }
    uses.set(mouldId, made)
    return made
  }
  for (const { mouldId, count } of plan.mould.members ?? []) if (mouldId) useOf(mouldId).count += count
  for (const { body, occurredAtMs } of live)
    if (body.type === 'mould_damage' && body.mouldId)
      useOf(body.mouldId).damages.push({ kind: body.kind, atMs: occurredAtMs })
  return [...uses.values()]
}

function tagsOf(plan: KeptPlan, facts: PourFacts): PourTag[] {
  const { plasterId, bag } = plan.plaster
  return [
    ...(plan.mould.members ?? []).flatMap((m): PourTag[] => (m.mouldId ? [`mould:${m.mouldId}`] : [])),
    ...(plan.recipe ? [`recipe:${plan.recipe.recipeId}` as const] : []),
    ...(plasterId ? [`plaster:${plasterId}` as const] : []),
    ...(bag ? [`bag:${bag.bagId}` as const] : []),
    ...(facts.drying?.legs ?? []).flatMap(({ spot }): PourTag[] =>
      spot.placeId ? [`place:${spot.placeId}`] : [],
    ),
    ...new Set(faultsOf(facts).map((f): PourTag => `fault:${f.kind}`)),
  ]
}

/** With each fault, how many pieces have it. */
function faultyPieces(facts: PourFacts): Partial<Record<FaultKind, number>> {
  const kinds = new Set(faultsOf(facts).map((f) => f.kind))
  return Object.fromEntries([...kinds].map((kind) => [kind, piecesWith(facts, [kind])]))
}

function costOfPour(plan: KeptPlan, draws: readonly Draw[]): number | undefined {
  const { bag } = plan.plaster
  if (!bag || bag.price === null) return undefined
  return (bag.price * draws.reduce((sum, d) => sum + d.massG, 0)) / bag.boughtG
}

function wantedUpkeep(facts: PourFacts): PourSummary['upkeep'] {
  const next = upkeepOf(facts)
  return next?.act && { act: next.act, fromMs: next.fromMs }
}

/** Sums a pour up from its plan and events; like the fold, whatever the order and number of arrivals, and the hour. */
export function summarisePour(
  planned: KeptPlan,
  events: readonly PourEvent[],
  revision: number,
): PourSummary {
  const facts = foldPour(planned, events, revision)
  // With the plaster that it was really made of.
  const { plan } = facts
  const { stage, rings } = stageReached(facts)
  const live = liveEvents(events)
  const draws = drawsOf(plan, live)
  const { verdict, drying } = facts
  const dried = verdict && drying && (verdict.verdict === 'good' || verdict.verdict === 'usable')
  return {
    piece: plan.piece,
    mould: plan.mould.name,
    plaster: plan.plaster.name,
    consistency: plan.consistency,
    mouldId: plan.mould.members?.[0]?.mouldId ?? undefined,
    plasterId: plan.plaster.plasterId,
    actualConsistency: facts.actual?.consistency,
    open: facts.step !== undefined,
    stage,
    rings,
    verdict: facts.verdict?.verdict,
    ended: countedBy(facts.pieces, (p) => p.verdict?.verdict),
    faulty: faultyPieces(facts),
    reason: facts.verdict?.reason ?? '',
    draws,
    uses: usesOf(plan, live, facts),
    heeds: keptCauses(facts),
    // Until it is out, the last word is not spoken.
    teaches: facts.doneAtMs.demould === undefined && !facts.verdict ? [] : subjectsOf(facts),
    tags: tagsOf(plan, facts),
    casts: castsOut(facts.pieces),
    cost: costOfPour(plan, draws),
    dryDays: dried ? (verdict.atMs - drying.startMs) / MS_PER.day : undefined,
    placeId: drying?.legs[0]?.spot.placeId ?? undefined,
    endedAtMs: verdict?.atMs,
    upkeep: verdict ? wantedUpkeep(facts) : undefined,
  }
}
