import type { Moved } from '#core/forecast'
import { figure } from '~/parts/show/figures'
import { momentText } from '~/parts/show/time'
import { CUE_SEEN } from '~/parts/words/demould'

/** Less than this is no news. */
const SAME_S = 45

/** What the last thing seen did to the advice, in one sentence. @param startMs mid-sprinkle of the bowl. */
export function movedSentence(moved: Moved, startMs: number, nowMs: number): string {
  const at = (s: number) => momentText(startMs + s * 1000, nowMs)
  const { cue, factor, outS, withoutS } = moved
  const source = cue
    ? `${capital(CUE_SEEN[cue.cue])}${cue.answer === 'not_yet' ? ', not yet,' : ''} at ${figure(cue.atS / 60)} min`
    : 'By the thermometer'
  const pct = Math.round(100 * Math.abs(1 - factor))
  const pace = pct < 2 ? 'as the bag says' : `${pct} % ${factor < 1 ? 'faster' : 'slower'} than the bag`
  const out =
    Math.abs(outS - withoutS) < SAME_S
      ? `out at ${at(outS)}, as before`
      : `out at ${at(outS)} instead of ${at(withoutS)}`
  return `${source}: ${pace}; ${out}.`
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
