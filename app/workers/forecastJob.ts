import { learnSteps, type EvidenceOf, type LearntForecast } from '#core/forecast'

/** What is asked of the forecast worker: the bucket's pace from all that was seen of it. */
export interface ForecastJob {
  id: number
  /** Whose it is: a newer job of the same key makes an older one pointless. */
  key: string
  evidence: EvidenceOf
  /** The present, s since mid-sprinkle. */
  nowS: number
}

export type ForecastReply =
  { id: number; key: string; learnt: LearntForecast } | { id: number; key: string; error: string }

/** Heat runs between two looks whether it is still wanted: some ten milliseconds. */
const SLICE = 5

const breath = () => new Promise<void>((resolve) => setTimeout(resolve))

/**
 * Does a job in slices, so that it can be given up between them.
 * @returns undefined where it was.
 */
export async function answerForecastJob(
  { id, key, evidence, nowS }: ForecastJob,
  isStale: () => boolean,
): Promise<ForecastReply | undefined> {
  try {
    const steps = learnSteps(evidence, nowS)
    for (let runs = 1; ; runs++) {
      const { done, value } = steps.next()
      if (done) return { id, key, learnt: value }
      if (runs % SLICE !== 0) continue
      await breath()
      if (isStale()) return undefined
    }
  } catch (error) {
    return { id, key, error: error instanceof Error ? error.message : String(error) }
  }
}
