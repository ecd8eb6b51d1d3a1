import { waterDensityKgM3 } from '../water'
import {
  plainText,
  readEachWay,
  readNumber,
  readTerm,
  type DecimalSign,
  type Habits,
  type KitchenSize,
} from '../units'
import { plasterClass, type PlasterClassId } from './classes'

/**
 * A ratio as labels, tins and notebooks print it, read as what it says. By weight it is a consistency, perhaps a range
 * of them; by volume it is parts of powder to one of water, which is a consistency only through how the powder packs.
 */
export type LabelReading =
  | { by: 'weight'; consistency: number; range?: { low: number; high: number }; size?: LabelSize }
  | { by: 'volume'; powderParts: number; consistency: number }

/** Whose cups or pints a reading took, where that made it. */
export type LabelSize = 'US' | 'imperial' | 'metric'

export type LabelError =
  | { ok: false; code: 'empty' | 'not_understood'; understood: string; rest: string }
  /** One amount is there, the other is missing: `28 ml`. */
  | { ok: false; code: 'half_a_ratio'; understood: string; rest: string }
  /** Read well enough, but no plaster is mixed like that. `consistency` is what it would be. */
  | { ok: false; code: 'no_such_ratio'; understood: string; rest: string; consistency: number }

/** What a text may mean, the likeliest first: one reading is what it says, two are for the caster to choose from. */
export type LabelAnswer = { ok: true; readings: [LabelReading, ...LabelReading[]] } | LabelError

/** g of water in a ml at 20 °C. */
const WATER_G_ML = waterDensityKgM3(20) / 1000

interface Amount {
  text: string
  value: number
  /** Upper end, where it is given as a range. */
  high?: number
  in: 'mass' | 'volume' | 'parts'
  of: 'water' | 'powder' | undefined
  /** Written with a word or a sign for parts, so that no scoop is meant. */
  worded: boolean
  /** Units it was given in. */
  pounds: boolean
  cups: boolean
  size: LabelSize | undefined
}

const WATER = /^(?:of )?(?:water|h2o|liquid)\b ?/
const POWDER = /^(?:of )?(?:the )?(?:dry )?(?:plaster|powder|gypsum|stone|cement|mix)\b ?/
const JOINT =
  /^(?:(?::|to|per|for each|for|on|and|\+|in|with|=|,|-|–|\/|into)(?= |\d|[.,]\d|$)|\/(?=[a-z])) ?/
/** `to the kilo`, `for each pound`. */
const ARTICLE = /^(?:an?|the|each|every) (?=[a-z])/
const PARTS = /^ ?(?:parts?|pts?|%)(?![a-z]) ?/
/** Measures of no known size: only their count matters, and that they are volumes. */
const SCOOPS = /^ ?(?:scoops?|vol(?:umes?)?|measures?|bowls?|tins?|jars?|mugs?|handfuls?)\b ?/
const SPAN = /^ ?(?:-|–|—|to|…|\.\.) ?(?=\d|[.,]\d)/
const NOUN_AHEAD =
  /^ ?(?:of|water|plaster|powder|to|per|by|on|for|and|in|with|gypsum|stone|cement|h2o|liquid|into)\b/

type Read = { amount: Amount; rest: string }

