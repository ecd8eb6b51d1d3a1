import { celsiusFromFahrenheit } from './factors'
import { readNumber, type DecimalSign } from './numbers'
import {
  isSpoon,
  readUnit,
  type KitchenMeasure,
  type KitchenSize,
  type MeasuredKind,
  type Unit,
  type UnitSystem,
} from './unitNames'

export type QuantityKind = MeasuredKind | 'temp' | 'number'

export type QuantityError =
  | 'empty'
  | 'not_a_quantity'
  | 'unknown_unit'
  | 'wrong_kind_of_unit'
  | 'ambiguous'
  | 'too_large'

/** How a workshop writes; null where it has not said, and then what hangs on it is asked about. */
export interface Habits {
  system: UnitSystem
  decimalSign: DecimalSign | null
  /** Whose cups and pints; only a metric workshop has to say. */
  kitchen: KitchenSize | null
}

/** What was read into it, to be said back. */
export type QuantityNote =
  | { about: 'number' }
  | { about: 'unit' }
  | { about: 'measure'; measure: KitchenMeasure; size: 'US' | 'imperial' | 'metric'; ml: number }

export interface QuantityReading {
  value: number
  /** The same amount so that it can be read one way only. */
  canonical: string
  notes: QuantityNote[]
}

export type ParsedQuantity =
  | ({ ok: true } & QuantityReading)
  | { ok: false; code: Exclude<QuantityError, 'ambiguous'>; at: string }
  /** It can be read in more than one way: which is for the caster to say. */
  | { ok: false; code: 'ambiguous'; at: string; readings: QuantityReading[] }

/** Habits with nothing left open. */
interface Settled {
  decimal: DecimalSign
  kitchen: KitchenSize
}

type Strict =
  | ({ ok: true } & QuantityReading)
  | { ok: false; code: Exclude<QuantityError, 'ambiguous'>; at: string }

const no = (code: Exclude<QuantityError, 'ambiguous'>, at: string): Strict => ({
  ok: false,
  code,
  at: at.trim(),
})

/**
 * More than anybody could mean, g, ml, mm, mm²: a reading beyond it is none. Well above what a field takes, so that a slip
 * with the signs is asked about and not taken for the other reading.
 */
const MOST: Record<QuantityKind, number> = {
  mass: 10_000_000,
  volume: 10_000_000,
  length: 10_000_000,
  area: 1e9,
  temp: 1000,
  number: 1e9,
}
/** From here on thousands are more likely decimals of somebody who writes the other sign: `1,234 kg`. */
const HARDLY: Partial<Record<QuantityKind, number>> = {
  mass: 500_000,
  volume: 100_000,
  length: 20_000,
  area: 20_000_000,
}

/** Full-width forms, quotes, dashes and fractions as their plain signs; lower case, single spaces. */
export function plainText(text: string): string {
  return (
    text
      .replace(/[\uFF01-\uFF5E]/g, (c) => String.fromCharCode(c.charCodeAt(0) - 0xfee0))
      .replace(/[\u00BC-\u00BE\u2150-\u215E]/g, (c) => ` ${c.normalize('NFKC').replace('\u2044', '/')}`)
      .replace(/\u2044/g, '/')
      .replace(/[\u2018\u2019\u201B\u2032]/g, "'")
      .replace(/[\u201C\u201D\u201F\u2033]/g, '"')
      .replace(/[\u00BA\u02DA]/g, '°')
      .replace(/\u2103/g, '°c')
      .replace(/\u2109/g, '°f')
      .replace(/\u2113/g, 'l')
      .replace(/\u2212/g, '-')
      // Powers belong to units; after a digit they would change the number.
      .replace(/(?<=[a-z])\u00B2/gi, '2')
      .replace(/(?<=[a-z])\u00B3/gi, '3')
      .toLowerCase()
      .replace(/[\s\p{Zs}]+/gu, ' ')
      .trim()
  )
}

