import { learnFactor, nextTime, type Learned, type Prior } from './factor'

/**
 * What a workshop learns of itself from its pours: each a factor on what the models say. σ before anything was seen, from
 * pour to pour, and how much a month-old observation is less sure of today (docs/science.md#learning; estimates).
 */
interface FactorDefinition {
  /** Whose it is. */
  of: SubjectKind
  sigmaLn: number
  perPourSigmaLn: number
  /** σ of ln F gained a month, where the thing itself changes. */
  agesLnPerMonth: number
}

/** What can be learnt of: one bag, one place to dry, one scoop's bag, one pair of hands, one bowl. */
export const SUBJECT_KINDS = ['bag', 'place', 'scoop', 'person', 'bowl'] as const
export type SubjectKind = (typeof SUBJECT_KINDS)[number]
/** Which one: `bag:<id>`; `person:<id>`, or by the name of somebody who was never let in (`handOf`). */
export type Subject = `${SubjectKind}:${string}`

export const FACTOR = {
  set_time: { of: 'bag', sigmaLn: 0.3, perPourSigmaLn: 0.12, agesLnPerMonth: 0.05 },
  heat: { of: 'bag', sigmaLn: 0.1, perPourSigmaLn: 0.05, agesLnPerMonth: 0.02 },
  drying: { of: 'place', sigmaLn: 0.35, perPourSigmaLn: 0.15, agesLnPerMonth: 0.03 },
  scoop_density: { of: 'scoop', sigmaLn: 0.13, perPourSigmaLn: 0.05, agesLnPerMonth: 0.02 },
  sprinkled: { of: 'person', sigmaLn: 0.12, perPourSigmaLn: 0.06, agesLnPerMonth: 0 },
  slurry_yield: { of: 'bowl', sigmaLn: 0.02, perPourSigmaLn: 0.01, agesLnPerMonth: 0 },
} as const satisfies Record<string, FactorDefinition>

export type FactorId = keyof typeof FACTOR
export const FACTORS = Object.keys(FACTOR) as [FactorId, ...FactorId[]]

/** What one pour showed of a factor: seen over predicted. */
export interface Seen {
  pourId: string
  atMs: number
  ratio: number
  /** Its own error. */
  sigmaLn: number
}

/** What a caster decided about what is learnt of a subject. */
export interface LearnChoice {
  /** Not used at all. */
  off: boolean
  /** Set back: what was seen before does not count. */
  sinceMs: number
  /** Pours that do not count: something else was the matter with them. */
  leftOut: readonly string[]
}
export const LEARN_ALL: LearnChoice = { off: false, sinceMs: 0, leftOut: [] }

export interface LearntFactor {
  factor: number
  meanLn: number
  /** σ of ln F for the next pour. */
  nextSigmaLn: number
  /** σ of ln F itself. */
  sigmaLn: number
  /** Pours that count. */
  pours: number
  /** The same in order of time, each with how far it lies from the rest; beyond 3 it is asked about. */
  points: (Seen & { z: number })[]
}

/** Further out than this it is asked about, not dropped. */
export const ODD_Z = 3

const MONTH_MS = 30.44 * 86_400_000

export const priorOf = (factor: FactorId): Prior => {
  const { sigmaLn, perPourSigmaLn } = FACTOR[factor]
  return { meanLn: 0, sigmaLn, perPourSigmaLn }
}

/** Of a bag that follows another of the same plaster: half of what that one showed, less sure (estimate). */
export function priorAfter(
  factor: FactorId,
  before: Pick<LearntFactor, 'meanLn' | 'pours'> | undefined,
): Prior {
  const prior = priorOf(factor)
  if (!before || before.pours === 0) return prior
  return { ...prior, meanLn: before.meanLn / 2, sigmaLn: (prior.sigmaLn * 5) / 6 }
}

/**
 * What a factor has come to by everything seen of it that counts; older evidence is worth less.
 * @param more seen otherwise than in pours (spoon tests): counts, and is no point of its own.
 */
export function learnFrom(
  factor: FactorId,
  seen: readonly Seen[],
  nowMs: number,
  choice: LearnChoice = LEARN_ALL,
  prior: Prior = priorOf(factor),
  more: readonly { atMs: number; ratio: number; sigmaLn: number }[] = [],
): LearntFactor {
  const { agesLnPerMonth } = FACTOR[factor]
  const counted = seen
    .filter((s) => s.atMs >= choice.sinceMs && !choice.leftOut.includes(s.pourId))
    .sort((a, b) => a.atMs - b.atMs || (a.pourId < b.pourId ? -1 : 1))
  const aged = (s: { atMs: number; ratio: number; sigmaLn: number }) => ({
    ratio: s.ratio,
    sigmaLn: Math.hypot(s.sigmaLn, agesLnPerMonth * Math.sqrt(Math.max(0, nowMs - s.atMs) / MONTH_MS)),
  })
  const others = more.filter((m) => m.atMs >= choice.sinceMs)
  const learnt: Learned = choice.off
    ? { factor: 1, meanLn: 0, sigmaLn: priorOf(factor).sigmaLn, z: [] }
    : learnFactor(prior, [...counted, ...others].map(aged))
  return {
    factor: learnt.factor,
    meanLn: learnt.meanLn,
    sigmaLn: learnt.sigmaLn,
    nextSigmaLn: nextTime(learnt, prior),
    pours: counted.length,
    points: counted.map((s, i) => ({ ...s, z: learnt.z[i] ?? 0 })),
  }
}

/** What evidence alone says, where a prior has already been worked into what was found: a Gaussian divided by another. */
export function likelihoodOf(
  found: { meanLn: number; sigmaLn: number },
  prior: { meanLn: number; sigmaLn: number },
): { meanLn: number; sigmaLn: number } | undefined {
  const precision = found.sigmaLn ** -2 - prior.sigmaLn ** -2
  // Little more than the prior itself: nothing was seen.
  if (precision < 0.2 * prior.sigmaLn ** -2) return undefined
  const meanLn = (found.meanLn * found.sigmaLn ** -2 - prior.meanLn * prior.sigmaLn ** -2) / precision
  return { meanLn, sigmaLn: precision ** -0.5 }
}
