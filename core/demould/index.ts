export { DEMOULD_RULES } from './demould'
export type { DemouldForecast } from './demould'
