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
  const out =
    Math.abs(outS - withoutS) < SAME_S
      ? `out at ${at(outS)}, as before`
      : `out at ${at(outS)} instead of ${at(withoutS)}`
  return `${source}: ${paceWords(factor)}; ${out}.`
}

/** How a pace stands to the bag's. @param factor on its times: under 1 is faster. */
function paceWords(factor: number): string {
  const [times, pct] = [factor < 1 ? 1 / factor : factor, Math.round(100 * Math.abs(1 - factor))]
  if (pct < 2) return 'as the bag says'
  if (times > 1.8) return `${figure(times, 1)} times as ${factor < 1 ? 'fast' : 'slow'} as the bag`
  return `${pct} % ${factor < 1 ? 'faster' : 'slower'} than the bag`
}

/** Asked where nothing that is known of bag and mix explains its pace. */
export const farOffSentence = (factor: number, outAt: string, byBagAt: string): string =>
  `It sets ${paceWords(factor)}: out at ${outAt} by what you saw, at ${byBagAt} by bag and mix. What was it?`

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
