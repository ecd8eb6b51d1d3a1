import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'
import { resolveImport } from '../../scripts/layers'

const ROOT = fileURLToPath(new URL('../..', import.meta.url))
/** What comes when it is wanted, by `import()` or not at all, and never with the bench. */
const NOT_AT_FIRST = ['zod', 'chart.js', 'vue-chartjs', 'qrcode', 'papaparse', 'ical-generator', 'svgcanvas']

/** Modules whose code, not only their types, a file draws in at once. */
const drawnIn = (source: string) =>
  [...source.matchAll(/^(?:import|export) (?!type\b)[^'"]*?from\s*['"]([^'"]+)['"]/gm)].map((m) => m[1]!)

function fileOf(stem: string): string | undefined {
  const found = ['', '.ts', '.vue', '/index.ts'].map((end) => join(ROOT, stem + end))
  return found.find((path) => existsSync(path) && statSync(path).isFile())
}

it('the first view draws in nothing that it can do without', () => {
  const waiting = ['app/stores', 'app/bench', 'app/plugins', 'app/middleware']
    .flatMap((folder) => readdirSync(join(ROOT, folder)).map((name) => join(folder, name)))
    .filter((path) => !path.endsWith('.test.ts'))
    .concat('app/app.vue')
  const seen = new Set(waiting)
  const found: string[] = []
  for (let stem = waiting.pop(); stem; stem = waiting.pop()) {
    const file = fileOf(stem)!
    for (const specifier of drawnIn(readFileSync(file, 'utf8'))) {
      if (NOT_AT_FIRST.includes(specifier)) found.push(`${stem}: ${specifier}`)
      const next = resolveImport(stem, specifier)
      if (next === undefined || seen.has(next)) continue
      seen.add(next)
      if (fileOf(next)) waiting.push(next)
    }
  }
  expect(seen.size).toBeGreaterThan(100)
  expect(found).toEqual([])
})
