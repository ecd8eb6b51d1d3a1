import type { MixSketch } from '#core/pour'
import { pourTimeText } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'

/** One quantity over the span of consistencies, ready to draw: y from 0 (least) to 1 (most). */
export interface TradeOffRow {
  id: 'pour' | 'strength' | 'weight' | 'drying' | 'bubble'
  label: string
  /** Its value now. */
  now: string
  points: { x: number; y: number }[]
  /** Where the mix stands on its curve. */
  at: { x: number; y: number }
}

interface Show {
  mass: (massG: number) => string
  strength: (strengthMPa: number) => string
}

interface Quantity {
  id: TradeOffRow['id']
  label: string
  of: (s: MixSketch) => number
  show: (value: number, units: Show) => string
}

const QUANTITIES: Quantity[] = [
  {
    id: 'pour',
    label: 'Time to pour',
    // Its early end, as everywhere: haste spoils nothing.
    of: (s) => Math.max(0, s.pourWindowS.low),
    show: (low) => pourTimeText({ low, mid: low, high: low }),
  },
  { id: 'strength', label: 'Strength, dry', of: (s) => s.dryMPa.mid, show: (v, show) => show.strength(v) },
  { id: 'weight', label: 'Weight, dry', of: (s) => s.dryMassG, show: (v, show) => show.mass(v) },
  { id: 'drying', label: 'Drying', of: (s) => s.dryS.mid, show: (s) => durationText(s) },
  {
    id: 'bubble',
    label: 'A pinhead bubble is up in',
    of: (s) => s.riseS,
    show: (s) => (s < 600 ? durationText(Number(s.toPrecision(1))) : 'never'),
  },
]

/** Each quantity as a curve over consistency, x from 0 (stiffest) to 1 (thinnest). */
export function tradeOffRows(curve: readonly MixSketch[], now: MixSketch, units: Show): TradeOffRow[] {
  const [first, last] = [curve[0]!.consistency, curve.at(-1)!.consistency]
  const x = (s: MixSketch) => Math.min(1, Math.max(0, (s.consistency - first) / (last - first)))
  return QUANTITIES.map(({ id, label, of, show }) => {
    const values = [...curve.map(of), of(now)]
    const [least, most] = [Math.min(...values), Math.max(...values)]
    const y = (s: MixSketch) => (most > least ? (of(s) - least) / (most - least) : 0.5)
    return {
      id,
      label,
      now: show(of(now), units),
      points: curve.map((s) => ({ x: x(s), y: y(s) })),
      at: { x: x(now), y: y(now) },
    }
  })
}

/** What a step thinner (or stiffer) changes, in words; what stays the same to the eye is left out. */
export function stepWordsOf(from: MixSketch, to: MixSketch, units: Show): string {
  return QUANTITIES.flatMap(({ label, of, show }) => {
    const [before, after] = [of(from), of(to)]
    const [a, b] = [show(before, units), show(after, units)]
    return a === b ? [] : [`${label.toLowerCase()} ${a} → ${b}`]
  }).join('; ')
}
