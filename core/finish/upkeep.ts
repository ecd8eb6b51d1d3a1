import type { Purpose } from '../mould'
import { MS_PER } from '../units'

/** What is done with a piece that is in use: a slab that clay is dried on, a mould that it is cast or pressed in, a damp box. */
export const UPKEEPS = ['used', 'dried', 'wetted', 'bleached'] as const
export type Upkeep = (typeof UPKEEPS)[number]

interface UpkeepRule {
  /** So often it is used before it has to be dried out. */
  usesWet: number
  /** Uses that such a piece usually sees; undefined where it does not wear. */
  life: { low: number; high: number } | undefined
}

/** By what it is for (common practice, no source; the counts are estimates). */
const RULES: Partial<Record<Purpose, UpkeepRule>> = {
  slab: { usesWet: 3, life: undefined },
  slip_mould: { usesWet: 4, life: { low: 60, high: 120 } },
}

/** A damp box keeps for about two weeks, and mildew comes with the third. */
const WETTED_AGAIN_MS = 14 * MS_PER.day
const MILDEW_MS = 21 * MS_PER.day

export type UpkeepAct = Exclude<Upkeep, 'used'>

export type UpkeepNext = {
  uses: number
  usesSinceDry: number
  life: UpkeepRule['life']
} & (
  | { act: UpkeepAct; fromMs: number }
  /** It wants nothing: it can be used. */
  | { act: undefined }
)

/**
 * What a piece in use wants next, by what was done with it, in any order. Wetted once it is a damp box: it is wetted again
 * and kept from mildew, and not dried.
 */
export function upkeepNext(
  purposes: readonly Purpose[],
  acts: readonly { what: Upkeep; atMs: number }[],
): UpkeepNext | undefined {
  const rule = purposes.map((p) => RULES[p]).find((r) => r !== undefined)
  if (!rule) return undefined
  const told = [...acts].sort((a, b) => a.atMs - b.atMs)
  const lastOf = (what: Upkeep) => told.findLast((a) => a.what === what)?.atMs
  const uses = told.filter((a) => a.what === 'used').length
  const sinceDry = told.slice(told.findLastIndex((a) => a.what === 'dried') + 1)
  const usesSinceDry = sinceDry.filter((a) => a.what === 'used').length
  const counts = { uses, usesSinceDry, life: rule.life }
  const [wettedMs, driedMs] = [lastOf('wetted'), lastOf('dried')]
  if (wettedMs !== undefined && wettedMs >= (driedMs ?? -Infinity)) {
    const wetFromMs = wettedMs + WETTED_AGAIN_MS
    const since = Math.max(lastOf('bleached') ?? -Infinity, told.find((a) => a.what === 'wetted')!.atMs)
    const mildewFromMs = since + MILDEW_MS
    return mildewFromMs < wetFromMs
      ? { act: 'bleached', fromMs: mildewFromMs, ...counts }
      : { act: 'wetted', fromMs: wetFromMs, ...counts }
  }
  const tooWet = sinceDry.filter((a) => a.what === 'used')[rule.usesWet - 1]
  return tooWet ? { act: 'dried', fromMs: tooWet.atMs, ...counts } : { act: undefined, ...counts }
}
