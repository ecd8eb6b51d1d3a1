/**
 * The published JSON Schemas, made from the contracts that the server itself parses with.
 * Usage: npx tsx scripts/schemas.ts writes docs/schemas; a test fails while they differ.
 */
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { z } from 'zod'
import {
  CARD_SCHEMAS,
  leftOutSchema,
  manifestSchema,
  pourFileSchema,
  pourMoreSchema,
  settingsFileSchema,
} from '../shared/bundle'
import { mouldBundleSchema } from '../shared/moulds'
import { recipeFileSchema } from '../shared/stock'

export const SCHEMAS = {
  'moulds.v1.schema.json': () => ({
    ...z.toJSONSchema(mouldBundleSchema, { io: 'input' }),
    title: 'Nine Ripples: a shelf of moulds',
    description: 'Lengths in mm, volumes in ml, areas in mm², masses in g.',
  }),
  'pour.v1.schema.json': () => ({
    ...z.toJSONSchema(pourFileSchema, { io: 'input' }),
    title: 'Nine Ripples: one pour, as in pours/<id>.json of a workshop’s file',
    description:
      'Its plan, everything that happened, and what devices read. Masses in g, volumes in ml, lengths in mm, temperatures in °C, times in s or ms since 1970.',
  }),
  'workshop.v1.schema.json': () => ({
    title: 'Nine Ripples: the files of a workshop’s zip',
    description:
      'manifest.json, settings.json, cards/<kind>.json (a list of each), pours/<id>.json (a schema of its own; more of it in pours/<id>.2.json and so on), photos/<id>.jpg, tables/<name>.csv.',
    type: 'object',
    properties: {
      'manifest.json': z.toJSONSchema(manifestSchema, { io: 'input' }),
      'left-out.json': z.toJSONSchema(leftOutSchema, { io: 'input' }),
      'pours/<id>.<n>.json': z.toJSONSchema(pourMoreSchema, { io: 'input' }),
      'settings.json': z.toJSONSchema(settingsFileSchema, { io: 'input' }),
      ...Object.fromEntries(
        Object.entries(CARD_SCHEMAS).map(([kind, schema]) => [
          `cards/${kind}.json`,
          { type: 'array', items: z.toJSONSchema(schema, { io: 'input' }) },
        ]),
      ),
    },
  }),
  'recipe.v1.schema.json': () => ({
    ...z.toJSONSchema(recipeFileSchema, { io: 'input' }),
    title: 'Nine Ripples: a recipe',
    description:
      'A plan under a name. Lengths in mm, volumes in ml, masses in g, times in s, temperatures in °C.',
  }),
}

export const schemaPath = (name: string) => fileURLToPath(new URL(`../docs/schemas/${name}`, import.meta.url))
export const schemaText = (name: keyof typeof SCHEMAS) => `${JSON.stringify(SCHEMAS[name](), null, 2)}\n`

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  for (const name of Object.keys(SCHEMAS) as (keyof typeof SCHEMAS)[])
    writeFileSync(schemaPath(name), schemaText(name))
}
