import { existsSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'

const ROOT = fileURLToPath(new URL('../..', import.meta.url))

/** Files named in a row: `a/b.ts`, and those that follow as `c.ts`, beside it. */
function filesIn(row: string): string[] {
  let folder = ''
  return [...row.matchAll(/`([\w./[\]-]+\.(?:ts|vue|md|sh))`/g)].map(([, name]) => {
    if (!name!.includes('/')) return folder + name!
    folder = name!.slice(0, name!.lastIndexOf('/') + 1)
    return name!
  })
}

it('what the directions name is there', () => {
  const text = readFileSync(`${ROOT}/docs/architecture.md`, 'utf8')
  const table = text.slice(text.indexOf('## If you want to…'))
  const rows = table.split('\n').filter((l) => l.startsWith('| ') && !/^\| (to |-)/.test(l))
  expect(rows.length).toBeGreaterThan(20)
  const missing = rows.flatMap((row) =>
    filesIn(row)
      .filter((file) => !existsSync(`${ROOT}/${file}`))
      .map((file) => `${row.slice(2, 40).trim()}: ${file}`),
  )
  expect(missing).toEqual([])
  // One begins in two files at the most.
  for (const row of rows)
    expect(new Set(filesIn(row.split(' | ')[1]!)).size, row.slice(0, 40)).toBeLessThan(3)
  expect(filesIn('| x | `core/a.ts`, `b.ts`')).toEqual(['core/a.ts', 'core/b.ts'])
})
