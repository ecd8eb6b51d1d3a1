import { expect, it } from 'vitest'
import { timeLeftToSay } from './timeLeft'

const S = 1000
/** All that is said of a clock of this many seconds, looked at four times a second, and when. */
function said(lengthS: number, everyMs = 250, fromS = 0) {
  const clock = { startMs: 0, dueMs: lengthS * S }
  const found: [atS: number, words: string][] = []
  for (let now = fromS * S; now <= lengthS * S + 60 * S; now += everyMs) {
    const words = timeLeftToSay(clock, now - everyMs, now)
    if (words) found.push([now / S, words])
  }
  return found
}

it('says the half, then every minute of the last five, each once', () => {
  expect(said(720)).toEqual([
    [360, 'Half of it is over'],
    [420, '5 minutes left'],
    [480, '4 minutes left'],
    [540, '3 minutes left'],
    [600, '2 minutes left'],
    [660, '1 minute left'],
  ])
  expect(said(120)).toEqual([[60, '1 minute left']])
  expect(said(45)).toEqual([])
})

it('after a sleep says only where it stands, and nothing of what was over before it was looked at', () => {
  expect(timeLeftToSay({ startMs: 0, dueMs: 600 * S }, 100 * S, 490 * S)).toBe('2 minutes left')
  expect(said(600, 250, 545)).toEqual([])
  // A piece that sets for an hour is nothing to listen to.
  expect(said(3600)).toEqual([])
})
