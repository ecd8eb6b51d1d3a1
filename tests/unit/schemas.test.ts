import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { SCHEMAS, schemaPath, schemaText } from '../../scripts/schemas'

it.each(Object.keys(SCHEMAS) as (keyof typeof SCHEMAS)[])(
  'the published %s is the one we parse with',
  (name) => {
    expect(readFileSync(schemaPath(name), 'utf8')).toBe(schemaText(name))
  },
)
