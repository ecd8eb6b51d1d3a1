import {
  learnSteps,
  setCurve,
  type EvidenceOf,
  type LearntForecast,
  type Pace,
  type SetCurve,
  type SetProblem,
} from '#core/forecast'

/** What is asked of the forecast worker. */
export type ForecastAsk =
  /** The bucket's pace from all that was seen of it. `nowS`: the present, s since mid-sprinkle. */
  | { kind: 'learn'; evidence: EvidenceOf; nowS: number }
  /** The curve of a piece at a pace, to be drawn. */
  | { kind: 'curve'; problem: SetProblem; pace: Pace; untilS: number }

export interface ForecastAnswers {
  learn: LearntForecast
  curve: SetCurve
}

export interface ForecastJob {
  id: number
  /** Whose it is: a newer job of the same key makes an older one pointless. */
  key: string
  ask: ForecastAsk
}

export type ForecastReply =
  | { id: number; key: string; answer: ForecastAnswers[keyof ForecastAnswers] }
  | { id: number; key: string; error: string }

/** Heat runs between two looks whether it is still wanted: some ten milliseconds. */
const SLICE = 5

const breath = () => new Promise<void>((resolve) => setTimeout(resolve))

/**
 * Does a job, in slices where it is a long one, so that it can be given up between them.
 * @returns undefined where it was.
 */
export async function answerForecastJob(
  { id, key, ask }: ForecastJob,
  isStale: () => boolean,
): Promise<ForecastReply | undefined> {
  try {
    // What came with it may be newer: a slider that is dragged asks faster than it can be answered.
    await breath()
    if (isStale()) return undefined
    if (ask.kind === 'curve') return { id, key, answer: setCurve(ask.problem, ask.pace, ask.untilS) }
    const steps = learnSteps(ask.evidence, ask.nowS)
    for (let runs = 1; ; runs++) {
      const { done, value } = steps.next()
      if (done) return { id, key, answer: value }
      if (runs % SLICE !== 0) continue
      await breath()
      if (isStale()) return undefined
    }
  } catch (error) {
    return { id, key, error: error instanceof Error ? error.message : String(error) }
  }
}
