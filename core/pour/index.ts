export { TAP_TIME_S, airTacticsOf, planMould, preparationsOf, siftTimeS } from './plan'
export type { DescribedMould, PlanMember, PourPlan } from './plan'
export { evaluatePlan } from './evaluatePlan'
export type { PlanEvaluation, PlanIssueCode, PlanOutcome } from './evaluatePlan'
export { DEFECT_KINDS, DEMOULD_OUTCOMES, MOULD_DAMAGES, TOUCH_CUES, VERDICTS, liveEvents } from './events'
export type {
  DefectKind,
  DemouldOutcome,
  EventBody,
  MouldDamage,
  PourEvent,
  TouchCue,
  Verdict,
} from './events'
export { STAGES, stageOfStep, stepCompletedBy, stepsOf, undoTargets } from './steps'
export type { Stage, StepId } from './steps'
export { foldPour } from './facts'
export type { PourFacts, PourIssueCode } from './facts'
export { URGENCIES, compareByUrgency, viewPour } from './view'
export type { Clock, ClockId, PourView, Urgency } from './view'
