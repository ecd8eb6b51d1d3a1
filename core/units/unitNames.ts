import { GRAMS_PER, ML_PER, MM2_PER, MM_PER } from './factors'

export type UnitSystem = 'metric' | 'us' | 'imperial'
export type MeasuredKind = 'mass' | 'volume' | 'length' | 'area'

/** Whose cups and pints: the American, or the British with the 250 ml cup of everywhere else. */
export type KitchenSize = 'us' | 'imperial'

export interface Unit {
  kind: MeasuredKind
  /** Base units (g, ml, mm, mm²) in one of it. */
  factor: number
  /** As it is written so that it can be read one way only. */
  name: string
  /** A measure whose size differs by country: which one was taken. */
  kitchen?: { measure: KitchenMeasure; size: 'US' | 'imperial' | 'metric'; ml: number }
  /** The unit of a bare number that follows it: `2 lb 3` is three ounces. */
  next?: { name: string; factor: number; of: number }
}

type Named = readonly [name: string, factor: number, aliases: string]

const MASS: readonly Named[] = [
  ['mg', GRAMS_PER.mg, 'mg mgs milligram milligrams'],
  ['g', GRAMS_PER.g, 'g gs gr grs gm gms gram grams gramme grammes'],
  ['kg', GRAMS_PER.kg, 'kg kgs kilo kilos kilogram kilograms kilogramme kilogrammes'],
  ['oz', GRAMS_PER.oz, 'oz ozs ounce ounces'],
  ['lb', GRAMS_PER.lb, 'lb lbs pound pounds #'],
]
const LENGTH: readonly Named[] = [
  ['mm', MM_PER.mm, 'mm mms millimetre millimetres millimeter millimeters'],
  ['cm', MM_PER.cm, 'cm cms centimetre centimetres centimeter centimeters'],
  ['m', MM_PER.m, 'm metre metres meter meters'],
  ['in', MM_PER.in, 'in ins inch inches "'],
  ['ft', MM_PER.ft, "ft foot feet '"],
]
const AREA: readonly Named[] = [
  ['mm²', MM2_PER.mm2, 'mm2 sqmm'],
  ['cm²', MM2_PER.cm2, 'cm2 sqcm'],
  ['m²', MM2_PER.m2, 'm2 sqm'],
  ['in²', MM2_PER.in2, 'in2 sqin sqinch sqinches'],
  ['ft²', MM2_PER.ft2, 'ft2 sqft sqfoot sqfeet'],
]
const VOLUME: readonly Named[] = [
  ['ml', ML_PER.ml, 'ml mls cc ccs cm3 millilitre millilitres milliliter milliliters'],
  ['cl', ML_PER.cl, 'cl cls'],
  ['dl', ML_PER.dl, 'dl dls'],
  ['l', ML_PER.l, 'l ls lt ltr ltrs litre litres liter liters dm3'],
  ['in³', ML_PER.in3, 'in3 cuin cuinch cuinches'],
  ['ft³', ML_PER.ft3, 'ft3 cuft cufoot cufeet'],
]

const KITCHEN = {
  tsp: { us: ML_PER.usTsp, metric: 5, aliases: 'tsp tsps teaspoon teaspoons' },
  tbsp: { us: ML_PER.usTbsp, metric: 15, aliases: 'tbsp tbsps tablespoon tablespoons' },
  'fl oz': { us: ML_PER.usFlOz, imperial: ML_PER.impFlOz, aliases: 'floz flozs fluidounce fluidounces' },
  cup: { us: ML_PER.usCup, imperial: ML_PER.impPint / 2, metric: ML_PER.metricCup, aliases: 'c cup cups' },
  pint: { us: ML_PER.usPint, imperial: ML_PER.impPint, aliases: 'pt pts pint pints' },
  quart: { us: ML_PER.usQuart, imperial: ML_PER.impQuart, aliases: 'qt qts quart quarts' },
  gallon: { us: ML_PER.usGallon, imperial: ML_PER.impGallon, aliases: 'gal gals gallon gallons' },
} as const
export type KitchenMeasure = keyof typeof KITCHEN

