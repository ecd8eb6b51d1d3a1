export { SET_TESTS, labelOfClass, propertiesOfCard, sourcesOfCard } from './card'
export type { CardLabel, SetTest, SourcedValue } from './card'
export {
  BAG_KEEPINGS,
  bagDoubt,
  bagSpread,
  learnBag,
  spoonTestForecastS,
  spoonTestRatio,
  wantsSpoonTest,
} from './bag'
export type { BagEvidence, BagKeeping, BagKnowledge, BagState, SpoonTest, TimedSpoonTest } from './bag'
export { SETTLING_ACTS, settlingNext } from './settling'
export type { SettlingAct, SettlingNext } from './settling'
export { costOf, toBuy } from './cost'
export type { Cost, Demand, Need } from './cost'
