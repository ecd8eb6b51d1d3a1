import { readFileSync, readdirSync } from 'node:fs'
import { expect, it } from 'vitest'
import { componentTokens } from '../../app/theme/components'

/** A column is drawn by its table; a trap of the focus draws nothing. */
const WITHOUT_TOKENS = ['column', 'focustrap']

it('every component of the library that is used has its tokens in the theme', () => {
  const files = readdirSync('app', { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.vue'))
  const used = new Set(
    files.flatMap((f) =>
      [...readFileSync(`app/${f}`, 'utf8').matchAll(/from 'primevue\/(\w+)'/g)].map(([, name]) => name!),
    ),
  )
  expect(used.size).toBeGreaterThan(8)
  const known = [...Object.keys(componentTokens.components ?? {}), ...WITHOUT_TOKENS]
  expect([...used].filter((name) => !known.includes(name))).toEqual([])
})
