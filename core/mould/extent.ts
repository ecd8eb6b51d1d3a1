import type { CavityDescription } from './describe'
import { extentOfMethod, type Extent } from './ways'

/** Extent of the largest part that tells; undefined where none does. */
export function extentOf(volume: CavityDescription): Extent | undefined {
  const known = volume.parts
    .filter((p) => p.role === 'add')
    .map((p) => extentOfMethod(p.method))
    .filter((e) => e !== undefined)
  if (known.length === 0) return undefined
  return {
    longestMm: Math.max(...known.map((e) => e.longestMm)),
    depthMm: Math.max(...known.map((e) => e.depthMm)),
  }
}
