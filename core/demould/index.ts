export { DEMOULD_RULES, forecastDemould } from './demould'
export type { DemouldForecast } from './demould'
