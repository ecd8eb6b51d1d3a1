export { learnFactor, nextTime } from './factor'
export type { Learned, Observation, Prior } from './factor'
