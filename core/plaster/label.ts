import { parseQuantity, type UnitSystem } from '../units'

/**
 * A ratio as labels, tins and notebooks print it, read as what it says. By weight it is a consistency; by volume it is
 * parts of powder to one of water, which becomes a consistency only with the powder's bulk density.
 */
export type LabelReading =
  { ok: true; by: 'weight'; consistency: number } | { ok: true; by: 'volume'; powderParts: number }

export type LabelError =
  | { ok: false; code: 'empty' | 'not_understood'; understood: string; rest: string }
  /** One amount is there, the other is missing: `28 ml`. */
  | { ok: false; code: 'half_a_ratio'; understood: string; rest: string }
  /** Read well enough, but no plaster is mixed like that. `consistency` is what it would be. */
  | { ok: false; code: 'no_such_ratio'; understood: string; rest: string; consistency: number }

/** g of water in a ml at 20 °C. */
const WATER_G_ML = 0.99823

interface Amount {
  text: string
  value: number
  in: 'mass' | 'volume' | 'parts'
  of: 'water' | 'powder' | undefined
}

const NUMBER = String.raw`(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+(?!\d)|\d+(?:[.,]\d+)?|[.,]\d+)\s?[½¼¾⅓⅔⅛⅜⅝⅞]?|[½¼¾⅓⅔⅛⅜⅝⅞]`
const MEASURE = String.raw`(?:fl\.?\s*oz|[a-z]+)\.?`
const QUANTITY = new RegExp(String.raw`^(${NUMBER})\s*(us\s+)?(${MEASURE})?\s*(%)?`)
const WATER = /^(?:of\s+)?(?:water|h2o|liquid)\b\s*/
const POWDER = /^(?:of\s+)?(?:the\s+)?(?:dry\s+)?(?:plaster|powder|gypsum|stone|cement|mix)\b\s*/
const JOINT = /^(?::|to|per|for\s+each|for|on|and|\+|in|with|=|,|-|–|\/|into)\s*/
const PARTS = /^(?:parts?|pts?)$/
/** Measures of no known size: only their count matters, and that they are volumes. */
const SCOOPS = /^(?:scoops?|vol(?:umes?)?|measures?|bowls?|tins?|jars?|mugs?|handfuls?)$/
const NOUN = /^(?:of|water|plaster|powder|to|per|by|on|for|and|in|with|gypsum|stone|cement|h|liquid|into)$/

function readAmount(text: string, system: UnitSystem): { amount: Amount; rest: string } | undefined {
  const match = text.match(QUANTITY)
  if (!match) return undefined
  const [whole, number, us, word, percent] = match
  const unit = word && !NOUN.test(word.replace('.', '')) ? word.replace(/\.$/, '') : ''
  let rest = unit === '' && word ? text.slice(whole.lastIndexOf(word)) : text.slice(whole.length)
  const asNumber = parseQuantity(number!, 'number', '')
  if (!asNumber.ok) return undefined
  let amount: Omit<Amount, 'of'>
  const said = text.slice(0, text.length - rest.length).trim()
  if (unit === '' || PARTS.test(unit) || percent) amount = { text: said, value: asNumber.value, in: 'parts' }
  else if (SCOOPS.test(unit)) amount = { text: said, value: asNumber.value, in: 'volume' }
  else {
    const asMass = parseQuantity(`${number} ${unit}`, 'mass', 'g', system)
    const asVolume = parseQuantity(`${number} ${unit}`, 'volume', 'ml', us ? 'us' : system)
    if (asMass.ok) amount = { text: said, value: asMass.value, in: 'mass' }
    else if (asVolume.ok) amount = { text: said, value: asVolume.value, in: 'volume' }
    else return undefined
  }
  rest = rest.trimStart()
  const of = WATER.test(rest) ? 'water' : POWDER.test(rest) ? 'powder' : undefined
  rest = rest.replace(WATER, '').replace(POWDER, '')
  return { amount: { ...amount, of }, rest }
}

