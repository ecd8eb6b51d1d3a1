export { ADDING_WAYS, airTacticsOf, castsOf, depthOf, planMould, preparationsOf, soakTimeS } from './plan'
export type {
  AddingWay,
  DescribedMould,
  PlanBag,
  PlanMember,
  PlasterOrigins,
  PourPlan,
  WaterTaps,
} from './plan'
export { batchesOf, mixInputOf } from './mixing'
export type { Flow } from './mixing'
export { FIRST_SCOOP, MODEL_VERSION, classValuesOf, isKept, keepPlan, plannedBowls } from './kept'
export type { KeptPlan, PlanKept } from './kept'
export { refusalsOf } from './limits'
export { REMEDY_IDS, remediesFor } from './remedies'
export type { Effect, Remedy, RemedyChange, RemedyId } from './remedies'
export { currentPlan, decisionsOf } from './upcast'
export type { PlanV1 } from './upcast'
export type { Suitability, SuitsCode } from './suits'
export { evaluatePlan } from './evaluatePlan'
export type { PlanEvaluation, PlanIssueCode, PlanOutcome } from './evaluatePlan'
export {
  CORRECTIONS,
  DEFECT_KINDS,
  DEMOULD_OUTCOMES,
  MOULD_DAMAGES,
  PLAN_BINDING_TYPES,
  TOUCH_CUES,
  VERDICTS,
  WEIGHED,
  batchOf,
  bindsPlan,
  liveEvents,
} from './events'
export type {
  CorrectionKind,
  DefectKind,
  DemouldOutcome,
  EventBody,
  MouldDamage,
  DeviceChannel,
  PourEvent,
  ReadingRef,
  TouchCue,
  Verdict,
  WeighedWhat,
} from './events'
export { STAGES, STEP, STEP_IDS, stageOfStep, stepCompletedBy, stepsOf, undoTargets } from './steps'
export type { PlanStep, Stage, StepId } from './steps'
export { foldPour } from './facts'
export type { BatchFacts, PourFacts, PourIssueCode, RecordedWeighing } from './facts'
export { summarisePour } from './summary'
export type { Draw, MouldUse, PourSummary } from './summary'
export { URGENCIES, compareByUrgency, viewPour } from './view'
export type { Clock, ClockId, PourView, Urgency } from './view'
export { aheadOf, clashesOf } from './ahead'
export type { Ahead, Clash, Stretch } from './ahead'
export { compareSchools, consistencySpan, sketchMix, tradeOffs } from './compare'
export type { MixSketch, SchoolId, SchoolOutcome } from './compare'
export { bowlByRecord, fixesFor, layerBelow } from './fixes'
export type { Fix, FixAdvice } from './fixes'
