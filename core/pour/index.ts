export {
  ADDING_WAYS,
  SUNS,
  airTacticsOf,
  castsOf,
  depthOf,
  planMould,
  preparationsOf,
  soakTimeS,
} from './plan'
export type {
  AddingWay,
  DescribedMould,
  PlanBag,
  PlanMember,
  PlasterOrigins,
  PourPlan,
  Sun,
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
export { evaluatePlan, wetMassG } from './evaluatePlan'
export type { PlanEvaluation, PlanIssueCode, PlanOutcome } from './evaluatePlan'
export {
  CLEAN_UPS,
  CORRECTIONS,
  DEFECT_KINDS,
  DEMOULD_OUTCOMES,
  LEAK_PLUGS,
  MOULD_DAMAGES,
  PLAN_BINDING_TYPES,
  SOFT_WORKS,
  VERDICTS,
  WEIGHED,
  batchOf,
  bindsPlan,
  liveEvents,
} from './events'
export type {
  CleanUp,
  CorrectionKind,
  DefectKind,
  DemouldOutcome,
  EventBody,
  LeakPlug,
  MouldDamage,
  SoftWork,
  DeviceChannel,
  PourEvent,
  ReadingRef,
  Verdict,
  WeighedWhat,
} from './events'
export {
  FILLING_WAYS,
  KNOWN_STEPS,
  OWN_STAGES,
  STAGES,
  STEP,
  STEP_IDS,
  isLastStep,
  stageOf,
  undoTargets,
} from './steps'
export type {
  FillingWay,
  KnownStep,
  OwnStage,
  OwnStep,
  PlanStep,
  ScriptEdits,
  ScriptLine,
  Stage,
  StepId,
} from './steps'
export { addLine, canMove, leftOutOf, moveLine, scriptOf, stepsOf } from './script'
export { filledMs, foldPour } from './facts'
export type { BatchFacts, PourFacts, PourIssueCode, RecordedWeighing } from './facts'
export { evidenceOf, fits, forecastPour, outlookFrom, outlookOf, problemOf } from './outlook'
export type { BatchOutlook, JudgedWeighing, PourForecast, PourOutlook, ProbeTrace } from './outlook'
export { heatPiecesOf, setProblemOf } from './setProblem'
export { CONDITIONS, actBefore, actNow, conditionsOf } from './conditions'
export type { Act, Condition } from './conditions'
export { problemIf } from './whatIf'
export type { WhatIf } from './whatIf'
export { summarisePour } from './summary'
export type { Draw, MouldUse, PourSummary } from './summary'
export { URGENCIES, compareByUrgency, viewPour } from './view'
export type { Clock, ClockId, PourView, Urgency } from './view'
export { leftoverNow, leftoverPour, overMl } from './leftover'
export type { LeftoverNow } from './leftover'
export { stirringOf, usualTimeS } from './stirring'
export type { Stirring } from './stirring'
export { aheadOf, clashesOf } from './ahead'
export type { Ahead, Clash, Stretch } from './ahead'
export { compareSchools, consistencySpan, sketchMix, tradeOffs } from './compare'
export type { MixSketch, SchoolId, SchoolOutcome } from './compare'
export { bowlByRecord, fixesFor, layerBelow } from './fixes'
export type { Fix, FixAdvice } from './fixes'
