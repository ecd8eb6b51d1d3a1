export { learnFactor, nextTime } from './factor'
export type { Learned, Observation, Prior } from './factor'
export {
  FACTOR,
  FACTORS,
  LEARN_ALL,
  ODD_Z,
  SUBJECT_KINDS,
  learnFrom,
  likelihoodOf,
  priorAfter,
  priorOf,
} from './factors'
export type { FactorId, LearnChoice, LearntFactor, Seen, Subject, SubjectKind } from './factors'