/** Which of two amounts is the water: what they are called, then their units, then that there is less of it. */
function rolesOf(a: Amount, b: Amount): { water: Amount; powder: Amount } {
  const aIsWater =
    a.of === 'water' || b.of === 'powder'
      ? true
      : a.of === 'powder' || b.of === 'water'
        ? false
        : a.in !== b.in && (a.in === 'volume' || b.in === 'volume')
          ? a.in === 'volume'
          : a.value < b.value
  return aIsWater ? { water: a, powder: b } : { water: b, powder: a }
}

/** Consistencies outside this are a slip, not a recipe. */
const LEAST = 15
const MOST = 200

/**
 * Reads `100 : 30`, `30 : 100`, `2 : 1`, `70 parts`, `0.7`, `28 ml per 100 g`, `14 US cups water to 10 lb`,
 * `3 scoops plaster to 1 of water`. Where nothing says which is which, the smaller amount is the water.
 * A bare ratio is by weight unless it says by volume.
 * @param system size of cups, pints and fluid ounces, unless the text says US.
 */
export function parseRatioLabel(text: string, system: UnitSystem = 'metric'): LabelReading | LabelError {
  const clean = text
    .trim()
    .toLowerCase()
    .replace(/(\d),(\d)/g, '$1.$2')
    .replace(/\s+/g, ' ')
  if (clean === '') return { ok: false, code: 'empty', understood: '', rest: '' }
  const byVolume = /\bby vol(?:ume)?\b|\bv\s*\/\s*v\b/.test(clean)
  let rest = clean
    .replace(/\(?\bby (?:vol(?:ume)?|weight|mass)\b\)?|\bv\s*\/\s*v\b|\bw\s*\/\s*w\b/g, ' ')
    .replace(/^(?:w\s*\/\s*p|water\s*\/\s*powder|p\s*:\s*w|ratio|mix|use|consistency)\b[:=\s]*/, '')
    .trim()
  const found: Amount[] = []
  while (rest !== '' && found.length < 2) {
    const next = readAmount(rest, system)
    if (!next) break
    found.push(next.amount)
    rest = next.rest.replace(JOINT, '').trim()
  }
  const understood = found.map((a) => `${a.text}${a.of ? ` of ${a.of}` : ''}`).join(' to ')
  if (found.length === 0 || rest !== '') return { ok: false, code: 'not_understood', understood, rest }
  if (found.length === 1) {
    const only = found[0]!
    if (only.in !== 'parts') return { ok: false, code: 'half_a_ratio', understood, rest }
    return within(only.value <= 2 ? 100 * only.value : only.value, understood)
  }
  const { water, powder } = rolesOf(found[0]!, found[1]!)
  if (!(water.value > 0) || !(powder.value > 0))
    return { ok: false, code: 'not_understood', understood, rest }
  const bothVolumes = water.in === 'volume' && powder.in === 'volume'
  if (bothVolumes || (byVolume && water.in === 'parts' && powder.in === 'parts')) {
    const powderParts = powder.value / water.value
    if (powderParts < 0.4 || powderParts > 8)
      return { ok: false, code: 'no_such_ratio', understood, rest, consistency: 100 / powderParts }
    return { ok: true, by: 'volume', powderParts }
  }
  // Two kinds of amount that do not go together: `2 cups plaster to 500 g`.
  if (powder.in === 'volume' || (water.in === 'parts') !== (powder.in === 'parts'))
    return { ok: false, code: 'not_understood', understood, rest: clean }
  const waterG = water.in === 'volume' ? water.value * WATER_G_ML : water.value
  return within((100 * waterG) / powder.value, understood)
}

function within(consistency: number, understood: string): LabelReading | LabelError {
  if (consistency < LEAST || consistency > MOST)
    return { ok: false, code: 'no_such_ratio', understood, rest: '', consistency }
  return { ok: true, by: 'weight', consistency }
}
