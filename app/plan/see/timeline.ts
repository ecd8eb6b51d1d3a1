import { sinceFirstPowderS } from '~/parts/mix/pourTime'
import type { PlanOutcome } from '#core/pour'
import type { Range } from '#core/provenance'
import { durationRangeText } from '~/parts/show/time'

export interface Timeline {
  endS: number
  ticks: number[]
  steps: { id: 'sift' | 'soak' | 'stir' | 'pour'; label: string; fromS: number; toS: number }[]
  marks: { id: string; label: string; when: string; range: Range }[]
  spoken: string
}

const TICK_STEPS_S = [60, 120, 300, 600, 900, 1800, 3600, 7200]

const fromFirstPowder = (outcome: Pick<PlanOutcome, 'siftS'>, { low, mid, high }: Range): Range => ({
  low: sinceFirstPowderS(outcome, low),
  mid: sinceFirstPowderS(outcome, mid),
  high: sinceFirstPowderS(outcome, high),
})

/** When it is strong enough, and when to take it out, s from the first powder in the water. */
export function outOf(outcome: Pick<PlanOutcome, 'siftS' | 'demould'>): { strong: Range; out: Range } {
  const { strongEnoughS: strong, recommendedS } = outcome.demould
  const out = { low: strong.mid, mid: recommendedS, high: Math.max(strong.high, recommendedS) }
  return { strong: fromFirstPowder(outcome, strong), out: fromFirstPowder(outcome, out) }
}

/** Lays a plan's outcome out in seconds from the start of sifting. */
export function timelineOf(outcome: PlanOutcome, soakS: number, stirS: number): Timeline {
  const { siftS, setting } = outcome
  const fromSift = (r: Range) => fromFirstPowder(outcome, r)
  const stirStart = siftS + soakS
  const stirEnd = stirStart + stirS
  const work = fromSift(setting.timeS.work_end)
  const { out } = outOf(outcome)
  const endS = Math.max(out.high, work.high, stirEnd) * 1.03
  const mark = (id: string, label: string, range: Range) => ({
    id,
    label,
    range,
    when: durationRangeText(range.low, range.high),
  })
  const marks = [
    mark('work_end', 'Too thick to pour', work),
    mark('initial_set', 'Gloss gone', fromSift(setting.timeS.initial_set)),
    mark('final_set', 'Nail leaves no dent', fromSift(setting.timeS.final_set)),
    { ...mark('demould', 'Take it out', out), when: `after ${durationRangeText(out.mid, out.mid)}` },
  ]
  const tickS = TICK_STEPS_S.find((s) => endS / s <= 8) ?? 14400
  return {
    endS,
    ticks: Array.from({ length: Math.floor(endS / tickS) + 1 }, (_, i) => i * tickS),
    steps: [
      { id: 'sift', label: 'Sift', fromS: 0, toS: siftS },
      { id: 'soak', label: 'Soak', fromS: siftS, toS: stirStart },
      { id: 'stir', label: 'Stir', fromS: stirStart, toS: stirEnd },
      { id: 'pour', label: 'Pour', fromS: stirEnd, toS: Math.max(stirEnd, work.low) },
    ],
    marks,
    spoken: `Timeline. ${marks.map((m) => `${m.label}: ${m.when}.`).join(' ')}`,
  }
}
