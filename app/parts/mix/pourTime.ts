import type { Range } from '#core/provenance'
import { minutesText } from '~/parts/show/time'

/** Less than this is hardly any time, s. */
export const HARDLY_S = 30

/**
 * Time to pour, the same on every screen: its early end, since haste spoils nothing and delay a pour; how much more it
 * may be is said beside it where there is room.
 */
export function pourTimeText(windowS: Range): string {
  return windowS.low < HARDLY_S ? 'hardly any' : minutesText(windowS.low)
}

/** The same in a sentence. */
export function timeToPour(windowS: Range): string {
  return windowS.low < HARDLY_S ? 'hardly any time to pour' : `${minutesText(windowS.low)} to pour`
}

/** What it may come to at best; empty where that is no more. */
export function pourTimeAtBest(windowS: Range): string {
  return windowS.high > Math.max(HARDLY_S, windowS.low) ? `perhaps ${minutesText(windowS.high)}` : ''
}

/** The plaster's own clock starts at mid-sift: a time by it, s, counted from the first powder in the water. */
export const sinceFirstPowderS = ({ siftS }: { siftS: number }, timeS: number): number => timeS + siftS / 2
