import { CAUSE, CAUSES, showsAs, type CauseId } from './causes'
import type { FaultKind } from './faults'
import type { SignReading, SignReadings } from './readings'
import { SIGN, SIGNS, worthOf, type SignId } from './signs'

/** Chance that a fault shows with none of the causes known here: something nobody thought of. */
const LEAK = 0.04

/** A figure that moves its cause's odds by less than this says nothing. */
const LEAST_WORTH = 0.1

export interface Evidence extends SignReading {
  sign: SignId
  /** Logarithm of the likelihood ratio: above nothing it speaks for the cause. */
  lnRatio: number
}

export interface CauseFound {
  cause: CauseId
  /** Chance that it happened to this pour, by its faults and its record together, 0–1. */
  chance: number
  /** The same by the record alone, before anybody looked at the piece. */
  byRecord: number
  /** Which of the faults it would show as. */
  explains: FaultKind[]
  for: Evidence[]
  against: Evidence[]
}

export interface Diagnosis {
  /** What would show as one of the faults, most likely first. */
  causes: CauseFound[]
  /** Chance that none of them happened: something else is the cause. */
  other: number
  /** What the record speaks clearly for, though it is not known to show as any of the faults. */
  besides: Pick<CauseFound, 'cause' | 'for'>[]
  /** Nothing in the record speaks clearly for any cause, whether or not it would show like this. */
  clean: boolean
}

/** From here on a record speaks clearly for a cause: twice as likely as without it. */
export const CLEAR_LN_RATIO = Math.log(2)

function evidenceFor(cause: CauseId, readings: SignReadings): Evidence[] {
  return SIGNS.flatMap((sign) => {
    const reading = readings[sign]
    if (SIGN[sign].cause !== cause || !reading) return []
    const lnRatio = worthOf(sign, reading.value)
    return Math.abs(lnRatio) < LEAST_WORTH ? [] : [{ sign, lnRatio, ...reading }]
  }).sort((a, b) => Math.abs(b.lnRatio) - Math.abs(a.lnRatio))
}

/** Chance of a cause by base rate and record: signs of one cause are taken as independent. */
function byRecordOf(cause: CauseId, evidence: readonly Evidence[]): number {
  const { base } = CAUSE[cause]
  const odds = (base / (1 - base)) * Math.exp(evidence.reduce((sum, e) => sum + e.lnRatio, 0))
  return odds / (1 + odds)
}

/** What a cause shows of the faults, as a chance for each. */
type Shows = readonly number[]

/** For each set of faults that may already show, as bits: the chance that all do once this cause has happened as well. */
function withCause(after: Float64Array, shows: Shows): Float64Array {
  const value = after.slice()
  for (const [i, chance] of shows.entries()) {
    if (chance === 0) continue
    for (let set = 0; set < value.length; set++)
      if (!(set & (1 << i))) value[set] = (1 - chance) * value[set]! + chance * value[set | (1 << i)]!
  }
  return value
}

/** The other way round: how likely each set shows once this cause has happened, from how likely it was before. */
function spread(before: Float64Array, shows: Shows): Float64Array {
  const likely = before.slice()
  for (const [i, chance] of shows.entries()) {
    if (chance === 0) continue
    for (let set = 0; set < likely.length; set++) {
      if (set & (1 << i)) continue
      const moved = chance * likely[set]!
      likely[set]! -= moved
      likely[set | (1 << i)]! += moved
    }
  }
  return likely
}

const mixed = (chance: number, happened: Float64Array, not: Float64Array) =>
  not.map((v, set) => chance * happened[set]! + (1 - chance) * v)

/**
 * Chance of each cause given that all of the faults show, where a fault shows unless every cause that happened misses it,
 * and chance misses it as well (noisy or). Exact: how likely each set of faults shows is carried from cause to cause, and
 * back; only sums of chances, so that no rare case is lost in rounding. Cost: causes × faults × 2^faults.
 */
function givenFaults(
  faultCount: number,
  causes: readonly { chance: number; shows: Shows }[],
): { chances: number[]; none: number } {
  const sets = 1 << faultCount
  const byLuck = withCause(
    Float64Array.from({ length: sets }, (_, set) => (set === sets - 1 ? 1 : 0)),
    Array.from({ length: faultCount }, () => LEAK),
  )
  /** Of each cause and those after it: the chance that all faults show in the end, for each set that shows before. */
  const after = [byLuck]
  for (const { chance, shows } of [...causes].reverse())
    after.unshift(mixed(chance, withCause(after[0]!, shows), after[0]!))
  const all = after[0]![0]!
  let before = Float64Array.from({ length: sets }, (_, set) => (set === 0 ? 1 : 0))
  const chances = causes.map(({ chance, shows }, i) => {
    const happened = spread(before, shows)
    const both = happened.reduce((sum, likely, set) => sum + likely * after[i + 1]![set]!, 0)
    before = mixed(chance, happened, before)
    return (chance * both) / all
  })
  const none = causes.reduce((product, { chance }) => product * (1 - chance), byLuck[0]!) / all
  return { chances, none }
}

/**
 * What made a piece come out as it did: every cause that would show as one of the faults, with its chance by base rate,
 * record and faults together. Causes may happen together, one that explains the faults makes the others less needed, and
 * one without evidence stays as likely as it is for any pour. A fault that is not named is not held against a cause: it
 * may not have been looked for.
 * @param faults seen; twice the same counts once.
 * @param readings what the record says; a figure that is missing says nothing.
 * @param impossible causes that this pour cannot have, whatever is seen.
 */
export function diagnose(
  faults: readonly FaultKind[],
  readings: SignReadings,
  impossible: ReadonlySet<CauseId> = new Set(),
): Diagnosis {
  const seen = [...new Set(faults)]
  const record = CAUSES.filter((c) => !impossible.has(c)).map((cause) => {
    const evidence = evidenceFor(cause, readings)
    const pro = evidence.filter((e) => e.lnRatio > 0)
    return { cause, evidence, pro, clear: pro.some((e) => e.lnRatio >= CLEAR_LN_RATIO) }
  })
  const [known, unlike] = [true, false].map((like) =>
    record.filter(({ cause }) => seen.some((f) => showsAs(cause, f) > 0) === like),
  ) as [typeof record, typeof record]
  const byRecord = known.map(({ cause, evidence }) => byRecordOf(cause, evidence))
  const { chances, none } = givenFaults(
    seen.length,
    known.map((k, i) => ({ chance: byRecord[i]!, shows: seen.map((f) => showsAs(k.cause, f)) })),
  )
  const causes = known
    .map(({ cause, evidence, pro }, i): CauseFound => ({
      cause,
      chance: chances[i]!,
      byRecord: byRecord[i]!,
      explains: seen.filter((f) => showsAs(cause, f) > 0),
      for: pro,
      against: evidence.filter((e) => e.lnRatio < 0),
    }))
    .sort((a, b) => b.chance - a.chance)
  return {
    causes,
    other: none,
    besides: unlike.filter((c) => c.clear).map(({ cause, pro }) => ({ cause, for: pro })),
    clean: !record.some((c) => c.clear),
  }
}
