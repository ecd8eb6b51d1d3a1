import { GRAMS_PER, ML_PER, MM2_PER, MM_PER, celsiusFromFahrenheit } from './factors'

export type QuantityKind = 'mass' | 'volume' | 'length' | 'area' | 'temp' | 'number'
export type UnitSystem = 'metric' | 'us' | 'imperial'

export type QuantityError =
  'empty' | 'not_a_quantity' | 'unknown_unit' | 'wrong_kind_of_unit' | 'ambiguous_comma' | 'too_large'

export type ParsedQuantity = { ok: true; value: number } | { ok: false; code: QuantityError; at: string }

type Factor = { kind: Exclude<QuantityKind, 'number' | 'temp'>; factor: number }

const MASS: Record<string, number> = {
  mg: GRAMS_PER.mg,
  g: GRAMS_PER.g,
  gr: GRAMS_PER.g,
  gram: GRAMS_PER.g,
  gramme: GRAMS_PER.g,
  kg: GRAMS_PER.kg,
  kilo: GRAMS_PER.kg,
  kilogram: GRAMS_PER.kg,
  oz: GRAMS_PER.oz,
  ounce: GRAMS_PER.oz,
  lb: GRAMS_PER.lb,
  pound: GRAMS_PER.lb,
}

const LENGTH: Record<string, number> = {
  mm: MM_PER.mm,
  cm: MM_PER.cm,
  m: MM_PER.m,
  in: MM_PER.in,
  inch: MM_PER.in,
  inche: MM_PER.in,
  '"': MM_PER.in,
  ft: MM_PER.ft,
  foot: MM_PER.ft,
  feet: MM_PER.ft,
  "'": MM_PER.ft,
}

const AREA: Record<string, number> = {
  mm2: MM2_PER.mm2,
  cm2: MM2_PER.cm2,
  m2: MM2_PER.m2,
  in2: MM2_PER.in2,
  sqin: MM2_PER.in2,
  ft2: MM2_PER.ft2,
  sqft: MM2_PER.ft2,
}

const VOLUME: Record<string, number> = {
  ml: ML_PER.ml,
  cc: ML_PER.ml,
  cm3: ML_PER.ml,
  cl: ML_PER.cl,
  dl: ML_PER.dl,
  l: ML_PER.l,
  litre: ML_PER.l,
  liter: ML_PER.l,
  in3: ML_PER.in3,
  ft3: ML_PER.ft3,
}

/** Kitchen measures share their names across systems and differ in size. */
const SYSTEM_VOLUME: Record<UnitSystem, Record<string, number>> = {
  us: {
    tsp: ML_PER.usTsp,
    tbsp: ML_PER.usTbsp,
    floz: ML_PER.usFlOz,
    cup: ML_PER.usCup,
    pt: ML_PER.usPint,
    pint: ML_PER.usPint,
    qt: ML_PER.usQuart,
    quart: ML_PER.usQuart,
    gal: ML_PER.usGallon,
    gallon: ML_PER.usGallon,
  },
  imperial: {
    floz: ML_PER.impFlOz,
    cup: ML_PER.metricCup,
    pt: ML_PER.impPint,
    pint: ML_PER.impPint,
    qt: ML_PER.impQuart,
    quart: ML_PER.impQuart,
    gal: ML_PER.impGallon,
    gallon: ML_PER.impGallon,
  },
  metric: { cup: ML_PER.metricCup },
}

const VULGAR: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅓': ' 1/3',
  '⅔': ' 2/3',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
}

const NUMBER = String.raw`(?:\d+(?:\.\d+)?|\.\d+)`
const TERM = new RegExp(
  String.raw`^(?:(\d+)\s+(\d+)\s*/\s*(\d+)|(\d+)\s*/\s*(\d+)|(${NUMBER}))\s*((?:fl\.?\s*oz|sq\.?\s*(?:in|ft)|[a-zµ°]+[23³]?|["'])?)\.?\s*`,
)

