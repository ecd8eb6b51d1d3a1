import { mkdtempSync, readFileSync, readdirSync, rmSync, statSync, symlinkSync, unlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { LogFile } from '../../server/utils/logFile'

let folder: string
let nowMs: number
const open = () => new LogFile(join(folder, 'server.log'), () => nowMs)

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'nine-ripples-log-'))
  nowMs = 1_800_000_000_000
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

it('however much is written, the log stays within its bound and ends with what came last', async () => {
  const log = open()
  const line = `${'x'.repeat(9999)}\n`
  for (let i = 0; i < 3000; i++) {
    log.write(line)
    if (i % 50 === 0) await log.flushed()
  }
  log.write('last\n')
  await log.flushed()
  const names = readdirSync(folder).sort()
  expect(names).toEqual(['server.log', 'server.log.1', 'server.log.2', 'server.log.3'])
  const bytes = names.reduce((sum, n) => sum + statSync(join(folder, n)).size, 0)
  expect(bytes).toBeGreaterThan(8e6)
  expect(bytes).toBeLessThanOrEqual(16 * 1024 * 1024)
  expect(readFileSync(join(folder, 'server.log'), 'utf8')).toMatch(/last\n$/)
})

it('a disk that is full throws nothing, is asked again after a rest, and how much is lost is said', async () => {
  // Always full, by its kind.
  symlinkSync('/dev/full', join(folder, 'server.log'))
  const log = open()
  for (let i = 0; i < 1000; i++) log.write('one\n')
  await log.flushed()
  for (let i = 0; i < 500; i++) log.write('two\n')
  unlinkSync(join(folder, 'server.log'))
  nowMs += 5000
  log.write('three\n')
  await log.flushed()
  const [told, ...kept] = readFileSync(join(folder, 'server.log'), 'utf8').trim().split('\n')
  const { lost } = JSON.parse(told!) as { lost: number }
  expect(lost).toBeGreaterThanOrEqual(501)
  expect(lost + kept.length).toBe(1501)
  expect(kept.at(-1)).toBe('three')
})

it('faster than the disk it holds no more than its bound, and loses the rest', async () => {
  const log = open()
  for (let i = 0; i < 400; i++) log.write(`${'y'.repeat(9999)}\n`)
  await log.flushed()
  expect(statSync(join(folder, 'server.log')).size).toBeLessThan(1.2e6)
  log.write('after\n')
  await log.flushed()
  const lines = readFileSync(join(folder, 'server.log'), 'utf8').trim().split('\n')
  expect(lines.at(-1)).toBe('after')
  const told = lines.filter((l) => l.startsWith('{')).map((l) => (JSON.parse(l) as { lost: number }).lost)
  expect(told.reduce((sum, n) => sum + n, 0) + lines.length - told.length).toBe(401)
})
