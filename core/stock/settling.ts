import { MS_PER } from '../units'

/** What is done with a settling bucket, in order; then from the beginning. */
export const SETTLING_ACTS = ['filled', 'settled', 'poured_off', 'emptied'] as const
export type SettlingAct = (typeof SETTLING_ACTS)[number]

export interface SettlingNext {
  act: SettlingAct
  /** From when on; undefined: whenever it is wanted. */
  fromMs: number | undefined
}

/** Overnight: by then the water over it is clear (common practice, no source). */
const CLEARS_MS = 12 * MS_PER.h
/** After so many rounds there is little room left over the solid (an estimate, no source). */
const ROUNDS = 5

/**
 * What comes next for the bucket, by what was done with it.
 * @param acts in any order.
 */
export function settlingNext(acts: readonly { what: SettlingAct; atMs: number }[]): SettlingNext {
  const told = [...acts].sort((a, b) => a.atMs - b.atMs)
  const last = told.at(-1)
  switch (last?.what) {
    case undefined:
    case 'emptied':
      return { act: 'filled', fromMs: undefined }
    case 'filled':
      return { act: 'poured_off', fromMs: last!.atMs + CLEARS_MS }
    case 'settled':
      return { act: 'poured_off', fromMs: last!.atMs }
    case 'poured_off': {
      const since = told.findLastIndex((a) => a.what === 'emptied')
      const rounds = told.slice(since + 1).filter((a) => a.what === 'poured_off').length
      return rounds >= ROUNDS ? { act: 'emptied', fromMs: last!.atMs } : { act: 'filled', fromMs: undefined }
    }
  }
}
