import { learnFrom, type FactorId, type LearnChoice, type Seen, type Subject } from '#core/learn'
import type { LearntShare } from '#core/mix'

/** What pours have shown of a subject, and what a caster decided about that; nothing where nobody has asked. */
export type SeenOf = (
  subject: Subject,
  factor: FactorId,
) => { seen: readonly Seen[]; choice: LearnChoice } | undefined

/** A factor as a plan keeps it; undefined where nothing was seen, or it is switched off. */
export function shareOf(
  subject: Subject,
  factor: FactorId,
  seenOf: SeenOf | undefined,
  nowMs: number,
): LearntShare | undefined {
  const found = seenOf?.(subject, factor)
  if (!found || found.choice.off) return undefined
  const learnt = learnFrom(factor, found.seen, nowMs, found.choice)
  return learnt.pours > 0
    ? { factor: learnt.factor, sigmaLn: learnt.nextSigmaLn, pours: learnt.pours }
    : undefined
}
