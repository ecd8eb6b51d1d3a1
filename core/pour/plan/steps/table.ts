import type { EventType, WeighedWhat } from '../../events'

/** The nine stages, in the only order the job runs in. */
export const STAGES = ['mould', 'weigh', 'sift', 'soak', 'stir', 'pour', 'set', 'demould', 'dry'] as const
export type Stage = (typeof STAGES)[number]

/** How the mould is filled: the schools, each with steps of its own (common practice, no source). */
export const FILLING_WAYS = [
  'poured',
  'part_fill',
  'squeezed',
  'slush',
  'hand_built',
  'reinforced',
  'two_stage',
  'second_layer',
] as const
export type FillingWay = (typeof FILLING_WAYS)[number]

export interface StepDefinition {
  stage: Stage
  /** How often it is done: once a pour, for each bowl, or only with some of them; `first_bowl` is the first of each mould. */
  of: 'pour' | 'bowl' | 'first_bowl' | 'bowl_but_last' | 'last_bowl'
  /** The event that completes it; of a weighing, which one. */
  doneBy: Exclude<EventType, 'weighed'> | `weighed ${WeighedWhat}`
  /** Powder and water have met: it will not wait. */
  wet: boolean
  /** Whether a caster may do without it. What is weighed, mixed and poured stays, and what keeps dust out of lungs. */
  mayLeaveOut: boolean
  /**
   * What is reckoned for it until it is recorded, s: a number is an estimate (no source); a name is worked out
   * (`ahead.ts`). Dry steps are the caster's own pace.
   */
  takesS: number | 'sift' | 'soak' | 'stir' | 'thicken' | 'pour' | 'tap' | 'own'
  /** The clock that runs while it is in hand (`view.ts`); none where the caster sets the pace. */
  clock?:
    | 'layer_ready'
    | 'sift'
    | 'soak'
    | 'stir'
    | 'work_end'
    | 'peak'
    | 'build_end'
    | 'bed_ready'
    | 'tap'
    | 'own'
    | 'demould'
    | 'next_weighing'
  /** Steps of one such group may be done in another order; all others follow one from the other. */
  among?: 'before_water' | 'dry_goods' | 'coats'
}

/**
 * What the caster does next, finer than a stage: every step there is, in the order of the job. What it records, how long
 * it takes and its clock follow from here; its words, caution and screen are in the app, held to this list by its type. A
 * step of the caster's own is `own`: its stage and name are its own as well (`OwnStep`).
 */
