import { aheadOf, clashesOf, type Clash, type PourOutlook, type PourView, type Stage } from '#core/pour'
import { MS_PER } from '#core/units'
import { stageWord } from '~/parts/words/pour'
import { durationText, momentText } from '~/parts/show/time'

/** How far the lanes look ahead, and a little back, so that what runs is seen to run. */
const AHEAD_MS = 30 * MS_PER.min
const BACK_MS = 2 * MS_PER.min
const TICK_MS = 10 * MS_PER.min

export interface LanePart {
  stage: Stage
  hands: boolean
  /** From the left edge, and how wide, % of the axis. */
  leftPct: number
  widthPct: number
  word: string
}

export interface Lane {
  id: string
  piece: string
  parts: LanePart[]
  /** What the parts are that are too short to hold their word, and when; empty where each holds its own. */
  short: string
  /** The same in words, for who cannot see it. */
  spoken: string
}

export interface Lanes {
  lanes: Lane[]
  clashes: (Clash & { words: string })[]
  nowPct: number
  ticks: { leftPct: number; word: string }[]
}

/** Narrower than this a part does not hold its word, % of the axis. */
const HOLDS_A_WORD_PCT = 14

const pctOf = (atMs: number, nowMs: number) =>
  (100 * Math.min(AHEAD_MS + BACK_MS, Math.max(0, atMs - nowMs + BACK_MS))) / (AHEAD_MS + BACK_MS)

/** Pours with something in the next half hour, on one axis of time, and where two of them want hands at once. */
export function lanesOf(
  pours: readonly { id: string; piece: string; facts: PourOutlook; view: PourView }[],
  nowMs: number,
): Lanes {
  const all = pours
    .map((p) => ({ ...p, ahead: aheadOf(p.facts, p.view, nowMs) }))
    .filter(({ ahead }) => ahead.stretches.some((s) => s.hands && s.fromMs < nowMs + AHEAD_MS))
  const pieces = new Map(all.map((p) => [p.id, p.piece]))
  return {
    lanes: all.map(({ id, piece, facts, ahead }) => {
      const shown = ahead.stretches.filter((s) => s.untilMs > nowMs - BACK_MS && s.fromMs < nowMs + AHEAD_MS)
      const parts = shown.map((s): LanePart => {
        const leftPct = pctOf(s.fromMs, nowMs)
        return {
          stage: s.stage,
          hands: s.hands,
          leftPct,
          widthPct: Math.max(0.8, pctOf(s.untilMs, nowMs) - leftPct),
          word: stageWord(s.stage, facts.plan),
        }
      })
      const said = shown.map((s) => {
        const when = s.fromMs <= nowMs ? 'now' : `at ${momentText(s.fromMs, nowMs)}`
        return `${stageWord(s.stage, facts.plan)} ${when}`
      })
      return {
        id,
        piece,
        parts: parts.map((p) => (p.widthPct < HOLDS_A_WORD_PCT ? { ...p, word: '' } : p)),
        short: said.filter((_, i) => parts[i]!.widthPct < HOLDS_A_WORD_PCT).join(', '),
        spoken: said.join(', '),
      }
    }),
    clashes: clashesOf(all, nowMs)
      .filter((c) => c.atMs < nowMs + AHEAD_MS)
      .map((clash) => ({ ...clash, words: clashWords(clash, (id) => pieces.get(id)!, nowMs) })),
    nowPct: pctOf(nowMs, nowMs),
    ticks: Array.from({ length: AHEAD_MS / TICK_MS }, (_, i) => {
      const atMs = nowMs + (i + 1) * TICK_MS
      return { leftPct: pctOf(atMs, nowMs), word: `${((i + 1) * TICK_MS) / MS_PER.min} min` }
    }),
  }
}

function clashWords({ between, atMs, hold }: Clash, pieceOf: (id: string) => string, nowMs: number): string {
  const [sooner, later] = between
  const first = hold?.id === sooner ? later : sooner
  const second = first === sooner ? later : sooner
  const when = `${momentText(atMs, nowMs)}: two want hands. First ${pieceOf(first)}, then ${pieceOf(second)}.`
  if (!hold) return `${when} Neither can wait: find a second pair of hands, or begin one of them later.`
  const by = durationText(Math.ceil(hold.byMs / 1000 / 30) * 30)
  return hold.at === 'soak'
    ? `${when} The second may soak ${by} longer: that costs nothing.`
    : `${when} The second may stay in its mould ${by} longer.`
}
