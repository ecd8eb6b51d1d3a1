export {
  ADDING_WAYS,
  DEADLINE_WHYS,
  SUNS,
  airTacticsOf,
  castsOf,
  depthOf,
  coverOf,
  covered,
  planMould,
  preparationsOf,
  soakTimeS,
} from './plan/plan'
export type {
  AddingWay,
  Deadline,
  DeadlineWhy,
  DescribedMould,
  PlanLearnt,
  PlanMember,
  PourPlan,
  Sun,
  WaterTaps,
} from './plan/plan'
export type { PlanBag, PlanPlaster, PlasterOrigins } from './plan/plaster'
export { bowlFills } from './plan/mix/bowlFill'
export type { BowlFill } from './plan/mix/bowlFill'
export { dryUsesOf, isForKiln, silicaRatioOf } from './plan/mix/uses'
export { batchesOf, givesMl, mixInputOf } from './plan/mix/mixing'
export type { Flow } from './plan/mix/mixing'
export { FIRST_SCOOP, classValuesOf } from './plan/mix/classValues'
export { MODEL_VERSION, isKept, keepPlan, plannedBowls } from './plan/kept'
export type { KeptPlan, PlanKept, PlanPromise } from './plan/kept'
export { recordedTwice, type Twice } from './twice'
export { takePlan } from './plan/choose/takePlan'
export {
  deadlineOf,
  deadlineRemedies,
  type DeadlineAnswer,
  type DeadlineRemedy,
  type DeadlineWay,
} from './plan/choose/deadline'
export { HOTTEST_DRYING_AIR_C, refusalsOf } from './plan/limits'
export { REMEDY_IDS, remediesFor } from './plan/choose/remedies'
export type { Effect, Remedy, RemedyChange, RemedyId } from './plan/choose/remedies'
export { seamOf, type Seam } from './plan/choose/seam'
export { currentPlan, decisionsOf } from './plan/upcast'
export type { PlanV1 } from './plan/upcast'
export type { Suitability, SuitsCode } from './plan/choose/suits'
export { evaluatePlan, wetMassG } from './plan/choose/evaluatePlan'
export type { PlanEvaluation, PlanIssueCode, PlanOutcome } from './plan/choose/evaluatePlan'
export {
  CLEAN_UPS,
  CORRECTIONS,
  DEMOULD_OUTCOMES,
  LEAK_PLUGS,
  MOULD_DAMAGES,
  PLAN_BINDING_TYPES,
  SOFT_WORKS,
  THERMOMETER_TOLD,
  VERDICTS,
  WEIGHED,
  batchOf,
  bindsPlan,
  handOf,
  handOfName,
  DEVICE_CHANNELS,
  isTempChannel,
  liveEvents,
} from './events'
export type {
  CleanUp,
  CorrectionKind,
  DemouldOutcome,
  EventBody,
  HeedSubject,
  LeakPlug,
  MouldDamage,
  SoftWork,
  TempChannel,
  ThermometerTold,
  DeviceChannel,
  PourEvent,
  ReadingRef,
  Scoops,
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
  bodyOfStep,
  isLastStep,
  keyOfStep,
  stageOf,
  undoTargets,
} from './plan/steps'
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
} from './plan/steps'
export { addLine, canMove, leftOutOf, moveLine, scriptOf, stepsOf } from './plan/script'
export { asksWhatFollows, filledMs, followsWaterBy } from './bowl'
export type { BatchFacts, PourIssueCode } from './bowl'
export { foldPour } from './facts'
export type { PourFacts, RecordedWeighing } from './facts'
export { castsOut, countedBy, isInPlay } from './pieces'
export type { PieceFacts, PieceVerdict } from './pieces'
export {
  evidenceOf,
  fits,
  forecastPour,
  outlookFrom,
  outlookOf,
  problemOf,
  toldOf,
  tracesThatCount,
} from './outlook'
export type { BatchOutlook, JudgedWeighing, PourForecast, PourOutlook, ProbeTrace } from './outlook'
export { heatPiecesOf, setProblemOf } from './plan/setProblem'
export { CONDITIONS, actBefore, actNow, conditionsOf } from './plan/choose/conditions'
export type { Act, Condition } from './plan/choose/conditions'
export { problemIf } from './plan/choose/whatIf'
export type { WhatIf } from './plan/choose/whatIf'
export { TAG_KINDS, summarisePour } from './summary'
export type { Draw, MouldUse, PieceOutcome, PourSummary, PourTag, TagKind } from './summary'
export { URGENCIES, compareByUrgency, viewPour } from './view'
export type { Clock, ClockId } from './clocks'
export type { PourView, Urgency } from './view'
export { leftoverNow, leftoverPour, overMl } from './leftover'
export type { LeftoverNow } from './leftover'
export { bowlLook } from './look'
export { stirringOf, usualTimeS } from './stirring'
export type { Stirring } from './stirring'
export { aheadOf, clashesOf, stepTakesS } from './ahead'
export type { Ahead, Clash, Stretch } from './ahead'
export { compareSchools, consistencySpan, sketchMix, tradeOffs } from './plan/choose/compare'
export type { MixSketch, SchoolId, SchoolOutcome } from './plan/choose/compare'
export { followWays } from './follow'
export type { FollowWay } from './follow'
export { bowlByRecord, fixesFor, layerBelow } from './fixes'
export type { Fix, FixAdvice } from './fixes'
export { upkeepOf } from './after/upkeep'
export { faultsOf, piecesWith } from './after/faults'
export type { NotedFault } from './after/faults'
export { asksOf, diagnosePour, signsOf } from './after/signs'
export type { Asked } from './after/signs'
export { heedSubjects, keptCauses, staysWith } from './after/keptCauses'
export type { KeptCause } from './after/keptCauses'
export { HEED_AT, heedAt, heeding } from './after/heed'
export { plannedSpot } from './drying'
export type { DryingLeg } from './drying'
export { dryingAhead, finishWindows } from './after/dryingAhead'
export type { DryDate, DryingAhead, FinishWindow } from './after/dryingAhead'
export { hasSetEvidence, observationsOf, subjectsOf } from './after/observations'
export type { PourObservation } from './after/observations'