/** Number and units: `2 lb 12 oz`, `14 us cups`, `70 parts`, `65`. */
function readBare(text: string, decimal: DecimalSign, kitchen: KitchenSize): Read | undefined {
  const number = readNumber(text, decimal)
  if (!number) return undefined
  const plain = { value: number.value, of: undefined, pounds: false, cups: false, size: undefined } as const
  const saidUntil = (rest: string) => text.slice(0, text.length - rest.length).trim()
  const parts = PARTS.exec(number.rest)
  const scoops = SCOOPS.exec(number.rest)
  if (parts || scoops) {
    const rest = number.rest.slice((parts ?? scoops)![0].length)
    const is = parts ? 'parts' : 'volume'
    return { amount: { ...plain, text: saidUntil(rest), in: is, worded: true }, rest }
  }
  const term = NOUN_AHEAD.test(number.rest) ? undefined : readTerm(text, decimal, kitchen)
  if (!term || 'code' in term || !term.unit) {
    if (term && 'code' in term) return undefined
    return {
      amount: { ...plain, text: saidUntil(number.rest), in: 'parts', worded: false },
      rest: number.rest,
    }
  }
  const { kind } = term.unit
  if (kind !== 'mass' && kind !== 'volume') return undefined
  let { rest } = term
  let value = term.value * term.unit.factor
  let smallest = term.unit
  for (;;) {
    const more = /^\d/.test(rest) ? readTerm(rest, decimal, kitchen) : undefined
    if (!more || 'code' in more || !more.unit || more.unit.kind !== kind) break
    if (more.unit.factor >= smallest.factor) break
    value += more.value * more.unit.factor
    ;({ rest } = more)
    smallest = more.unit
  }
  return {
    amount: {
      text: saidUntil(rest),
      value,
      of: undefined,
      in: kind,
      worded: true,
      pounds: ['lb', 'oz'].includes(term.unit.name),
      cups: term.unit.kitchen?.measure === 'cup',
      size: term.unit.kitchen?.size,
    },
    rest,
  }
}

/** Two numbers joined by a dash or a word are a range where they rise and lie close; a ratio is neither. */
function isRange(low: Amount, high: Amount, mark: string): boolean {
  if (
    !low.worded &&
    !high.worded &&
    low.value < 10 &&
    Number.isInteger(low.value) &&
    Number.isInteger(high.value)
  )
    return false
  return (
    high.value > low.value &&
    high.value / low.value < 1.5 &&
    (mark !== ' to ' || low.value >= 10 || !Number.isInteger(low.value))
  )
}

/** An amount, or a range of amounts, and what it is of. */
function readAmount(text: string, decimal: DecimalSign, kitchen: KitchenSize): Read | undefined {
  const first = readBare(text, decimal, kitchen)
  if (!first) return undefined
  let { amount, rest } = first
  const span = SPAN.exec(rest)
  const second = span && readBare(rest.slice(span[0].length), decimal, kitchen)
  const alike = second && (second.amount.in === amount.in || (!amount.worded && amount.in === 'parts'))
  if (
    alike &&
    !(amount.worded && !second.amount.worded) &&
    isRange(amount, unitless(amount, second.amount), span[0])
  ) {
    const scale =
      amount.worded || second.amount.in === 'parts'
        ? 1
        : second.amount.value / unitless(amount, second.amount).value
    amount = {
      ...second.amount,
      text: text.slice(0, text.length - second.rest.length).trim(),
      value: amount.value * scale,
      high: second.amount.value,
    }
    ;({ rest } = second)
  }
  rest = rest.trimStart()
  const of = WATER.test(rest) ? 'water' : POWDER.test(rest) ? 'powder' : undefined
  rest = rest.replace(WATER, '').replace(POWDER, '')
  return { amount: { ...amount, of }, rest }
}

/** `0.6 l per kg` is per one of them. */
function withItsOne(rest: string, decimal: DecimalSign, kitchen: KitchenSize): string {
  if (!/^[a-z]/.test(rest)) return rest
  const what = rest.replace(ARTICLE, '')
  const read = SCOOPS.test(what) ? undefined : readBare(`1 ${what}`, decimal, kitchen)
  return read && read.amount.in !== 'parts' ? `1 ${what}` : rest
}

