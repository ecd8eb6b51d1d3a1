import { ASK, askOf, type Answers, type Recalled } from './asks'
import type { SignId } from './signs'

/** A figure of the record, and what it is held against. */
export interface SignReading {
  /** As `worth` counts it: a share of its limit, or the figure itself. */
  value: number
  /** The figures to be said, in the sign's unit; where they say more than the share. */
  actual?: number
  limit?: number
  /** Nobody recorded it: it was told when it was asked for. */
  recalled?: Recalled
}
export type SignReadings = Partial<Record<SignId, SignReading>>

/** What an answer says, as the record would have said it. */
export function saidBy(recalled: Recalled): SignReadings {
  const answers: Answers = ASK[askOf(recalled)]
  const said = Object.entries(answers[recalled.split(':')[1]!] ?? {}) as [SignId, number][]
  return Object.fromEntries(said.map(([sign, value]): [SignId, SignReading] => [sign, { value, recalled }]))
}
