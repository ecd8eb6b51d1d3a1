import { Writable } from 'node:stream'
import { expect, it } from 'vitest'
import { MOST_UNREAD_BYTES, streamWriter } from '../../server/utils/streamWriter'

it('a reader that lets a megabyte pile up is let go, told so once, and written to no more', () => {
  // Takes the first piece and never asks for another: a window whose machine sleeps.
  const heard: string[] = []
  const asleep = new Writable({ write: (chunk: Buffer) => heard.push(chunk.toString()) })
  let dropped = 0
  const write = streamWriter(asleep, 'come back', () => (dropped += 1))
  const piece = 'x'.repeat(100_000)
  let pieces = 0
  while (!asleep.writableEnded && pieces < 100) {
    write(piece)
    pieces += 1
  }
  expect(asleep.writableEnded).toBe(true)
  expect(pieces * piece.length).toBeGreaterThan(MOST_UNREAD_BYTES)
  expect(pieces * piece.length).toBeLessThan(MOST_UNREAD_BYTES + 3 * piece.length)
  const held = asleep.writableLength
  write(piece)
  expect([dropped, asleep.writableLength]).toEqual([1, held])
})

it('a reader that keeps up hears all', async () => {
  const heard: string[] = []
  const awake = new Writable({
    write: (chunk: Buffer, _, done) => {
      heard.push(chunk.toString())
      done()
    },
  })
  const write = streamWriter(awake, 'come back', () => heard.push('dropped'))
  for (let i = 0; i < 50; i++) write(`${i}`.padEnd(100_000))
  expect(heard.map((text) => text.trim())).toEqual(Array.from({ length: 50 }, (_, i) => `${i}`))
})