export const STEP = {
  prepare: {
    stage: 'mould',
    of: 'pour',
    doneBy: 'mould_ready',
    wet: false,
    mayLeaveOut: true,
    among: 'before_water',
    takesS: 0,
  },
  key_layer: {
    stage: 'mould',
    of: 'pour',
    doneBy: 'layer_keyed',
    wet: false,
    mayLeaveOut: true,
    among: 'before_water',
    takesS: 0,
  },
  check_air: {
    stage: 'mould',
    of: 'pour',
    doneBy: 'extraction_checked',
    wet: false,
    mayLeaveOut: false,
    among: 'before_water',
    takesS: 0,
  },
  weigh_water: {
    stage: 'weigh',
    of: 'bowl',
    doneBy: 'weighed water',
    wet: false,
    mayLeaveOut: false,
    takesS: 0,
  },
  weigh_admix: {
    stage: 'weigh',
    of: 'bowl',
    doneBy: 'weighed admix',
    wet: false,
    mayLeaveOut: false,
    takesS: 0,
  },
  weigh_powder: {
    stage: 'weigh',
    of: 'bowl',
    doneBy: 'weighed powder',
    wet: false,
    mayLeaveOut: false,
    among: 'dry_goods',
    takesS: 0,
  },
  weigh_filler: {
    stage: 'weigh',
    of: 'bowl',
    doneBy: 'weighed filler',
    wet: false,
    mayLeaveOut: false,
    among: 'dry_goods',
    takesS: 0,
  },
  start_sift: {
    stage: 'sift',
    of: 'bowl',
    doneBy: 'sift_started',
    wet: false,
    mayLeaveOut: false,
    takesS: 0,
    clock: 'layer_ready',
  },
  sift: {
    stage: 'sift',
    of: 'bowl',
    doneBy: 'sifted',
    wet: true,
    mayLeaveOut: false,
    takesS: 'sift',
    clock: 'sift',
  },
  soak: {
    stage: 'soak',
    of: 'bowl',
    doneBy: 'soaked',
    wet: true,
    mayLeaveOut: true,
    takesS: 'soak',
    clock: 'soak',
  },
  stir: {
    stage: 'stir',
    of: 'bowl',
    doneBy: 'stirred',
    wet: true,
    mayLeaveOut: false,
    takesS: 'stir',
    clock: 'stir',
  },
  face_coat: {
    stage: 'pour',
    of: 'first_bowl',
    doneBy: 'face_coated',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 30,
    clock: 'work_end',
  },
  bond_coat: {
    stage: 'pour',
    of: 'first_bowl',
    doneBy: 'bond_coated',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 30,
    clock: 'work_end',
  },
  squeeze: {
    stage: 'pour',
    of: 'first_bowl',
    doneBy: 'squeezed',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 30,
    clock: 'work_end',
  },
  part_fill: {
    stage: 'pour',
    of: 'first_bowl',
    doneBy: 'part_filled',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 30,
    clock: 'work_end',
  },
  thicken: {
    stage: 'pour',
    of: 'bowl',
    doneBy: 'thickened',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 'thicken',
    clock: 'peak',
  },
  reinforce: {
    stage: 'pour',
    of: 'bowl',
    doneBy: 'reinforced',
    wet: true,
    mayLeaveOut: true,
    among: 'coats',
    takesS: 30,
    clock: 'build_end',
  },
  pour: {
    stage: 'pour',
    of: 'bowl',
    doneBy: 'poured',
    wet: true,
    mayLeaveOut: false,
    takesS: 'pour',
    clock: 'work_end',
  },
  build: {
    stage: 'pour',
    of: 'bowl',
    doneBy: 'built',
    wet: true,
    mayLeaveOut: false,
    takesS: 240,
    clock: 'build_end',
  },
  turn: {
    stage: 'pour',
    of: 'bowl',
    doneBy: 'turned',
    wet: true,
    mayLeaveOut: false,
    takesS: 180,
    clock: 'work_end',
  },
  vibrate: {
    stage: 'pour',
    of: 'first_bowl',
    doneBy: 'vibrated',
    wet: true,
    mayLeaveOut: true,
    takesS: 'tap',
    clock: 'tap',
  },
  roughen: {
    stage: 'pour',
    of: 'bowl_but_last',
    doneBy: 'roughened',
    wet: true,
    mayLeaveOut: true,
    takesS: 30,
    clock: 'bed_ready',
  },
  tap: {
    stage: 'pour',
    of: 'last_bowl',
    doneBy: 'tapped',
    wet: true,
    mayLeaveOut: true,
    takesS: 'tap',
    clock: 'tap',
  },
  level: {
    stage: 'pour',
    of: 'last_bowl',
    doneBy: 'levelled',
    wet: true,
    mayLeaveOut: true,
    takesS: 30,
    clock: 'build_end',
  },
  demould: {
    stage: 'demould',
    of: 'pour',
    doneBy: 'demoulded',
    wet: false,
    mayLeaveOut: false,
    takesS: 120,
    clock: 'demould',
  },
  dry: {
    stage: 'dry',
    of: 'pour',
    doneBy: 'finished',
    wet: false,
    mayLeaveOut: false,
    takesS: 0,
    clock: 'next_weighing',
  },
  own: {
    stage: 'pour',
    of: 'pour',
    doneBy: 'own_done',
    wet: false,
    mayLeaveOut: true,
    takesS: 'own',
    clock: 'own',
  },
} as const satisfies Record<string, StepDefinition>
export type StepId = keyof typeof STEP
export const STEP_IDS = Object.keys(STEP) as StepId[]
/** Steps that the product knows; what a caster adds is `own`. */
export type KnownStep = Exclude<StepId, 'own'>
export const KNOWN_STEPS = STEP_IDS.filter((id): id is KnownStep => id !== 'own')

/** Where a step of one's own can stand: after the last known step of that stage, unless it is moved. */
export const OWN_STAGES = ['mould', 'weigh', 'pour'] as const satisfies readonly Stage[]
export type OwnStage = (typeof OWN_STAGES)[number]

/** A step that a caster added. */
export interface OwnStep {
  id: string
  name: string
  stage: OwnStage
  /** Rings after this long, counted from the step before; null: as long as it takes. */
  timeS: number | null
  /** While pouring: with each bowl, or with the last one only. */
  eachBowl: boolean
}

/** One step, of one bowl. Steps of the whole pour belong to bowl 0. */
export interface PlanStep {
  id: StepId
  batch: number
  /** What it is, where it is `own`. */
  own?: OwnStep
}

/** One line of a script: a step that is known, or one of the caster's own. */
export type ScriptLine = { step: KnownStep } | { own: OwnStep }

/** What a caster changed in a script. */
export interface ScriptEdits {
  /** In which order; what is not named follows where it usually stands. */
  order: ScriptLine[]
  leftOut: KnownStep[]
}

export function stageOf(step: PlanStep): Stage {
  return step.own ? step.own.stage : STEP[step.id].stage
}

export function isWetStep(step: PlanStep): boolean {
  return step.own ? step.own.stage === 'pour' : STEP[step.id].wet
}

/** How often a line of a script is done. */
export function oftenOf(line: ScriptLine): StepDefinition['of'] {
  if ('step' in line) return STEP[line.step].of
  if (line.own.stage !== 'pour') return 'pour'
  return line.own.eachBowl ? 'bowl' : 'last_bowl'
}

export type StepClock = NonNullable<StepDefinition['clock']>
export const clockOf = (id: StepId): StepClock | undefined => (STEP[id] as StepDefinition).clock
