import { weighAdditions } from '../plaster'
import { batchOf, type EventBody, type PourEvent, type WeighedWhat } from './events'
import { airTacticsOf, type PourPlan } from './plan'

/** The nine stages, in the only order the job runs in. */
export const STAGES = ['mould', 'weigh', 'sift', 'soak', 'stir', 'pour', 'set', 'demould', 'dry'] as const
export type Stage = (typeof STAGES)[number]

interface StepDefinition {
  stage: Stage
  /** How often it is done: once a pour, for each bowl, or only with the first bowl or the last. */
  of: 'pour' | 'bowl' | 'first_bowl' | 'last_bowl'
  /** The event that completes it; of a weighing, which one. */
  doneBy: Exclude<EventBody['type'], 'weighed'> | `weighed ${WeighedWhat}`
  /** Powder and water have met: it will not wait. */
  wet: boolean
}

/**
 * What the caster does next, finer than a stage: every step there is, in the order of the job. Its clock is in `view.ts`,
 * its words, caution and screen in the app; each is held to this list by its type.
 */
export const STEP = {
  prepare: { stage: 'mould', of: 'pour', doneBy: 'mould_ready', wet: false },
  weigh_water: { stage: 'weigh', of: 'bowl', doneBy: 'weighed water', wet: false },
  weigh_admix: { stage: 'weigh', of: 'bowl', doneBy: 'weighed admix', wet: false },
  weigh_powder: { stage: 'weigh', of: 'bowl', doneBy: 'weighed powder', wet: false },
  weigh_filler: { stage: 'weigh', of: 'bowl', doneBy: 'weighed filler', wet: false },
  start_sift: { stage: 'sift', of: 'bowl', doneBy: 'sift_started', wet: false },
  sift: { stage: 'sift', of: 'bowl', doneBy: 'sifted', wet: true },
  soak: { stage: 'soak', of: 'bowl', doneBy: 'soaked', wet: true },
  stir: { stage: 'stir', of: 'bowl', doneBy: 'stirred', wet: true },
  face_coat: { stage: 'pour', of: 'first_bowl', doneBy: 'face_coated', wet: true },
  part_fill: { stage: 'pour', of: 'first_bowl', doneBy: 'part_filled', wet: true },
  pour: { stage: 'pour', of: 'bowl', doneBy: 'poured', wet: true },
  tap: { stage: 'pour', of: 'last_bowl', doneBy: 'tapped', wet: true },
  demould: { stage: 'demould', of: 'pour', doneBy: 'demoulded', wet: false },
  dry: { stage: 'dry', of: 'pour', doneBy: 'finished', wet: false },
} as const satisfies Record<string, StepDefinition>
export type StepId = keyof typeof STEP
export const STEP_IDS = Object.keys(STEP) as StepId[]

/** One step, of one bowl. Steps of the whole pour belong to bowl 0. */
export interface PlanStep {
  id: StepId
  batch: number
}

const isWeighing = (id: StepId) => STEP[id].stage === 'weigh'
/** Of each bowl, once everything is weighed. */
const isMixing = (id: StepId) => STEP[id].of === 'bowl' && !isWeighing(id)

/** Kinds of step this plan has: a coat only where air would stay, no soak where a bag is kneaded. */
function kindsOf(plan: PourPlan): StepId[] {
  const { properties, additions = [] } = plan.plaster
  const tactics = airTacticsOf(plan)
  const wanted: Partial<Record<StepId, boolean>> = {
    weigh_admix: weighAdditions(additions, 1, 1).some((a) => a.into === 'water'),
    weigh_filler: (properties.dryAddRatio ?? properties.fillerRatio) > 0,
    sift: plan.addingWay !== 'tipped_in' && plan.addingWay !== 'kneaded',
    soak: plan.addingWay !== 'kneaded',
    face_coat: tactics.includes('brush_coat'),
    part_fill: tactics.includes('part_fill'),
  }
  return STEP_IDS.filter((id) => wanted[id] ?? true)
}

/** What a pour's further bowls go through: the kinds of step that its first one has. */
const kindsKept = (steps: readonly PlanStep[]) => steps.filter((s) => s.batch === 0).map((s) => s.id)

/**
 * Steps of a plan in order: everything is weighed before water meets powder; then bowl after bowl is mixed and poured;
 * coats and part fills are the first bowl's, tapping the last's.
 * @param batches how many bowls the plan has.
 */
export function stepsOf(plan: PourPlan, batches: number): PlanStep[] {
  const kinds = kindsOf(plan)
  const bowls = Array.from({ length: batches }, (_, batch) => batch)
  const of = (batch: number, ids: StepId[]) => ids.map((id) => ({ id, batch }))
  const weighing = kinds.filter(isWeighing)
  const mixing = kinds.filter((id) => isMixing(id) || STEP[id].of === 'first_bowl')
  return [
    { id: 'prepare', batch: 0 },
    ...bowls.flatMap((batch) => of(batch, weighing)),
    ...bowls.flatMap((batch) => of(batch, batch === 0 ? mixing : mixing.filter(isMixing))),
    { id: 'tap', batch: batches - 1 },
    { id: 'demould', batch: 0 },
    { id: 'dry', batch: 0 },
  ]
}

/**
 * Steps with another bowl put in for what a mould ran short of: before the tapping, or after it with a tapping of its
 * own where the lack was seen that late.
 */
export function withTopUp(steps: readonly PlanStep[], tapped: boolean): PlanStep[] {
  const batch = 1 + Math.max(...steps.map((s) => s.batch))
  const kinds = kindsKept(steps)
  const extra: PlanStep[] = [...kinds.filter(isWeighing), ...kinds.filter(isMixing)].map((id) => ({
    id,
    batch,
  }))
  const lastTap = steps.findLastIndex((s) => s.id === 'tap')
  return tapped
    ? [...steps.slice(0, lastTap + 1), ...extra, { id: 'tap', batch }, ...steps.slice(lastTap + 1)]
    : [...steps.slice(0, lastTap), ...extra, { id: 'tap', batch }, ...steps.slice(lastTap + 1)]
}

const COMPLETES = new Map<string, StepId>(STEP_IDS.map((id) => [STEP[id].doneBy, id]))

/** The step that an event completes, if it completes one. */
export function stepCompletedBy(body: EventBody): StepId | undefined {
  return COMPLETES.get(body.type === 'weighed' ? `weighed ${body.what}` : body.type)
}

export function stageOfStep(step: StepId): Stage {
  return STEP[step].stage
}

/**
 * Ids to void to take the last thing back. Two tablets may both have recorded the same step: both go.
 * @param live the counting events, in order. Empty result: nothing to undo.
 */
export function undoTargets(live: readonly PourEvent[]): string[] {
  const last = live.at(-1)
  if (!last) return []
  const step = stepCompletedBy(last.body)
  if (step === undefined) return [last.id]
  const batch = batchOf(last.body)
  return live.filter((e) => stepCompletedBy(e.body) === step && batchOf(e.body) === batch).map((e) => e.id)
}
