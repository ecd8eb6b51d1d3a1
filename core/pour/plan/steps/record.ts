import type { StirManner } from '../../../setting'
import {
  EVENT,
  batchOf,
  type EventBody,
  type PourEvent,
  type ReadingRef,
  type Scoops,
  type WeighedWhat,
} from '../../events'
import { stepKey } from './order'
import { STEP, STEP_IDS, type PlanStep, type StepDefinition, type StepId } from './table'

const COMPLETES = new Map<string, StepId>(STEP_IDS.map((id) => [STEP[id].doneBy, id]))

/** The step that an event completes, if it completes one. */
export function stepCompletedBy(body: EventBody): StepId | undefined {
  return COMPLETES.get(body.type === 'weighed' ? `weighed ${body.what}` : body.type)
}

/** The same with its bowl, as a step's key. */
export function keyCompletedBy(body: EventBody): string | undefined {
  const id = stepCompletedBy(body)
  return id && stepKey(id, batchOf(body), body.type === 'own_done' ? body.own : undefined)
}

const WEIGHED_PREFIX = 'weighed '
const isWeighed = (doneBy: StepDefinition['doneBy']): doneBy is `weighed ${WeighedWhat}` =>
  doneBy.startsWith(WEIGHED_PREFIX)

/** What a step's record says besides that it is done: of a weighing, how much and by what; of stirring, with what. */
export interface StepSaid {
  massG: number
  stirManner: StirManner
  reading?: ReadingRef
  scoops?: Scoops
}

/**
 * What doing a step records; undefined where that is asked instead: how it came out, and whether it is finished.
 * A step whose event wants more than its bowl does not compile until it is said here from what.
 */
export function bodyOfStep(
  step: PlanStep,
  { massG, stirManner, reading, scoops }: StepSaid,
): EventBody | undefined {
  const { doneBy } = STEP[step.id]
  const bowl = step.batch > 0 ? { batch: step.batch } : {}
  if (doneBy === 'demoulded' || doneBy === 'finished') return undefined
  if (doneBy === 'own_done') return step.own && { type: doneBy, own: step.own.id, ...bowl }
  if (doneBy === 'stirred') return { type: doneBy, manner: stirManner, ...bowl }
  if (isWeighed(doneBy)) {
    const what = doneBy.slice(WEIGHED_PREFIX.length) as WeighedWhat
    return { type: 'weighed', what, massG, ...bowl, ...(reading && { reading }), ...(scoops && { scoops }) }
  }
  return { type: doneBy, ...(EVENT[doneBy].ofBowl && bowl) }
}

const piecesOf = (body: EventBody) => ('pieces' in body ? String(body.pieces) : '')

/**
 * Ids to void to take the last thing back. Two tablets may both have recorded the same step, of the same pieces: both go.
 * @param live the counting events, in order. Empty result: nothing to undo.
 */
export function undoTargets(live: readonly PourEvent[]): string[] {
  const last = live.at(-1)
  if (!last) return []
  const key = keyCompletedBy(last.body)
  if (key === undefined) return [last.id]
  const of = piecesOf(last.body)
  return live.filter((e) => keyCompletedBy(e.body) === key && piecesOf(e.body) === of).map((e) => e.id)
}