function strictTemp(text: string, defaultUnit: string, { decimal }: Settled): Strict {
  const sign = /^[-–] ?/.exec(text)?.[0] ?? ''
  const number = readNumber(text.slice(sign.length), decimal)
  if (!number) return no('not_a_quantity', text)
  const unit = /^ ?(?:°|deg(?:rees)?\.?)? ?([a-z]*)$/.exec(number.rest)?.[1]
  if (unit === undefined) return no('not_a_quantity', number.rest)
  const value = sign ? -number.value : number.value
  const name = (unit || defaultUnit).charAt(0)
  if (number.value > MOST.temp) return no('too_large', text)
  if (!['c', 'celsius', 'f', 'fahrenheit', ''].includes(unit)) return no('unknown_unit', unit)
  const notes: QuantityNote[] = number.dependsOnSigns ? [{ about: 'number' }] : []
  const canonical = `${sign ? '-' : ''}${number.canonical} °${name.toUpperCase()}`
  return { ok: true, value: name === 'f' ? celsiusFromFahrenheit(value) : value, canonical, notes }
}

function strictNumber(text: string, { decimal }: Settled): Strict {
  const number = readNumber(text, decimal)
  if (!number) return no('not_a_quantity', text)
  if (number.rest.trim() !== '') return no('unknown_unit', number.rest)
  if (number.value > MOST.number) return no('too_large', text)
  const notes: QuantityNote[] = number.dependsOnSigns ? [{ about: 'number' }] : []
  return { ok: true, value: number.value, canonical: number.canonical, notes }
}

export interface Term {
  value: number
  unit: Unit | undefined
  canonical: string
  dependsOnSigns: boolean
  rest: string
}

/** One number with its unit, where it has one. A unit that nobody knows is an error, and `at` names it. */
export function readTerm(
  text: string,
  decimal: DecimalSign,
  kitchen: KitchenSize,
): Term | { code: 'not_a_quantity' | 'unknown_unit'; at: string } {
  const number = readNumber(text, decimal)
  if (!number) return { code: 'not_a_quantity', at: text }
  const named = readUnit(number.rest, kitchen)
  if (named && !named.unit) return { code: 'unknown_unit', at: named.name }
  return {
    value: number.value,
    unit: named?.unit,
    canonical: number.canonical,
    dependsOnSigns: number.dependsOnSigns,
    rest: (named ? named.rest.replace(/^ ?(?:, |and |[&+] ?)/, '') : number.rest).trimStart(),
  }
}

const noteOf = ({ kitchen }: Unit): QuantityNote[] => (kitchen ? [{ about: 'measure', ...kitchen }] : [])

/** The unit of a bare number: the default of a lone one, else the next smaller where custom says so. */
function unitOfBare(
  value: number,
  before: { unit: Unit; value: number } | undefined,
  defaultUnit: string,
  { kitchen }: Settled,
): Unit | undefined {
  if (!before) return readUnit(defaultUnit, kitchen)?.unit
  const next = before.unit.next
  if (!next || value >= next.of || !Number.isInteger(before.value)) return undefined
  return { kind: before.unit.kind, factor: next.factor, name: next.name }
}

function strictQuantity(text: string, kind: MeasuredKind, defaultUnit: string, settled: Settled): Strict {
  let rest = text
  let total = 0
  const said: string[] = []
  const notes: QuantityNote[] = []
  let before: { unit: Unit; value: number } | undefined
  while (rest !== '') {
    const term = readTerm(rest, settled.decimal, settled.kitchen)
    if ('code' in term) return no(term.code, term.at)
    const last = term.rest === ''
    // A bare number has a unit only where it stands alone or comes last.
    if (!term.unit && !last) return no('not_a_quantity', term.rest)
    const unit = term.unit ?? unitOfBare(term.value, before, defaultUnit, settled)
    if (!unit) return no('not_a_quantity', rest)
    if (unit.kind !== kind) return no('wrong_kind_of_unit', unit.name)
    // `500 g 1 kg`, `2 g 3 g`: two amounts, not one.
    if (before && unit.factor >= before.unit.factor) return no('not_a_quantity', rest)
    total += term.value * unit.factor
    said.push(`${term.canonical} ${unit.name}`)
    if (term.dependsOnSigns) notes.push({ about: 'number' })
    if (!term.unit && before) notes.push({ about: 'unit' })
    notes.push(...noteOf(unit))
    before = { unit, value: term.value }
    rest = term.rest
  }
  if (total > MOST[kind]) return no('too_large', text)
  return { ok: true, value: total, canonical: said.join(' '), notes }
}

