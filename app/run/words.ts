import type { Weighing } from '#core/mix'
import type { CorrectionKind, DemouldOutcome } from '#core/pour'
import type { WeighPhase } from './weigh/weighStep'

/** What only the live run says. */

/** What to do, before the amount. */
export const FIX_WORDS: Record<CorrectionKind, string> = {
  water_out: 'Sponge out',
  water_in: 'Add water',
  powder_in: 'Add plaster',
  powder_out: 'Take out plaster',
}

export const MAY_WORDS = {
  freely: 'Nothing is lost yet.',
  with_care: 'Only just stirred: add it all at once, let it soak a minute, stir gently.',
  never: 'It has begun to thicken: nothing goes in any more. Pour it as it is, or give it up.',
} as const

/** Said instead of the step while the piece only has to be left alone. */
export const SETTING_WORDS = {
  title: 'Leave it alone',
  how: 'It thickens, loses its shine, warms, then cools. Do not move it.',
}

/** What the scale under the bowl says, and what is to be done about it. */
export function weighWords(phase: WeighPhase, scaleName: string): string {
  switch (phase.phase) {
    case 'zero':
      return `${scaleName}: stand the bowl on it, then zero`
    case 'overload':
      return `${scaleName} is overloaded: take some off`
    case 'filling':
      return FILLING_WORDS[phase.weighing.state]
    case 'enough':
      if (phase.weighing.state === 'over') return 'Too much: take some out, or go on and say what follows'
      return phase.offered ? 'Right. Go on' : 'Right'
  }
}

const FILLING_WORDS: Record<Weighing['state'], string> = {
  empty: 'Nothing in it yet',
  filling: 'Go on',
  nearly: 'Slowly now',
  right: 'Let it come to rest',
  over: 'Stop: too much',
}

/** What a knock does at a weighing with a scale under the bowl. */
export function weighKnockWords(phase: WeighPhase, usual: string): string {
  switch (phase.phase) {
    case 'zero':
      return 'Zero the scale'
    case 'overload':
      return 'Too heavy for this scale'
    case 'filling':
      return phase.weighing.state === 'empty' ? 'Fill the bowl' : 'Not there yet'
    case 'enough':
      return usual
  }
}

/** How a piece came out of its mould. */
export const OUT_ANSWERS: readonly { label: string; outcome: DemouldOutcome; gripped?: boolean }[] = [
  { label: 'Whole', outcome: 'whole' },
  { label: 'Whole, but it gripped', outcome: 'whole', gripped: true },
  { label: 'Damaged', outcome: 'damaged' },
  { label: 'Broken', outcome: 'broken' },
]
