import { diceOf, normal } from '../../devices/dice'
import { learnPace, type CueSeen, type EvidenceOf, type SetProblem, type TouchCue } from '../../core/forecast'
import { CUES } from '../../core/forecast/cues'
import { truthOf } from './otherLaw'

/** How often something held, of how many. */
export interface Share {
  held: number
  of: number
}
export interface OddBuckets {
  /** The 80 % band held when the piece was ready. */
  band: Share
  /** The piece was not ready when it was advised. */
  early: Share
  /** Width of the band, min, in order of size. */
  widthsMin: number[]
}
export const EVIDENCE = ['prior', 'cues', 'probe'] as const
export type Evidence = (typeof EVIDENCE)[number]

const LOOKED_AT: TouchCue[] = ['gloss_gone', 'thumbnail_no_dent', 'hottest', 'rings', 'warm']
const WRONG = 0.05

/**
 * Pours whose plaster is not like the models: other exponents of hydration, heat, conductivities and walls, a thermometer
 * that lags and sits off, looks of which one in twenty is wrong. What the forecast makes of each from the plan alone, from
 * two looks, and from a thermometer read past the middle of its setting.
 */
export function oddBuckets(
  problems: readonly SetProblem[],
  pours: number,
  seed: number,
  isOwnLaw = false,
): Record<Evidence, OddBuckets> {
  const uniform = diceOf(seed)
  const gauss = () => normal(uniform)
  const within = (low: number, high: number) => low + (high - low) * uniform()
  const found = Object.fromEntries(
    EVIDENCE.map((e) => [e, { band: { held: 0, of: 0 }, early: { held: 0, of: 0 }, widthsMin: [] }]),
  ) as unknown as Record<Evidence, OddBuckets>
  for (let pour = 0; pour < pours; pour++) {
    const problem = problems[pour % problems.length]!
    const pace = Math.exp(problem.sigmaLn * gauss())
    const law = isOwnLaw
      ? { pace, exponent: 3, heat: 1, conductivity: 1, walls: 1 }
      : {
          pace,
          exponent: within(2.6, 3.4),
          heat: within(0.96, 1.04),
          conductivity: within(0.85, 1.15),
          walls: within(0.75, 1.25),
        }
    const truth = truthOf(problem, law)
    const hand = 0.08 * gauss()
    const looks = LOOKED_AT.filter((c) => truth.cueS[c] !== undefined)
    const cues: CueSeen[] = []
    while (cues.length < 2 && looks.length > 0) {
      const [cue] = looks.splice(Math.floor(uniform() * looks.length), 1) as [TouchCue]
      const felt = Math.log(truth.cueS[cue]!) + hand + CUES[cue].sigmaLn * gauss()
      const wrong = uniform() < WRONG ? Math.exp(within(-0.7, 0.7)) : 1
      cues.push({ id: cue, cue, by: 'a', answer: 'now', atS: Math.exp(felt) * wrong })
    }
    const [lagS, offK] = [within(0, 90), gauss()]
    const untilS = Math.min(truth.timeS.at(-1)!, within(0.8, 1.3) * truth.cueS.thumbnail_no_dent!)
    const readings = truth.timeS.flatMap((timeS, i) =>
      timeS <= untilS && i % 4 === 0
        ? [{ timeS, tempC: coreAt(truth, timeS - lagS) + offK + 0.5 * gauss() }]
        : [],
    )
    const evidence: Record<Evidence, Omit<EvidenceOf, 'problem'>> = {
      prior: { cues: [], probes: [] },
      cues: { cues, probes: [] },
      probe: { cues: [], probes: [{ readings }] },
    }
    for (const e of EVIDENCE) {
      const { demould } = learnPace({ problem, ...evidence[e] }, untilS)
      const { low, high } = demould.strongEnoughS
      const { band, early, widthsMin } = found[e]
      band.of++
      early.of++
      if (low <= truth.readyS && truth.readyS <= high) band.held++
      if (demould.recommendedS < truth.readyS) early.held++
      widthsMin.push((high - low) / 60)
    }
  }
  for (const e of EVIDENCE) found[e].widthsMin.sort((a, b) => a - b)
  return found
}

function coreAt({ timeS, coreC }: { timeS: number[]; coreC: number[] }, atS: number): number {
  const step = timeS[1]! - timeS[0]!
  return coreC[Math.min(coreC.length - 1, Math.max(0, Math.round((atS - timeS[0]!) / step)))]!
}
