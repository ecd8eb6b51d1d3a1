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

/** Lays a plan's outcome out in seconds from the start of sifting; the plaster's own clock starts at mid-sift. */
export function timelineOf(outcome: PlanOutcome, soakS: number, stirS: number): Timeline {
  const { siftS, setting, demould } = outcome
  const fromSift = (r: Range): Range => ({
    low: r.low + siftS / 2,
    mid: r.mid + siftS / 2,
    high: r.high + siftS / 2,
  })
  const stirStart = siftS + soakS
  const stirEnd = stirStart + stirS
  const work = fromSift(setting.timeS.work_end)
  const out = fromSift({
    low: demould.strongEnoughS.mid,
    mid: demould.recommendedS,
    high: Math.max(demould.strongEnoughS.high, demould.recommendedS),
  })
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
