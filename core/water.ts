import { ArgumentError } from './errors'

/**
 * Density of air-free water, kg/m³ (= g/l). Valid 0–40 °C.
 * Tilton & Taylor form, from memory; the maximum at 3.98 °C and 998.2 at 20 °C are checked in the tests.
 */
export function waterDensityKgM3(tempC: number): number {
  if (!(tempC >= -5 && tempC <= 100)) throw new ArgumentError(`tempC out of range: ${tempC}`)
  const t = tempC
  return 1000 * (1 - ((t + 288.9414) * (t - 3.9863) ** 2) / (508929.2 * (t + 68.12963)))
}
