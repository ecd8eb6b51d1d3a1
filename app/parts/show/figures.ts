import { plainNumber } from '#core/units'
import { habits } from '~/stores/habits'

/** Figures as this workshop writes them. Lint refuses `toFixed` elsewhere in the application. */

/** The workshop's own sign before decimals, in a text that a formatter made. */
export function ownSign(text: string): string {
  return habits.value.decimalSign === 'comma' ? text.replaceAll(/(?<=\d)\.(?=\d)/g, ',') : text
}

/** To so many places, all of them written. */
export function figure(value: number, decimals = 0): string {
  return ownSign(value.toFixed(decimals))
}

/** To at most so many places; zeros at the end are left away. */
export function plain(value: number, decimals = 2): string {
  return ownSign(plainNumber(value, decimals))
}

/** A share, 0–1, in whole hundredths. */
export function percent(share: number): string {
  return `${figure(100 * share)} %`
}

/** A number for another machine's eyes (a drawing, a field's value): rounded, with a point. */
export function rounded(value: number, decimals: number): number {
  return Number(value.toFixed(decimals))
}
