import { weighAdditions } from '../plaster'
import { batchOf, type EventBody, type PourEvent } from './events'
import { airTacticsOf, type PourPlan } from './plan'

/** The nine stages, in the only order the job runs in. */
export const STAGES = ['mould', 'weigh', 'sift', 'soak', 'stir', 'pour', 'set', 'demould', 'dry'] as const
export type Stage = (typeof STAGES)[number]

/** What the caster does next, finer than a stage. */
export const STEPS = [
  { id: 'prepare', stage: 'mould' },
  { id: 'weigh_water', stage: 'weigh' },
  { id: 'weigh_admix', stage: 'weigh' },
  { id: 'weigh_powder', stage: 'weigh' },
  { id: 'weigh_filler', stage: 'weigh' },
  { id: 'start_sift', stage: 'sift' },
  { id: 'sift', stage: 'sift' },
  { id: 'soak', stage: 'soak' },
  { id: 'stir', stage: 'stir' },
  { id: 'face_coat', stage: 'pour' },
  { id: 'part_fill', stage: 'pour' },
  { id: 'pour', stage: 'pour' },
  { id: 'tap', stage: 'pour' },
  { id: 'demould', stage: 'demould' },
  { id: 'dry', stage: 'dry' },
] as const satisfies readonly { id: string; stage: Stage }[]
export type StepId = (typeof STEPS)[number]['id']

/** One step, of one bowl. Steps of the whole pour belong to bowl 0. */
export interface PlanStep {
  id: StepId
  batch: number
}

const isWeighing = (id: StepId) => stageOfStep(id) === 'weigh'
const isMixing = (id: StepId) => ['sift', 'soak', 'stir'].includes(stageOfStep(id)) || id === 'pour'

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
  return STEPS.map((s) => s.id).filter((id) => wanted[id] ?? true)
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
  const mixing = kinds.filter((id) => isMixing(id) || id === 'face_coat' || id === 'part_fill')
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

/** The step that an event completes, if it completes one. */
export function stepCompletedBy(body: EventBody): StepId | undefined {
  switch (body.type) {
    case 'mould_ready':
      return 'prepare'
    case 'weighed':
      return `weigh_${body.what}`
    case 'sift_started':
      return 'start_sift'
    case 'sifted':
      return 'sift'
    case 'soaked':
      return 'soak'
    case 'stirred':
      return 'stir'
    case 'face_coated':
      return 'face_coat'
    case 'part_filled':
      return 'part_fill'
    case 'poured':
      return 'pour'
    case 'tapped':
      return 'tap'
    case 'demoulded':
      return 'demould'
    case 'finished':
      return 'dry'
    default:
      return undefined
  }
}

/**
 * Whether an event says something of the plan's own figures: what was weighed, mixed and poured for one plan does not
 * count for another until somebody says so, and changes no plan any more once it counts.
 */
const BINDS_PLAN: Record<EventBody['type'], boolean> = {
  prepared: false,
  mould_ready: false,
  weighed: true,
  scale_failed: false,
  corrected: true,
  slurry_checked: true,
  sift_started: true,
  sifted: true,
  soaked: true,
  stirred: true,
  face_coated: true,
  part_filled: true,
  poured: true,
  ran_short: true,
  tapped: true,
  touch: false,
  temperature: false,
  demoulded: false,
  mould_damage: false,
  weighing: false,
  defect: false,
  finished: true,
  note: false,
  plan_holds: false,
  void: false,
}

export const PLAN_BINDING_TYPES = Object.entries(BINDS_PLAN).flatMap(([type, binds]) =>
  binds ? [type as EventBody['type']] : [],
)

export function bindsPlan(body: EventBody): boolean {
  return BINDS_PLAN[body.type]
}

export function stageOfStep(step: StepId): Stage {
  return STEPS.find((s) => s.id === step)!.stage
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
