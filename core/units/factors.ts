/**
 * Exact unit definitions: international yard and pound (1959), US and imperial liquid measures,
 * and the 250 ml metric cup. Source: NIST SP 811 appendix B, UK Weights and Measures Act 1985 (from memory).
 */
export const GRAMS_PER = { mg: 0.001, g: 1, kg: 1000, oz: 28.349523125, lb: 453.59237 } as const

export const ML_PER = {
  ml: 1,
  cl: 10,
  dl: 100,
  l: 1000,
  in3: 16.387064,
  ft3: 28316.846592,
  metricCup: 250,
  usTsp: 4.92892159375,
  usTbsp: 14.78676478125,
  usFlOz: 29.5735295625,
  usCup: 236.5882365,
  usPint: 473.176473,
  usQuart: 946.352946,
  usGallon: 3785.411784,
  impFlOz: 28.4130625,
  impPint: 568.26125,
  impQuart: 1136.5225,
  impGallon: 4546.09,
} as const

const INCH_MM = 25.4

export const MM2_PER = { mm2: 1, cm2: 100, m2: 1e6, in2: INCH_MM ** 2, ft2: 304.8 ** 2 } as const

export const MM_PER = { mm: 1, cm: 10, m: 1000, in: INCH_MM, ft: 304.8 } as const

/** A span's length, ms. */
export const MS_PER = { s: 1000, min: 60_000, h: 3_600_000, day: 86_400_000 } as const

export function kelvinFromCelsius(tempC: number): number {
  return tempC + 273.15
}

export function celsiusFromFahrenheit(tempF: number): number {
  return ((tempF - 32) * 5) / 9
}

export function fahrenheitFromCelsius(tempC: number): number {
  return (tempC * 9) / 5 + 32
}

/** The same figure meant in the other unit, °C: 68 read as °C was 68 °F, 20 read as °F (−6.7 °C) was 20 °C. */
export const inOtherTempUnit = (tempC: number, wasTakenFor: 'C' | 'F'): number =>
  wasTakenFor === 'C' ? celsiusFromFahrenheit(tempC) : fahrenheitFromCelsius(tempC)
