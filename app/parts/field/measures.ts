import type { Measured } from '#core/field'
import { plain } from '~/parts/show/figures'
import type { useUnits } from '~/parts/show/useUnits'

const tenths = (value: number) => Math.round(value * 10) / 10

/** What was measured on a photograph, to the figures that its range leaves any sense in. */
export function measuredWords(
  { value, plusMinus, unit }: Pick<Measured, 'value' | 'plusMinus' | 'unit'>,
  units: Pick<ReturnType<typeof useUnits>, 'size'>,
): string {
  if (unit === 'deg') return `${plain(value, 0)}° ± ${plain(Math.max(1, plusMinus), 0)}°`
  return `${units.size(tenths(value))} ± ${units.size(Math.max(0.1, tenths(plusMinus)))}`
}