const NEXT: Partial<Record<string, Unit['next']>> = {
  lb: { name: 'oz', factor: GRAMS_PER.oz, of: 16 },
  ft: { name: 'in', factor: MM_PER.in, of: 12 },
  m: { name: 'cm', factor: MM_PER.cm, of: 100 },
}

const FIXED = new Map<string, Unit>()
for (const [kind, units] of Object.entries({ mass: MASS, length: LENGTH, area: AREA, volume: VOLUME })) {
  for (const [name, factor, aliases] of units) {
    const unit: Unit = { kind: kind as MeasuredKind, factor, name, next: NEXT[name] }
    for (const alias of aliases.split(' ')) FIXED.set(alias, unit)
  }
}
const KITCHEN_ALIASES = new Map<string, KitchenMeasure>()
for (const [measure, { aliases }] of Object.entries(KITCHEN))
  for (const alias of aliases.split(' ')) KITCHEN_ALIASES.set(alias, measure as KitchenMeasure)

const COUNTRY: Record<string, 'US' | 'imperial' | 'metric'> = {
  us: 'US',
  american: 'US',
  imp: 'imperial',
  imperial: 'imperial',
  uk: 'imperial',
  british: 'imperial',
  metric: 'metric',
}

function kitchenUnit(measure: KitchenMeasure, size: 'US' | 'imperial' | 'metric'): Unit | undefined {
  const sizes: { us: number; imperial?: number; metric?: number } = KITCHEN[measure]
  const ml = sizes[size === 'US' ? 'us' : size]
  if (ml === undefined) return undefined
  return { kind: 'volume', factor: ml, name: `${size} ${measure}`, kitchen: { measure, size, ml } }
}

/**
 * A unit by the name a caster gives it.
 * @param name lower case, no spaces nor dots; `country` as said before it, empty where it was not.
 */
export function findUnit(name: string, country: string, kitchen: KitchenSize): Unit | undefined {
  const measure = KITCHEN_ALIASES.get(name)
  if (measure === undefined) return country === '' ? FIXED.get(name) : undefined
  if (country !== '') return kitchenUnit(measure, COUNTRY[country]!)
  if (kitchen === 'us') return kitchenUnit(measure, 'US')
  // Outside America a cup is 250 ml by now, and spoons are 5 and 15.
  return kitchenUnit(measure, 'metric') ?? kitchenUnit(measure, 'imperial')
}

/** Spoons differ by one part in seventy between countries: not worth a question. */
export function isSpoon(measure: KitchenMeasure): boolean {
  return measure === 'tsp' || measure === 'tbsp'
}

const BEFORE_UNIT = String.raw`^ ?(?:(us|u\.s\.|american|imperial|imp\.?|uk|british|metric) ?)?`
const WORD = String.raw`(fl\.? ?oz|fluid ounces?|(?:sq|cu)\.? ?(?:mm|cm|m|in|inch|inches|ft|foot|feet)|[a-z]+|''|["'#])`
const UNIT_AT = new RegExp(`${BEFORE_UNIT}${WORD}`)

/** The unit a text begins with. `name` is what stood there, for saying what was not known. */
export function readUnit(
  text: string,
  kitchen: KitchenSize,
): { unit: Unit | undefined; name: string; rest: string } | undefined {
  const match = UNIT_AT.exec(text)
  if (!match) return undefined
  const country = (match[1] ?? '').replace(/\./g, '')
  const word = match[2]!
  const plain = word === "''" ? '"' : word.replace(/[ .]/g, '')
  const after = text.slice(match[0].length)
  // `cm2` is an area where nothing but a unit can stand; `2 lb3` is not.
  const power = /^[23](?![\d.,/])/.exec(after)?.[0]
  const raised = power && findUnit(plain + power, country, kitchen)
  const rest = (raised ? after.slice(1) : after).replace(/^\.(?!\d)/, '')
  return { unit: raised || findUnit(plain, country, kitchen), name: `${match[0].trim()}`, rest }
}