/** The second end of a range in the first one's own figures: `28-30 ml` is read before its unit is known. */
function unitless(first: Amount, second: Amount): Amount {
  if (first.worded || second.in === 'parts') return second
  const number = readNumber(second.text, 'point')
  return number ? { ...second, value: number.value } : second
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

/** What the class could be mixed at by anybody: its range and somewhat more (docs/science.md). */
function plausible(consistency: number, classId: PlasterClassId): boolean {
  const { low, high } = plasterClass(classId).consistency
  return consistency >= 0.85 * low && consistency <= 1.2 * high
}

function byScoop(powderParts: number, classId: PlasterClassId): LabelReading {
  const bulk = plasterClass(classId).bulkDensityKgM3.scooped.value
  return { by: 'volume', powderParts, consistency: (100 * WATER_G_ML * 1000) / (powderParts * bulk) }
}

const byWeight = (low: number, high: number = low, size?: LabelSize): LabelReading => ({
  by: 'weight',
  consistency: (low + high) / 2,
  ...(high > low ? { range: { low, high } } : {}),
  ...(size ? { size } : {}),
})

/** A number alone: parts of water to 100, water over powder, or powder over water. */
function alone(value: number, high: number, says: 'water' | 'powder' | undefined): LabelReading[] {
  if (says === 'powder') return [byWeight(100 / high, 100 / value)]
  if (value >= 10) return [byWeight(value, high)]
  const over = byWeight(100 * value, 100 * high)
  const under = byWeight(100 / high, 100 / value)
  if (says === 'water' || value === 1) return [over]
  return value < 1 ? [over, under] : [under, over]
}

/** Ratios that people scoop: small whole numbers, nothing said of weight. */
const scoopable = (water: Amount, powder: Amount) =>
  [water, powder].every((a) => !a.high && a.value <= 5 && Number.isInteger(a.value)) && water.value <= 2

type Told = { how: 'weight' | 'volume' | undefined; order: 'water' | 'powder' | undefined }

function ofTwo(a: Amount, b: Amount, told: Told, classId: PlasterClassId): LabelReading[] | undefined {
  const inOrder = told.order && a.in === 'parts' && b.in === 'parts' && !a.of && !b.of
  const { water, powder } = inOrder
    ? told.order === 'water'
      ? { water: a, powder: b }
      : { water: b, powder: a }
    : rolesOf(a, b)
  if (!(water.value > 0) || !(powder.value > 0)) return undefined
  const bothParts = water.in === 'parts' && powder.in === 'parts'
  if ((water.in === 'volume' && powder.in === 'volume') || (told.how === 'volume' && bothParts))
    return [byScoop(powder.value / water.value, classId)]
  // Two kinds of amount that do not go together: `2 cups plaster to 500 g`.
  if (powder.in === 'volume' || (water.in === 'parts') !== (powder.in === 'parts')) return undefined
  const grams = water.in === 'volume' ? WATER_G_ML : 1
  const low = (100 * grams * water.value) / (powder.high ?? powder.value)
  const high = (100 * grams * (water.high ?? water.value)) / powder.value
  const weighed = byWeight(low, high, water.size)
  const plain = plasterClass(classId).fillerRatio === 0
  const open = plain && bothParts && told.how === undefined && scoopable(water, powder)
  return open ? [weighed, byScoop(powder.value / water.value, classId)] : [weighed]
}

/** Near enough to be the same recipe. */
const ALIKE = 0.03

/** Readings that somebody could mean: alike ones once; of several, those the class is mixed at. */
function sift(readings: readonly LabelReading[], classId: PlasterClassId): LabelReading[] {
  const known = readings.filter((r) => r.consistency >= LEAST && r.consistency <= MOST)
  const different = known.filter(
    (r, i) => !known.slice(0, i).some((k) => Math.abs(k.consistency / r.consistency - 1) < ALIKE),
  )
  const likely = different.filter((r) => plausible(r.consistency, classId))
  return likely.length > 0 ? likely : different
}

interface Parsed {
  ok: true
  value: number
  notes: never[]
  readings: LabelReading[]
}

const fail = (code: 'not_understood' | 'half_a_ratio', understood: string, rest: string): LabelError => ({
  ok: false,
  code,
  understood,
  rest,
})

/** `p:w 1.43`, `water/powder .7`: says which figure comes first. */
const ORDER: readonly [RegExp, Told['order']][] = [
  [/^(?:w ?[/:] ?p|water ?(?:\/|:|to) ?(?:powder|plaster))(?: ratio)? ?[:=]? ?(?=[\d.,])/, 'water'],
  [/^(?:p ?[/:] ?w|(?:powder|plaster) ?(?:\/|:|to) ?water)(?: ratio)? ?[:=]? ?(?=[\d.,])/, 'powder'],
]
const VOLUME = /\(?\bby vol(?:ume)?\b\)?|\bv ?\/ ?v\b/
const WEIGHT = /\(?\bby (?:weight|mass)\b\)?|\bw ?\/ ?w\b/

function strictLabel(
  clean: string,
  classId: PlasterClassId,
  decimal: DecimalSign,
  kitchen: KitchenSize,
): Parsed | LabelError {
  const told: Told = {
    how: VOLUME.test(clean) ? 'volume' : WEIGHT.test(clean) ? 'weight' : undefined,
    order: undefined,
  }
  let rest = clean
    .replace(VOLUME, ' ')
    .replace(WEIGHT, ' ')
    .replace(/ +/g, ' ')
    .trim()
    .replace(/^(?:ratio|mix(?:ing ratio)?|use|consistency)\b ?[:=]? ?/, '')
    // Alone it is a ratio, not a fraction.
    .replace(/^([\d.,]+) ?\/ ?([\d.,]+)$/, '$1 : $2')
  for (const [pattern, order] of ORDER) {
    if (!pattern.test(rest)) continue
    rest = rest.replace(pattern, '')
    told.order = order
  }
  const found: Amount[] = []
  while (rest !== '' && found.length < 2) {
    const next = readAmount(rest, decimal, kitchen)
    if (!next) break
    found.push(next.amount)
    rest = withItsOne(next.rest.replace(JOINT, '').trim(), decimal, kitchen)
  }
  const understood = found.map((a) => `${a.text}${a.of ? ` of ${a.of}` : ''}`).join(' to ')
  const [a, b] = found
  if (!a || rest !== '') return fail('not_understood', understood, rest)
  // American cookery goes by cups and pounds; nobody else pairs them.
  if (
    b &&
    (a.cups || b.cups) &&
    (a.pounds || b.pounds) &&
    kitchen !== 'us' &&
    !/\b(?:metric|imp\w*|uk)\b/.test(clean)
  )
    return strictLabel(clean, classId, decimal, 'us')
  if (!b && a.in !== 'parts') return fail('half_a_ratio', understood, rest)
  const readings = b ? ofTwo(a, b, told, classId) : alone(a.value, a.high ?? a.value, a.of ?? told.order)
  if (!readings) return fail('not_understood', understood, rest === '' ? clean : rest)
  const ratios = !b && a.high ? [...readings, ...ratioNotRange(a, told, classId)] : readings
  const sifted = sift(ratios, classId)
  if (sifted.length === 0)
    return { ok: false, code: 'no_such_ratio', understood, rest, consistency: readings[0]!.consistency }
  return { ok: true, value: sifted[0]!.consistency, notes: [], readings: sifted }
}

/** `70-100` could also be the one to the other. */
function ratioNotRange(a: Amount, told: Told, classId: PlasterClassId): LabelReading[] {
  if (a.high !== 100 || told.order) return []
  return ofTwo({ ...a, high: undefined }, { ...a, value: a.high, high: undefined }, told, classId) ?? []
}

/**
 * Reads `100 : 30`, `100/70`, `2 : 1`, `65–70 parts`, `p:w 1.43`, `28 ml per 100 g`, `2 lb 12 oz to 1 qt`,
 * `14 cups water to 10 lb`, `3 scoops plaster to 1 of water`. Where nothing says which is which, the smaller amount is
 * the water. What the class is never mixed at gives way to what it is; where two readings are left, both are given.
 */
export function parseRatioLabel(text: string, classId: PlasterClassId, habits: Habits): LabelAnswer {
  const clean = plainText(text).replace(/—/g, '–')
  if (clean === '') return { ok: false, code: 'empty', understood: '', rest: '' }
  const { readings, failure } = readEachWay(habits, ({ decimal, kitchen }) =>
    strictLabel(clean, classId, decimal, kitchen),
  )
  const all = sift(
    readings.flatMap((r) => r.readings),
    classId,
  )
  const [first, ...others] = all
  if (first === undefined) return failure!
  return { ok: true, readings: [first, ...others] }
}
