import { readFileSync, readdirSync } from 'node:fs'
import { expect, it } from 'vitest'

const FOLDERS = ['heat', 'drying', 'forecast'] as const
const CONSTANT = /^(?:export )?const ([A-Z][A-Z0-9_]+)(?:: [^=]+)? = (.*)$/gm
/** Lists of names, and what is reckoned from other constants. */
const IS_NAMES = /^(\[$|\['|Float64Array|SHAPE_POINTS\.|\(\(\) =>|\{ slab)/

interface Constant {
  name: string
  /** As it stands in the code; undefined where that is more than one figure. */
  value: number | undefined
}

function constantsOf(folder: string): Constant[] {
  return readdirSync(`core/${folder}`)
    .filter((file) => !file.endsWith('.test.ts'))
    .flatMap((file) => [...readFileSync(`core/${folder}/${file}`, 'utf8').matchAll(CONSTANT)])
    .filter(([, name, is]) => name === 'CONTACT' || name === 'SHAPE_POINTS' || !IS_NAMES.test(is!))
    .map(([, name, is]) => ({ name: name!, value: valueOf(is!) }))
}

/** Of a figure, or of one over another. */
function valueOf(text: string): number | undefined {
  const [over, under = 1, ...rest] = text
    .replaceAll(/(?<=\d)[_ ](?=\d)/g, '')
    .split('/')
    .map(Number)
  return rest.length > 0 || Number.isNaN(over! / Number(under)) ? undefined : over! / Number(under)
}

it('every constant of heat, drying and forecast has its line in docs/science.md, with source and range, and is what it says', () => {
  const lines = readFileSync('docs/science.md', 'utf8')
    .split('\n')
    .map((line) => line.split('|').map((cell) => cell.trim()))
    .filter((cells) => (FOLDERS as readonly string[]).includes(cells[1] ?? '') && cells[2]?.startsWith('`'))
  const seen = new Set<string[]>()
  for (const folder of FOLDERS)
    for (const { name, value } of constantsOf(folder)) {
      const line = lines.find((cells) => cells[1] === folder && cells[2] === `\`${name}\``)
      expect(line, `${folder}: ${name}`).toBeDefined()
      seen.add(line!)
      const [, , , is, from, range] = line!
      expect(from, name).toMatch(/^(method$|[MPED](: |, |$))/)
      if (/^[MPE]/.test(from!)) expect(range, `range of ${name}`).not.toBe('')
      const told = valueOf(is!)
      if (value !== undefined && told !== undefined) expect(told, name).toBeCloseTo(value, 3)
    }
  expect(lines.filter((l) => !seen.has(l)).map((l) => l[2])).toEqual([])
})
