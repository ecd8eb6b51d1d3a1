/**
 * Adds up what bin/test ran. Each check left NAME.exit and, where it ran tests, NAME.json.
 * What failed is named once more at the end, with its message: the reports above it are long, and logs are cut at their heads.
 * A check that failed without a failing test (a crash, a file that would not load) counts as one failure.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { stripVTControlCharacters } from 'node:util'

const MESSAGE_LINES = 12

/** Vitest's report: files, each with its tests. */
const vitestFailures = (report) =>
  report.testResults.flatMap((file) => [
    ...file.assertionResults
      .filter((test) => test.status === 'failed')
      .map((test) => ({ name: `${file.name} › ${test.fullName}`, messages: test.failureMessages })),
    ...(file.assertionResults.length === 0 && file.status === 'failed'
      ? [{ name: file.name, messages: [file.message] }]
      : []),
  ])

/** Playwright's report: suites in suites, each with its specs. */
const playwrightFailures = (suite) => [
  ...(suite.suites ?? []).flatMap(playwrightFailures),
  ...(suite.specs ?? [])
    .filter((spec) => !spec.ok)
    .map((spec) => ({
      name: `${spec.file} › ${spec.title}`,
      messages: spec.tests.flatMap((test) =>
        test.results.flatMap((result) => result.errors.map((error) => error.message)),
      ),
    })),
]

const folder = process.argv[2]
let passed = 0
let failed = 0
const failures = []
const lines = []
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
    failures.push(...(json.stats ? playwrightFailures(json) : vitestFailures(json)))
  }
  if (exitCode !== 0 && ran.failed === 0) {
    ran.failed = 1
    lines.push(`${name}: an error outside of every test, see its report above`)
  }
  passed += ran.passed
  failed += ran.failed
  lines.push(`${name}: ${ran.passed} passed, ${ran.failed} failed`)
}
for (const failure of failures) {
  console.log(`failed: ${failure.name}`)
  for (const message of failure.messages) {
    const shown = stripVTControlCharacters(message ?? '')
      .split('\n')
      .slice(0, MESSAGE_LINES)
    for (const line of shown) console.log(`  ${line.slice(0, 300)}`)
  }
}
for (const line of lines) console.log(line)
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 && passed > 0 ? 0 : 1)
