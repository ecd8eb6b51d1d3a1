import { CUES, isFeltWarm, type CueSeen, type TouchCue } from './cues'
import { latenessOf, lnTimeAt, cueLogLikelihood, type Pace, type PaceTable } from './pace'
import type { PaceTimes } from './problem'

/** What to look at next, and when: s since mid-sprinkle. */
export interface NextLook {
  cue: TouchCue
  atS: number
  /** σ of ln F expected after it. */
  sigmaAfter: number
}

/** Known better than this, one more look changes nothing. */
const KNOWN_ENOUGH = 0.06
/** The least a look must narrow to be worth wet fingers. */
const WORTH_SHARE = 0.03

/**
 * The cue that is expected to narrow the forecast most, asked at the time when it is as likely to be there as not.
 * Cues answered once are not asked again; warmth is asked only of a piece that gets warm, coolness only of one that was
 * felt to be warm.
 * @param nowS the present, s since mid-sprinkle. @param untilS when it comes out: nothing later helps.
 */
export function nextLook(
  table: PaceTable,
  pace: Pace,
  times: PaceTimes,
  seen: readonly CueSeen[],
  nowS: number,
  untilS: number,
): NextLook | undefined {
  if (pace.sigmaLn < KNOWN_ENOUGH) return undefined
  const answered = new Set(seen.map((s) => s.cue))
  const feltWarm = seen.some((s) => (s.cue === 'warm' || s.cue === 'hottest') && s.answer !== 'not_yet')
  let best: NextLook | undefined
  for (const cue of Object.keys(CUES) as TouchCue[]) {
    if (answered.has(cue)) continue
    if (CUES[cue].heat && !isFeltWarm(times.marks)) continue
    if (cue === 'cool_again' && !feltWarm) continue
    const lnT = lnTimeAt(table, pace.meanLn, CUES[cue].atS)
    if (lnT === undefined) continue
    // Its middle has passed and nobody looked: now is the next best moment.
    const atS = Math.max(Math.exp(lnT), nowS)
    if (atS >= untilS) continue
    const sigmaAfter = expectedSigma(pace, CUES[cue].sigmaLn, Math.log(atS) - lnT)
    if (sigmaAfter > (1 - WORTH_SHARE) * pace.sigmaLn) continue
    // Sooner is better where it tells as much.
    if (
      !best ||
      sigmaAfter < 0.98 * best.sigmaAfter ||
      (sigmaAfter < 1.02 * best.sigmaAfter && atS < best.atS)
    )
      best = { cue, atS, sigmaAfter }
  }
  return best
}

/** σ of ln F expected after a look at `lateBy` (in ln t) past the middle, whichever way it goes. */
function expectedSigma(pace: Pace, cueSigma: number, lateBy: number): number {
  const POINTS = 61
  let [expected, all] = [0, 0]
  for (const answer of ['not_yet', 'already'] as const) {
    let [total, mean, square] = [0, 0, 0]
    for (let i = 0; i < POINTS; i++) {
      const z = 8 * (i / (POINTS - 1)) - 4
      const w = Math.exp(-0.5 * z * z + cueLogLikelihood(answer, (lateBy - z * pace.sigmaLn) / cueSigma))
      total += w
      mean += w * z
      square += w * z * z
    }
    // What it weighs is how often it is answered so.
    expected += total * (square / total - (mean / total) ** 2)
    all += total
  }
  return pace.sigmaLn * Math.sqrt(expected / all)
}

/** A cue whose answer lies this many σ off what everything else says. */
const CONTRADICTS_Z = 2.5

/** Answers that do not fit the rest: kept, turned down by their likelihood's tail, and said. */
export function contradictions(table: PaceTable, pace: Pace, seen: readonly CueSeen[]): CueSeen[] {
  return seen.filter((s) => {
    const late = latenessOf(table, pace, s.cue, s.atS)
    if (late === undefined) return CUES[s.cue].heat && s.answer !== 'not_yet'
    return s.answer === 'now'
      ? Math.abs(late) > CONTRADICTS_Z
      : (s.answer === 'not_yet' ? late : -late) > CONTRADICTS_Z
  })
}
