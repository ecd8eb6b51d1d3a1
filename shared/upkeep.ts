import type { UpkeepAct } from '../core/finish'

/** A piece in use that wants something, from a time on. */
export interface UpkeepLine {
  pourId: string
  piece: string
  act: UpkeepAct
  fromMs: number
}
