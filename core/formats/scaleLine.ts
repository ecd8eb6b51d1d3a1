import { GRAMS_PER } from '../units'

/** One reading of a scale that sends text. */
export interface ScaleReading {
  massG: number
  /** The scale says that it still moves; undefined where it says nothing about it. */
  stable: boolean | undefined
}

const GRAMS: Record<string, number> = { g: 1, kg: 1000, lb: GRAMS_PER.lb, oz: GRAMS_PER.oz }

/**
 * Reads a line as bench scales commonly send it: a sign, a number, a unit, and often a word for stable or moving,
 * `ST,GS,+ 123.4 g`, `US 0.271 kg`, `- 12.5g`. Undefined where the line holds no mass.
 */
export function parseScaleLine(line: string): ScaleReading | undefined {
  const match = line.match(/([+-])?\s*(\d+(?:[.,]\d+)?)\s*(kg|g|lb|oz)\b/i)
  if (!match) return undefined
  const [, sign, number, unit] = match
  const massG = Number(number!.replace(',', '.')) * GRAMS[unit!.toLowerCase()]!
  const word = line.trim().slice(0, 2).toUpperCase()
  const stable = word === 'ST' ? true : word === 'US' ? false : undefined
  return { massG: sign === '-' ? -massG : massG, stable }
}
