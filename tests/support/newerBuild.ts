import { cpSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const OUTPUT = fileURLToPath(new URL('../../.output', import.meta.url))

/** The application built once more, by another name and with another shell. @returns its server's entry. */
export function newerBuild(folder: string, buildId: string): string {
  cpSync(OUTPUT, folder, { recursive: true })
  const change = (path: string, ...changes: [RegExp, string][]) => {
    const was = readFileSync(`${folder}/${path}`, 'utf8')
    const now = changes.reduce((text, [what, by]) => text.replace(what, by), was)
    if (now === was) throw new Error(`${path} is not as it was expected`)
    writeFileSync(`${folder}/${path}`, now)
  }
  change('public/sw.js', [/(url:"\/",revision:")[^"]*/, `$1${buildId}`])
  change(
    'server/chunks/nitro/nitro.mjs',
    [/("buildId": ")[^"]*/, `$1${buildId}`],
    // By its old mark a browser would hold it for the old one.
    [/("\/sw\.js": \{[^}]*"etag": )[^\n]*/, `$1"\\"${buildId}\\"",`],
    [/("\/sw\.js": \{[^}]*"size": )\d+/, `$1${readFileSync(`${folder}/public/sw.js`).length}`],
  )
  return `${folder}/server/index.mjs`
}
