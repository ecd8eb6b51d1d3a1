import { GRAMS_PER, plainText, readNumber } from '../units'

/** One reading of a scale that sends text. */
export interface ScaleReading {
  massG: number
  /** The scale says that it still moves; undefined where it says nothing about it. */
  stable: boolean | undefined
}

const GRAMS: Record<string, number> = { g: 1, kg: 1000, lb: GRAMS_PER.lb, oz: GRAMS_PER.oz }
const NO_READING = /\b(?:ol|over|overload|under|underload|ul|err|error|e\d+)\b|-{3,}|_{3,}|\^{3,}/
const MOVING = /^\W*(?:us|unst\w*|motion|dyn\w*|d|u)\b|[?~]/
const STABLE = /^\W*(?:st|stable|s)\b/
/** Whole fields of letters before the figures, and a sign that may stand apart from them. */
const HEAD = /^(?:[a-z]+[ ,;:]+)*([+-])? *(?=[\d.,])/
const UNIT = /^ ?(kg|g|lb|oz)\b/
/** What may follow the unit: nothing that could be another figure. */
const TAIL = /^[^\d]*$/

/** Zeros that fill up a display are no part of a number: `00012.5`. */
const withoutPadding = (text: string) => text.replace(/^0+(?=\d)/, '')

/** A scale's point is a decimal point; its comma is one too, where it cannot stand between thousands. */
function figure(text: string): { value: number; rest: string } | undefined {
  const [a, b] = [readNumber(text, 'point'), readNumber(text, 'comma')]
  if (!a || !b) return undefined
  if (a.value === b.value) return a
  const token = text.slice(0, text.length - a.rest.length)
  return token.includes('.') ? a : undefined
}

/**
 * Reads a line as bench scales commonly send it: a sign, a number, a unit, and often a word for stable or moving,
 * `ST,GS,+ 123.4 g`, `US 0.271 kg`, `- 1 234,5 g`, `2 lb 3.5 oz`. Undefined where the line holds no mass, says that the
 * scale is over its limit, or could be read in two ways: a line is skipped rather than cut short.
 */
export function parseScaleLine(line: string): ScaleReading | undefined {
  const clean = plainText(line.replace(/[\u2013\u2014]/g, '-'))
  if (NO_READING.test(clean)) return undefined
  const marked = clean.replace(/[?~*]/g, ' ').replace(/ +/g, ' ').trim()
  const head = HEAD.exec(marked)
  if (!head) return undefined
  const first = figure(withoutPadding(marked.slice(head[0].length)))
  const unit = first && UNIT.exec(first.rest)
  if (!first || !unit) return undefined
  let massG = first.value * GRAMS[unit[1]!]!
  let rest = first.rest.slice(unit[0].length)
  if (unit[1] === 'lb' && /^[ :,]*\d/.test(rest)) {
    const ounces = figure(withoutPadding(rest.replace(/^[ :,]+/, '')))
    const ounceUnit = ounces && UNIT.exec(ounces.rest)
    if (ounceUnit?.[1] !== 'oz' || !(ounces!.value < 16)) return undefined
    massG += ounces!.value * GRAMS_PER.oz
    rest = ounces!.rest.slice(ounceUnit[0].length)
  }
  if (!TAIL.test(rest)) return undefined
  const stable = MOVING.test(clean) ? false : STABLE.test(clean) ? true : undefined
  return { massG: head[1] === '-' ? -massG : massG, stable }
}
