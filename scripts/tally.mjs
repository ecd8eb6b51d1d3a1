/**
 * Adds up what bin/test ran. Each check left NAME.exit and, where it ran tests, NAME.json.
 * A check that failed without a failing test (a crash, a file that would not load) counts as one failure.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const folder = process.argv[2]
let passed = 0
let failed = 0
for (const file of readdirSync(folder).filter((f) => f.endsWith('.exit'))) {
  const name = file.replace('.exit', '')
  const exitCode = Number(readFileSync(join(folder, file), 'utf8'))
  const report = join(folder, `${name}.json`)
  let ran = { passed: exitCode === 0 ? 1 : 0, failed: 0 }
  if (existsSync(report)) {
    const json = JSON.parse(readFileSync(report, 'utf8'))
    ran = json.stats
      ? { passed: json.stats.expected, failed: json.stats.unexpected + json.stats.flaky }
      : { passed: json.numPassedTests, failed: json.numFailedTests }
    if (ran.passed + ran.failed === 0) ran.failed = 1
  }
  if (exitCode !== 0 && ran.failed === 0) {
    ran.failed = 1
    console.log(`${name}: an error outside of every test, see its report above`)
  }
  passed += ran.passed
  failed += ran.failed
  console.log(`${name}: ${ran.passed} passed, ${ran.failed} failed`)
}
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 && passed > 0 ? 0 : 1)
