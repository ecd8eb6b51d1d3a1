import type { EventBody, PourEvent } from './events'
import { airTacticsOf, type PourPlan } from './plan'

/** The nine stages, in the only order the job runs in. */
export const STAGES = ['mould', 'weigh', 'sift', 'soak', 'stir', 'pour', 'set', 'demould', 'dry'] as const
export type Stage = (typeof STAGES)[number]

/** What the caster does next, finer than a stage. */
export const STEPS = [
  { id: 'prepare', stage: 'mould' },
  { id: 'weigh_water', stage: 'weigh' },
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

/** Steps of this plan: a filler is weighed only where there is one, coats and part fills only where air would stay. */
export function stepsOf(plan: PourPlan): StepId[] {
  const filled = plan.plaster.properties.fillerRatio > 0
  const tactics = airTacticsOf(plan)
  const wanted: Partial<Record<StepId, boolean>> = {
    weigh_filler: filled,
    face_coat: tactics.includes('brush_coat'),
    part_fill: tactics.includes('part_fill'),
  }
  return STEPS.map((s) => s.id).filter((id) => wanted[id] ?? true)
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
  return live.filter((e) => stepCompletedBy(e.body) === step).map((e) => e.id)
}