const SIGNS: readonly DecimalSign[] = ['point', 'comma']
const SIZES: readonly KitchenSize[] = ['us', 'imperial']

/** Every way of settling what a workshop has left open, its own way of counting first. */
function settlings({ system, decimalSign, kitchen }: Habits): Settled[] {
  const sizes = system === 'metric' ? (kitchen ? [kitchen] : SIZES) : [system]
  const signs = decimalSign ? [decimalSign] : SIGNS
  return signs.flatMap((decimal) => sizes.map((size) => ({ decimal, kitchen: size })))
}

const onlySpoons = (notes: readonly QuantityNote[]) =>
  notes.some((n) => n.about === 'measure') && notes.every((n) => n.about !== 'measure' || isSpoon(n.measure))

type Answer = { ok: true; value: number; notes: readonly QuantityNote[] } | { ok: false }
const isRead = <A extends Answer>(answer: A): answer is Extract<A, { ok: true }> => answer.ok

/**
 * Reads a text in every way its writer's habits leave open. One way: that is what it says. Several: the caster is asked.
 * @param read the text under settled habits.
 */
export function readEachWay<A extends Answer>(
  habits: Habits,
  read: (settled: Settled) => A,
): { readings: Extract<A, { ok: true }>[]; failure: Extract<A, { ok: false }> | undefined } {
  const answers = settlings(habits).map(read)
  const readings: Extract<A, { ok: true }>[] = []
  for (const answer of answers) {
    if (!isRead(answer)) continue
    const known = readings.some((r) => r.value === answer.value)
    if (!known) readings.push(answer)
  }
  // Spoons are taken as the workshop's system has them.
  const spoons = readings.filter((r) => onlySpoons(r.notes))
  return {
    readings: spoons.length > 1 && spoons.length === readings.length ? [spoons.at(-1)!] : readings,
    failure: answers.find((a): a is Extract<A, { ok: false }> => !a.ok),
  }
}

/**
 * Reads a quantity as a caster types it: `2 lb 3`, `1/2 cup`, `1 1/2 in`, `1 500 g`, `0,75 l`, `1.2 kg`, `68 F`.
 * What can be read in two ways is never guessed: it is refused as `ambiguous`, with both readings.
 * @param kind what is wanted; a unit of another kind is refused, not converted.
 * @param defaultUnit unit of a bare number, e.g. `g`, `l`, `in`, `f`; for kind `number` it is ignored.
 * @returns g, ml, mm, mm², °C or the bare number; never negative, except temperatures.
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  defaultUnit: string,
  habits: Habits,
): ParsedQuantity {
  const clean = plainText(text)
  if (clean === '') return { ok: false, code: 'empty', at: '' }
  const read = (settled: Settled): Strict => {
    if (kind === 'temp') return strictTemp(clean, defaultUnit, settled)
    if (kind === 'number') return strictNumber(clean, settled)
    return strictQuantity(clean, kind, defaultUnit, settled)
  }
  const bySigns = readEachWay(habits, read)
  const isHardly = ({ value, notes }: QuantityReading) =>
    value >= (HARDLY[kind] ?? Infinity) && notes.some((n) => n.about === 'number')
  // So much that the workshop's own way of writing is doubted.
  const { readings, failure } = bySigns.readings.some(isHardly)
    ? readEachWay({ ...habits, decimalSign: null }, read)
    : bySigns
  const [only, ...others] = readings
  if (only === undefined) return failure as ParsedQuantity
  return others.length === 0 ? only : { ok: false, code: 'ambiguous', at: text.trim(), readings }
}