function lookUpUnit(unit: string, system: UnitSystem): Factor | undefined {
  for (const name of [unit, unit.replace(/s$/, '')]) {
    if (MASS[name] !== undefined) return { kind: 'mass', factor: MASS[name] }
    if (AREA[name] !== undefined) return { kind: 'area', factor: AREA[name] }
    if (LENGTH[name] !== undefined) return { kind: 'length', factor: LENGTH[name] }
    const volume = SYSTEM_VOLUME[system][name] ?? VOLUME[name] ?? SYSTEM_VOLUME.us[name]
    if (volume !== undefined) return { kind: 'volume', factor: volume }
  }
  return undefined
}

function parseTemp(text: string, defaultUnit: string): ParsedQuantity {
  const match = text.match(/^(-?\d+(?:\.\d+)?)\s*(?:°|deg(?:rees)?)?\s*([a-z]*)$/)
  if (!match) return { ok: false, code: 'not_a_quantity', at: text }
  const unit = match[2] || defaultUnit
  const value = Number(match[1])
  if (unit === 'c' || unit === 'celsius') return { ok: true, value }
  if (unit === 'f' || unit === 'fahrenheit') return { ok: true, value: celsiusFromFahrenheit(value) }
  return { ok: false, code: 'unknown_unit', at: unit }
}

/** Lower case, vulgar fractions spelled out, decimal comma made a point. Undefined: the comma could mean either. */
function normalise(text: string): string | undefined {
  let clean = text.trim().toLowerCase().replace(/³/g, '3').replace(/²/g, '2').replace(/\s+/g, ' ')
  for (const [glyph, spelled] of Object.entries(VULGAR)) clean = clean.replaceAll(glyph, spelled)
  // "1,500" is one and a half to half of Europe and fifteen hundred to the rest: ask, never guess.
  if (/\d,\d{3}(?!\d)/.test(clean)) return undefined
  return clean.replace(/(\d),(\d)/g, '$1.$2').trim()
}

/**
 * Reads a quantity as a caster types it: `2 lb 3 oz`, `1/2 cup`, `1 1/2 in`, `750 ml`, `1.2 kg`, `68 F`.
 * @param kind what is wanted; a unit of another kind is refused, not converted.
 * @param defaultUnit unit of a bare number, e.g. `g`, `l`, `in`, `f`; for kind `number` it is ignored.
 * @param system decides the size of cups, pints, quarts and fluid ounces.
 * @returns g, ml, mm, mm², °C or the bare number; never negative, except temperatures.
 */
export function parseQuantity(
  text: string,
  kind: QuantityKind,
  defaultUnit: string,
  system: UnitSystem = 'metric',
): ParsedQuantity {
  if (text.trim() === '') return { ok: false, code: 'empty', at: '' }
  const clean = normalise(text)
  if (clean === undefined) return { ok: false, code: 'ambiguous_comma', at: text.trim() }
  if (kind === 'temp') return parseTemp(clean, defaultUnit)

  let rest = clean
  let total = 0
  while (rest !== '') {
    const match = rest.match(TERM)
    if (!match) return { ok: false, code: 'not_a_quantity', at: rest }
    const [whole, mixedWhole, mixedTop, mixedBottom, top, bottom, decimal, unitText] = match
    const count =
      mixedWhole !== undefined
        ? Number(mixedWhole) + Number(mixedTop) / Number(mixedBottom)
        : top !== undefined
          ? Number(top) / Number(bottom)
          : Number(decimal)
    if (!Number.isFinite(count)) return { ok: false, code: 'not_a_quantity', at: whole }
    rest = rest.slice(whole.length)
    const unit = (unitText ?? '').replace(/[\s.]/g, '')
    if (kind === 'number') {
      if (unit !== '' || rest !== '') return { ok: false, code: 'unknown_unit', at: unit || rest }
      total += count
      continue
    }
    const factor = lookUpUnit(unit || defaultUnit, system)
    if (!factor) return { ok: false, code: 'unknown_unit', at: unit }
    if (factor.kind !== kind) return { ok: false, code: 'wrong_kind_of_unit', at: unit }
    total += count * factor.factor
  }
  if (total > 1e9) return { ok: false, code: 'too_large', at: clean }
  return { ok: true, value: total }
}
