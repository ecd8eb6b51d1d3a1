/** Which sign a workshop writes between whole and part. */
export type DecimalSign = 'point' | 'comma'

export interface NumberReading {
  value: number
  /** The same number so that it can be read one way only, in any workshop. */
  canonical: string
  /** It had signs between its thousands, or its one sign could have been such a sign. */
  dependsOnSigns: boolean
  /** What follows the number. */
  rest: string
}

const MIXED = /^(\d+)(?: |-|–)(\d+) ?\/ ?(\d+)(?![\d.,/])/
const FRACTION = /^(\d+) ?\/ ?(\d+)(?![\d.,/])/
const SPACED = /^([1-9]\d{0,2})([ '])(\d{3}(?:\2\d{3})*)(?:[.,](\d+))?(?![\d.,'"/]| ?\/| \d)/
const SIGNED = /^(?:\d+(?:[.,]\d+)*|[.,]\d+)(?![\d.,/])/

/** Decimals so that nobody takes their point for a sign of thousands: never three of them after a whole number. */
function written(whole: string, part: string): string {
  const digits = whole.replace(/^0+(?=\d)/, '')
  const shortest = part.replace(/0+$/, '')
  if (shortest === '') return digits
  const mistakable = shortest.length === 3 && digits !== '0' && digits.length <= 3
  return `${digits}.${shortest}${mistakable ? '0' : ''}`
}

/** A number as it is shown in a field: to so many decimals, and never so that it could be read in two ways. */
export function plainNumber(value: number, decimals: number): string {
  const [whole, part = ''] = Math.abs(value).toFixed(decimals).split('.') as [string, string?]
  const digits = written(whole, part)
  return value < 0 && Number(digits) !== 0 ? `-${digits}` : digits
}

function reading(whole: string, part: string, dependsOnSigns: boolean, rest: string): NumberReading {
  const canonical = written(whole === '' ? '0' : whole, part)
  return { value: Number(canonical), canonical, dependsOnSigns, rest }
}

/** Groups as thousands are written: one to three digits, not from nothing, then threes. */
function grouped(groups: readonly string[]): boolean {
  return groups.slice(1).every((g) => g.length === 3) && /^[1-9]\d{0,2}$/.test(groups[0]!)
}

function readSigned(token: string, decimal: DecimalSign, rest: string): NumberReading | undefined {
  const groups = token.split(/[.,]/)
  const signs = [...token].filter((c) => c === '.' || c === ',')
  const [first, last] = [signs[0], signs.at(-1)]
  if (first === undefined) return reading(token, '', false, rest)
  if (signs.length === 1) {
    const [whole, part] = groups as [string, string]
    // A nought in front is no way to begin thousands, nor a number with decimals.
    if (/^0\d/.test(whole)) return undefined
    const either = grouped(groups)
    if (either && first !== (decimal === 'point' ? '.' : ',')) return reading(whole + part, '', true, rest)
    return reading(whole, part, either, rest)
  }
  if (first === last)
    return grouped(groups) && signs.every((s) => s === first)
      ? reading(groups.join(''), '', true, rest)
      : undefined
  // Two signs: the last one stands once and before the part, the others between the thousands.
  const wholes = groups.slice(0, -1)
  const sound = signs.slice(0, -1).every((s) => s === first) && grouped(wholes)
  return sound ? reading(wholes.join(''), groups.at(-1)!, true, rest) : undefined
}

function readFraction(text: string): NumberReading | undefined {
  const mixed = MIXED.exec(text)
  const plain = mixed ? null : FRACTION.exec(text)
  const found = mixed ?? plain
  if (!found) return undefined
  const [whole, top, bottom] = mixed ? mixed.slice(1).map(Number) : [0, ...plain!.slice(1).map(Number)]
  // `11/2` is one and a half with its space forgotten, or five and a half: nobody can tell.
  if (plain && top! >= Math.max(10, bottom!)) return undefined
  // One and three halves is a slip of the key, not a quantity.
  if (bottom === 0 || (mixed && top! >= bottom!)) return undefined
  return {
    value: whole! + top! / bottom!,
    canonical: `${mixed ? `${whole} ` : ''}${top}/${bottom}`,
    dependsOnSigns: false,
    rest: text.slice(found[0].length),
  }
}

/**
 * Reads the number a text begins with: `1 500`, `1'500`, `1.200,5`, `1 1/2`, `2-1/2`, `.5`. Thousands are read as such
 * where they are grouped as such; where one sign could be either, `decimal` decides.
 * @param text lower case, single spaces, vulgar fractions spelled out. Undefined: no number that holds together.
 */
export function readNumber(text: string, decimal: DecimalSign): NumberReading | undefined {
  if (MIXED.test(text) || FRACTION.test(text)) return readFraction(text)
  const spaced = SPACED.exec(text)
  if (spaced) {
    const [all, first, , others, part = ''] = spaced
    return reading(first! + others!.replace(/[ ']/g, ''), part, true, text.slice(all.length))
  }
  // A sign at the very end is a number still being typed, or a full stop.
  const token = SIGNED.exec(text.replace(/[.,]$/, ''))?.[0]
  if (token === undefined) return undefined
  return readSigned(token, decimal, text.slice(token.length).replace(/^[.,]$/, ''))
}
