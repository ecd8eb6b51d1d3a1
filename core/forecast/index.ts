export { chanceBy } from './normal'
export { CUES, CUE_ANSWERS, TOUCH_CUES } from './cues'
export type { CueAnswer, CueSeen, TouchCue } from './cues'
export { learnPace, learnSteps, readyChance } from './learn'
export type { EvidenceOf, LearntForecast, Moved, ProbeDoubt } from './learn'
export type { NextLook } from './look'
export type { Pace } from './pace'
export { PROBE_FAULTS } from './probe'
export type { ProbeFault, ProbeSeries } from './probe'
export {
  READY_ENOUGH,
  demouldForecast,
  forecastAt,
  forecastEvent,
  forecastSet,
  runAtPace,
  timesAtPace,
} from './problem'
export type { SetForecast, SetProblem } from './problem'
export { curveUntilS, setCurve } from './curve'
export type { SetCurve } from './curve'
